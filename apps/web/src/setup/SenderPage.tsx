import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { SenderView } from '@goodword/core/contract';
import type { CheckedRecord } from '@goodword/core/delivery';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { Button, Heading, Loading, ProblemNote } from '../ui/basics';
import { useMargin, type Note } from '../ui/margin';
import { DEMAND_WORDS, FAULT_WORDS, RECORD_WORDS } from './senderWords';
import { SenderLimits } from './SenderLimits';
import { SenderNumber } from './SenderNumber';
import { SetupNav } from './SetupNav';

const anchorOf = ({ what, name }: CheckedRecord): string => `record-${what}-${name}`;

/** Copies a record as it is to be set; says so where it was pressed. */
function Copy({ words, of }: { words: string; of: string }) {
  const [copied, setCopied] = useState(false);
  return (
    <button
      type="button"
      className="link whitespace-nowrap min-h-[24px]"
      aria-label={t`Copy ${of}`}
      onClick={() => void navigator.clipboard.writeText(words).then(() => setCopied(true))}
    >
      {copied ? t`Copied` : t`Copy`}
    </button>
  );
}

function stateOf({ found, fault }: CheckedRecord): [words: string, ink: string] {
  if (fault !== null) return [t`not right`, 'text-madder'];
  return found === null ? [t`not seen yet`, 'text-ochre'] : [t`right`, 'text-verdigris'];
}

function RecordLine({ record }: { record: CheckedRecord }) {
  const [state, ink] = stateOf(record);
  const isOpen = record.fault !== null && record.found !== null && record.found.length > 0;
  return (
    <tr id={anchorOf(record)} className="border-t border-hair align-top">
      <td className="py-2 pr-4">
        <p>{RECORD_WORDS[record.what]}</p>
        <p className="font-mono text-sm text-ink2 [overflow-wrap:anywhere]">
          {record.name} {record.kind}
        </p>
      </td>
      <td className="py-2 pr-4">
        <p className="font-mono text-sm [overflow-wrap:anywhere] max-h-[60px] overflow-y-auto" tabIndex={0}>
          {record.value}
        </p>
        {isOpen && (
          <p className="text-sm text-ink2 [overflow-wrap:anywhere]">
            <Trans>There now:</Trans> <span className="font-mono">{record.found!.join(' · ')}</span>
          </p>
        )}
        {record.what === 'spf' && (
          <p className="text-sm text-ink2">
            <Trans>Your mail provider says what stands in the place of the dots.</Trans>
          </p>
        )}
      </td>
      <td className="py-2 pr-4">
        <Copy words={record.value} of={RECORD_WORDS[record.what]} />
      </td>
      <td className={`py-2 font-semibold whitespace-nowrap ${ink}`}>{state}</td>
    </tr>
  );
}

