import { plural, t } from '@lingui/core/macro';
import { pressing, type WaitingItem, type WaitingKind } from '@goodword/core/today';
import type { StopTask, TodayView } from '@goodword/core/contract';

/** A line of what waits, in words. */
export interface WaitLine {
  key: string;
  count: string;
  /** What waits, the noun first, which stands out. */
  what: string;
  rest: string;
  /** What there is to know before one opens it. */
  more: string;
  act: string;
  to: string;
  stop?: StopTask;
}

interface Words {
  number: (value: number) => string;
  moment: (iso: string) => string;
  day: (iso: string) => string;
}

const BATCH_WAITS: Record<string, [rest: string, act: string]> = {
  reading: [t`is being read`, t`Look`],
  unreadable: [t`could not be read`, t`Look`],
  draft: [t`waits for its columns and permission`, t`Go on`],
  checking: [t`is being checked`, t`Look`],
  checked: [t`is checked and can come in`, t`Go on`],
  bringing: [t`is coming in`, t`Look`],
  stopped: [t`was stopped half-way`, t`Go on`],
};

/** Opens the group behind the number, with a message to it one step away. */
export function segmentOf(name: string, rule: object): string {
  const tree = encodeURIComponent(JSON.stringify({ kind: 'all', rules: [rule] }));
  return `/sort/segments/new?name=${encodeURIComponent(name)}&tree=${tree}`;
}

const short = (words: string) => (words.length > 90 ? `${words.slice(0, 89).trimEnd()}…` : words);

type Item = WaitingItem<WaitLine>;
type Said = Omit<WaitLine, 'key'> & { key?: string | number };

const item = (kind: WaitingKind, since: string | null, of: Said): Item => ({
  kind,
  since: since === null ? null : Date.parse(since),
  of: { ...of, key: `${kind}${of.key ?? ''}` },
});

function stops({ stops: all }: TodayView, { moment }: Words): Item[] {
  return all.map((stop) =>
    item('stop', stop.at, {
      key: stop.taskId,
      count: '1',
      what: `“${short(stop.words)}”`,
      rest: t`is held until you say what it means`,
      more: `${stop.name}, ${moment(stop.at)}`,
      act: '',
      to: stop.supporterId ? `/sort/supporters/${stop.supporterId}` : '',
      stop,
    }),
  );
}

function unsureMails({ unsure, unsureSince, unsureMessageId }: TodayView, { number, moment }: Words): Item[] {
  if (unsure === 0) return [];
  return [
    item('unsure', unsureSince, {
      count: number(unsure),
      what: plural(unsure, { one: 'mail', other: 'mails' }),
      rest: t`may or may not have gone`,
      more: unsureSince === null ? '' : `since ${moment(unsureSince)}`,
      act: t`Settle`,
      to: `/hear-back/${unsureMessageId ?? ''}`,
    }),
  ];
}

function pausedMessages({ messages }: TodayView, { number }: Words): Item[] {
  return messages
    .filter(({ state }) => state === 'paused')
    .map((message) =>
      item('paused', null, {
        key: message.id,
        count: number(message.people ?? 0),
        what: message.name,
        rest: t`is paused`,
        more:
          message.pausedWhy ??
          t`${plural(message.people ?? 0, { one: 'person is', other: 'people are' })} still to get it`,
        act: t`Look`,
        to: `/hear-back/${message.id}`,
      }),
    );
}

function piles({ piles: all }: TodayView, { number, moment }: Words): Item[] {
  return all.map((pile) =>
    item('pile', pile.at, {
      key: pile.id,
      count: number(pile.people),
      what: plural(pile.people, { one: 'person', other: 'people' }),
      rest: plural(pile.people, {
        one: `waits for your look in “${pile.name}”`,
        other: `wait for your look in “${pile.name}”`,
      }),
      more: t`so many at once, since ${moment(pile.at)}: nothing leaves to them before you say so`,
      act: t`Look`,
      to: `/send/automatic/${pile.id}`,
    }),
  );
}

function stoppedFeeds({ feeds }: TodayView): Item[] {
  return feeds.map((feed) =>
    item('feed', feed.at, {
      key: feed.id,
      count: '1',
      what: t`Feed “${feed.name}”`,
      rest: t`stopped by itself`,
      more: feed.problem,
      act: t`Look`,
      to: `/gather/feeds/${feed.id}`,
    }),
  );
}

function unanswered({ replies, firstReply }: TodayView, { number, moment }: Words): Item[] {
  if (replies === 0 || !firstReply) return [];
  const { name, words, message, at } = firstReply;
  const rest =
    replies > 1 ? t`who wait for an answer, the oldest first` : message ? t`to “${message}”` : t`to answer`;
  return [
    item('reply', at, {
      count: number(replies),
      what: plural(replies, { one: 'reply', other: 'people' }),
      rest,
      more: `${name}, ${moment(at)}: “${short(words)}”`,
      act: t`Answer`,
      to: '/hear-back/replies',
    }),
  ];
}

