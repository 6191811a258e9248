import type { ChainedCommands } from '@tiptap/core';
import { t } from '@lingui/core/macro';
import { type Editor } from '@tiptap/react';
import {
  AlignCenter,
  AlignRight,
  Bold,
  Heading2,
  Italic,
  Link as LinkIcon,
  List,
  ListOrdered,
  Quote,
  Redo2,
  Undo2,
} from 'lucide-react';
import { Toolbar } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import type { Alignment } from '@goodword/core/letter';
import type { Registry } from '@goodword/core/merge';
import { Button, Labelled } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { GIVING_PAGE, LinkField } from './LinkField';
import { MergePicker } from './MergePicker';
import { PictureForm, type PictureWords } from './PictureForm';
import { PictureLibrary } from './PictureLibrary';
import { PutIn } from './PutIn';
import { putField } from './braces';

/** One of a bar that is one stop of the Tab key, with arrows between its tools. */
function Tool({
  label,
  on,
  act,
  children,
}: {
  label: string;
  on?: boolean;
  act: () => void;
  children: ReactNode;
}) {
  return (
    <Toolbar.Button
      type="button"
      aria-label={label}
      title={label}
      aria-pressed={on}
      onClick={act}
      className={`w-[30px] h-8 grid place-items-center rounded-[3px] ${on ? 'bg-ink text-white' : 'hover:bg-bench'}`}
    >
      {children}
    </Toolbar.Button>
  );
}

function AddressForm({
  withLabel,
  start,
  onDone,
}: {
  withLabel: boolean;
  start: string;
  onDone: (href: string, label: string) => void;
}) {
  const [href, setHref] = useState(start || 'https://');
  const [label, setLabel] = useState('');
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), onDone(href, label))}
    >
      {withLabel && (
        <Labelled label={t`What stands on it`}>
          <input
            className="input"
            required
            autoFocus
            maxLength={80}
            value={label}
            onChange={(event) => setLabel(event.target.value)}
          />
        </Labelled>
      )}
      <LinkField label={t`Where it leads`} value={href} onChange={setHref} />
      <Button type="submit" weight="main" className="self-start">
        {t`Put it in`}
      </Button>
    </form>
  );
}

type Asking =
  'link' | 'button' | 'gifts' | 'picture' | { src: string; words: PictureWords; isNew: boolean } | null;

const NEW_PICTURE: PictureWords = { alt: '', width: null, side: null, href: null };

const TITLES = { link: t`A link`, button: t`A button`, gifts: t`Gift buttons` };

/** Each press goes on to the next: the middle, the right, the left. */
const ALIGN_WORDS = {
  start: t`Put it in the middle`,
  center: t`In the middle; put it at the right`,
  end: t`At the right; put it at the left`,
};

/** How words are set: headings, strong, slanted, links and lists. */
function SetTools({
  editor,
  chain,
  setAsking,
}: {
  editor: Editor;
  chain: () => ChainedCommands;
  setAsking: (next: Asking) => void;
}) {
  const words = editor.isActive('heading') ? 'heading' : 'paragraph';
  const { align } = editor.getAttributes(words) as { align?: Alignment | null };
  const turn = () =>
    chain()
      .updateAttributes(words, { align: align === 'center' ? 'end' : align === 'end' ? null : 'center' })
      .run();
  return (
    <>
      <Tool
        label={t`Heading`}
        on={editor.isActive('heading')}
        act={() => chain().toggleHeading({ level: 2 }).run()}
      >
        <Heading2 size={16} />
      </Tool>
      <Tool label={t`Bold`} on={editor.isActive('bold')} act={() => chain().toggleBold().run()}>
        <Bold size={16} />
      </Tool>
      <Tool label={t`Italic`} on={editor.isActive('italic')} act={() => chain().toggleItalic().run()}>
        <Italic size={16} />
      </Tool>
      <Tool label={t`Link`} on={editor.isActive('link')} act={() => setAsking('link')}>
        <LinkIcon size={16} />
      </Tool>
      <Tool
        label={t`Bulleted list`}
        on={editor.isActive('bulletList')}
        act={() => chain().toggleBulletList().run()}
      >
        <List size={16} />
      </Tool>
      <Tool
        label={t`Numbered list`}
        on={editor.isActive('orderedList')}
        act={() => chain().toggleOrderedList().run()}
      >
        <ListOrdered size={16} />
      </Tool>
      <Tool
        label={t`Quotation`}
        on={editor.isActive('blockquote')}
        act={() => chain().toggleBlockquote().run()}
      >
        <Quote size={16} />
      </Tool>
      <Tool label={ALIGN_WORDS[align ?? 'start']} on={Boolean(align)} act={turn}>
        {align === 'end' ? <AlignRight size={16} /> : <AlignCenter size={16} />}
      </Tool>
    </>
  );
}

