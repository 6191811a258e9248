import { reading } from '../../app/reading';
import { t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { NoteView, TimelineItem, TimelineKind } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { useDrafting, useTyped } from '../../app/drafting';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { Unsaved } from '../../ui/Unsaved';
import { Button, Loading, ProblemNote } from '../../ui/basics';

const DOTS = {
  good: 'bg-verdigris border-verdigris',
  plain: 'bg-sheet border-[#87a59e]',
  bad: 'bg-sheet border-madder',
} as const;

/** What one may look for, in the words of the choice. */
const KINDS: [value: string, words: string][] = [
  ['', t`Everything`],
  ['delivery,reply', t`Messages and replies`],
  ['gift', t`Gifts`],
  ['permission', t`Permission`],
  ['note', t`Notes`],
  ['edit', t`Edits`],
  ['batch', t`Batches`],
] satisfies [`${TimelineKind}` | '' | 'delivery,reply', string][];

function AddNote({ supporterId }: { supporterId: number }) {
  const queryClient = useQueryClient();
  const draft = useTyped(`note:new:${supporterId}`, '');
  const body = draft.value;
  const add = useMutation({
    mutationFn: (words: string) =>
      api.post('supporters/{id}/notes', { id: supporterId, body: { body: words } }),
    onSuccess: (_none, words) => (draft.saved(words), void refresh(queryClient, 'supporters')),
  });
  return (
    <form
      className="pt-2 flex flex-col gap-2"
      onSubmit={(event) => (event.preventDefault(), add.mutate(body))}
    >
      <textarea
        className="input"
        rows={body === '' ? 1 : 3}
        aria-label={t`A note, for the team alone`}
        placeholder={t`Write a note, for the team alone`}
        maxLength={4000}
        value={body}
        onChange={(event) => draft.set(event.target.value)}
        onKeyDown={(event) =>
          event.key === 'Enter' &&
          (event.ctrlKey || event.metaKey) &&
          body.trim() !== '' &&
          !add.isPending &&
          add.mutate(body)
        }
      />
      <ProblemNote error={add.error} />
      {body.trim() !== '' && (
        <Button type="submit" className="self-start" disabled={add.isPending}>
          {t`Save the note`}
        </Button>
      )}
    </form>
  );
}

/** A note's whole words; its writer changes and deletes it where it stands. */
function Note({ note, supporterId }: { note: NoteView; supporterId: number }) {
  const queryClient = useQueryClient();
  const owner = useMay('owner');
  const draft = useDrafting(`note:${note.id}`, { value: note.body, version: note.body });
  // Whoever left in the middle of a change finds it open.
  const [opened, setOpened] = useState(draft.isChanged);
  const at = { id: supporterId, noteId: note.id };
  const act = useMutation({
    mutationFn: (body: string | null) =>
      body === null
        ? api.delete('supporters/{id}/notes/{noteId}', at)
        : api.put('supporters/{id}/notes/{noteId}', { ...at, body: { body, was: draft.basedOn } }),
    onSuccess: async (_none, body) => {
      setOpened(false);
      await refresh(queryClient, 'supporters');
      if (body === null) draft.discard();
      else draft.saved(body);
    },
    onError: () => refresh(queryClient, 'supporters'),
  });
  if (opened)
    return (
      <form
        className="flex flex-col gap-2"
        onSubmit={(event) => (event.preventDefault(), act.mutate(draft.value))}
      >
        <textarea
          className="input"
          rows={3}
          autoFocus
          aria-label={t`The note`}
          maxLength={4000}
          value={draft.value}
          onChange={(event) => draft.set(event.target.value)}
        />
        <Unsaved draft={draft} what={t`the note`} />
        <div className="flex gap-3">
          <Button
            type="submit"
            disabled={draft.value.trim() === '' || act.isPending || draft.theirs !== null}
          >
            {t`Save`}
          </Button>
          <button type="button" className="link" onClick={() => (draft.discard(), setOpened(false))}>
            {t`Leave it as it was`}
          </button>
        </div>
        {draft.theirs === null && <ProblemNote error={act.error} />}
      </form>
    );
  return (
    <>
      <p className="whitespace-pre-wrap break-words">{note.body}</p>
      {(note.mine || owner) && (
        <p className="text-[12.5px] flex gap-3">
          <button className="link text-ink2" onClick={() => setOpened(true)}>
            {t`Change`}
          </button>
          <button className="link text-ink2" onClick={() => act.mutate(null)}>
            {t`Delete`}
          </button>
        </p>
      )}
    </>
  );
}

function Item({ item, last, supporterId }: { item: TimelineItem; last: boolean; supporterId: number }) {
  const format = useFormat();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const undo = useMutation({
    mutationFn: () =>
      api.post('supporters/{id}/history/{auditId}/undo', { id: supporterId, auditId: item.undo! }),
    onSuccess: () => refresh(queryClient, 'supporters'),
  });
  return (
    <li className="grid grid-cols-[88px_20px_1fr] gap-1">
      <span className="text-ink3 text-[12.5px] pt-[1px]">{format.day(item.at)}</span>
      <span className="flex flex-col items-center">
        <span className={`w-[9px] h-[9px] rounded-full border-2 mt-[6px] ${DOTS[item.tone]}`} />
        {!last && <span className="w-px grow bg-hair" />}
      </span>
      <div className="pb-4 min-w-0">
        <p className="font-semibold break-words">
          {item.link ? (
            <Link className="hover:underline" to={item.link}>
              {item.title}
            </Link>
          ) : (
            item.title
          )}
        </p>
        {item.note && <Note note={item.note} supporterId={supporterId} />}
        <p className="text-ink2 text-[12.5px] break-words">
          {item.detail}
          {may && item.undo !== null && (
            <>
              {'. '}
              <button
                className="link"
                aria-label={t`Undo: ${item.title}`}
                onClick={() => undo.mutate()}
                disabled={undo.isPending}
              >
                {t`Undo`}
              </button>
            </>
          )}
        </p>
        {undo.error && (
          <p role="alert" className="text-madder text-[12.5px]">
            {undo.error.message}
          </p>
        )}
      </div>
    </li>
  );
}

/** Everything that passed between us, newest first; narrowed to what one looks for. */
export function Timeline({ supporterId, withNotes = true }: { supporterId: number; withNotes?: boolean }) {
  const [kinds, setKinds] = useState('');
  const mayNote = useMay('writer');
  const { data, error, isPending } = useQuery(
    reading('supporters/{id}/timeline', { id: supporterId, kinds }),
  );
  return (
    <section className="sheet p-4 overflow-y-auto min-h-0" tabIndex={0} aria-label={t`Between you`}>
      <div className="flex justify-between items-baseline border-b border-ink pb-1">
        <h2 className="subtitle">{t`Between you`}</h2>
        <select
          className="text-[12.5px] text-ink2 bg-transparent"
          aria-label={t`What to show`}
          value={kinds}
          onChange={(event) => setKinds(event.target.value)}
        >
          {KINDS.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      </div>
      {mayNote && withNotes && <AddNote supporterId={supporterId} />}
      <ProblemNote error={error} />
      {isPending && <Loading what={t`what passed between you`} />}
      {data?.length === 0 && (
        <p className="text-ink2 py-3">{kinds ? t`Nothing of this kind yet.` : t`Nothing yet.`}</p>
      )}
      <ol className="pt-3">
        {data?.map((item, i) => (
          <Item
            key={`${item.kind}-${item.at}-${item.undo ?? item.note?.id ?? i}`}
            item={item}
            last={i === data.length - 1}
            supporterId={supporterId}
          />
        ))}
      </ol>
    </section>
  );
}
