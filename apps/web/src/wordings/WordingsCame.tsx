import { plural, t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ComparisonView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button } from '../ui/basics';
import { Confirm } from '../ui/dialogs';
import { DID_WORDS, wordingName } from './measures';

type Wording = ComparisonView['wordings'][number];

/** How much more than of the first, with its range. */
function Beside({ beside }: { beside: Wording['beside'] }) {
  const format = useFormat();
  if (!beside) return null;
  const signed = (share: number) => `${share > 0 ? '+' : ''}${format.percent(share)}`;
  const [low, high] = [signed(beside.low), signed(beside.high)];
  return (
    <>
      <b>{signed(beside.more)}</b> <span className="text-ink2 text-[12px]">{t`(${low} to ${high})`}</span>
    </>
  );
}

function useStand(comparison: ComparisonView): string[] {
  const format = useFormat();
  const { rest, leaving, decidesAt, decided, better, wordings } = comparison;
  const nameOf = (id: number) => wordingName(wordings.findIndex((one) => one.id === id) + 1);
  const best = nameOf(better.id);
  const seen = better.differs
    ? t`A difference is seen: ${best} is the better one.`
    : t`No difference is seen.`;
  const soFar = better.differs
    ? t`By what is known so far, ${best} is the better one.`
    : t`By what is known so far, no difference is seen.`;
  if (decided) {
    const when = format.moment(decided.at);
    const which = nameOf(decided.id);
    return [
      decided.by === null
        ? t`By what people did, the rest gets ${which}; decided ${when}.`
        : t`${decided.by} chose ${which} for the rest, ${when}.`,
      soFar,
    ];
  }
  if (rest === 0) return [seen];
  const people = plural(rest, { one: '# person waits', other: '# people wait' });
  if (leaving > 0)
    return [t`${people} for the better one. First those leave who were drawn for one of them.`];
  const when = decidesAt ? format.moment(decidesAt) : '';
  return [t`${people} for the better one; that is decided ${when}.`, soFar];
}

/** What came of each wording, which is the better one, and who waits for that. */
export function WordingsCame({ comparison, shown }: { comparison: ComparisonView; shown: number }) {
  const format = useFormat();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const [choosing, setChoosing] = useState<number | null>(null);
  const stand = useStand(comparison);
  const { messageId: id, wordings, measure, rest, leaving, decided } = comparison;
  const choose = useMutation({
    mutationFn: (wordingId: number) =>
      api.post('messages/{id}/comparison/choose', { id, body: { wordingId } }),
    onSettled: () => refresh(queryClient, 'messages'),
  });
  const chooses = may && rest > 0 && leaving === 0 && decided === null;
  const chosen = wordingName(wordings.findIndex((one) => one.id === choosing) + 1);
  return (
    <section className="sheet p-5 mb-4" aria-label={t`Wordings`}>
      <h2 className="subtitle pb-1">{t`Wordings beside each other`}</h2>
      {stand.map((words) => (
        <p key={words} role="status">
          {words}
        </p>
      ))}
      <table className="w-full mt-2">
        <thead>
          <tr className="text-left text-ink2 text-[12.5px]">
            <th className="font-semibold py-1">{t`Wording`}</th>
            <th className="font-semibold text-right">{t`Came to`}</th>
            <th className="font-semibold text-right">{DID_WORDS[measure]}</th>
            <th className="font-semibold text-right w-[240px]">{t`More than of the first`}</th>
            {chooses && <th />}
          </tr>
        </thead>
        <tbody>
          {wordings.map((one, i) => (
            <tr key={one.id} className="border-t border-hair">
              <th scope="row" className="text-left py-[7px] font-semibold">
                {one.id === shown ? (
                  t`${wordingName(i + 1)}, shown below`
                ) : (
                  <Link className="link" to={`/hear-back/${one.id}`}>
                    {wordingName(i + 1)}
                  </Link>
                )}
                <span className="block font-normal text-ink2 text-[12px]">
                  {[one.subject, ...(one.sender ? [t`from ${one.sender}`] : [])].filter(Boolean).join(', ')}
                </span>
              </th>
              <td className="text-right">{format.number(one.came)}</td>
              <td className="text-right">
                {format.number(one.did)}
                {one.came > 0 && <span className="text-ink2"> {format.percent(one.did / one.came)}</span>}
              </td>
              <td className="text-right">
                <Beside beside={one.beside} />
              </td>
              {chooses && (
                <td className="text-right pl-3">
                  <Button onClick={() => setChoosing(one.id)}>{t`The rest gets this one`}</Button>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-ink2 text-[12px] pt-2">
        {t`Counted are those who were drawn by lot, and not the rest, who got it later. In brackets: where the true difference lies 95 times in 100.`}
      </p>
      <Confirm
        open={choosing !== null}
        onClose={() => setChoosing(null)}
        title={t`Send ${chosen} to the rest now?`}
        act={t`Send it to ${format.number(rest)}`}
        body={<p>{t`Nothing more is waited for, and the choice stays.`}</p>}
        onAct={() => choose.mutateAsync(choosing!)}
      />
    </section>
  );
}
