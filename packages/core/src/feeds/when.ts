import { dayInZone, type Day, type Instant } from '../common';
import { momentOf } from '../schedule';

/**
 * How often a feed looks by the clock. Hours are minutes after midnight, weekdays as ISO 8601 counts them.
 */
export type Every =
  | { unit: 'minutes'; n: number }
  | { unit: 'hours'; n: number }
  | { unit: 'days'; n: number; at: number }
  | { unit: 'weekdays'; days: number[]; at: number };

/** When a feed looks: at once where the source tells of changes, and by the clock; null is never. */
export interface FeedWhen {
  atOnce: boolean;
  every: Every | null;
  /** Whose clock; null for the house's. */
  zone: string | null;
}

/** Bounds of what may be said of a clock. */
export const FEED_CLOCK = { minutes: 59, hours: 23, days: 31 } as const;

const MINUTE_MS = 60_000;
const HOUR_MS = 3_600_000;

/**
 * The first moment after `after` at which a feed looks by its clock. Minutes and hours are counted on from
 * `after`; days and weekdays are those of the zone, where an hour that the clocks leave out comes as late as
 * it would have been and one that comes twice is the first (RFC 5545 §3.3.5).
 */
export function nextRun(every: Every, zone: string, after: Instant): Instant {
  if (every.unit === 'minutes') return after + every.n * MINUTE_MS;
  if (every.unit === 'hours') return after + every.n * HOUR_MS;
  const today = dayInZone(after, zone);
  const on = (day: Day): Instant => momentOf({ day, minutes: every.at }, zone).at;
  // Days are counted from this one where its hour is past.
  if (every.unit === 'days') return on(today) > after ? on(today) : on(today + every.n);
  let day = today;
  while (on(day) <= after || !every.days.includes(isoWeekday(day))) day++;
  return on(day);
}

/** Monday is 1. Day 0 of ours is 1 January 1970, a Thursday. */
const isoWeekday = (day: Day): number => ((((day + 3) % 7) + 7) % 7) + 1;