function goes({ goes: all }: TodayView, { moment }: Words): Item[] {
  return all.map((draft) =>
    item('go', draft.at, {
      key: draft.id,
      count: '1',
      what: draft.name,
      rest: t`waits for a go`,
      more: [t`${draft.by || t`Somebody`}, ${moment(draft.at)}`, draft.note && `“${short(draft.note)}”`]
        .filter(Boolean)
        .join(': '),
      act: t`Read it`,
      to: `/write/${draft.id}`,
    }),
  );
}

function erasures({ erasures: all }: TodayView, { day }: Words): Item[] {
  return all.map((one) =>
    item('erasure', one.at, {
      key: one.taskId,
      count: '1',
      what: one.name || t`Somebody without a name`,
      rest: t`asks to be erased`,
      more: t`since ${day(one.at)}; the law gives a month in many places`,
      act: t`Open`,
      to: `/sort/supporters/${one.supporterId}`,
    }),
  );
}

function arrivals({ arrived }: TodayView, { number, moment }: Words): Item[] {
  return arrived.map((batch) =>
    item('arrived', batch.at, {
      key: batch.id,
      count: number(batch.people),
      what: plural(batch.people, { one: 'person', other: 'people' }),
      rest: t`came in with ${batch.name}`,
      more: t`${moment(batch.at)}; nobody has looked at it yet`,
      act: t`Look`,
      to: `/gather/${batch.id}`,
    }),
  );
}

function begunBatches({ batches }: TodayView, { number, moment }: Words): Item[] {
  return batches.map((batch) => {
    const [rest, act] = BATCH_WAITS[batch.state] ?? ['waits', t`Look`];
    const began = batch.by ? t`${batch.by} began it ${moment(batch.at)}` : `begun ${moment(batch.at)}`;
    return item('batch', batch.at, {
      key: batch.id,
      count: number(batch.rows),
      what: batch.name,
      rest,
      more: `${number(batch.rows)} ${plural(batch.rows, { one: 'row', other: 'rows' })}; ${began}`,
      act,
      to: `/gather/${batch.id}`,
    });
  });
}

function lapsingPermission({ lapsing: { people, days } }: TodayView, { number }: Words): Item[] {
  if (people === 0) return [];
  const rule = { kind: 'lapses', channel: 'email', scope: 'appeals', days };
  return [
    item('lapsing', null, {
      count: number(people),
      what: plural(people, { one: 'person’s permission', other: 'people’s permission' }),
      rest: t`lapses within ${days} days`,
      more: t`they may still be asked`,
      act: t`Ask again`,
      to: segmentOf(t`Permission lapses soon`, rule),
    }),
  ];
}

function senderFaults({ sender }: TodayView, { number }: Words): Item[] {
  if (sender === 0) return [];
  return [
    item('sender', null, {
      count: number(sender),
      what: plural(sender, { one: 'record of your sender', other: 'records of your sender' }),
      rest: plural(sender, { one: 'is not right', other: 'are not right' }),
      more: t`mail may be refused or count as spam`,
      act: t`Look`,
      to: '/setup/sender',
    }),
  ];
}

function drafts({ drafts: many, draft }: TodayView, { number, moment }: Words): Item[] {
  if (many === 0 || !draft) return [];
  return [
    item('draft', draft.at, {
      count: number(many),
      what: plural(many, { one: 'draft', other: 'drafts' }),
      rest: t`to finish`,
      more: t`“${draft.name}” last, ${moment(draft.at)}`,
      act: many === 1 ? t`Go on` : t`See them`,
      to: many === 1 ? `/write/${draft.id}` : '/write',
    }),
  ];
}

function addressesOnHold({ onHold }: TodayView, { number }: Words): Item[] {
  if (onHold === 0) return [];
  return [
    item('hold', null, {
      count: number(onHold),
      what: plural(onHold, { one: 'person', other: 'people' }),
      rest: plural(onHold, { one: 'has an address on hold', other: 'have an address on hold' }),
      more: t`nothing goes there until somebody has looked`,
      act: t`Look`,
      to: '/sort?hold=true',
    }),
  ];
}

const KINDS = [
  stops,
  unsureMails,
  pausedMessages,
  piles,
  stoppedFeeds,
  unanswered,
  goes,
  erasures,
  arrivals,
  begunBatches,
  lapsingPermission,
  senderFaults,
  drafts,
  addressesOnHold,
];

/** Everything that waits for a person, the most pressing first. */
export function whatWaits(today: TodayView, now: number, words: Words): (Item & { isLate: boolean })[] {
  return pressing(
    KINDS.flatMap((kind) => kind(today, words)),
    now,
  );
}
