import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { RecordView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useDrafting } from '../../app/drafting';
import { refresh } from '../../app/refresh';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';
import { PersonPicker } from '../../ui/PersonPicker';
import { Unsaved } from '../../ui/Unsaved';
import { personName } from '../../ui/people';

function Greeting({ record }: { record: RecordView }) {
  const queryClient = useQueryClient();
  const own = record.household?.own ?? '';
  const draft = useDrafting(`greeting:${record.household?.id}`, { value: own, version: own });
  const words = draft.value;
  const save = useMutation({
    mutationFn: (greeting: string) =>
      api.put('supporters/{id}/household/greeting', {
        id: record.id,
        body: { greeting, was: draft.basedOn },
      }),
    onSuccess: async (_none, greeting) => {
      await refresh(queryClient, 'supporters');
      draft.saved(greeting);
    },
    onError: () => refresh(queryClient, 'supporters'),
  });
  return (
    <form className="flex flex-col gap-2" onSubmit={(event) => (event.preventDefault(), save.mutate(words))}>
      <Labelled
        label={t`Greeted as`}
        hint={t`Empty for the first names. Messages write it where ${'{Greeting}'} stands.`}
      >
        <input
          className="input"
          maxLength={200}
          placeholder={record.household?.greeting}
          value={words}
          onChange={(event) => draft.set(event.target.value)}
        />
      </Labelled>
      <Unsaved draft={draft} what={t`the greeting`} />
      {draft.theirs === null && <ProblemNote error={save.error} />}
      <Button
        type="submit"
        className="self-start"
        disabled={save.isPending || !draft.isChanged || draft.theirs !== null}
      >
        {t`Save the greeting`}
      </Button>
    </form>
  );
}

/** Whom a person lives with: one greeting for all of them, and one letter. */
export function Household({
  record,
  open,
  onClose,
}: {
  record: RecordView;
  open: boolean;
  onClose: () => void;
}) {
  const queryClient = useQueryClient();
  const act = useMutation({
    mutationFn: (withId: number | null) =>
      withId === null
        ? api.delete('supporters/{id}/household', { id: record.id })
        : api.put('supporters/{id}/household', { id: record.id, body: { withId } }),
    onSuccess: () => refresh(queryClient, 'supporters'),
  });
  const { household } = record;
  return (
    <Drawer
      open={open}
      onClose={onClose}
      title={t`Household`}
      note={t`One greeting for all of them, and one letter by post`}
    >
      <div className="sheet p-5 flex flex-col gap-4 overflow-y-auto">
        {household ? (
          <>
            <ul className="flex flex-col gap-1" aria-label={t`Who lives together`}>
              {household.members.map((member) => (
                <li key={member.id} className="flex justify-between">
                  <Link className="link" to={`/sort/supporters/${member.id}`} onClick={onClose}>
                    {member.name || t`No name on file`}
                  </Link>
                </li>
              ))}
            </ul>
            <Greeting record={record} />
            <button className="link text-madder self-start" onClick={() => act.mutate(null)}>
              <Trans>{personName(record)} does not live there any more</Trans>
            </button>
          </>
        ) : (
          <p className="text-ink2">
            <Trans>{personName(record)} is in no household. Choose whom they live with.</Trans>
          </p>
        )}
        <PersonPicker
          label={household ? t`Somebody else who lives there` : t`Whom they live with`}
          without={record.id}
          onPick={({ id }) => act.mutate(id)}
        />
        <ProblemNote error={act.error} />
      </div>
    </Drawer>
  );
}
