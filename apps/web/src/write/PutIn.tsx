import { t } from '@lingui/core/macro';
import type { Editor } from '@tiptap/react';
import { DropdownMenu, Toolbar } from 'radix-ui';
import { useContext, useRef } from 'react';
import { AskPageContext } from './OwnHtml';

const ITEM = 'px-3 py-[5px] rounded-[3px] outline-none data-[highlighted]:bg-bench cursor-pointer';

const EMPTY = { type: 'paragraph' };

/** What is put in at once, without a question: its words, and what it is. */
const AT_ONCE: [string, object][] = [
  [t`Two columns`, { type: 'columns', content: [1, 2].map(() => ({ type: 'column', content: [EMPTY] })) }],
  [
    t`Three columns`,
    { type: 'columns', content: [1, 2, 3].map(() => ({ type: 'column', content: [EMPTY] })) },
  ],
  [
    t`A passage for some people`,
    {
      type: 'personal',
      attrs: {
        tree: { kind: 'all', rules: [{ kind: 'gave', did: true, atLeast: null, window: { over: 'ever' } }] },
      },
      content: [
        { type: 'fitting', content: [EMPTY] },
        { type: 'otherwise', content: [EMPTY] },
      ],
    },
  ],
  [t`The sender’s signature`, { type: 'signature' }],
  [t`A line across`, { type: 'horizontalRule' }],
];

/** The beginning of the first words within columns or a passage, from a place on; null for none. */
function firstWords(doc: Editor['state']['doc'], from: number): number | null {
  let found: number | null = null;
  doc.nodesBetween(Math.max(0, from - 2), doc.content.size, (node, at, parent) => {
    if (found !== null) return false;
    const inner = parent?.type.name === 'column' || parent?.type.name === 'fitting';
    if (node.type.name === 'paragraph' && inner && node.content.size === 0) found = at + 1;
    return true;
  });
  return found;
}

/** What is more than words is put in where the cursor stands. */
export function PutIn({
  editor,
  onAsk,
}: {
  editor: Editor;
  onAsk: (what: 'picture' | 'button' | 'gifts') => void;
}) {
  // Put in as the menu closes, which gives the focus to the letter then and not to its own button.
  const chosen = useRef<object | null>(null);
  const askPage = useContext(AskPageContext);
  const put = () => {
    const node = chosen.current;
    chosen.current = null;
    if (!node) return;
    const { from } = editor.state.selection;
    // At once: the editor's own command waits for the next frame, and a letter typed before it would be lost.
    editor.view.focus();
    editor.chain().insertContent(node).run();
    // Writing goes on in the first place for words of what was put in.
    const first = firstWords(editor.state.doc, from);
    if (first !== null) editor.commands.setTextSelection(first);
  };
  return (
    <DropdownMenu.Root>
      <Toolbar.Button asChild>
        <DropdownMenu.Trigger className="whitespace-nowrap px-2 min-h-[34px] rounded-[3px] border border-dashed border-[#8b989d] font-semibold text-[13px] hover:bg-bench">
          {t`Put in…`}
        </DropdownMenu.Trigger>
      </Toolbar.Button>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="sheet p-1 z-20"
          align="start"
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            put();
          }}
        >
          <DropdownMenu.Item className={ITEM} onSelect={() => onAsk('picture')}>
            {t`A picture…`}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onAsk('button')}>
            {t`A button…`}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onAsk('gifts')}>
            {t`Gift buttons…`}
          </DropdownMenu.Item>
          {AT_ONCE.map(([words, node]) => (
            <DropdownMenu.Item key={words} className={ITEM} onSelect={() => (chosen.current = node)}>
              {words}
            </DropdownMenu.Item>
          ))}
          {askPage && (
            <>
              <DropdownMenu.Separator className="border-t border-hair my-1" />
              <DropdownMenu.Item className={ITEM} onSelect={() => askPage()}>
                {t`A whole page of HTML, in the place of this…`}
              </DropdownMenu.Item>
            </>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
