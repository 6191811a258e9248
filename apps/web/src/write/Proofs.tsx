import { t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { MessageView, ProofsView } from '@goodword/core/contract';
import type { ProofKind } from '@goodword/core/proofs';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { keyOf, reading } from '../app/reading';
import { useMay } from '../app/session';
import { ProblemNote, Progress } from '../ui/basics';

/** Somebody whom a message is read as, and why them. */
export interface ProofReader {
  id: number;
  name: string;
  why: string;
}

const KIND_WORDS: Record<ProofKind, string> = {
  holes: t`a field is empty`,
  'no-first-name': t`no first name`,
  caps: t`ALL CAPITALS`,
  address: t`an address as a name`,
  test: t`“Test” and the like`,
  digits: t`digits in the name`,
  couple: t`two in one name`,
  'right-to-left': t`right to left`,
  'non-latin': t`other scripts`,
  'longest-name': t`longest name`,
  'longest-subject': t`longest subject`,
  'shortest-subject': t`shortest subject`,
  'longest-text': t`longest text`,
  'shortest-text': t`shortest text`,
  'most-segments': t`most text segments`,
  'most-passages': t`most passages`,
  'fewest-passages': t`fewest passages`,
  'largest-ask': t`most asked for`,
  'no-ask': t`nothing asked for`,
};

/** Kinds of which there is one most extreme: how many are as extreme is of no use. */
const EXTREMES = /^(longest|shortest|most|fewest|largest)-/;

type Found = ProofsView['found'][number];

/** Goes from one to the next of those who were found, round and round. */
function Chip({
  found,
  shown,
  onPick,
}: {
  found: Found;
  shown: ProofReader | null;
  onPick: (reader: ProofReader) => void;
}) {
  const format = useFormat();
  const words = KIND_WORDS[found.kind];
  const at = found.readers.findIndex(({ id }) => shown?.why === words && shown.id === id);
  const next = found.readers[(at + 1) % Math.max(1, found.readers.length)];
  const measure =
    found.kind === 'largest-ask' && found.measure !== null
      ? format.money(found.measure)
      : EXTREMES.test(found.kind)
        ? ''
        : format.number(found.people);
  return (
    <button
      type="button"
      disabled={!next}
      aria-pressed={at >= 0}
      className={`rounded-paper border px-3 min-h-[32px] text-[13.5px] font-semibold disabled:opacity-60 ${
        at >= 0 ? 'border-ink bg-bench' : 'border-[#8b989d] hover:bg-bench'
      }`}
      onClick={() => next && onPick({ ...next, why: words })}
    >
      {words} {measure && <b className="font-bold">{measure}</b>}
    </button>
  );
}

/** How far it is, until it is there. */
function useProofs(message: MessageView) {
  return useQuery({
    ...reading('messages/{id}/proofs', { id: message.id }),
    refetchInterval: (read) =>
      read.state.data?.state === 'waiting' || read.state.data?.state === 'running' ? 700 : false,
  });
}

/** Readers worth a look before a message leaves, found among all who would get it. */
export function Proofs({
  message,
  stamp,
  shown,
  flush,
  onPick,
}: {
  message: MessageView;
  /** Another one where the words were saved since. */
  stamp: string;
  shown: ProofReader | null;
  flush: () => Promise<void>;
  onPick: (reader: ProofReader) => void;
}) {
  const may = useMay('writer');
  const format = useFormat();
  const queryClient = useQueryClient();
  const [asked, setAsked] = useState(false);
  const { data, error } = useProofs(message);
  const again = () =>
    queryClient.invalidateQueries({ queryKey: keyOf('messages/{id}/proofs', { id: message.id }) });
  const begin = useMutation({
    mutationFn: async () => {
      await flush();
      await api.post('messages/{id}/proofs', { id: message.id });
    },
    onSuccess: () => (setAsked(true), again()),
  });
  // Words that were saved make what was found old.
  useEffect(() => {
    if (asked) void again();
  }, [stamp]);
  if (!data) return <ProblemNote error={error} />;
  const isUnderWay = data.state === 'waiting' || data.state === 'running';
  return (
    <section className="sheet px-4 py-3 flex flex-col gap-2" aria-label={t`Proofs`}>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <b className="subtitle !text-[15px]">{t`Read it first as these`}</b>
        {data.state === 'done' && (
          <span className="text-ink2 text-[13px]">
            {data.isCurrent ? (
              <Trans>
                found among{' '}
                <Plural value={data.total} one="the one" other={`all ${format.number(data.total)}`} /> who
                would get it
              </Trans>
            ) : (
              t`found for earlier words or another group`
            )}
          </span>
        )}
        {data.state === 'failed' && (
          <span className="text-madder text-[13px]">{t`Looking through them did not work.`}</span>
        )}
        {may && !isUnderWay && (
          <button type="button" className="link text-[13px]" onClick={() => begin.mutate()}>
            {data.state === 'none' ? t`Look through all who would get it` : t`Look again`}
          </button>
        )}
      </p>
      <ProblemNote error={begin.error ?? error} />
      {isUnderWay && (
        <Progress
          done={data.done}
          total={data.total}
          words={t`${format.number(data.done)} of ${format.number(data.total)} looked through`}
        />
      )}
      {data.state === 'done' && data.total === 0 && (
        <p className="text-ink2">{t`Nobody would get it now. Choose who gets it first.`}</p>
      )}
      {data.found.length > 0 && (
        <div className="flex flex-wrap gap-2">
          {data.found.map((found) => (
            <Chip key={found.kind} found={found} shown={shown} onPick={onPick} />
          ))}
        </div>
      )}
    </section>
  );
}
