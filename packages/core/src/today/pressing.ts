import type { Instant } from '../common';

/** What can wait for a person. */
export type WaitingKind =
  | 'stop'
  | 'unsure'
  | 'paused'
  | 'pile'
  | 'feed'
  | 'reply'
  | 'go'
  | 'arrived'
  | 'batch'
  | 'erasure'
  | 'lapsing'
  | 'draft'
  | 'hold'
  | 'sender';

/** One line of what waits. */
export interface WaitingItem<Of = unknown> {
  kind: WaitingKind;
  /** Since when; null where it has no beginning, such as permission that will lapse. */
  since: Instant | null;
  of: Of;
}

/**
 * Within how many hours each kind of thing is seen to. A request to be erased: one month (GDPR, article
 * 12(3)). Somebody who asks to stop: at once; the law allows ten business days (47 CFR 64.1200(a)(10)),
 * during which nothing leaves to them here. The others are common practice without a source: a question
 * within a day, a batch while one still remembers the evening it came from.
 */
export const WITHIN_HOURS: Readonly<Record<WaitingKind, number>> = {
  ...{
    stop: 4,
    unsure: 4,
    paused: 8,
    pile: 24,
    feed: 24,
    reply: 24,
    go: 24,
    arrived: 48,
    batch: 72,
    erasure: 720,
    lapsing: 720,
    draft: 336,
    hold: 2160,
    sender: 24,
  },
};
const KINDS = Object.keys(WITHIN_HOURS) as WaitingKind[];
const HOUR = 3_600_000;

/** The share of its time that has gone; more than 1 is late. Where nothing began, half of it. */
function gone({ kind, since }: WaitingItem, now: Instant): number {
  return since === null ? 0.5 : Math.max(0, now - since) / (WITHIN_HOURS[kind] * HOUR);
}

/**
 * The most pressing first: what is late before what is not, each the longest of its time first; who asks to
 * stop before everything, since whoever reads it alone can say what they meant.
 */
export function pressing<Of>(
  waits: readonly WaitingItem<Of>[],
  now: Instant,
): (WaitingItem<Of> & { isLate: boolean })[] {
  return waits
    .map((one) => ({ ...one, isLate: gone(one, now) > 1 }))
    .sort(
      (a, b) =>
        Number(b.kind === 'stop') - Number(a.kind === 'stop') ||
        gone(b, now) - gone(a, now) ||
        KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind),
    );
}
