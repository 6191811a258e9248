import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import type { ReplyView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Loading, ProblemNote } from '../ui/basics';
import { HearNav } from './HearNav';
import { refresh } from '../app/refresh';
import { reading } from '../app/reading';

const WriteTo = lazy(() => import('../sort/record/WriteTo'));

/** Answered where it stands, on the channel that they wrote on; it is done when the answer has been sent. */
function Answer({ reply, onSent, onClose }: { reply: ReplyView; onSent: () => void; onClose: () => void }) {
  const record = useQuery(reading('supporters/{id}', { id: reply.supporterId! }));
  if (!record.data) return <ProblemNote error={record.error} />;
  return (
    <Suspense>
      <WriteTo record={record.data} open onClose={onClose} answers={{ reply, onSent }} />
    </Suspense>
  );
}

/** What people wrote back, unread first, each with the person. */
export default function Replies() {
  const format = useFormat();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const [answering, setAnswering] = useState<ReplyView | null>(null);
  const { data, error, isPending } = useQuery({ ...reading('replies'), refetchInterval: 5_000 });
  const handle = useMutation({
    mutationFn: ({ id, handled }: { id: number; handled: boolean }) =>
      api.post('replies/{id}/handled', { id, body: { handled } }),
    onSuccess: () => refresh(queryClient, 'replies'),
  });
  if (isPending) return <Loading what={t`replies`} />;
  return (
    <>
      <Heading title={t`Replies`} note={t`What they wrote back`} />
      <HearNav />
      <ProblemNote error={error ?? handle.error} />
      <div className="sheet">
        {data?.length === 0 && (
          <Empty title={t`Nobody has written back yet`}>
            <p>{t`Replies to texts stand here and on the person's record.`}</p>
          </Empty>
        )}
        <ul>
          {data?.map((reply) => (
            <li
              key={reply.id}
              className={`border-b border-hair last:border-0 px-5 py-3 grid grid-cols-[220px_1fr_auto] gap-4 ${reply.handled ? 'text-ink2' : ''}`}
            >
              <div>
                {reply.supporterId ? (
                  <Link className="link" to={`/sort/supporters/${reply.supporterId}`}>
                    {reply.name}
                  </Link>
                ) : (
                  <b>{reply.from}</b>
                )}
                <p className="text-[12.5px] text-ink2">{format.moment(reply.at)}</p>
              </div>
              <div>
                <p className={reply.handled ? '' : 'font-semibold'}>{reply.body}</p>
                {reply.message && (
                  <p className="text-[12.5px] text-ink2">
                    <Trans>To “{reply.message}”</Trans>
                  </p>
                )}
              </div>
              {may && (
                <span className="flex gap-2 items-start">
                  {reply.supporterId !== null && !reply.handled && (
                    <Button onClick={() => setAnswering(reply)}>{t`Answer…`}</Button>
                  )}
                  <Button onClick={() => handle.mutate({ id: reply.id, handled: !reply.handled })}>
                    {reply.handled ? t`Open again` : t`Mark as done`}
                  </Button>
                </span>
              )}
            </li>
          ))}
        </ul>
      </div>
      {answering !== null && answering.supporterId !== null && (
        <Answer
          reply={answering}
          onSent={() => handle.mutate({ id: answering.id, handled: true })}
          onClose={() => setAnswering(null)}
        />
      )}
    </>
  );
}
