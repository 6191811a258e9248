import {
  ROW_VERDICTS,
  ENCODINGS,
  DOUBT_KINDS,
  MATCH_KEYS,
  PLAIN_TARGETS,
  REFUSAL_STATUSES,
  DAY_TARGETS,
} from '../intake';
import { each, say } from './speak';

/** What encodings are called. */
export const ENCODING_WORDS = each('encoding', ENCODINGS);
/** What the states of a file of refusals are called. */
export const REFUSAL_WORDS = each('status', REFUSAL_STATUSES);
/** What people are recognized by, in words. */
export const MATCH_KEY_WORDS = each('match-key', MATCH_KEYS);
/** Why a row may be somebody who is here, in words. */
export const DOUBT_WORDS = each('look', DOUBT_KINDS);

const TARGETS = [...PLAIN_TARGETS, ...DAY_TARGETS] as const;

/** What a column can be matched to: its name, and a word of what is read from it. */
export const TARGET_WORDS = Object.fromEntries(
  TARGETS.map((to) => [to, [say(`target.${to}`), say(`target.${to}.note`)]]),
) as Record<(typeof TARGETS)[number], [name: string, note: string]>;

/**
 * `6 new, 1 new at a shared address, 1 updated`; of a batch of no rows nothing. Numbers as the locale writes
 * them.
 */
export function verdictSentence(counts: Readonly<Partial<Record<string, number>>>, locale = 'en'): string {
  const number = new Intl.NumberFormat(locale);
  return ROW_VERDICTS.flatMap((verdict) => {
    const n = counts[verdict] ?? 0;
    const count = number.format(n);
    return n === 0 ? [] : [say(`became.${verdict}`, { n, count })];
  }).join(', ');
}
