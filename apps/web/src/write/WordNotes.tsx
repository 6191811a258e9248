import { plural, t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { WordNoteView } from '@goodword/core/contract';
import { letterTexts, type WrittenWords } from '@goodword/core/letter';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';

const MOST_QUOTED = 300;

/** What is selected on the page or in a field, as the place that a note is about. */
export function selectedWords(): string {
  const field = document.activeElement;
  const typed =
    field instanceof HTMLTextAreaElement || field instanceof HTMLInputElement
      ? field.value.slice(field.selectionStart ?? 0, field.selectionEnd ?? 0)
      : '';
  return (typed || (window.getSelection()?.toString() ?? ''))
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, MOST_QUOTED);
}

/** Whether the words that a note is about still stand in the message. */
export function stillSays(words: WrittenWords, quote: string): boolean {
  const plain = (text: string) => text.replace(/\s+/g, ' ');
  const all = [words.subject, words.preheader, words.text, letterTexts(words.letter).join('')];
  return quote === '' || all.some((text) => plain(text).includes(quote));
}

/** Shows the place of a note, where it can be found on the page. */
function goTo(quote: string): void {
  const find = (window as { find?: (...how: unknown[]) => boolean }).find;
  window.getSelection()?.removeAllRanges();
  find?.call(window, quote.slice(0, 80), false, false, true);
}

function NoteForm({
  label,
  act,
  inTurn,
  onSay,
}: {
  label: string;
  act: string;
  /** What is said to the same note goes out in the order in which it was pressed. */
  inTurn?: string;
  onSay: (body: string) => Promise<unknown>;
}) {
  const [body, setBody] = useState('');
  const say = useMutation({
    mutationFn: () => onSay(body),
    onSuccess: () => setBody(''),
    ...(inTurn && { scope: { id: inTurn } }),
  });
  return (
    <form className="flex flex-col gap-2" onSubmit={(event) => (event.preventDefault(), say.mutate())}>
      <Labelled label={label}>
        <textarea
          className="input min-h-[72px]"
          required
          maxLength={2000}
          value={body}
          onChange={({ target }) => setBody(target.value)}
        />
      </Labelled>
      <ProblemNote error={say.error} />
      <Button type="submit" className="self-start" disabled={say.isPending || body.trim() === ''}>
        {act}
      </Button>
    </form>
  );
}

function OneNote({ id, note, words }: { id: number; note: WordNoteView; words: WrittenWords }) {
  const format = useFormat();
  const may = useMay('writer');
  const queryClient = useQueryClient();
  // An answer opens its note again: settled right after it, it has to stay so.
  const inTurn = `note ${note.id}`;
  const settle = useMutation({
    scope: { id: inTurn },
    mutationFn: (settled: boolean) =>
      api.put('messages/{id}/notes/{noteId}', { id, noteId: note.id, body: { settled } }),
    onSettled: () => refresh(queryClient, 'messages'),
  });
  const answer = async (body: string) => {
    await api.post('messages/{id}/notes', { id, body: { quote: '', answersId: note.id, body } });
    await refresh(queryClient, 'messages');
  };
  const isSettled = note.settledAt !== null;
  const line = (by: string | null, at: string, body: string) => (
    <p className="whitespace-pre-wrap break-words">
      <b>{by ?? t`Somebody who is gone`}</b>{' '}
      <span className="text-ink2 text-[12.5px]">{format.moment(at)}</span>
      <br />
      {body}
    </p>
  );
  return (
    <li className={`sheet p-4 flex flex-col gap-2 ${isSettled ? 'text-ink2' : ''}`}>
      {note.quote !== '' &&
        (stillSays(words, note.quote) ? (
          <button
            className="text-left border-l-[3px] border-ochremark pl-3 hover:bg-bench"
            onClick={() => goTo(note.quote)}
          >
            “{note.quote}”
          </button>
        ) : (
          <p className="border-l-[3px] border-hair pl-3 text-ink2">{t`“${note.quote}”, which it no longer says`}</p>
        ))}
      {line(note.by, note.at, note.body)}
      {note.answers.map((one) => (
        <div key={one.id} className="pl-4 border-l border-hair">
          {line(one.by, one.at, one.body)}
        </div>
      ))}
      {isSettled && (
        <p>{t`Settled by ${note.settledBy ?? t`somebody who is gone`}, ${format.moment(note.settledAt!)}`}</p>
      )}
      {may && !isSettled && <NoteForm label={t`Answer`} act={t`Answer`} inTurn={inTurn} onSay={answer} />}
      {may && (
        <Button
          className="self-start"
          once
          disabled={settle.isPending}
          onClick={() => settle.mutate(!isSettled)}
        >
          {isSettled ? t`Open it again` : t`Settled`}
        </Button>
      )}
      <ProblemNote error={settle.error} />
    </li>
  );
}

/** What the team says to each other beside the words: written to what is selected, answered, settled. */
export function WordNotes({ id, words }: { id: number; words: WrittenWords }) {
  const queryClient = useQueryClient();
  const may = useMay('writer');
  const [open, setOpen] = useState(false);
  const [quote, setQuote] = useState('');
  const { data = [], error } = useQuery({
    ...reading('messages/{id}/notes', { id }),
    refetchInterval: open ? 5_000 : 30_000,
  });
  const waiting = data.filter(({ settledAt }) => settledAt === null).length;
  const write = async (body: string) => {
    await api.post('messages/{id}/notes', { id, body: { quote, answersId: null, body } });
    setQuote('');
    await refresh(queryClient, 'messages');
  };
  if (!may && data.length === 0) return null;
  return (
    <>
      <Button
        // What is selected stays so while the button is pressed.
        onMouseDown={(event) => event.preventDefault()}
        onClick={() => (setQuote(selectedWords()), setOpen(true))}
      >
        {waiting > 0 ? plural(waiting, { one: '# note', other: '# notes' }) : t`Note…`}
      </Button>
      <Drawer
        open={open}
        onClose={() => setOpen(false)}
        title={t`Notes`}
        note={t`For the team; supporters never see them`}
      >
        <div className="overflow-y-auto flex flex-col gap-3">
          <ProblemNote error={error} />
          {may && (
            <div className="sheet p-4 flex flex-col gap-2">
              {quote !== '' && (
                <p className="border-l-[3px] border-ochremark pl-3">
                  “{quote}”{' '}
                  <button
                    className="link text-[12.5px]"
                    onClick={() => setQuote('')}
                  >{t`about all of it`}</button>
                </p>
              )}
              <NoteForm
                label={
                  quote === '' ? t`About all of it; select words first for a place` : t`About these words`
                }
                act={t`Note it`}
                onSay={write}
              />
            </div>
          )}
          <ul className="flex flex-col gap-3">
            {data.map((note) => (
              <OneNote key={note.id} id={id} note={note} words={words} />
            ))}
          </ul>
        </div>
      </Drawer>
    </>
  );
}
