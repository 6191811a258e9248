import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { FeedRunView, FeedWhole } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Confirm } from '../ui/dialogs';
import { TableHead } from '../ui/TableHead';
import { isUnderWay, RUN_CAUSE_WORDS, RUN_STATE_WORDS } from './runWords';

/** A count that opens the rows behind it, where there are any. */
function Count({ n, to }: { n: number; to: string | null }) {
  const format = useFormat();
  const shown = format.number(n);
  if (n === 0 || to === null) return <span className={n === 0 ? 'text-ink3' : ''}>{shown}</span>;
  return (
    <Link className="font-semibold border-b border-[#87a59e] hover:border-ink" to={to}>
      {shown}
    </Link>
  );
}

function Counts({ run }: { run: FeedRunView }) {
  const batch = run.batchId === null ? null : `/gather/${run.batchId}`;
  const looks = run.looksBatchId === null ? batch : `/gather/${run.looksBatchId}`;
  const cells: [n: number, to: string | null][] = [
    ...([
      [run.fresh, batch],
      [run.changed, batch],
      [run.same, null],
      [run.gone, null],
    ] as const),
    ...([
      [run.looks, looks],
      [run.notTaken, batch],
    ] as const),
  ].map(([n, to]) => [n, to]);
  return cells.map(([n, to], i) => (
    <td key={i} className="px-4">
      <Count n={n} to={to} />
    </td>
  ));
}

/** What a run came to where that is no counts. */
function Said({ run }: { run: FeedRunView }) {
  const isFault = run.state === 'held' || run.state === 'failed';
  return (
    <td colSpan={6} className={`px-4 ${isFault ? 'text-madder' : 'text-ink2'}`}>
      {RUN_STATE_WORDS[run.state]}
      {run.problem && `: ${run.problem}`}
    </td>
  );
}

/** The history of a feed: one line a run, each of whose counts opens its rows. */
export function FeedRuns({ feed }: { feed: FeedWhole }) {
  const format = useFormat();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const [taking, setTaking] = useState<FeedRunView | null>(null);
  const takeBack = useMutation({
    mutationFn: (runId: number) => api.post('feeds/{id}/runs/{runId}/take-back', { id: feed.id, runId }),
    onSettled: () => refresh(queryClient, 'feeds'),
  });
  const tells = (run: FeedRunView) => ['done', 'tried', 'stopped', 'taken-out'].includes(run.state);
  return (
    <section className="sheet px-5 py-3 grow" aria-label={t`Runs`}>
      <h2 className="subtitle pb-2">{t`Runs`}</h2>
      {feed.runs.length === 0 ? (
        <p className="text-ink2">{t`It has not run yet. A trial shows what every row would come to, and writes nothing.`}</p>
      ) : (
        <table className="w-full">
          <TableHead
            titles={[t`When`, t`New`, t`Changed`, t`The same`, t`Gone`, t`To look at`, t`Not taken`]}
            acts={t`Take back`}
          />
          <tbody>
            {feed.runs.map((run) => (
              <tr key={run.id} className="border-b border-hair h-[38px]">
                <td className="px-4 whitespace-nowrap">
                  {[format.moment(run.beganAt), RUN_CAUSE_WORDS[run.cause]].filter(Boolean).join(', ')}
                </td>
                {tells(run) ? <Counts run={run} /> : <Said run={run} />}
                <td className="px-4 text-right text-ink2 whitespace-nowrap">
                  {may && run.state === 'done' && run.batchId !== null ? (
                    <button
                      className="link text-ink"
                      onClick={() => setTaking(run)}
                    >{t`Take it back out`}</button>
                  ) : (
                    tells(run) && run.state !== 'done' && RUN_STATE_WORDS[run.state]
                  )}
                  {isUnderWay(run.state) && run.batchId !== null && (
                    <Link className="link" to={`/gather/${run.batchId}`}>{t`How far`}</Link>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Confirm
        open={taking !== null}
        onClose={() => setTaking(null)}
        title={t`Take this run back out?`}
        body={t`What it brought goes again, as with any batch, and the feed is turned off: it would bring the same people once more. They come anew when you turn it on.`}
        act={t`Take it back out`}
        onAct={() => takeBack.mutateAsync(taking!.id)}
      />
    </section>
  );
}
