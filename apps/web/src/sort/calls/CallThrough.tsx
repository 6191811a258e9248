import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { CallListView, CallRow, CallWho } from '@goodword/core/contract';
import { useFormat } from '../../app/format';
import { Button, Loading, ProblemNote } from '../../ui/basics';
import { Unsaved } from '../../ui/Unsaved';
import { Timeline } from '../record/Timeline';
import { keyAction, isForTheCall } from './keys';
import { useCall, type CallDraft } from './useCall';
import { keyOf, reading } from '../../app/reading';

function Outcomes({
  options,
  value,
  choose,
}: {
  options: readonly string[];
  value: string | null;
  choose: (outcome: string) => void;
}) {
  return (
    <div role="radiogroup" aria-label={t`What came of it`} className="flex flex-wrap gap-2">
      {options.map((option, i) => (
        <button
          key={option}
          type="button"
          role="radio"
          aria-checked={value === option}
          onClick={() => choose(option)}
          className={`rounded-paper border px-3 min-h-[36px] font-semibold ${value === option ? 'bg-ink text-white border-ink' : 'border-[#8b989d] bg-sheet hover:bg-bench'}`}
        >
          {i < 9 && <span className="font-mono text-[12px] opacity-70 pr-2">{i + 1}</span>}
          {option}
        </button>
      ))}
    </div>
  );
}

/** Whom one calls, at which number, and what is known of them. */
function Callee({ row }: { row: CallRow }) {
  const format = useFormat();
  return (
    <div className="flex items-start gap-4">
      <div className="grow">
        <h2 className="title">
          <Link className="hover:underline" to={`/sort/supporters/${row.supporterId}`}>
            {row.name}
          </Link>
        </h2>
        <p className="text-ink2">
          {[
            t`Number ${row.position}`,
            row.stage && t`at the stage “${row.stage}”`,
            row.hours.from === null && row.phone && t`calls ${row.hours.words} there`,
            row.lastGift
              ? t`last gave ${format.money(row.lastGift.amount)} on ${format.day(row.lastGift.on)}`
              : t`no gift yet`,
          ]
            .filter(Boolean)
            .join(', ')}
        </p>
      </div>
      {row.hours.from !== null && (
        <p className="max-w-[300px] text-right text-ochre">
          <Trans>
            <b>Not now.</b> Calls are made {row.hours.words} where they are. The number is shown again on{' '}
            {format.moment(row.hours.from)} by your clock.
          </Trans>
        </p>
      )}
      {row.phone && (
        <a
          className="font-title font-bold text-[24px] hover:underline whitespace-nowrap"
          href={`tel:${row.phone.replace(/\s/g, '')}`}
        >
          {row.phone}
        </a>
      )}
    </div>
  );
}

function NoteInput({
  note,
  answer,
  set,
  saveNow,
}: {
  note: React.RefObject<HTMLTextAreaElement | null>;
  answer: CallDraft;
  set: (part: Partial<CallDraft>) => void;
  saveNow: () => void;
}) {
  return (
    <label className="flex flex-col gap-1">
      <span className="font-semibold text-[13px]">{t`Note`}</span>
      <textarea
        ref={note}
        className="input"
        rows={3}
        maxLength={4000}
        value={answer.note}
        onChange={(event) => set({ note: event.target.value })}
        onKeyDown={(event) => {
          if (event.key === 'Escape') event.currentTarget.blur();
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) saveNow();
        }}
      />
    </label>
  );
}

