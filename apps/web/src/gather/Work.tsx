import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { JobView } from '@goodword/core/contract';
import { get } from '../app/api';
import { plural, useFormat } from '../app/format';
import { Empty, Heading, Loading, Problem, Progress } from '../ui/basics';
import { GatherNav } from './GatherNav';

const KINDS: Record<string, [doing: string, done: string]> = {
  'batch-read': ['Reading the file of', 'Read the file of'],
  'batch-check': ['Checking', 'Checked'],
  'batch-count': ['Counting what is written of', 'Counted what is written of'],
  'batch-bring-in': ['Bringing in', 'Brought in'],
  'batch-take-out': ['Taking out', 'Took out'],
  'bulk-act': ['Under way:', 'Done:'],
  'bulk-undo': ['Undoing:', 'Undone:'],
  'message-prepare': ['Preparing the message', 'Prepared the message'],
};

/** Whether it waits, runs, is done or was given up, in words. */
function standing(job: JobView, format: ReturnType<typeof useFormat>): string {
  if (job.state === 'done') return job.endedAt ? `done ${format.moment(job.endedAt)}` : 'done';
  if (job.state === 'failed') return `given up after ${job.attempts} ${plural(job.attempts, 'try', 'tries')}`;
  if (job.state === 'waiting') return job.attempts > 0 ? 'waits to be tried again' : 'waits its turn';
  const left = job.rate && job.total !== null ? Math.ceil((job.total - (job.done ?? 0)) / job.rate) : null;
  return left === null ? 'runs' : `${format.number(Math.round(job.rate!))} rows a second, about ${left} s left`;
}

/** Every running and finished piece of work of the organization. */
export default function Work() {
  const format = useFormat();
  const { data, error } = useQuery({ queryKey: ['jobs'], queryFn: () => get<JobView[]>('jobs'), refetchInterval: 1_500 });
  if (!data) return error ? <Problem error={error} /> : <Loading what="the work" />;
  return (
    <>
      <Heading title="Work under way" note="It goes on when you leave a page, and after a restart" />
      <GatherNav />
      <div className="sheet grow overflow-y-auto" tabIndex={0} role="region" aria-label="Work under way">
        {data.length === 0 ? (
          <Empty title="Nothing has run yet">
            <p>Bringing in a file, sending a message: what takes longer than a moment is listed here.</p>
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
                      {standing(job, format)}
                      {job.by ? `, ${job.by}` : ''}
                    </span>
                  </p>
                  {job.state === 'running' && job.total !== null && job.done !== null && (
                    <Progress
                      done={job.done}
                      total={job.total}
                      words={
                        job.unit === 'steps'
                          ? `Step ${job.done + 1} of ${job.total}`
                          : `${format.number(job.done)} of ${format.number(job.total)} ${job.unit}`
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
