import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useParams } from 'react-router';
import type { FormView } from '@goodword/core/contract';
import { type FormDefinition } from '@goodword/core/forms';
import { api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { refresh } from '../app/refresh';
import { useMay, useSession } from '../app/session';
import { useLists } from '../app/groups';
import { Labelled, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { Unsaved } from '../ui/Unsaved';
import { Asks } from './Asks';
import { embedCode } from './draft';
import { FormPreview } from './FormPreview';
import { Items } from './Items';
import { keyOf, reading } from '../app/reading';
import { FormHead, PagePart, AfterwardsPart, JoinPart, AddressPart, Part } from './parts';

/** One sign-up form: what it asks, what it asks leave for, and where it lives. */
export default function Form() {
  const id = Number(useParams().id);
  const { data, error } = useQuery(reading('forms/{id}', { id }));
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the form`} />;
  return <Builder key={data.id} view={data} />;
}

function Builder({ view }: { view: FormView }) {
  const queryClient = useQueryClient();
  const disabled = !useMay('organizer');
  const { organization } = useSession();
  const draft = useDrafting(`form:${view.id}`, {
    value: { name: view.name, slug: view.slug, form: view.definition },
    version: view.version,
  });
  const { name, slug, form } = draft.value;
  const setName = (next: string) => draft.set({ ...draft.value, name: next });
  const setSlug = (next: string) => draft.set({ ...draft.value, slug: next });
  const setForm = (next: FormDefinition) => draft.set({ ...draft.value, form: next });
  const [showing, setShowing] = useState(false);
  const fields = useQuery(reading('fields'));
  const lists = useLists();
  const changed = draft.isChanged;
  const save = useMutation({
    mutationFn: (sent: typeof draft.value) =>
      api.put('forms/{id}', {
        id: view.id,
        body: { name: sent.name, slug: sent.slug, version: draft.basedOn, definition: sent.form },
      }),
    onSuccess: async (_done, sent) => {
      await refresh(queryClient, 'forms');
      draft.saved(sent);
    },
    // Somebody was quicker: what they saved is fetched, and both are shown.
    onError: () => queryClient.invalidateQueries({ queryKey: keyOf('forms/{id}', { id: view.id }) }),
  });
  const open = useMutation({
    mutationFn: () => api.put('forms/{id}/open', { id: view.id, body: { open: !view.open } }),
    onSuccess: () => refresh(queryClient, 'forms'),
  });
  const set = (change: Partial<FormDefinition>) => setForm({ ...form, ...change });
  useMargin(notesOf(view, changed));
  return (
    <>
      <FormHead
        view={view}
        setShowing={setShowing}
        disabled={disabled}
        changed={changed}
        open={open}
        draft={draft}
        save={save}
      />
      <Unsaved draft={draft} what={t`this form`} />
      <ProblemNote error={draft.theirs === null ? (save.error ?? open.error) : open.error} />
      <div className="grid grid-cols-[1fr_330px] gap-4 grow min-h-0">
        <div className="sheet p-5 overflow-y-auto" tabIndex={0} role="region" aria-label={t`The form`}>
          <PagePart form={form} disabled={disabled} set={set} />
          <Part title={t`What it asks`}>
            <Items form={form} fields={fields.data ?? []} disabled={disabled} onChange={setForm} />
          </Part>
          <Part title={t`Permission it asks for`}>
            <Asks
              form={form}
              lists={lists.data ?? []}
              organization={organization.name}
              disabled={disabled}
              onChange={setForm}
            />
          </Part>
          <AfterwardsPart form={form} disabled={disabled} set={set} />
          <JoinPart form={form} disabled={disabled} set={set} />
          <AddressPart
            name={name}
            disabled={disabled}
            setName={setName}
            slug={slug}
            setSlug={setSlug}
            form={form}
            set={set}
          />
        </div>
        <div className="overflow-y-auto min-h-0" tabIndex={0} role="region" aria-label={t`Preview`}>
          <FormPreview form={form} />
        </div>
      </div>
      <Drawer
        open={showing}
        onClose={() => setShowing(false)}
        title={t`Where it lives`}
        note={view.open ? t`Open to everybody` : t`Closed: the page says so, kindly`}
      >
        <Lives view={view} />
      </Drawer>
    </>
  );
}

function notesOf(view: FormView, changed: boolean): Note[] {
  const { counts, waiting } = view;
  return [
    ...view.faults.map((fault, i): Note => ({
      key: `fault-${i}`,
      tone: 'fault',
      title: fault.message,
      anchor: fault.field.startsWith('asks.') ? `ask-${fault.field.slice(5)}` : undefined,
    })),
    ...(changed
      ? [
          {
            key: 'changed',
            tone: 'doubt' as const,
            title: t`Not saved yet`,
            body: t`Whoever joins meanwhile sees, and agrees to, the version before.`,
          },
        ]
      : []),
    {
      key: 'counts',
      tone: 'plain',
      title: t`${counts.joined} joined`,
      body: t`${counts.seen} saw it, ${counts.begun} began, ${counts.confirmed} confirmed; ${plural(waiting, { one: '# has', other: '# have' })} not confirmed yet.`,
    },
    {
      key: 'evidence',
      tone: 'good',
      title: t`The words are the evidence`,
      body: t`Each entry keeps the words that stood beside the box, and every version of the form is kept.`,
    },
  ];
}

function Lives({ view }: { view: FormView }) {
  const code = (label: string, text: string) => (
    <Labelled label={label}>
      <textarea
        className="input font-mono text-[12px] min-h-[84px]"
        readOnly
        value={text}
        onFocus={(event) => event.target.select()}
      />
    </Labelled>
  );
  return (
    <div className="sheet p-5 flex flex-col gap-4 overflow-y-auto">
      <p>
        <a className="link" href={view.url} target="_blank" rel="noreferrer">
          {view.url}
        </a>
      </p>
      <div className="flex gap-5 items-center">
        <img src={`/join/${view.slug}/qr.svg`} alt={t`QR code of ${view.url}`} width={150} height={150} />
        <p>
          <Trans>
            For posters:{' '}
            <a className="link" href={`/join/${view.slug}/qr.svg`} download={`${view.slug}.svg`}>
              SVG
            </a>
            ,{' '}
            <a className="link" href={`/join/${view.slug}/qr.png`} download={`${view.slug}.png`}>
              PNG
            </a>
          </Trans>
        </p>
      </div>
      {code(
        t`In a page of yours, as a frame that sizes itself`,
        embedCode('frame', view.url, view.definition, view.name),
      )}
      {code(t`In a page of yours, as plain HTML`, embedCode('plain', view.url, view.definition, view.name))}
    </div>
  );
}
