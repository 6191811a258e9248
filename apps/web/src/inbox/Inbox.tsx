import { t } from '@lingui/core/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { reading } from '../app/reading';
import { HearNav } from '../hearback/HearNav';
import { Button, Heading, Loading, ProblemNote } from '../ui/basics';
import { Thread, type KeysRef } from './Thread';
import { ThreadList } from './ThreadList';
import { useThreadActs } from './useThreadActs';
import { THREADS_SEEN, type ThreadsSeen } from './views';

/** New replies are looked for so often, in milliseconds. */
const LOOK_MS = 5_000;

/** What was done last, and the way back. */
interface Told {
  words: string;
  id: number;
}

function useView(): { view: ThreadsSeen; q: string; search: string } {
  const [params] = useSearchParams();
  const view = THREADS_SEEN.find((one) => one === params.get('view')) ?? 'open';
  const search = params.toString();
  return { view, q: params.get('q') ?? '', search: search === '' ? '' : `?${search}` };
}

/** The thread that is looked at, read again as long as one looks. */
function Looking({ id, ...rest }: { id: number; onGone: (told: string) => void; keysRef: KeysRef }) {
  const { data, error } = useQuery({ ...reading('replies/{id}', { id }), refetchInterval: LOOK_MS });
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the thread`} />;
  return <Thread key={data.supporterId ?? data.from} thread={data} {...rest} />;
}

/** What people wrote back, a thread for each of them, answered and settled from one place. */
export default function Inbox() {
  const id = Number(useParams().id ?? 0);
  const { view, q, search } = useView();
  const navigate = useNavigate();
  const acts = useThreadActs();
  const [told, setTold] = useState<Told | null>(null);
  // Letters act on the thread that is open, from the list as well.
  const keysRef = useRef<((event: KeyboardEvent) => void) | null>(null);
  const { data, error } = useQuery({
    ...reading('replies', { view, q }),
    // What is done changes by what one does, and is all that ever came.
    refetchInterval: view === 'done' ? false : LOOK_MS,
    placeholderData: keepPreviousData,
  });
  const unread = data?.counts.unread ?? 0;
  // Of a thread that got a newer reply meanwhile the address names an older one.
  const current = useQuery({ ...reading('replies/{id}', { id }), enabled: id > 0 }).data?.replyId ?? id;
  const gone = (words: string) => {
    const at = data?.threads.findIndex(({ replyId }) => replyId === current) ?? -1;
    const next = data?.threads[at + 1] ?? data?.threads[at - 1];
    setTold({ words, id: current });
    if (view === 'done') return;
    void navigate(`/hear-back/replies${next ? `/${next.replyId}` : ''}${search}`);
  };
  const back = ({ id: of }: Told) =>
    acts.mutate(
      { kind: 'reopen', id: of },
      {
        onSuccess: () => {
          setTold(null);
          acts.mutate({ kind: 'aside', id: of, until: null });
          void navigate(`/hear-back/replies/${of}`);
        },
      },
    );
  return (
    <>
      <Heading title={t`Replies`} note={unread > 0 ? t`${unread} not read yet` : t`What they wrote back`} />
      <HearNav />
      <ProblemNote error={error ?? acts.error} />
      {told && (
        <p role="status" className="pb-2 flex items-center gap-3">
          <span>{told.words}</span>
          <Button once onClick={() => back(told)}>{t`Open it again`}</Button>
        </p>
      )}
      <div
        className="flex gap-4 grow min-h-0 max-[800px]:flex-col"
        onKeyDown={(event) => id > 0 && keysRef.current?.(event)}
      >
        {!error && <ThreadList data={data} view={view} current={current} />}
        {id > 0 ? (
          <Looking id={id} onGone={gone} keysRef={keysRef} />
        ) : (
          data &&
          data.threads.length > 0 && (
            <p className="text-ink2 pt-3">{t`Choose somebody to read what they wrote.`}</p>
          )
        )}
      </div>
    </>
  );
}
