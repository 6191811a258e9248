import { dayInZone } from '@goodword/core/common';
import { momentOf } from '@goodword/core/schedule';

/** At what o'clock a thread comes back, in minutes: when a working day begins. */
const MORNING = 9 * 60;

/** The weekday of a day, 0 for Monday; day 0 was a Thursday. */
const weekdayOf = (day: number) => (((day + 3) % 7) + 7) % 7;

/**
 * Until when a thread is put aside, as people say it: the next morning, the next Monday morning, a week on.
 * ISO moments by the clocks of the organization; a Monday that is tomorrow is said once.
 */
export function asideTimes(
  now: number,
  zone: string,
): { words: 'tomorrow' | 'monday' | 'week'; at: string }[] {
  const today = dayInZone(now, zone);
  const morningOf = (day: number) =>
    new Date(momentOf({ day: day as never, minutes: MORNING }, zone).at).toISOString();
  const monday = today + 7 - weekdayOf(today);
  return [
    { words: 'tomorrow' as const, at: morningOf(today + 1) },
    ...(monday === today + 1 || monday === today + 7
      ? []
      : [{ words: 'monday' as const, at: morningOf(monday) }]),
    { words: 'week' as const, at: morningOf(today + 7) },
  ];
}
