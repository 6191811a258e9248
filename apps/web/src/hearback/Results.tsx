import { plural, t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { BeginToBody, MessageResults, ResultKind, ResultPerson } from '@goodword/core/contract';
import type { LimitedBy } from '@goodword/core/delivery';
import { api } from '../app/api';
import { KIND_OF_WORDS } from '../app/channels';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Heading, Loading, ProblemNote, Progress } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { usePages } from '../ui/people';
import { VirtualTable, type TableColumn } from '../ui/VirtualTable';
import { OverTime } from './OverTime';
import { refresh } from '../app/refresh';
import { KeepAsTemplate } from '../write/KeepAsTemplate';
import { UseAgain } from '../write/UseAgain';
import { WithoutIt } from './WithoutIt';
import { WriteToThem } from '../write/WriteToThem';
import { reading } from '../app/reading';
import { useComparison } from '../wordings/useComparison';
import { WordingsCame } from '../wordings/WordingsCame';

const KINDS: [ResultKind, string, string][] = [
  ['sent', t`Sent`, t`handed over and accepted`],
  ['delivered', t`Delivered`, t`accepted, and not come back`],
  ['bounced', t`Bounced`, t`the address is on hold now`],
  ['opened', t`Opened`, t`unsure: some readers load pictures by themselves, some never`],
  ['clicked', t`Clicked`, t`clicked a link`],
  ['replied', t`Replied`, t`wrote back`],
  ['left', t`Opted out`, t`said no because of it`],
  ['door', t`Held back as it left`, t`changed between the last look and the hand-over`],
  ['unsure', t`Unsure`, t`may or may not have gone`],
  ['failed', t`Failed`, t`refused for another reason`],
  ['waiting', t`Waiting`, t`about to leave`],
  ['kept', t`Kept without it`, t`by lot, to see what it did`],
  ['suppressed', t`Held back`, t`not in it from the start`],
];
/** What holds the rest of a mailing back. */
const LIMIT_WORDS: Record<LimitedBy, string> = {
  hour: t`As much as may leave in an hour has left: the rest goes on by itself.`,
  day: t`As much as may leave in a day has left: the rest goes on by itself.`,
  'warm-up': t`As much as may leave today from a new domain has left: the rest goes on tomorrow.`,
};

/**
 * Those who got it, clicked or replied are a group that goes on growing; the others are who they are now. Of
 * one wording of several (`apart`) they are who they are now as well: the group is of all wordings.
 */
function behind(id: number, kind: ResultKind, apart: boolean): BeginToBody['to'] {
  if (apart) return { result: { messageId: id, kind } };
  if (kind === 'sent') return { ref: { kind: 'message', id, did: 'got' } };
  return kind === 'clicked' || kind === 'replied'
    ? { ref: { kind: 'message', id, did: kind } }
    : { result: { messageId: id, kind } };
}
const MOVING = new Set(['preparing', 'sending', 'paused']);

function PeopleDrawer({
  id,
  kind,
  apart,
  onClose,
}: {
  id: number;
  kind: ResultKind;
  apart: boolean;
  onClose: () => void;
}) {
  const navigate = useNavigate();
  const format = useFormat();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const { rows, total, more } = usePages<ResultPerson>(['result-people', id, kind], (after) =>
    api.get('messages/{id}/results/people', { id, kind, after }),
  );
  const settle = useMutation({
    mutationFn: ({ delivery, as }: { delivery: number; as: 'sent' | 'again' }) =>
      api.post('deliveries/{id}/settle', { id: delivery, body: { as } }),
    onSuccess: () => refresh(queryClient, 'deliveries', 'messages'),
  });
  const [, title, hint] = KINDS.find(([one]) => one === kind)!;
  const columns: TableColumn<ResultPerson>[] = [
    { key: 'name', title: t`Supporter`, width: '1fr', cell: (row) => <b>{row.name}</b> },
    { key: 'address', title: t`Address`, width: '1.2fr', cell: (row) => row.address },
    { key: 'at', title: t`Sent`, width: '160px', cell: (row) => (row.at ? format.moment(row.at) : '') },
    {
      key: 'detail',
      title: kind === 'unsure' ? t`Settle it` : t`What is to be said`,
      width: '1.4fr',
      cell: (row) =>
        kind === 'unsure' && may ? (
          <span className="flex gap-2" onClick={(event) => event.stopPropagation()}>
            <button className="link" onClick={() => settle.mutate({ delivery: row.deliveryId, as: 'sent' })}>
              {t`It went`}
            </button>
            <button className="link" onClick={() => settle.mutate({ delivery: row.deliveryId, as: 'again' })}>
              {t`Send it again`}
            </button>
          </span>
        ) : (
          <span title={row.detail}>{row.detail}</span>
        ),
    },
  ];
  return (
    <Drawer
      open
      onClose={onClose}
      wide
      title={title}
      note={`${format.number(total)} ${plural(total, { one: 'person', other: 'people' })}: ${hint}`}
    >
      <div className="flex justify-end pb-2">
        {total > 0 && <WriteToThem whom={t`those of “${title}”`} to={() => behind(id, kind, apart)} />}
      </div>
      <ProblemNote error={settle.error} />
      <VirtualTable
        label={title}
        rows={rows}
        total={total}
        columns={columns}
        idOf={(row) => row.deliveryId}
        onMore={more}
        onOpen={(row) => void navigate(`/sort/supporters/${row.supporterId}`)}
        wordOf={(row) => row.name}
      />
    </Drawer>
  );
}

