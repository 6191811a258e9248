import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { RecordView } from '@goodword/core/contract';
import { ProblemError, api } from '../../app/api';
import { refresh } from '../../app/refresh';
import { Button, Labelled, ProblemNote } from '../../ui/basics';

export function Rename({ record, onDone }: { record: RecordView; onDone: () => void }) {
  const queryClient = useQueryClient();
  const [firstName, setFirst] = useState(record.firstName);
  const [lastName, setLast] = useState(record.lastName);
  /** The name that was seen when this was begun, or is known of since: no other is written over. */
  const seen = useRef(`${record.firstName} ${record.lastName}`.trim());
  const save = useMutation({
    mutationFn: () =>
      api.patch('supporters/{id}', { id: record.id, body: { firstName, lastName, was: seen.current } }),
    onError: (error) => {
      if (error instanceof ProblemError && error.problem.now !== undefined) seen.current = error.problem.now;
    },
    onSuccess: () => (void refresh(queryClient, 'supporters'), onDone()),
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-3"
      onSubmit={(event) => (event.preventDefault(), save.mutate())}
    >
      <Labelled label={t`First name`}>
        <input className="input" value={firstName} onChange={(event) => setFirst(event.target.value)} />
      </Labelled>
      <Labelled label={t`Last name`}>
        <input className="input" value={lastName} onChange={(event) => setLast(event.target.value)} />
      </Labelled>
      <ProblemNote error={save.error} />
      <Button type="submit" weight="main" className="self-start" disabled={save.isPending}>
        {t`Save the name`}
      </Button>
    </form>
  );
}
