import { folded, type TextsColumn } from './columns';

/**
 * A test for people who have, for each of the words, a part of their first or last name that begins with it.
 * Dictionaries are gone through once, people by their codes.
 */
export function namesBeginning(
  words: readonly string[],
  first: TextsColumn,
  last: TextsColumn,
): (ordinal: number) => boolean {
  const tests = words
    .map(folded)
    .map((word) => ({ first: beginners(first.plain, word), last: beginners(last.plain, word) }));
  const [firstCodes, lastCodes] = [first.codes, last.codes];
  return (ordinal) => {
    const [one, other] = [firstCodes[ordinal]!, lastCodes[ordinal]!];
    let passes = true;
    for (let w = 0; passes && w < tests.length; w++)
      passes = (tests[w]!.first[one]! | tests[w]!.last[other]!) === 1;
    return passes;
  };
}

/** Which words of a dictionary have a part that begins with a word. */
function beginners(dictionary: readonly string[], word: string): Uint8Array {
  const out = new Uint8Array(dictionary.length);
  for (let code = 0; code < dictionary.length; code++) if (beginsIn(dictionary[code]!, word)) out[code] = 1;
  return out;
}

/** Whether a part of a name begins with a word; both folded. */
function beginsIn(plain: string, word: string): boolean {
  for (let at = plain.indexOf(word); at >= 0; at = plain.indexOf(word, at + 1))
    if (at === 0 || " -\u2019'".includes(plain[at - 1]!)) return true;
  return false;
}
