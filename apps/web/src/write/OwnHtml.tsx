import { t } from '@lingui/core/macro';
import { useMutation } from '@tanstack/react-query';
import { createContext, useState, type ReactNode } from 'react';
import { MOST_OWN_HTML, type LetterDoc } from '@goodword/core/letter';
import { api, fileForm } from '../app/api';
import { useFormat } from '../app/format';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import type { Note } from '../ui/margin';

/** A page that was made elsewhere, as a file, a zip with its pictures, or pasted. */
function PageForm({ start, onDone }: { start: string; onDone: (letter: LetterDoc) => void }) {
  const [file, setFile] = useState<File | null>(null);
  const [pasted, setPasted] = useState(start);
  const bring = useMutation({
    mutationFn: () => {
      const page = file ?? new File([pasted], 'page.html', { type: 'text/html' });
      return api.post('own-html', { files: fileForm(page) });
    },
    onSuccess: onDone,
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), bring.mutate())}
    >
      <p className="text-ink2">
        {t`It is mailed as it looks. What runs or fetches something is taken out, merge fields are filled, and the way out and your address are added where it has none.`}
      </p>
      <Labelled label={t`A file`} hint={t`A page (.html), or a zip of it with its pictures; 20 MB at most`}>
        <input
          className="input"
          type="file"
          accept=".html,.htm,.zip,text/html,application/zip"
          onChange={({ target }) => setFile(target.files?.[0] ?? null)}
        />
      </Labelled>
      {!file && (
        <Labelled label={t`Or the page itself, pasted`}>
          <textarea
            className="input font-mono text-[12.5px] min-h-[260px]"
            spellCheck={false}
            maxLength={MOST_OWN_HTML}
            value={pasted}
            onChange={({ target }) => setPasted(target.value)}
          />
        </Labelled>
      )}
      <ProblemNote error={bring.error} />
      <Button
        type="submit"
        weight="main"
        className="self-start"
        disabled={bring.isPending || (!file && pasted.trim() === '')}
      >
        {bring.isPending ? t`Cleaning it…` : t`Bring it in`}
      </Button>
    </form>
  );
}

/** The way in for a page that was made elsewhere. */
export function BringInPage({
  open,
  onClose,
  start = '',
  onDone,
}: {
  open: boolean;
  onClose: () => void;
  start?: string;
  onDone: (letter: LetterDoc) => void;
}) {
  return (
    <Drawer
      open={open}
      onClose={onClose}
      wide
      title={t`A page of HTML`}
      note={t`It takes the place of the words here`}
    >
      {open && <PageForm start={start} onDone={(letter) => (onClose(), onDone(letter))} />}
    </Drawer>
  );
}

/** Asks for a page in the place of the words; null where there can be none. */
export const AskPageContext = createContext<(() => void) | null>(null);

/** What was changed in a page as it came in, for the Margin. */
export const ownNotes = (letter: LetterDoc | null): Note[] =>
  (letter?.own?.told ?? []).map((words) => ({ key: words, tone: 'plain', title: words }));

/** In the place of the editor: a letter that is a page made elsewhere. */
export function OwnHtmlPane({
  letter,
  editable,
  onChange,
  foot,
}: {
  letter: LetterDoc;
  editable: boolean;
  onChange: (letter: LetterDoc) => void;
  foot: ReactNode;
}) {
  const format = useFormat();
  const [replacing, setReplacing] = useState(false);
  const { html } = letter.own!;
  return (
    <section
      className="sheet p-5 flex flex-col gap-3 grow min-h-0 overflow-y-auto"
      aria-label={t`The letter`}
    >
      <h2 className="subtitle">{t`A page of HTML that was made elsewhere`}</h2>
      <p className="text-ink2">
        {t`It is mailed as it looks beside this, ${format.number(html.length)} letters of HTML. Its words go out as plain text too.`}
      </p>
      {editable && (
        <div className="flex flex-wrap gap-3">
          <Button onClick={() => setReplacing(true)}>{t`Change or replace it…`}</Button>
          <BringInPage open={replacing} onClose={() => setReplacing(false)} start={html} onDone={onChange} />
          <Button
            onClick={() => {
              const { own: _own, ...blocks } = letter;
              onChange(blocks);
            }}
          >
            {t`Write its words here instead`}
          </Button>
        </div>
      )}
      <div className="mt-auto">{foot}</div>
    </section>
  );
}
