import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useEffect, useLayoutEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { Link } from 'react-router';
import type { ThreadView } from '@goodword/core/contract';
import { useMay, useSession } from '../app/session';
import { Button, ProblemNote } from '../ui/basics';
import { useMargin } from '../ui/margin';
import { AsideMenu } from './AsideMenu';
import { BelowThread, type Below } from './BelowThread';
import { concernNotes, type FoundConcern } from './concernNotes';
import { ConcernSheet } from './ConcernSheet';
import { PersonBeside } from './PersonBeside';
import { ThreadItems } from './ThreadItems';
import { useConcerns } from './useConcerns';
import { useThreadActs, type ThreadAct } from './useThreadActs';

/** What letters do now, for whoever holds the focus around the thread. */
export type KeysRef = RefObject<((event: KeyboardEvent) => void) | null>;

/** Words that seem to ask to stop: a person says what was meant, and until then nothing goes there. */
function Question({ thread, act }: { thread: ThreadView; act: (act: ThreadAct) => void }) {
  const { question, replyId: id, channel } = thread;
  if (!question) return null;
  const settle = (meant: boolean) => act({ kind: 'settle', id, taskId: question.taskId, meant });
  return (
    <div className="border-l-[3px] border-madder pl-3 flex flex-col gap-2" role="status">
      <p>
        <Trans>
          “{question.words}” may mean that they want no more. Until that is said,{' '}
          {channel === 'text' ? t`texts` : t`emails`} to them are on hold.
        </Trans>
      </p>
      <span className="flex flex-wrap gap-2">
        <Button once onClick={() => settle(true)}>{t`They meant it: opt them out`}</Button>
        <Button once onClick={() => settle(false)}>{t`They did not mean it`}</Button>
      </span>
    </div>
  );
}

/** Whose it is to answer. */
function Given({ thread, act }: { thread: ThreadView; act: (act: ThreadAct) => void }) {
  const { teammate } = useSession();
  const { mates, assignedTo, replyId: id } = thread;
  // Who may answer no longer is still told to have it.
  const known = assignedTo === null || mates.some((mate) => mate.id === assignedTo.id);
  return (
    <label className="flex items-center gap-2">
      <span className="text-ink2">{t`For`}</span>
      <select
        className="input !w-auto"
        value={assignedTo?.id ?? ''}
        onChange={({ target }) =>
          act({ kind: 'give', id, to: target.value === '' ? null : Number(target.value) })
        }
      >
        <option value="">{t`whoever comes first`}</option>
        {!known && <option value={assignedTo!.id}>{assignedTo!.name}</option>}
        {mates.map((mate) => (
          <option key={mate.id} value={mate.id}>
            {mate.id === teammate.id ? t`me` : mate.name}
          </option>
        ))}
      </select>
    </label>
  );
}

function Who({ thread }: { thread: ThreadView }) {
  const { supporterId, name, from, channel } = thread;
  return (
    <div className="min-w-0 grow basis-[320px]">
      <h2 className="subtitle break-words">
        {supporterId === null ? (
          name
        ) : (
          <Link className="link" to={`/sort/supporters/${supporterId}`}>
            {name}
          </Link>
        )}
      </h2>
      <p className="text-ink2 break-words">
        {supporterId === null ? (
          <Trans>
            Nobody’s yet:{' '}
            <Link className="link" to="/sort">
              bring them in
            </Link>{' '}
            with it, then write to them from their record
          </Trans>
        ) : (
          from
        )}
      </p>
      {supporterId !== null && <PersonBeside supporterId={supporterId} channel={channel} />}
    </div>
  );
}

/** Letters do what the buttons say, while the thread has the focus and nobody types. */
function onKeys(does: Record<string, () => void>): (event: KeyboardEvent) => void {
  return (event) => {
    const target = event.target as HTMLElement;
    // What lies on top, a sheet or a menu, has keys of its own.
    const isBeside = !event.currentTarget.contains(target);
    const isTyping = isBeside || target.closest('input, textarea, select, [contenteditable="true"]') !== null;
    const chosen = does[event.key];
    if (isTyping || !chosen || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    chosen();
  };
}

/** Keys are for the thread that is seen: while the next one loads there is none for them to act on. */
function useKeys(keysRef: KeysRef, may: boolean, does: Record<string, () => void>): void {
  useLayoutEffect(() => {
    keysRef.current = may ? onKeys(does) : null;
    return () => {
      keysRef.current = null;
    };
  });
}

/** What can be done about the whole of it. */
function Acts({
  thread,
  below,
  setBelow,
  acts,
  aside,
}: {
  thread: ThreadView;
  below: Below;
  setBelow: (below: Below) => void;
  /** Whether the times are offered until which it is put aside. */
  aside: { open: boolean; onOpen: (open: boolean) => void };
  acts: { done: () => void; reopen: () => void; aside: (until: string | null) => void };
}) {
  const { supporterId, open, asideUntil } = thread;
  return (
    <div className="p-3 flex flex-wrap gap-2 border-t border-hair">
      {supporterId !== null && below !== 'answer' && (
        <Button weight="main" aria-keyshortcuts="a" onClick={() => setBelow('answer')}>
          {t`Answer`}
        </Button>
      )}
      {below === 'answer' && <Button onClick={() => setBelow(null)}>{t`Close the answer`}</Button>}
      {open === 0 && <Button once aria-keyshortcuts="d" onClick={acts.reopen}>{t`Open again`}</Button>}
      {open > 0 && <Button once aria-keyshortcuts="d" onClick={acts.done}>{t`Mark as done`}</Button>}
      {open > 0 && <AsideMenu {...aside} onAside={acts.aside} />}
      {asideUntil !== null && <Button onClick={() => acts.aside(null)}>{t`Take up now`}</Button>}
      {supporterId !== null && (
        <Button aria-keyshortcuts="n" onClick={() => setBelow('note')}>
          {t`Note…`}
        </Button>
      )}
    </div>
  );
}

/** A thread is read from its end: it begins there, and goes there when something comes. */
function useNewestInView(items: number): RefObject<HTMLDivElement | null> {
  const all = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (all.current) all.current.scrollTop = all.current.scrollHeight;
  }, [items]);
  return all;
}

