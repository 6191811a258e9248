import { parseIsoDay, type Day } from '../common';

/** How much mail may leave: what the provider takes, and less while a new domain is made known. */
export interface MailLimits {
  /** Within any 60 minutes. */
  perHour: number | null;
  /** Within any 24 hours. */
  perDay: number | null;
  /** From an ISO day on, so many on the first day of the house, so many on the second, and so on. */
  warmUp: { from: string; amounts: number[] } | null;
}

/**
 * Mails a day with which a new sending domain is made known, doubled day by day (common practice, no
 * source): each mailbox provider watches how the first ones are received.
 */
export const USUAL_WARM_UP: readonly number[] = [
  50, 100, 200, 400, 800, 1_600, 3_200, 6_400, 12_800, 25_600, 51_200, 102_400,
];

/** What has left, or is about to, in each of the spans that limits are for. */
export interface MailsSent {
  hour: number;
  day: number;
  /** Since midnight where the house is. */
  today: number;
}

/** Which limit holds mail back. */
export type LimitedBy = 'hour' | 'day' | 'warm-up';
/** All of them. */
export const LIMITS_BY: readonly LimitedBy[] = ['warm-up', 'day', 'hour'];

/** Of a new domain, how many may leave on a day of the house; null where nothing is said of that day. */
export function warmUpOf({ warmUp }: MailLimits, today: Day): number | null {
  const from = warmUp && parseIsoDay(warmUp.from);
  if (warmUp === null || from === null || today < from) return null;
  return warmUp.amounts[today - from] ?? null;
}

/** How many mails may leave now, and by which limit no more; endless where nothing limits them. */
export function mailsLeft(
  limits: MailLimits,
  sent: MailsSent,
  today: Day,
): { left: number; by: LimitedBy | null } {
  const bounds: [LimitedBy, number | null, number][] = [
    ['warm-up', warmUpOf(limits, today), sent.today],
    ['day', limits.perDay, sent.day],
    ['hour', limits.perHour, sent.hour],
  ];
  let found: { left: number; by: LimitedBy | null } = { left: Infinity, by: null };
  for (const [by, most, gone] of bounds) {
    const left = most === null ? Infinity : Math.max(0, most - gone);
    if (left < found.left) found = { left, by };
  }
  return found;
}

/** Over how many days of the house so many mails leave, begun on one of them with nothing else on its way. */
export function daysToLeave(limits: MailLimits, people: number, today: Day): number {
  const daily = Math.min(limits.perDay ?? Infinity, limits.perHour === null ? Infinity : limits.perHour * 24);
  let days = 0;
  for (let left = people; left > 0; days++) {
    const most = Math.min(daily, warmUpOf(limits, today + days) ?? Infinity);
    if (most === Infinity) return days + 1;
    // A day of nothing is one of a warm-up, which ends.
    left -= most;
  }
  return Math.max(1, days);
}
