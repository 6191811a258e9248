import { plural, t } from '@lingui/core/macro';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { AutomationWhole, VisitRow, VisitState } from '@goodword/core/contract';
import { FALL_WORDS } from '@goodword/core/words';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Loading, ProblemNote } from '../ui/basics';

const TITLES: Record<VisitState, (n: string) => string> = {
  waiting: (n) => t`${n} waiting`,
  held: (n) => t`${n} for your look`,
  done: (n) => t`${n} through`,
  ended: (n) => t`${n} get no more`,
};
const ORDER: readonly VisitState[] = ['held', 'waiting', 'done', 'ended'];
const PAGE = 50;

/** What there is to say of one of them. */
function useRowWords() {
  const format = useFormat();
  return ({ causedAt, dueAt, next, why, came }: VisitRow, state: VisitState) => {
    const when = t`It happened on ${format.moment(causedAt)}`;
    if (why !== null) return `${when}; ${FALL_WORDS[why]}`;
    if (state === 'waiting' && dueAt !== null && next !== null)
      return t`${when}; “${next}” leaves ${format.moment(dueAt)}`;
    return came === null ? when : `${when}; ${came}`;
  };
}

/** All who wait for a look go, or none of them, by the number that is seen here. */
function Held({ id, people }: { id: number; people: number }) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const settle = useMutation({
    mutationFn: (act: 'let-go' | 'drop-held') =>
      act === 'let-go'
        ? api.post('automations/{id}/let-go', { id, body: { people } })
        : api.post('automations/{id}/drop-held', { id, body: { people } }),
    onSettled: () => refresh(queryClient, 'automations'),
  });
  return (
    <div className="flex flex-wrap items-center gap-3 py-3">
      <p className="grow basis-[280px] text-ink2">
        {t`It happened to so many at once that they wait. Look through them: a file that came in, or a tag put on many, is often not meant to write to all of them.`}
      </p>
      <Button weight="main" disabled={settle.isPending} onClick={() => settle.mutate('let-go')}>
        {t`Let all ${format.number(people)} go`}
      </Button>
      <Button once disabled={settle.isPending} onClick={() => settle.mutate('drop-held')}>
        {t`None of them`}
      </Button>
      <ProblemNote error={settle.error} />
    </div>
  );
}

/** For whom it was set going, by how it stands with them. */
export function PeopleOf({ automation }: { automation: AutomationWhole }) {
  const { id, counts } = automation;
  const format = useFormat();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const there = ORDER.filter((state) => counts[state] > 0);
  const [chosen, setChosen] = useState<VisitState | null>(null);
  const [limit, setLimit] = useState(PAGE);
  const state = chosen !== null && there.includes(chosen) ? chosen : (there[0] ?? 'waiting');
  const rowWords = useRowWords();
  const people = useQuery({
    ...reading('automations/{id}/people', { id, state, limit }),
    enabled: there.length > 0,
    placeholderData: keepPreviousData,
    refetchInterval: automation.on ? 10_000 : false,
  });
  const act = useMutation({
    mutationFn: ({ visit, what }: { visit: number; what: 'hurry' | 'take-out' }) =>
      what === 'hurry'
        ? api.post('automations/{id}/hurry', { id, body: { ids: [visit] } })
        : api.post('automations/{id}/take-out', { id, body: { ids: [visit] } }),
    onSettled: () => refresh(queryClient, 'automations'),
  });
  if (there.length === 0)
    return (
      <p className="text-ink2 px-1">
        {automation.on ? t`It has happened to nobody since it is on.` : t`It was set going for nobody yet.`}
      </p>
    );
  return (
    <section className="sheet p-5" aria-label={t`For whom it was set going`}>
      <div className="flex flex-wrap gap-x-6 gap-y-1 items-baseline pb-2">
        <h2 className="subtitle">{t`For whom it was set going`}</h2>
        {there.map((one) => (
          <button
            key={one}
            aria-pressed={one === state}
            className={one === state ? 'font-bold' : 'link'}
            onClick={() => (setChosen(one), setLimit(PAGE))}
          >
            {TITLES[one](format.number(counts[one]))}
          </button>
        ))}
      </div>
      {state === 'held' && may && <Held id={id} people={counts.held} />}
      <ProblemNote error={people.error ?? act.error} />
      {people.isPending && <Loading what={t`the people`} />}
      <ul>
        {people.data?.rows.map((row) => (
          <li key={row.id} className="border-t border-hair py-2 flex flex-wrap items-baseline gap-x-4">
            <Link className="font-semibold hover:underline" to={`/sort/supporters/${row.supporterId}`}>
              {row.name || t`Somebody without a name`}
            </Link>
            <span className="text-ink2 grow">{rowWords(row, state)}</span>
            {may && state === 'waiting' && automation.on && (
              <button
                className="link"
                disabled={act.isPending}
                onClick={() => act.mutate({ visit: row.id, what: 'hurry' })}
              >{t`Send it now`}</button>
            )}
            {may && (state === 'waiting' || state === 'held') && (
              <button
                className="link"
                disabled={act.isPending}
                onClick={() => act.mutate({ visit: row.id, what: 'take-out' })}
              >{t`Take out`}</button>
            )}
          </li>
        ))}
      </ul>
      {people.data && people.data.rows.length < people.data.total && limit < 200 && (
        <Button className="mt-2" onClick={() => setLimit(200)}>
          {t`Show more of ${plural(people.data.total, { one: '# person', other: '# people' })}`}
        </Button>
      )}
    </section>
  );
}
