import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { JobView } from '@goodword/core/contract';
import { useFormat } from '../app/format';
import { Empty, Heading, Loading, ProblemNote, Progress } from '../ui/basics';
import { GatherNav } from './GatherNav';
import { reading } from '../app/reading';

const KINDS: Record<string, [doing: string, done: string]> = {
  'batch-read': [t`Reading the file of`, t`Read the file of`],
  'batch-check': [t`Checking`, t`Checked`],
  'batch-count': [t`Counting what is written of`, t`Counted what is written of`],
  'batch-bring-in': [t`Bringing in`, t`Brought in`],
  'batch-take-out': [t`Taking out`, t`Took out`],
  'bulk-act': [t`Under way:`, t`Done:`],
  'bulk-undo': [t`Undoing:`, t`Undone:`],
  'message-proof': [t`Looking through the readers`, t`Looked through the readers`],
  'message-prepare': [t`Preparing the message`, t`Prepared the message`],
};

/** Whether it waits, runs, is done or was given up, in words. */
function jobState(job: JobView, format: ReturnType<typeof useFormat>): string {
  if (job.state === 'done') return job.endedAt ? `done ${format.moment(job.endedAt)}` : 'done';
  if (job.state === 'failed')
    return t`given up after ${job.attempts} ${plural(job.attempts, { one: 'try', other: 'tries' })}`;
  if (job.state === 'waiting') return job.attempts > 0 ? t`waits to be tried again` : t`waits its turn`;
  const left = job.rate && job.total !== null ? Math.ceil((job.total - (job.done ?? 0)) / job.rate) : null;
  return left === null
    ? 'runs'
    : t`${format.number(Math.round(job.rate!))} rows a second, about ${left} s left`;
}

/** Every running and finished piece of work of the organization. */
export default function Work() {
  const format = useFormat();
  const { data, error } = useQuery({ ...reading('jobs'), refetchInterval: 1_500 });
  if (!data) return error ? <ProblemNote error={error} /> : <Loading what={t`the work`} />;
  return (
    <>
      <Heading title={t`Work under way`} note={t`It goes on when you leave a page, and after a restart`} />
      <GatherNav />
      <div className="sheet grow overflow-y-auto" tabIndex={0} role="region" aria-label={t`Work under way`}>
        {data.length === 0 ? (
          <Empty title={t`Nothing has run yet`}>
            <p>
              <Trans>
                Bringing in a file, sending a message: what takes longer than a moment is listed here.
              </Trans>
            </p>
          </Empty>
        ) : (
          <ul>
            {data.map((job) => {
              const [doing, done] = KINDS[job.kind] ?? [job.kind, job.kind];
              return (
                <li key={job.id} className="border-b border-hair px-5 py-3">
                  <p className="flex gap-2">
                    <span className="grow">
                      {job.state === 'done' ? done : doing}{' '}
                      {job.link ? (
                        <Link className="link" to={job.link}>
                          {job.subject}
                        </Link>
                      ) : (
                        job.subject
                      )}
                    </span>
                    <span className="text-ink2">
                      {jobState(job, format)}
                      {job.by ? `, ${job.by}` : ''}
                    </span>
                  </p>
                  {job.state === 'running' && job.total !== null && job.done !== null && (
                    <Progress
                      done={job.done}
                      total={job.total}
                      words={
                        job.unit === 'steps'
                          ? t`Step ${job.done + 1} of ${job.total}`
                          : t`${format.number(job.done)} of ${format.number(job.total)} ${job.unit}`
                      }
                    />
                  )}
                  {job.error && job.state !== 'done' && <p className="text-madder">{job.error}</p>}
                </li>
              );
            })}
          </ul>
        )}
      </div>
    </>
  );
}
