import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Navigate, useParams } from 'react-router';
import type { RecordView } from '@goodword/core/contract';
import { ProblemError, api } from '../../app/api';
import { useFormat } from '../../app/format';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { Loading, PageTitle, ProblemNote } from '../../ui/basics';
import { personName } from '../../ui/people';
import { BulkProgress } from '../people/BulkProgress';
import { GroupChips } from './GroupChips';
import { Ledger } from './Ledger';
import { Reach } from './Reach';
import { RecordActs } from './RecordActs';
import { Timeline } from './Timeline';
import { reading } from '../../app/reading';

/** Records that were brought into this one, each with the way back. */
function MergedFrom({ record }: { record: RecordView }) {
  const format = useFormat();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const part = useMutation({
    mutationFn: (mergingId: number) =>
      api.delete('supporters/{id}/merging/{mergingId}', { id: record.id, mergingId }),
    onSuccess: () => refresh(queryClient, 'supporters'),
  });
  return record.mergedFrom.map((one) => (
    <p key={one.mergingId} className="text-ink2 text-[12.5px]">
      <Trans>
        With the record of {one.name || t`somebody without a name`} since {format.day(one.at)}.
      </Trans>{' '}
      {may && (
        <button className="link" onClick={() => part.mutate(one.mergingId)} disabled={part.isPending}>
          {t`Part them again`}
        </button>
      )}
      {part.error && (
        <span role="alert" className="text-madder">
          {' '}
          {part.error.message}
        </span>
      )}
    </p>
  ));
}

function Who({ record }: { record: RecordView }) {
  const format = useFormat();
  const { household } = record;
  const parts = [
    record.greeting && t`Greeted as “${record.greeting}”`,
    household && t`household of ${household.members.length}`,
    record.chapter.name,
    `since ${format.month(record.createdAt)}`,
  ];
  return (
    <div className="grow min-w-0">
      <PageTitle name={personName(record)} />
      <h1 className="title truncate">{personName(record)}</h1>
      <p className="text-ink2">{parts.filter(Boolean).join(' · ')}</p>
      <MergedFrom record={record} />
    </div>
  );
}

/** One supporter: who they are, what passed between us, and what they agreed to. */
export default function Record() {
  const id = Number(useParams().id);
  const { data: record, error } = useQuery(reading('supporters/{id}', { id }));
  const instead = error instanceof ProblemError ? error.problem.instead : undefined;
  if (instead) return <Navigate to={`/sort/supporters/${instead}`} replace />;
  if (error) return <ProblemNote error={error} />;
  if (!record) return <Loading what={t`the record`} />;
  return (
    <div className="flex gap-5 grow min-h-0">
      <div className="grow min-w-0 flex flex-col min-h-0">
        <div className="flex items-center gap-4 pb-3">
          <span
            className="w-[52px] h-[52px] shrink-0 rounded-paper bg-[#cddad6] grid place-items-center font-bold text-[18px]"
            aria-hidden="true"
          >
            {(record.firstName[0] ?? '') + (record.lastName[0] ?? '')}
          </span>
          <Who record={record} />
          <div className="flex gap-2 shrink-0">
            <RecordActs key={id} record={record} />
          </div>
        </div>
        <BulkProgress />
        <GroupChips record={record} />
        <div className="grid grid-cols-2 gap-4 grow min-h-0 max-[900px]:grid-cols-1 max-[900px]:min-h-[1200px]">
          <Reach record={record} />
          <Timeline key={id} supporterId={id} />
        </div>
      </div>
      <Ledger record={record} />
    </div>
  );
}
