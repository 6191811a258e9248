import { jaroWinkler } from './names';
import { nameMatchKey } from './clean';

/** Spellings that are gathered under one. */
export interface SpellingGroup {
  to: string;
  from: string[];
}

/** Words of five letters and more that are this much alike are one word misspelt. */
const ALIKE = 0.92;
const SHORTEST = 5;

/**
 * Near spellings of one choice, gathered under the one that the field has already, else under the most
 * frequent:
 * differences of case, marks and spaces, and slips in longer words. Digits have to agree: "Crew 1" is not
 * "Crew 2".
 */
export function gatherSpellings(
  counts: ReadonlyMap<string, number>,
  choices: readonly string[] = [],
): SpellingGroup[] {
  const known = new Set(choices);
  const words = [...counts]
    .sort(([a, m], [b, n]) => Number(known.has(b)) - Number(known.has(a)) || n - m || a.localeCompare(b))
    .map(([word]) => word);
  const heads = [...choices.map((to) => ({ to, key: nameMatchKey(to), from: [] as string[] }))];
  for (const word of words) {
    if (known.has(word)) continue;
    const key = nameMatchKey(word);
    const head = heads.find((one) => one.key === key) ?? heads.find((one) => alike(one.key, key));
    if (head) head.from.push(word);
    else heads.push({ to: word, key, from: [] });
  }
  return heads.filter((head) => head.from.length > 0).map(({ to, from }) => ({ to, from }));
}

function alike(a: string, b: string): boolean {
  if (Math.min(a.length, b.length) < SHORTEST || a.replace(/\D/g, '') !== b.replace(/\D/g, '')) return false;
  return jaroWinkler(a, b) >= ALIKE;
}
