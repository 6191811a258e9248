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

/** Everything that waits for a person, the most pressing first. */
export function whatWaits(
  today: TodayView,
  now: number,
  { number, moment, day }: Words,
): (WaitingItem<WaitLine> & { isLate: boolean })[] {
  const waits: WaitingItem<WaitLine>[] = [];
  const add = (
    kind: WaitingKind,
    since: string | null,
    of: Omit<WaitLine, 'key'> & { key?: string | number },
  ) =>
    waits.push({
      kind,
      since: since === null ? null : Date.parse(since),
      of: { ...of, key: `${kind}${of.key ?? ''}` },
    });
  const since = (iso: string | null) => (iso === null ? '' : `since ${moment(iso)}`);

  for (const stop of today.stops)
    add('stop', stop.at, {
      ...{
        key: stop.taskId,
        count: '1',
        what: `“${short(stop.words)}”`,
        rest: t`is held until you say what it means`,
      },
      ...{
        more: `${stop.name}, ${moment(stop.at)}`,
        act: '',
        to: stop.supporterId ? `/sort/supporters/${stop.supporterId}` : '',
        stop,
      },
    });
  if (today.unsure > 0)
    add('unsure', today.unsureSince, {
      ...{
        count: number(today.unsure),
        what: plural(today.unsure, { one: 'mail', other: 'mails' }),
        rest: t`may or may not have gone`,
      },
      ...{ more: since(today.unsureSince), act: t`Settle`, to: `/hear-back/${today.unsureMessageId ?? ''}` },
    });
  for (const message of today.messages.filter(({ state }) => state === 'paused'))
    add('paused', null, {
      ...{ key: message.id, count: number(message.people ?? 0), what: message.name, rest: t`is paused` },
      ...{
        more: t`${plural(message.people ?? 0, { one: 'person is', other: 'people are' })} still to get it`,
        act: t`Look`,
        to: `/hear-back/${message.id}`,
      },
    });
  if (today.replies > 0 && today.firstReply) {
    const { name, words, message, at } = today.firstReply;
    const rest =
      today.replies > 1 ? t`to answer, the oldest first` : message ? t`to “${message}”` : t`to answer`;
    add('reply', at, {
      ...{
        count: number(today.replies),
        what: plural(today.replies, { one: 'reply', other: 'replies' }),
        rest,
      },
      ...{ more: `${name}, ${moment(at)}: “${short(words)}”`, act: t`Answer`, to: '/hear-back/replies' },
    });
  }
  for (const one of today.erasures)
    add('erasure', one.at, {
      ...{
        key: one.taskId,
        count: '1',
        what: one.name || t`Somebody without a name`,
        rest: t`asks to be erased`,
      },
      ...{
        more: t`since ${day(one.at)}; the law gives a month in many places`,
        act: t`Open`,
        to: `/sort/supporters/${one.supporterId}`,
      },
    });
  for (const batch of today.arrived)
    add('arrived', batch.at, {
      ...{
        key: batch.id,
        count: number(batch.people),
        what: plural(batch.people, { one: 'person', other: 'people' }),
        rest: t`came in with ${batch.name}`,
      },
      ...{
        more: t`${moment(batch.at)}; nobody has looked at it yet`,
        act: t`Look`,
        to: `/gather/${batch.id}`,
      },
    });
  for (const batch of today.batches) {
    const [rest, act] = BATCH_WAITS[batch.state] ?? ['waits', t`Look`];
    const began = batch.by ? t`${batch.by} began it ${moment(batch.at)}` : `begun ${moment(batch.at)}`;
    add('batch', batch.at, {
      ...{ key: batch.id, count: number(batch.rows), what: batch.name, rest },
      ...{
        more: `${number(batch.rows)} ${plural(batch.rows, { one: 'row', other: 'rows' })}; ${began}`,
        act,
        to: `/gather/${batch.id}`,
      },
    });
  }
  const { people, days } = today.lapsing;
  if (people > 0)
    add('lapsing', null, {
      ...{
        count: number(people),
        what: plural(people, { one: 'person’s permission', other: 'people’s permission' }),
        rest: t`lapses within ${days} days`,
      },
      ...{
        more: t`they may still be asked`,
        act: t`Ask again`,
        to: segmentOf(t`Permission lapses soon`, {
          kind: 'lapses',
          channel: 'email',
          scope: 'appeals',
          days,
        }),
      },
    });
  if (today.drafts > 0 && today.draft)
    add('draft', today.draft.at, {
      ...{
        count: number(today.drafts),
        what: plural(today.drafts, { one: 'draft', other: 'drafts' }),
        rest: t`to finish`,
      },
      ...{
        more: t`“${today.draft.name}” last, ${moment(today.draft.at)}`,
        act: today.drafts === 1 ? t`Go on` : t`See them`,
      },
      to: today.drafts === 1 ? `/write/${today.draft.id}` : '/write',
    });
  if (today.onHold > 0)
    add('hold', null, {
      ...{
        count: number(today.onHold),
        what: plural(today.onHold, { one: 'person', other: 'people' }),
        rest: plural(today.onHold, { one: 'has an address on hold', other: 'have an address on hold' }),
      },
      ...{ more: t`nothing goes there until somebody has looked`, act: t`Look`, to: '/sort?hold=true' },
    });
  return pressing(waits, now);
}
