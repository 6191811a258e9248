import { keyOf } from '../../app/reading';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { CallListView, CallRow } from '@goodword/core/contract';
import { api } from '../../app/api';
import { Button, Loading, ProblemNote } from '../../ui/basics';
import { Unsaved } from '../../ui/Unsaved';
import { useCall } from './useCall';

const selectId = (position: number) => `answer-${position}`;

function focusRow(position: number): boolean {
  const found = document.getElementById(selectId(position));
  found?.focus();
  return found !== null;
}

function PaperRow({ list, row, onNext }: { list: CallListView; row: CallRow; onNext: () => void }) {
  const { server, draft, save } = useCall(list, row, () => undefined);
  const { outcome, note } = draft.value;
  const keep = () => draft.isChanged && draft.theirs === null && !save.isPending && save.mutate(draft.value);
  return (
    <>
      <tr
        className="border-b border-hair"
        onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && keep()}
      >
        <td className="py-1 pr-3 text-right text-ink2 font-mono text-[12.5px]">{row.position}</td>
        <td className="py-1 pr-3 font-semibold">{row.name}</td>
        <td className="py-1 pr-3 text-ink2">{row.phone}</td>
        <td className="py-1 pr-2">
          <select
            id={selectId(row.position)}
            className="input !min-h-[30px] !py-0"
            aria-label={t`Answer of ${row.name}, number ${row.position}`}
            value={outcome ?? ''}
            onChange={(event) => draft.set({ ...draft.value, outcome: event.target.value || null })}
            onKeyDown={(event) => event.key === 'Enter' && (event.preventDefault(), keep(), onNext())}
          >
            <option value="">{t`not entered yet`}</option>
            {list.options.map((option, i) => (
              <option key={option} value={option}>
                {i < 9 ? `${i + 1} ${option}` : option}
              </option>
            ))}
          </select>
        </td>
        <td className="py-1 pr-2">
          <input
            className="input !min-h-[30px] !py-0"
            aria-label={t`Note on ${row.name}`}
            maxLength={4000}
            value={note}
            onChange={(event) => draft.set({ ...draft.value, note: event.target.value })}
            onKeyDown={(event) => event.key === 'Enter' && (event.preventDefault(), keep(), onNext())}
          />
        </td>
        <td className="py-1 text-[12.5px] w-[110px]" role="status">
          {draft.theirs === null && save.error ? (
            <span className="text-madder">{save.error.message}</span>
          ) : (
            stateWords(save.isPending, draft.isChanged, server.outcome !== null || server.note !== '')
          )}
        </td>
      </tr>
      {draft.theirs !== null && (
        <tr>
          <td />
          <td colSpan={5}>
            <Unsaved draft={draft} what={t`what came of this call`} />
          </td>
        </tr>
      )}
    </>
  );
}

function stateWords(saving: boolean, changed: boolean, answered: boolean): string {
  if (saving) return t`Keeping…`;
  return !changed && answered ? t`Kept` : '';
}

function PaperTable({ rows, list }: { rows: CallRow[]; list: CallListView }) {
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-ink text-left text-[12.5px]">
          <th className="w-[56px]" scope="col">
            {t`Number`}
          </th>
          <th scope="col">{t`Who`}</th>
          <th className="w-[150px]" scope="col">
            {t`Phone`}
          </th>
          <th className="w-[200px]" scope="col">
            {t`Answer`}
          </th>
          <th className="w-[34%]" scope="col">
            {t`Note`}
          </th>
          <th />
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <PaperRow
            key={row.position}
            list={list}
            row={row}
            onNext={() => focusRow(rows.find((one) => one.position > row.position)?.position ?? 0)}
          />
        ))}
      </tbody>
    </table>
  );
}

/** Entering what was written on a printed sheet: a number, an answer, a note, the next; all by keys. */
export function FromPaper({ list }: { list: CallListView }) {
  const [wanted, setWanted] = useState('');
  const [missing, setMissing] = useState(false);
  const pending = useRef<number | null>(null);
  const pages = useInfiniteQuery({
    queryKey: [...keyOf('calls/{id}/people'), list.id, 'paper'],
    queryFn: ({ pageParam }) =>
      api.get('calls/{id}/people', { id: list.id, after: pageParam, limit: 200, who: 'may' }),
    initialPageParam: 0,
    getNextPageParam: (page) => (page.next === null ? undefined : Number(page.next)),
    staleTime: Infinity,
    gcTime: 0,
  });
  if (pages.error) return <ProblemNote error={pages.error} />;
  if (!pages.data) return <Loading what={t`the people of the sheet`} />;
  const rows = pages.data.pages.flatMap((page) => page.rows);
  const goTo = async (position: number): Promise<void> => {
    if (focusRow(position)) return void (setMissing(false), setWanted(''));
    pending.current = position;
    const more = position > (rows.at(-1)?.position ?? 0) && pages.hasNextPage;
    if (!more) return setMissing(true);
    await pages.fetchNextPage();
    requestAnimationFrame(
      () => void (pending.current === position && (focusRow(position) ? setWanted('') : setMissing(true))),
    );
  };
  return (
    <section
      className="sheet p-5 grow min-h-0 overflow-y-auto"
      tabIndex={0}
      aria-label={t`Answers from paper`}
    >
      <form
        className="flex items-end gap-3 pb-3"
        onSubmit={(event) => (event.preventDefault(), void goTo(Number(wanted)))}
      >
        <label className="flex flex-col gap-1">
          <span className="font-semibold text-[13px]">{t`Go to the number`}</span>
          <input
            className="input !w-[140px]"
            inputMode="numeric"
            autoFocus
            value={wanted}
            onChange={(event) => (setWanted(event.target.value), setMissing(false))}
          />
        </label>
        <p className="text-ink2 text-[12.5px] pb-2">
          <Trans>A digit chooses the answer, Tab goes to the note, Enter keeps and goes to the next.</Trans>
          {missing && (
            <b className="text-madder">
              {' '}
              <Trans>There is no number {wanted} that can be answered.</Trans>
            </b>
          )}
        </p>
      </form>
      <PaperTable rows={rows} list={list} />
      {pages.hasNextPage && (
        <Button
          className="mt-3"
          disabled={pages.isFetchingNextPage}
          onClick={() => void pages.fetchNextPage()}
        >
          {t`The next 200`}
        </Button>
      )}
    </section>
  );
}
