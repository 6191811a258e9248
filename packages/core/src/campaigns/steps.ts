import type { Day, Instant } from '../common';
import { momentOf } from '../schedule';

/** So many steps a campaign has at the most, and so many days after its first one they lie. */
export const STEP_LIMITS = { steps: 20, days: 400 } as const;

/** When a step leaves: days after the campaign's first one, minutes after midnight on the house's clock. */
export interface StepTime {
  day: number;
  minutes: number;
}

/** The moment of a step, where the campaign begins on a day and the house lives in a zone. */
export const momentOfStep = (firstDay: Day, { day, minutes }: StepTime, zone: string): Instant =>
  momentOf({ day: firstDay + day, minutes }, zone).at;

/** Steps in the order in which they leave; of those at one time the one made first is before the other. */
export const stepsInOrder = <S extends StepTime & { id: number }>(steps: readonly S[]): S[] =>
  [...steps].sort((a, b) => a.day - b.day || a.minutes - b.minutes || a.id - b.id);

/**
 * How many people get none of several steps, one of them, two, and so on, as many numbers as there are steps
 * and one more; of `everybody` that any step is for.
 */
export function howManyGet(everybody: Iterable<number>, steps: readonly Iterable<number>[]): number[] {
  const gets = new Map<number, number>();
  for (const id of everybody) gets.set(id, 0);
  for (const step of steps) for (const id of step) gets.set(id, (gets.get(id) ?? 0) + 1);
  const people = new Array<number>(steps.length + 1).fill(0);
  for (const n of gets.values()) people[n]! += 1;
  return people;
}
