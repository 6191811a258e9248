import type { CallHours } from '@goodword/core/contract';
import { rulesFor, type HouseRules, type Place } from '@goodword/core/permission';
import { hoursWords } from '@goodword/core/words';
import { decentMoment } from '../permission/decent-moment';

/** When somebody may be called where they are: the house's words, and from when on if not this moment. */
export function callHours(
  place: Place,
  rules: HouseRules,
  home: { time_zone: string },
  now: Date,
): CallHours {
  const { hours } = rulesFor(rules, place);
  const at = decentMoment('call', place, { rules, homeZone: home.time_zone }, now.getTime());
  return { words: hoursWords(hours.call), from: at === now.getTime() ? null : new Date(at).toISOString() };
}

/**
 * Lines for the head of a sheet, which is called from on paper at a time that nobody knows yet: the hours of
 * the most, and the numbers of those who have others.
 */
export function hoursNotes(people: readonly { number: number; words: string }[]): string[] {
  const of = new Map<string, number[]>();
  for (const { number, words } of people) of.set(words, [...(of.get(words) ?? []), number]);
  const [most, ...others] = [...of].sort((a, b) => b[1].length - a[1].length);
  if (!most) return [];
  return [
    `Call ${most[0]}, by the clock where they are.`,
    ...others.map(
      ([words, numbers]) => `${numbers.length === 1 ? 'Number' : 'Numbers'} ${numbers.join(', ')}: ${words}.`,
    ),
  ];
}
