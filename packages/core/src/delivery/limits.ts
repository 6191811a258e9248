import { dayInZone, parseIsoDay, type Day, type Instant } from '../common';

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

const HOUR_MS = 3_600_000;
/** So far ahead it is looked: ten years of hours. */
const MOST_HOURS = 87_600;

/** When a mailing begins, in which IANA zone the days of the house are, and what had left by then. */
export interface MailingBegun {
  at: Instant;
  zone: string;
  sent: MailsSent;
}

/**
 * About when the last of so many mails leaves by the limits, hour for hour, with nothing else on its way;
 * null where that is not within ten years. What left in the day before counts until that day is over.
 */
export function lastLeaves(
  limits: MailLimits,
  people: number,
  { at, zone, sent }: MailingBegun,
): Instant | null {
  const hours: number[] = [];
  let [left, within, today] = [people, 0, sent.today];
  for (let hour = 0, before = dayInZone(at, zone); hour < MOST_HOURS; hour++) {
    const now = at + hour * HOUR_MS;
    const day = dayInZone(now, zone);
    if (day !== before) [before, today] = [day, 0];
    const gone = {
      ...{ hour: hour === 0 ? sent.hour : 0, day: within + (hour < 24 ? sent.day : 0), today },
    };
    const go = Math.min(left, mailsLeft(limits, gone, day).left);
    hours.push(go);
    // The hours of the 24 that are before the next one.
    within += go - (hours[hour - 23] ?? 0);
    today += go;
    left -= go;
    if (left <= 0) return now;
  }
  return null;
}
