import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import type { BatchState, BatchView } from '@goodword/core/contract';
import { get } from '../app/api';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Loading, Problem } from '../ui/basics';
import { GatherNav } from './GatherNav';

export const BATCH_WORDS: Record<BatchState, string> = {
  draft: 'not settled yet',
  checking: 'being checked',
  checked: 'checked, not in yet',
  bringing: 'coming in',
  stopped: 'stopped half-way',
  done: 'brought in',
  'taking-out': 'being taken out',
  'taken-out': 'taken back out',
  failed: 'failed',
};

/** All batches, newest first. */
export default function Batches() {
  const navigate = useNavigate();
  const format = useFormat();
  const may = useMay('organizer');
  const { data, error, isPending } = useQuery({ queryKey: ['batches'], queryFn: () => get<BatchView[]>('batches'), refetchInterval: 4_000 });
  if (isPending) return <Loading what="batches" />;
  return (
    <>
      <Heading title="Gather" note="Batches of people, each brought in with its permission">
        {may && (
          <Button weight="main" onClick={() => void navigate('/gather/new')}>
            Bring in a file
          </Button>
        )}
      </Heading>
      <GatherNav />
      <Problem error={error} />
      <div className="sheet grow overflow-y-auto" tabIndex={0} role="region" aria-label="Batches">
        {data?.length === 0 ? (
          <Empty title="Nobody has been brought in by a file yet">
            <p>
              Take the sign-up sheet of your last event: one header row, one person a row. You will see what becomes of every row before anything is
              changed.
            </p>
            {may && (
              <Link className="link text-ink" to="/gather/new">
                Bring in the first file
              </Link>
            )}
          </Empty>
        ) : (
          <table className="w-full">
            <thead>
              <tr className="border-b border-ink text-left text-[13px] text-ink2">
                {['Batch', 'Stands', 'Rows', 'New', 'Updated', 'Not in', 'Began'].map((title) => (
                  <th key={title} className="px-4 py-2 font-normal">
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {data?.map((batch) => (
                <tr key={batch.id} className="border-b border-hair">
                  <td className="px-4 py-2 font-semibold">
                    <Link className="hover:underline" to={`/gather/${batch.id}`}>
                      {batch.name}
                    </Link>
                  </td>
                  <td className="px-4">{BATCH_WORDS[batch.state]}</td>
                  <td className="px-4">{format.number(batch.rows)}</td>
                  <td className="px-4">{format.number((batch.counts.new ?? 0) + (batch.counts.shares ?? 0))}</td>
                  <td className="px-4">{format.number(batch.counts.update ?? 0)}</td>
                  <td className="px-4">{format.number((batch.counts.failed ?? 0) + (batch.counts.look ?? 0))}</td>
                  <td className="px-4 text-ink2">
                    {format.moment(batch.createdAt)}, {batch.createdBy}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
    </>
  );
}