/** What a tool asks before it puts something in. */
function Asked({
  asking,
  setAsking,
  linked,
  chain,
  putLink,
  describe,
  putGifts,
}: {
  asking: Asking;
  setAsking: (next: Asking) => void;
  linked: string | undefined;
  chain: () => ChainedCommands;
  putLink: (href: string) => void;
  describe: (of: { src: string; isNew: boolean }, words: PictureWords) => void;
  putGifts: (href: string) => void;
}) {
  return (
    <>
      <Drawer
        open={asking === 'link' || asking === 'button' || asking === 'gifts'}
        onClose={() => setAsking(null)}
        title={asking === 'button' || asking === 'gifts' ? TITLES[asking] : TITLES.link}
        note={asking === 'gifts' ? t`A button for each amount; the page gets it in its address` : undefined}
      >
        <AddressForm
          withLabel={asking === 'button'}
          start={linked ?? (asking === 'gifts' ? GIVING_PAGE : '')}
          onDone={(href, label) =>
            asking === 'button'
              ? (chain().insertContent({ type: 'button', attrs: { href, label } }).run(), setAsking(null))
              : asking === 'gifts'
                ? putGifts(href)
                : putLink(href)
          }
        />
        {linked && asking === 'link' && (
          <Button
            className="mt-3 self-start"
            onClick={() => (chain().extendMarkRange('link').unsetLink().run(), setAsking(null))}
          >
            {t`Remove the link`}
          </Button>
        )}
      </Drawer>
      <Drawer open={asking === 'picture'} onClose={() => setAsking(null)} title={t`Pictures`}>
        <PictureLibrary
          onPick={(src, alt) => setAsking({ src, words: { ...NEW_PICTURE, alt }, isNew: true })}
        />
      </Drawer>
      <Drawer
        open={typeof asking === 'object' && asking !== null}
        onClose={() => setAsking(null)}
        title={t`The picture`}
      >
        {typeof asking === 'object' && asking !== null && (
          <PictureForm src={asking.src} start={asking.words} onDone={(words) => describe(asking, words)} />
        )}
      </Drawer>
    </>
  );
}

export function Tools({ editor, registry }: { editor: Editor; registry: Registry }) {
  const [asking, setAsking] = useState<Asking>(null);
  const chain = () => editor.chain().focus();
  const linked = editor.getAttributes('link').href as string | undefined;
  const picture = editor.isActive('image')
    ? (editor.getAttributes('image') as PictureWords & { src: string })
    : null;
  const describe = (of: { src: string; isNew: boolean }, words: PictureWords) => {
    if (of.isNew)
      chain()
        .insertContent({ type: 'image', attrs: { src: of.src, ...words } })
        .run();
    else chain().updateAttributes('image', words).run();
    setAsking(null);
  };
  const putGifts = (href: string) => {
    chain().insertContent({ type: 'gifts', attrs: { href } }).run();
    setAsking(null);
  };
  const putLink = (href: string) => {
    const empty = editor.state.selection.empty && !linked;
    if (empty)
      chain()
        .insertContent({ type: 'text', text: href, marks: [{ type: 'link', attrs: { href } }] })
        .run();
    else chain().extendMarkRange('link').setLink({ href }).run();
    setAsking(null);
  };
  return (
    <Toolbar.Root
      aria-label={t`Letter`}
      className="flex flex-wrap items-center gap-[2px] border-b border-hair px-2 py-1"
    >
      <SetTools editor={editor} chain={chain} setAsking={setAsking} />
      <PutIn editor={editor} onAsk={setAsking} />
      {picture && (
        <Toolbar.Button
          type="button"
          className="link text-[12.5px] px-2"
          onClick={() => setAsking({ src: picture.src, words: picture, isNew: false })}
        >
          {picture.alt ? t`Change the picture` : t`Say what is on it`}
        </Toolbar.Button>
      )}
      <span className="w-px h-5 bg-hair mx-1" />
      <Tool label={t`Undo`} act={() => chain().undo().run()}>
        <Undo2 size={16} />
      </Tool>
      <Tool label={t`Redo`} act={() => chain().redo().run()}>
        <Redo2 size={16} />
      </Tool>
      <span className="grow" />
      <MergePicker registry={registry} onPick={(name) => putField(editor, name)} inToolbar />
      <Asked
        asking={asking}
        setAsking={setAsking}
        linked={linked}
        chain={chain}
        putLink={putLink}
        describe={describe}
        putGifts={putGifts}
      />
    </Toolbar.Root>
  );
}
