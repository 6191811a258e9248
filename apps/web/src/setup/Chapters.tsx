import { plural, t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { OrganizationView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { Unsaved } from '../ui/Unsaved';

type Chapter = OrganizationView['chapters'][number];

export function Chapters({ view, may }: { view: OrganizationView; may: boolean }) {
  const format = useFormat();
  const [open, setOpen] = useState<Chapter | 'new' | null>(null);
  return (
    <section className="flex flex-col gap-2">
      <h2 className="subtitle">{t`Chapters`}</h2>
      <ul>
        {view.chapters.map((chapter) => (
          <li key={chapter.id} className="flex items-center gap-4 py-2 border-b border-hair last:border-0">
            <span className="font-semibold w-[220px]">{chapter.name}</span>
            <span className="text-ink2 grow">{chapter.postalAddress || t`The organization’s address`}</span>
            <span className="text-ink2">
              {format.number(chapter.people)}{' '}
              {plural(chapter.people, { one: 'supporter', other: 'supporters' })}
            </span>
            {may && <Button onClick={() => setOpen(chapter)}>{t`Change`}</Button>}
          </li>
        ))}
      </ul>
      {may && (
        <Button className="self-start" onClick={() => setOpen('new')}>
          {t`Open a chapter`}
        </Button>
      )}
      <Drawer
        open={open !== null}
        onClose={() => setOpen(null)}
        title={open === 'new' || open === null ? t`Open a chapter` : open.name}
      >
        {open !== null && (
          <ChapterForm
            // As it stands now: it may be changed by somebody else while this is open.
            chapter={open === 'new' ? null : (view.chapters.find(({ id }) => id === open.id) ?? open)}
            onDone={() => setOpen(null)}
          />
        )}
      </Drawer>
    </section>
  );
}

function ChapterForm({ chapter, onDone }: { chapter: Chapter | null; onDone: () => void }) {
  const queryClient = useQueryClient();
  const server = {
    name: chapter?.name ?? '',
    postalAddress: chapter?.postalAddress ?? '',
    places: chapter?.places ?? '',
  };
  const draft = useDrafting(`chapter:${chapter?.id ?? 'new'}`, { value: server, version: server });
  const { name, postalAddress, places } = draft.value;
  const set = (part: Partial<typeof server>) => draft.set({ ...draft.value, ...part });
  const save = useMutation({
    mutationFn: async (sent: typeof server): Promise<unknown> =>
      chapter
        ? api.put('chapters/{id}', { id: chapter.id, body: { ...sent, was: draft.basedOn } })
        : api.post('chapters', { body: sent }),
    onSuccess: async (_done, sent) => {
      await refresh(queryClient, 'chapters', 'organization');
      draft.saved(sent);
      onDone();
    },
    onError: () => refresh(queryClient, 'chapters', 'organization'),
  });
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => (event.preventDefault(), save.mutate(draft.value))}
    >
      <Labelled label={t`Name`}>
        <input
          className="input"
          autoFocus
          maxLength={120}
          value={name}
          onChange={(event) => set({ name: event.target.value })}
        />
      </Labelled>
      <Labelled
        label={t`Postal address`}
        hint={t`Stands under mails to its people; empty for the organization’s`}
      >
        <textarea
          className="input"
          rows={3}
          maxLength={300}
          value={postalAddress}
          onChange={(event) => set({ postalAddress: event.target.value })}
        />
      </Labelled>
      <Labelled
        label={t`Where its people live`}
        hint={t`Regions, countries, or how postcodes begin, with commas between: US-WA, Oregon, 981. A file can send people to chapters by this.`}
      >
        <input
          className="input"
          maxLength={1000}
          value={places}
          onChange={(event) => set({ places: event.target.value })}
        />
      </Labelled>
      <Unsaved draft={draft} what={t`this chapter`} />
      {draft.theirs === null && <ProblemNote error={save.error} />}
      <Button
        weight="main"
        type="submit"
        className="self-start"
        disabled={name.trim() === '' || save.isPending || draft.theirs !== null}
      >
        {chapter ? t`Save the chapter` : t`Open the chapter`}
      </Button>
    </form>
  );
}