/** What became of a message, as it is called for its channel. */
const kindsOf = (channel: MessageResults['message']['channel']): typeof KINDS => {
  if (channel === 'post') return [['sent', t`Posted`, t`said to have been posted`], ...KINDS.slice(1)];
  return channel === 'call' ? [['sent', t`Called`, t`somebody was spoken with`], ...KINDS.slice(1)] : KINDS;
};

/** What nobody can tell of a channel. */
const UNTOLD: Record<MessageResults['message']['channel'], readonly ResultKind[]> = {
  email: [],
  text: ['opened'],
  post: ['delivered', 'bounced', 'opened', 'clicked', 'replied', 'left'],
  call: ['delivered', 'bounced', 'opened', 'clicked', 'replied', 'left'],
};

function Counts({ data, onOpen }: { data: MessageResults; onOpen: (kind: ResultKind) => void }) {
  const format = useFormat();
  const shown = kindsOf(data.message.channel)
    .filter(
      ([kind]) =>
        data.counts[kind] > 0 ||
        ['sent', 'delivered', 'bounced', 'opened', 'clicked', 'replied', 'left'].includes(kind),
    )
    .filter(([kind]) => !UNTOLD[data.message.channel].includes(kind));
  return (
    <table className="w-full">
      <tbody>
        {shown.map(([kind, words, hint]) => {
          const rate = data.rates.find((one) => one.kind === kind);
          const bad = ['bounced', 'left', 'unsure', 'failed'].includes(kind) && data.counts[kind] > 0;
          return (
            <tr key={kind} className="border-t border-hair">
              <th scope="row" className="text-left py-[7px] font-semibold">
                {words}
                <span className="block font-normal text-ink2 text-[12px]">{hint}</span>
              </th>
              <td className="text-right w-[90px]">
                <button
                  className={`link font-title text-[18px] ${bad ? 'text-madder' : ''}`}
                  onClick={() => onOpen(kind)}
                  aria-label={t`${words}: ${data.counts[kind]}. See them`}
                >
                  {format.number(data.counts[kind])}
                </button>
              </td>
              <td className="text-right w-[170px] text-ink2">
                {rate && (
                  <>
                    {format.percent(rate.rate)}{' '}
                    <span className="text-[12px]">
                      <Trans>
                        ({format.percent(rate.low)} to {format.percent(rate.high)})
                      </Trans>
                    </span>
                  </>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function resultNotes(data: MessageResults | undefined, open: (kind: ResultKind) => void): Note[] {
  if (!data) return [];
  const { counts } = data;
  const notes: Note[] = [];
  if (data.message.pausedWhy)
    notes.push({
      key: 'paused',
      tone: 'fault',
      title: t`It paused itself`,
      body: t`${data.message.pausedWhy} Nobody is lost: those who are left get it when it goes on.`,
    });
  if (counts.unsure > 0)
    notes.push({
      key: 'unsure',
      tone: 'fault',
      title: t`${counts.unsure} ${plural(counts.unsure, { one: 'mail', other: 'mails' })} may or may not have gone`,
      body: t`The sending was cut off while they were under way. They are never sent twice by themselves.`,
      remedy: { words: t`Settle them`, act: () => open('unsure') },
    });
  if (counts.door > 0)
    notes.push({
      key: 'door',
      tone: 'good',
      title: t`${counts.door} held back as they left`,
      body: t`Between the last look and the hand-over they left, or their address went on hold.`,
      remedy: { words: t`See them`, act: () => open('door') },
    });
  if (counts.bounced > 0)
    notes.push({
      key: 'bounced',
      tone: 'doubt',
      title: `${counts.bounced} bounced`,
      body: t`Their addresses are on hold until somebody looks.`,
      remedy: { words: t`See them`, act: () => open('bounced') },
    });
  if (data.message.channel === 'email' && counts.opened > 0)
    notes.push({
      key: 'opens',
      tone: 'plain',
      title: t`Opens are unsure`,
      body: t`Trust follows, replies and gifts more. The ranges in brackets hold the true rate 95 times in 100.`,
    });
  return notes;
}

function Pace({ data, beside }: { data: MessageResults; beside: number }) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const may = useMay('organizer');
  const { id, state } = data.message;
  const act = useMutation({
    mutationFn: (what: 'pause' | 'resume' | 'stop') => api.post(`messages/{id}/${what}`, { id }),
    onSettled: () => refresh(queryClient, 'deliveries', 'messages'),
  });
  const [stopping, setStopping] = useState(false);
  const { counts, pace } = data;
  const left = counts.sent + beside;
  const total = left + counts.waiting + counts.door + counts.unsure + counts.failed;
  const words =
    state === 'preparing'
      ? t`Being made ready…`
      : t`${format.number(left)} of ${format.number(total)} have left${pace && pace.rate > 0 ? t`, ${pace.rate.toFixed(0)} a second` : ''}${pace?.secondsLeft ? t`, about ${pace.secondsLeft} seconds left` : ''}${state === 'paused' ? t`; paused` : ''}.`;
  return (
    <section className="sheet p-5 mb-4 flex gap-4 items-start">
      <div className="grow">
        <Progress done={left} total={total} words={words} />
        {data.limited && <p className="text-ochre">{LIMIT_WORDS[data.limited]}</p>}
        {data.turn && (
          <p className="pt-1">
            <Trans>
              {format.number(data.turn.people)}{' '}
              <Plural value={data.turn.people} one="person gets" other="people get" /> it in their turn; the
              last of them {format.moment(data.turn.until)}, our time.
            </Trans>
          </p>
        )}
        {data.night && (
          <p className="pt-1">
            <Trans>
              {format.number(data.night.people)}{' '}
              <Plural value={data.night.people} one="message waits" other="messages wait" /> for a decent hour
              where their people are; the first leaves {format.moment(data.night.until)}, our time.
            </Trans>
          </p>
        )}
      </div>
      {may && state === 'sending' && <Button onClick={() => act.mutate('pause')}>{t`Pause`}</Button>}
      {may && state === 'paused' && (
        <Button weight="main" onClick={() => act.mutate('resume')}>
          {t`Go on`}
        </Button>
      )}
      {may && (
        <Button weight="grave" onClick={() => setStopping(true)}>
          {t`Stop for good`}
        </Button>
      )}
      <ProblemNote error={act.error} />
      <Confirm
        open={stopping}
        onClose={() => setStopping(false)}
        title={t`Stop “${data.message.name}” for good?`}
        act={t`Stop it, ${format.number(counts.waiting)} do not get it`}
        body={
          <p>
            <Trans>
              {format.number(counts.sent)} <Plural value={counts.sent} one="has" other="have" /> left and stay
              sent. {format.number(counts.waiting)} still waiting never get it, and it can’t be started again.
              To go on later, pause it instead.
            </Trans>
          </p>
        }
        onAct={() => act.mutateAsync('stop')}
      />
    </section>
  );
}

/** What came of one message; every number opens the people behind it. */
export default function Results() {
  const id = Number(useParams().id);
  const format = useFormat();
  const [open, setOpen] = useState<ResultKind | null>(null);
  const { data, error } = useQuery({
    ...reading('messages/{id}/results', { id }),
    refetchInterval: (read) => (read.state.data && MOVING.has(read.state.data.message.state) ? 1_000 : 5_000),
  });
  const comparison = useComparison(id, data && MOVING.has(data.message.state) ? 2_000 : 10_000);
  useMargin(resultNotes(data, setOpen));
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`what came of it`} />;
  // Of the message the other wordings have left for as many; one of those counts for itself.
  const others = comparison?.messageId === id ? comparison.wordings.slice(1) : [];
  const beside = others.reduce((sum, { gone }) => sum + gone, 0);
  const began = data.message.startedAt
    ? t`${KIND_OF_WORDS[data.message.channel]}, began ${format.moment(data.message.startedAt)}`
    : '';
  return (
    <>
      <Heading
        title={data.message.name}
        page={t`Results: ${data.message.name}`}
        note={`${began}${data.message.state === 'stopped' ? t`, stopped` : ''}`}
      >
        <UseAgain id={id} name={data.message.name} />
        <KeepAsTemplate id={id} name={data.message.name} />
      </Heading>
      {MOVING.has(data.message.state) && <Pace data={data} beside={beside} />}
      {data.without && <WithoutIt without={data.without} />}
      {comparison && <WordingsCame comparison={comparison} shown={id} />}
      <div className="grid grid-cols-[minmax(420px,1fr)_1fr] gap-4 items-start max-[1100px]:grid-cols-1">
        <section className="sheet p-5">
          <h2 className="subtitle pb-2">{comparison ? t`What came of this wording` : t`What came of it`}</h2>
          <Counts data={data} onOpen={setOpen} />
        </section>
        <div className="flex flex-col gap-4">
          <section className="sheet p-5">
            <h2 className="subtitle">{t`Over time`}</h2>
            <OverTime hours={data.overTime} />
          </section>
          {data.links.length > 0 && (
            <section className="sheet p-5">
              <h2 className="subtitle pb-1">{t`Links`}</h2>
              <ul>
                {data.links.map((link) => (
                  <li key={link.url} className="flex justify-between gap-3 border-t border-hair py-2">
                    <span className="truncate font-mono text-[12.5px]">{link.url}</span>
                    <b>{format.number(link.people)}</b>
                  </li>
                ))}
              </ul>
            </section>
          )}
        </div>
      </div>
      {open && (
        <PeopleDrawer id={id} kind={open} apart={comparison !== undefined} onClose={() => setOpen(null)} />
      )}
    </>
  );
}
