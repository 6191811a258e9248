import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { ListView, TagView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useDrafting, type Drafting } from '../../app/drafting';
import { refresh } from '../../app/refresh';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { Unsaved } from '../../ui/Unsaved';

function Tick({
  label,
  hint,
  value,
  onChange,
}: {
  label: string;
  hint?: string;
  value: boolean;
  onChange: (value: boolean) => void;
}) {
  return (
    <label className="flex gap-3 items-start">
      <input
        type="checkbox"
        className="mt-1 accent-[#0F766B]"
        checked={value}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>
        <b>{label}</b>
        {hint && <span className="block text-ink2">{hint}</span>}
      </span>
    </label>
  );
}

/** Makes or changes a group, and has everything read anew. */
function useKeep<T>(draft: Drafting<T, unknown>, onDone: () => void) {
  const queryClient = useQueryClient();
  return useMutation({
    mutationFn: ({ send }: { sent: T; send: () => Promise<unknown> }) => send(),
    onSuccess: async (_none, { sent }) => {
      await refresh(queryClient, 'lists', 'tags');
      draft.saved(sent);
      onDone();
    },
    // Somebody was quicker: what they saved is fetched, and both are shown.
    onError: () => refresh(queryClient, 'lists', 'tags'),
  });
}

function NameInput({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  return (
    <Labelled label={t`Name`}>
      <input
        className="input"
        required
        maxLength={120}
        autoFocus
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </Labelled>
  );
}

/** What supporters are told of it. */
function ToldOfIt({
  values,
  set,
}: {
  values: {
    name: string;
    folder: string;
    isPublic: boolean;
    description: string;
    why: string;
    onPreferences: boolean;
    byForm: boolean;
  };
  set: (
    part: Partial<{
      name: string;
      folder: string;
      isPublic: boolean;
      description: string;
      why: string;
      onPreferences: boolean;
      byForm: boolean;
    }>,
  ) => void;
}) {
  return (
    <>
      <Labelled label={t`What it is`} hint={t`Beside its name, for supporters.`}>
        <textarea
          className="input"
          value={values.description}
          maxLength={500}
          onChange={(event) => set({ description: event.target.value })}
        />
      </Labelled>
      <Labelled
        label={t`Why we write to you`}
        hint={t`In the footer of every message to this list, and on the preference page.`}
      >
        <textarea
          className="input"
          value={values.why}
          maxLength={600}
          onChange={(event) => set({ why: event.target.value })}
        />
      </Labelled>
    </>
  );
}

/** A list: its name, its folder, and what supporters are told of it where it is public. */
export function ListForm({
  list,
  folders,
  onDone,
}: {
  list: ListView | null;
  folders: readonly string[];
  onDone: () => void;
}) {
  const server = {
    name: list?.name ?? '',
    folder: list?.folder ?? '',
    isPublic: list?.isPublic ?? false,
    description: list?.description ?? '',
    why: list?.why ?? '',
    onPreferences: list?.onPreferences ?? true,
    byForm: list?.byForm ?? true,
  };
  const draft = useDrafting(`list:${list?.id ?? 'new'}`, { value: server, version: list?.version ?? 0 });
  const values = draft.value;
  const set = (part: Partial<typeof values>) => draft.set({ ...values, ...part });
  const save = useKeep(draft, onDone);
  return (
    <form
      className="sheet p-5 flex flex-col gap-4 overflow-y-auto"
      onSubmit={(event) => (
        event.preventDefault(),
        save.mutate({
          sent: values,
          send: () =>
            list
              ? api.put('lists/{id}', { id: list.id, body: { ...values, basedOn: draft.basedOn } })
              : api.post('lists', { body: values }),
        })
      )}
    >
      <NameInput value={values.name} onChange={(name) => set({ name })} />
      <Labelled label={t`Folder`} hint={t`A new name makes a new folder; empty for none.`}>
        <input
          className="input"
          maxLength={80}
          list="list-folders"
          value={values.folder}
          onChange={(event) => set({ folder: event.target.value })}
        />
      </Labelled>
      <datalist id="list-folders">
        {folders.map((folder) => (
          <option key={folder} value={folder} />
        ))}
      </datalist>
      <Tick
        label={t`Public`}
        hint={t`Supporters see it by name and can agree to it.`}
        value={values.isPublic}
        onChange={(isPublic) => set({ isPublic })}
      />
      {values.isPublic && (
        <>
          <Tick
            label={t`Shown on the preference page`}
            value={values.onPreferences}
            onChange={(onPreferences) => set({ onPreferences })}
          />
          <Tick
            label={t`May be joined by a form`}
            value={values.byForm}
            onChange={(byForm) => set({ byForm })}
          />
        </>
      )}
      <ToldOfIt values={values} set={set} />
      <Unsaved draft={draft} what={t`this list`} />
      {draft.theirs === null && <ProblemNote error={save.error} />}
      <Button
        type="submit"
        weight="main"
        className="self-start"
        disabled={save.isPending || draft.theirs !== null}
      >
        {t`Save`}
      </Button>
    </form>
  );
}

/** A tag: its name, and whether chapters have it too. */
export function TagForm({ tag, above, onDone }: { tag: TagView | null; above: boolean; onDone: () => void }) {
  const server = { name: tag?.name ?? '', handedDown: tag?.handedDown ?? true };
  const draft = useDrafting(`tag:${tag?.id ?? 'new'}`, { value: server, version: server });
  const { name, handedDown } = draft.value;
  const save = useKeep(draft, onDone);
  const ofAll = above && (tag === null || tag.chapter === null);
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        const body = { name, ...(ofAll ? { handedDown } : {}) };
        const send = () =>
          tag
            ? api.put('tags/{id}', { id: tag.id, body: { ...body, was: draft.basedOn } })
            : api.post('tags', { body });
        save.mutate({ sent: draft.value, send });
      }}
    >
      <NameInput value={name} onChange={(typed) => draft.set({ name: typed, handedDown })} />
      {ofAll && (
        <Tick
          label={t`Handed down`}
          hint={t`Chapters see it and put it on; how they use it is seen here.`}
          value={handedDown}
          onChange={(on) => draft.set({ name, handedDown: on })}
        />
      )}
      <Unsaved draft={draft} what={t`this tag`} />
      {draft.theirs === null && <ProblemNote error={save.error} />}
      <Button
        type="submit"
        weight="main"
        className="self-start"
        disabled={save.isPending || draft.theirs !== null}
      >
        {t`Save`}
      </Button>
    </form>
  );
}
