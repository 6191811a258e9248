import { dayInZone, type Instant } from '../common';
import { momentOf, wallTimeOf } from '../schedule';

/** What a wait is counted in. */
export const WAIT_UNITS = ['minutes', 'hours', 'days'] as const;
export type WaitUnit = (typeof WAIT_UNITS)[number];

/** How long after something a message leaves, and at what time of the day where that is said. */
export interface Wait {
  n: number;
  unit: WaitUnit;
  /** Minutes after midnight by the house's clock; null for whatever time it is then. */
  at: number | null;
}

/** So many steps a series has at the most, and so many of a unit one of them waits. */
export const SERIES_LIMITS = { steps: 12, wait: 400 } as const;

const MS = { minutes: 60_000, hours: 3_600_000 } as const;

/**
 * The moment so long after another. Days are days of the calendar in a zone, so that ten o'clock stays ten
 * o'clock when clocks change; a time of the day that is over by then is that of the day after.
 */
export function momentAfter(moment: Instant, { n, unit, at }: Wait, zone: string): Instant {
  const passed = unit === 'days' ? daysAfter(moment, n, at, zone) : moment + n * MS[unit];
  if (at === null) return passed;
  const day = dayInZone(passed, zone);
  const then = momentOf({ day, minutes: at }, zone).at;
  return then >= passed ? then : momentOf({ day: day + 1, minutes: at }, zone).at;
}

/** So many days on: where a time is said, from the beginning of that day, else at the same time. */
function daysAfter(moment: Instant, n: number, at: number | null, zone: string): Instant {
  if (n === 0) return moment;
  const { day, minutes } = wallTimeOf(moment, zone);
  return momentOf({ day: day + n, minutes: at ?? minutes }, zone).at;
}
