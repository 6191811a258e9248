import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useRef } from 'react';
import type { ThreadView } from '@goodword/core/contract';
import { reading } from '../app/reading';
import { ProblemNote } from '../ui/basics';
import { NoteForm } from './NoteForm';
import type { useThreadActs } from './useThreadActs';

const LetterTo = lazy(async () => ({ default: (await import('../sort/record/LetterTo')).LetterTo }));

/** What is open below the thread. */
export type Below = 'answer' | 'note' | null;

/** Answered where it stands, on the channel that they wrote on; it is done when the answer has been sent. */
function Answer({
  thread,
  supporterId,
  onSent,
}: {
  thread: ThreadView;
  supporterId: number;
  onSent: () => void;
}) {
  const record = useQuery(reading('supporters/{id}', { id: supporterId }));
  // Whoever opens it by a key goes on in it with Tab.
  const sheet = useRef<HTMLDivElement>(null);
  useEffect(() => {
    sheet.current?.focus({ preventScroll: true });
    sheet.current?.scrollIntoView?.({ block: 'start' });
  }, [record.data === undefined]);
  return (
    <div ref={sheet} tabIndex={-1} role="group" aria-label={t`Your answer`} className="shrink-0 outline-none">
      <ProblemNote error={record.error} />
      {record.data && (
        <Suspense>
          <LetterTo record={record.data} answers={{ reply: thread, after: thread.after, onSent }} />
        </Suspense>
      )}
    </div>
  );
}

/** A note or an answer, while it is written. */
export function BelowThread({
  thread,
  supporterId,
  below,
  acts,
  onClose,
  onSent,
}: {
  thread: ThreadView;
  supporterId: number;
  below: Below;
  acts: ReturnType<typeof useThreadActs>;
  onClose: () => void;
  onSent: () => void;
}) {
  const keep = (body: string, kept: () => void) =>
    acts.mutate(
      { kind: 'note', id: thread.replyId, supporterId, body },
      { onSuccess: () => (kept(), onClose()) },
    );
  if (below === 'note')
    return <NoteForm {...{ supporterId, onClose }} isKeeping={acts.isPending} onKeep={keep} />;
  return below === 'answer' ? <Answer {...{ thread, supporterId, onSent }} /> : null;
}
