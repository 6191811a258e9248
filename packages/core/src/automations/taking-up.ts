import type { Instant } from '../common';

/** Something that happened to somebody, and may set a message going. */
export interface Occurrence {
  supporterId: number;
  /** Which it was, as long as it is the same: two of one key are one. */
  key: string;
  at: Instant;
}

/** What is known of an automatic message before anything more is taken up. */
export interface TakenBefore {
  /** Whoever was taken up before, whatever for. */
  people: ReadonlySet<number>;
  /** What was taken up before, as `occurrenceKey` has it. */
  occurrences: ReadonlySet<string>;
  /** How many were taken up lately and not looked at. */
  lately: number;
}

/** An occurrence among those of everybody. */
export const occurrenceKey = ({ supporterId, key }: Pick<Occurrence, 'supporterId' | 'key'>) =>
  `${supporterId} ${key}`;

/**
 * Which of what happened sets a message going: each of them once, and each person once unless it is said that
 * it goes again. Where it is more than `pile` together with what came lately, all of it waits for a look.
 */
export function takeUp(
  found: readonly Occurrence[],
  before: TakenBefore,
  { again, pile }: { again: boolean; pile: number },
): { taken: Occurrence[]; held: boolean } {
  const people = new Set(before.people);
  const occurrences = new Set(before.occurrences);
  const taken: Occurrence[] = [];
  for (const one of [...found].sort((a, b) => a.at - b.at)) {
    if (occurrences.has(occurrenceKey(one)) || (!again && people.has(one.supporterId))) continue;
    taken.push(one);
    occurrences.add(occurrenceKey(one));
    people.add(one.supporterId);
  }
  return { taken, held: before.lately + taken.length > pile };
}