function Records({ view, check }: { view: SenderView; check: { isPending: boolean; mutate(): void } }) {
  const { moment } = useFormat();
  return (
    <section className="sheet p-5" aria-labelledby="sender-records">
      <div className="flex flex-wrap items-baseline justify-between gap-3 pb-2">
        <h2 id="sender-records" className="subtitle">{t`What your domain says`}</h2>
        <p className="text-ink2 flex items-center gap-3">
          {view.checkedAt ? t`Looked for on ${moment(view.checkedAt)}` : t`Nobody has looked yet`}
          <Button disabled={check.isPending} onClick={() => check.mutate()}>
            {check.isPending ? t`Looking…` : t`Look again`}
          </Button>
        </p>
      </div>
      {view.records.length === 0 ? (
        <p className="text-ink2">
          <Trans>
            There is no address yet that mail comes from: it is set under{' '}
            <Link to="/setup">Organization</Link>.
          </Trans>
        </p>
      ) : (
        <table className="w-full text-left">
          <thead className="text-ink2 text-sm">
            <tr>
              <th className="font-normal w-[32%]">{t`What for, and where`}</th>
              <th className="font-normal">{t`What is to stand there`}</th>
              <th>
                <span className="sr-only">{t`Copy`}</span>
              </th>
              <th className="font-normal">{t`Found`}</th>
            </tr>
          </thead>
          <tbody>
            {view.records.map((record) => (
              <RecordLine key={`${record.what} ${record.name}`} record={record} />
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Met({ met }: { met: boolean | null }) {
  if (met === null) return <span className="whitespace-nowrap text-ink2">{t`your provider can say`}</span>;
  return met ? (
    <span className="whitespace-nowrap font-semibold text-verdigris">{t`met`}</span>
  ) : (
    <span className="whitespace-nowrap font-semibold text-madder">{t`not met`}</span>
  );
}

function Demands({ view }: { view: SenderView }) {
  return (
    <section className="sheet p-5" aria-labelledby="sender-demands">
      <h2 id="sender-demands" className="subtitle pb-1">{t`What large mailbox providers ask`}</h2>
      <p className="text-ink2 pb-2">
        <Trans>Of everybody who writes to many, as they publish it.</Trans>
      </p>
      <ul>
        {view.demands.map(({ demand, met }) => (
          <li key={demand} className="flex justify-between gap-4 border-t border-hair py-1">
            <span>{DEMAND_WORDS[demand]}</span>
            <Met met={met} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What became of the mail that was sent through, in sentences. */
function throughWords({ through }: SenderView, moment: (iso: string) => string): string {
  if (!through) return t`No mail has been sent through yet.`;
  const left = moment(through.at);
  if (through.fault) return t`On ${left} the mail server did not take it: ${through.fault}`;
  if (!through.backAt) return t`It left on ${left} and has not come back yet. Some minutes are usual.`;
  const seconds = Math.max(1, Math.round((Date.parse(through.backAt) - Date.parse(through.at)) / 1000));
  const broken = through.signatures.filter(({ holds }) => !holds).map(({ selector }) => selector);
  const signed =
    through.signatures.length === 0
      ? t`It came without a signature.`
      : broken.length === 0
        ? t`Every signature holds.`
        : t`The signature does not hold: ${broken.join(', ')}.`;
  const tls =
    through.tls === null ? '' : through.tls ? t`It went encrypted.` : t`It went open, for everybody to read.`;
  return [t`It left on ${left} and was back after ${seconds} s.`, signed, tls].filter(Boolean).join(' ');
}

function Through({
  view,
  send,
}: {
  view: SenderView;
  send: { isPending: boolean; mutate(): void; error: unknown };
}) {
  const { moment } = useFormat();
  return (
    <section className="sheet p-5 flex flex-col gap-3" aria-labelledby="sender-through">
      <h2 id="sender-through" className="subtitle">{t`Send one through`}</h2>
      <p className="text-ink2">
        <Trans>A mail to yourselves by way of your provider: it comes back here and is looked at.</Trans>
      </p>
      <p role="status">{throughWords(view, moment)}</p>
      <ProblemNote error={send.error} />
      <Button className="self-start" disabled={send.isPending} onClick={() => send.mutate()}>
        {t`Send one through`}
      </Button>
    </section>
  );
}

function notesOf(view: SenderView): Note[] {
  const faults = view.records.flatMap((record): Note[] =>
    record.fault === null
      ? []
      : [
          {
            key: anchorOf(record),
            tone: record.what === 'dkim-next' ? 'doubt' : 'fault',
            title: `${RECORD_WORDS[record.what]}`,
            body: FAULT_WORDS[record.fault],
            anchor: anchorOf(record),
          },
        ],
  );
  if (view.checkedAt && !view.aligned.signature && !view.aligned.returnPath)
    faults.push({
      key: 'aligned',
      tone: 'fault',
      title: t`Signed for another domain`,
      body: t`Neither the signature nor the return path is of the domain that mail comes from, so that it counts as forged.`,
    });
  if (view.number && view.number.registration !== 'registered')
    faults.push({
      key: 'number',
      tone: 'doubt',
      title: t`The number is not registered`,
      body: t`Carriers in the United States and Canada stop texts from numbers that are not registered for what they send.`,
    });
  const right = view.records.filter(({ found, fault }) => found !== null && fault === null).length;
  return faults.length === 0 && right > 0
    ? [{ key: 'right', tone: 'good', title: t`Everything that was looked for is right` }]
    : faults;
}

function Sender({ view }: { view: SenderView }) {
  const queryClient = useQueryClient();
  const check = useMutation({
    mutationFn: () => api.post('sender/check', {}),
    onSuccess: () => refresh(queryClient, 'sender'),
  });
  const send = useMutation({
    mutationFn: () => api.post('sender/through', {}),
    onSuccess: () => refresh(queryClient, 'sender'),
  });
  useMargin(notesOf(view));
  return (
    <div className="flex flex-col gap-4 overflow-y-auto pb-6">
      <p className="text-lg">
        {view.from ? (
          <Trans>
            Mail comes from <strong>{view.from}</strong>, and what bounces comes back to{' '}
            <strong>{view.lists || '–'}</strong>.
          </Trans>
        ) : (
          <Trans>No address is set that mail comes from.</Trans>
        )}
      </p>
      <ProblemNote error={check.error} />
      <Records view={view} check={check} />
      <div className="grid grid-cols-2 gap-4 items-start max-[1100px]:grid-cols-1">
        <Demands view={view} />
        <div className="flex flex-col gap-4">
          <Through view={view} send={send} />
          <SenderLimits view={view} />
          {view.number && <SenderNumber number={view.number} />}
        </div>
      </div>
    </div>
  );
}

/** As whom mail and texts go out: what the domain has to say, and what was found there. */
export default function SenderPage() {
  const waiting = (view: SenderView | undefined) =>
    view?.through && !view.through.backAt && !view.through.fault ? 3000 : false;
  const { data, error } = useQuery({
    ...reading('sender'),
    refetchInterval: ({ state }) => waiting(state.data as SenderView | undefined),
  });
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the sender`} />;
  return (
    <>
      <Heading title={t`Setup`} page={t`Sender`} note={t`As whom mail and texts go out`} />
      <SetupNav />
      <Sender view={data} />
    </>
  );
}