/** One person on the telephone: who, what to say, what came of it; by mouse and by keys. */
function OneCall({
  list,
  row,
  onNext,
  onBack,
}: {
  list: CallListView;
  row: CallRow;
  onNext: () => void;
  onBack: (() => void) | null;
}) {
  const queryClient = useQueryClient();
  const note = useRef<HTMLTextAreaElement>(null);
  const { draft, save } = useCall(list, row, () => {
    void queryClient.invalidateQueries({ queryKey: keyOf('calls') });
    void queryClient.invalidateQueries({ queryKey: keyOf('calls/{id}/people') });
    onNext();
  });
  const answer = draft.value;
  const set = (part: Partial<CallDraft>) => draft.set({ ...answer, ...part });
  const saveNow = () => {
    if (answer.outcome !== null && !save.isPending && draft.theirs === null) save.mutate(answer);
  };
  useEffect(() => {
    const heard = (event: KeyboardEvent) => {
      if (!isForTheCall(event)) return;
      const action = keyAction(event, list.options);
      if (action === null) return;
      event.preventDefault();
      if (typeof action === 'object') set(action);
      else if (action === 'note') note.current?.focus();
      else if (action === 'keep') saveNow();
      else if (action === 'next') onNext();
      else onBack?.();
    };
    window.addEventListener('keydown', heard);
    return () => window.removeEventListener('keydown', heard);
  });
  return (
    <section className="sheet p-6 flex flex-col gap-5 overflow-y-auto min-h-0" aria-label={t`This call`}>
      <Callee row={row} />
      {row.script && (
        <p className="border-l-[3px] border-blush pl-4 text-[16px] leading-relaxed whitespace-pre-wrap max-w-[640px]">
          {row.script}
        </p>
      )}
      <Outcomes options={list.options} value={answer.outcome} choose={(outcome) => set({ outcome })} />
      <NoteInput note={note} answer={answer} set={set} saveNow={saveNow} />
      <label className="flex gap-3 items-start">
        <input
          type="checkbox"
          className="mt-1 accent-[#A62B45]"
          checked={answer.noMoreCalls}
          onChange={(event) => set({ noMoreCalls: event.target.checked })}
        />
        <span>
          <b>{t`They want no more calls`}</b>
          <span className="block text-ink2">{t`Kept in the permission ledger as their own no, for this number.`}</span>
        </span>
      </label>
      <Unsaved draft={draft} what={t`what came of this call`} />
      {draft.theirs === null && <ProblemNote error={save.error} />}
      <div className="flex gap-2 items-center">
        <Button
          weight="main"
          disabled={answer.outcome === null || save.isPending || draft.theirs !== null}
          onClick={saveNow}
        >
          {t`Save, next`}
        </Button>
        <Button onClick={onNext}>{t`Leave for later`}</Button>
        {onBack && <Button onClick={onBack}>{t`The one before`}</Button>}
      </div>
      <p className="text-ink2 text-[12.5px]">
        <Trans>
          1 to 9 choose, N goes to the note and Esc out of it, Enter keeps, → leaves for later, ← goes back
        </Trans>
      </p>
    </section>
  );
}

/** The end of the list: what came of it, and who is left. */
function RoundOver({
  list,
  round,
  nobody,
  onBegin,
}: {
  list: CallListView;
  round: CallWho;
  nobody: boolean;
  onBegin: (who: CallWho) => void;
}) {
  const format = useFormat();
  // Of those who are left somebody may have said no since: a round in which there was nobody is not offered
  // once more.
  const people = { open: list.people - list.suppressed - list.called, again: list.again };
  const offered = (['open', 'again'] as const).filter((who) => people[who] > 0 && !(nobody && who === round));
  return (
    <div className="sheet p-8">
      <p className="subtitle">
        {offered.length === 0
          ? t`Everybody who may be called has been called.`
          : t`That was the last of the list.`}
      </p>
      <p className="text-ink2 py-2">
        {list.outcomes.map(({ outcome, people }) => `${format.number(people)} ${outcome}`).join(', ')}
      </p>
      <div className="flex gap-2">
        {offered.map((who) => (
          <Button key={who} onClick={() => onBegin(who)}>
            {who === 'open'
              ? t`Go on with the ${format.number(people.open)} left for later`
              : t`Call the ${format.number(people.again)} again who were not reached`}
          </Button>
        ))}
      </div>
    </div>
  );
}

/** Calling through a list on the screen, one person after the other. */
export function CallThrough({ list }: { list: CallListView }) {
  // A first round through those not called yet; others through whoever was not reached.
  const [round, setRound] = useState<CallWho>('open');
  const [path, setPath] = useState<number[]>([]);
  const [after, setAfter] = useState(0);
  const [back, setBack] = useState<number | null>(null);
  const { data, error } = useQuery({
    ...reading('calls/{id}/people', {
      id: list.id,
      after: back === null ? after : back - 1,
      limit: 1,
      who: back === null ? round : 'may',
    }),
    staleTime: Infinity,
    gcTime: 0,
  });
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the next person`} />;
  const [row] = data.rows;
  const begin = (who: CallWho) => (setRound(who), setAfter(0), setBack(null), setPath([]));
  if (!row) return <RoundOver list={list} round={round} nobody={path.length === 0} onBegin={begin} />;
  const next = () => {
    setPath((old) => [...old, row.position]);
    setBack(null);
    setAfter((old) => (back === null ? row.position : old));
  };
  const last = path.at(-1);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_380px] gap-4 grow min-h-0">
      <OneCall
        key={row.position}
        list={list}
        row={row}
        onNext={next}
        onBack={last === undefined ? null : () => (setPath((old) => old.slice(0, -1)), setBack(last))}
      />
      <Timeline key={`passed-${row.supporterId}`} supporterId={row.supporterId} withNotes={false} />
    </div>
  );
}
