import { NO_DAY, type Column } from '@goodword/core/segment';
import { folded } from './held';

/** What people are put in order by: a column, and where that says nothing of a difference, the next. */
export interface SortKey {
  column: Column;
}

/** For each ordinal its rank in a column: the same for equal values; nothing known ranks last. */
function ranksOf(column: Column, size: number): { ranks: Uint32Array; most: number } {
  switch (column.kind) {
    case 'text':
      return dictionaryRanks(column.codes, column.dictionary, size);
    case 'number':
      return valueRanks(column.values, size, Number.isNaN);
    case 'day':
      return valueRanks(column.values, size, (value) => value === NO_DAY);
    case 'monthDay':
      return valueRanks(column.values, size, (value) => value === 0);
    default:
      throw new Error(`expected a column that people can be put in order by, got ${column.kind}`);
  }
}

function dictionaryRanks(codes: Uint32Array, dictionary: readonly string[], size: number): { ranks: Uint32Array; most: number } {
  const plain = dictionary.map(folded);
  const order = [...dictionary.keys()].sort((a, b) => (plain[a]! < plain[b]! ? -1 : plain[a]! > plain[b]! ? 1 : 0));
  const rankOf = new Uint32Array(dictionary.length);
  let rank = 0;
  order.forEach((code, i) => {
    if (i > 0 && plain[code] !== plain[order[i - 1]!]) rank++;
    rankOf[code] = rank;
  });
  rankOf[0] = rank + 1;
  const ranks = new Uint32Array(size);
  for (let i = 0; i < size; i++) ranks[i] = rankOf[codes[i]!]!;
  return { ranks, most: rank + 1 };
}

function valueRanks(values: ArrayLike<number>, size: number, missing: (value: number) => boolean): { ranks: Uint32Array; most: number } {
  const present = new Float64Array(size);
  let n = 0;
  for (let i = 0; i < size; i++) if (!missing(values[i]!)) present[n++] = values[i]!;
  const sorted = present.subarray(0, n).sort();
  let kinds = 0;
  for (let i = 0; i < n; i++) if (i === 0 || sorted[i] !== sorted[i - 1]) sorted[kinds++] = sorted[i]!;
  const unique = sorted.subarray(0, kinds);
  const ranks = new Uint32Array(size);
  for (let i = 0; i < size; i++) ranks[i] = missing(values[i]!) ? kinds : placeOf(unique, values[i]!);
  return { ranks, most: kinds };
}

/** Where a value stands among sorted ones that hold it. */
function placeOf(sorted: Float64Array, value: number): number {
  let [low, high] = [0, sorted.length - 1];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (sorted[middle]! < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** A stable counting sort of `order` by rank. */
function sortedBy(order: Uint32Array, { ranks, most }: { ranks: Uint32Array; most: number }, descending: boolean): Uint32Array {
  const keyOf = (ordinal: number) => (descending && ranks[ordinal]! < most ? most - 1 - ranks[ordinal]! : ranks[ordinal]!);
  const starts = new Uint32Array(most + 2);
  for (const ordinal of order) starts[keyOf(ordinal) + 1]!++;
  for (let i = 1; i < starts.length; i++) starts[i]! += starts[i - 1]!;
  const out = new Uint32Array(order.length);
  for (const ordinal of order) out[starts[keyOf(ordinal)]!++] = ordinal;
  return out;
}

/**
 * Everybody in the order of some columns, the first counting most, and of ids where all agree. A stable counting sort
 * for each column, from the last to the first: a million people by two columns of words take a few tenths of a second,
 * most of it for putting the dictionaries in order.
 */
export function orderBy(keys: readonly SortKey[], ids: Uint32Array, size: number, descending: boolean): Uint32Array {
  let order = Uint32Array.from({ length: size }, (_none, i) => i);
  let risen = true;
  for (let i = 1; i < size && risen; i++) risen = ids[i]! > ids[i - 1]!;
  if (!risen) order.sort((a, b) => ids[a]! - ids[b]!);
  // Missing values stand last in both directions; only the first column turns round.
  for (const [i, key] of [...keys.entries()].reverse()) order = sortedBy(order, ranksOf(key.column, size), descending && i === 0) as typeof order;
  return order;
}
