import type { Day } from '../common';

/**
 * Half a year: long enough for a median that one large import does not move, short enough to be of this
 * team's time.
 */
export const USUAL_WEEKS = 26;
const FEWEST = 4;

/**
 * Which week a day lies in: 0 for the seven days that end with `today`, 1 for those before, and so on; null
 * ahead of us.
 */
export function weekOf(day: Day, today: Day): number | null {
  return day > today ? null : Math.floor((today - day) / 7);
}

/**
 * What a week brings usually: the median of the whole weeks behind the present one, `counts[w]` for the w-th,
 * of which there were `lived`. A week in which nothing came counts as none. Null where fewer than four lie
 * behind.
 */
export function usualWeek(counts: ReadonlyMap<number, number>, lived: number): number | null {
  const weeks = Math.min(USUAL_WEEKS, Math.floor(lived));
  if (weeks < FEWEST) return null;
  const sorted = Array.from({ length: weeks }, (_, i) => counts.get(i + 1) ?? 0).sort((a, b) => a - b);
  const middle = Math.floor(weeks / 2);
  return weeks % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