/** One thread with its acts, and what keys do about it. */
export function Thread({
  thread,
  onGone,
  keysRef,
}: {
  thread: ThreadView;
  onGone: (told: string) => void;
  keysRef: KeysRef;
}) {
  const may = useMay('organizer');
  const acts = useThreadActs();
  const [below, setBelow] = useState<Below>(null);
  const [taken, setTaken] = useState<FoundConcern | null>(null);
  const [asideOpen, setAsideOpen] = useState(false);
  const { replyId: id, supporterId, open, name } = thread;
  const act = (one: ThreadAct) => acts.mutate(one);
  const gone = (one: ThreadAct, told: string) => acts.mutate(one, { onSuccess: () => onGone(told) });
  // Whoever may answer has read it with that; a viewer only looks.
  useEffect(() => {
    if (may && open > 0) act({ kind: 'read', id });
  }, [id, may]);
  const { concerns, see } = useConcerns(thread);
  const take = (concern: FoundConcern) => {
    const seeing = { onSuccess: () => see(concern) };
    if (concern.kind === 'leaving') return acts.mutate({ kind: 'no', id: concern.item.id }, seeing);
    if (supporterId === null) return;
    if (concern.kind !== 'complaint') return setTaken(concern);
    const body = t`A complaint: “${concern.item.words}”`.slice(0, 4000);
    acts.mutate({ kind: 'note', id, supporterId, body }, seeing);
  };
  useMargin(concernNotes(concerns, may ? take : null));
  const whole = {
    done: () => gone({ kind: 'done', id }, t`Done with ${name}.`),
    reopen: () => act({ kind: 'reopen', id }),
    aside: (until: string | null) =>
      until === null
        ? act({ kind: 'aside', id, until })
        : gone({ kind: 'aside', id, until }, t`${name} is put aside.`),
  };
  const region = useRef<HTMLElement>(null);
  const newest = useNewestInView(thread.items.length);
  useEffect(() => region.current?.focus(), []);
  const close = () => (setBelow(null), region.current?.focus());
  useKeys(keysRef, may, {
    ...Object.fromEntries(concerns.map((concern, i) => [String(i + 1), () => take(concern)])),
    ...(supporterId === null ? {} : { a: () => setBelow('answer'), n: () => setBelow('note') }),
    d: open > 0 ? whole.done : whole.reopen,
    g: () => region.current?.querySelector('select')?.focus(),
    ...(open > 0 ? { p: () => setAsideOpen(true) } : {}),
  });
  return (
    <section
      ref={region}
      tabIndex={-1}
      aria-label={t`Replies of ${name}`}
      className="sheet grow min-w-0 flex flex-col min-h-0 outline-none"
    >
      <div className="p-4 pb-3 flex flex-wrap items-start justify-between gap-3 border-b border-hair">
        <Who thread={thread} />
        {may && <Given thread={thread} act={act} />}
      </div>
      <div ref={newest} className="p-4 overflow-y-auto grow min-h-0 flex flex-col gap-4" tabIndex={0}>
        <ProblemNote error={acts.error} />
        <ThreadItems items={thread.items} from={thread.from} concerns={concerns} />
        {may && <Question thread={thread} act={act} />}
        {supporterId !== null && (
          <BelowThread
            {...{ thread, supporterId, below, acts }}
            onClose={close}
            onSent={() => (setBelow(null), onGone(t`Your answer to ${name} is on its way.`))}
          />
        )}
      </div>
      {may && (
        <Acts
          {...{ thread, below, setBelow }}
          acts={whole}
          aside={{ open: asideOpen, onOpen: setAsideOpen }}
        />
      )}
      {supporterId !== null && (
        <ConcernSheet supporterId={supporterId} concern={taken} onClose={() => setTaken(null)} />
      )}
    </section>
  );
}
