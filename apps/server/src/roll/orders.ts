import { NO_DAY, type Column } from '@goodword/core/segment';
import { folded } from './columns';

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

function dictionaryRanks(
  codes: Uint32Array,
  dictionary: readonly string[],
  size: number,
): { ranks: Uint32Array; most: number } {
  const plain = dictionary.map(folded);
  const order = [...dictionary.keys()].sort((a, b) =>
    plain[a]! < plain[b]! ? -1 : plain[a]! > plain[b]! ? 1 : 0,
  );
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

function valueRanks(
  values: ArrayLike<number>,
  size: number,
  missing: (value: number) => boolean,
): { ranks: Uint32Array; most: number } {
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
function sortedBy(
  order: Uint32Array,
  { ranks, most }: { ranks: Uint32Array; most: number },
  descending: boolean,
): Uint32Array {
  const keyOf = (ordinal: number) =>
    descending && ranks[ordinal]! < most ? most - 1 - ranks[ordinal]! : ranks[ordinal]!;
  const starts = new Uint32Array(most + 2);
  for (const ordinal of order) starts[keyOf(ordinal) + 1]!++;
  for (let i = 1; i < starts.length; i++) starts[i]! += starts[i - 1]!;
  const out = new Uint32Array(order.length);
  for (const ordinal of order) out[starts[keyOf(ordinal)]!++] = ordinal;
  return out;
}

/**
 * Everybody in the order of some columns, the first counting most, and of ids where all agree. A stable
 * counting sort for each column, from the last to the first: a million people by two columns of words take a
 * few tenths of a second, most of it for putting the dictionaries in order.
 */
export function orderBy(
  keys: readonly SortKey[],
  ids: Uint32Array,
  size: number,
  descending: boolean,
): Uint32Array {
  let order = Uint32Array.from({ length: size }, (_none, i) => i);
  let risen = true;
  for (let i = 1; i < size && risen; i++) risen = ids[i]! > ids[i - 1]!;
  if (!risen) order.sort((a, b) => ids[a]! - ids[b]!);
  // Missing values stand last in both directions; only the first column turns round.
  for (const [i, key] of [...keys.entries()].reverse())
    order = sortedBy(order, ranksOf(key.column, size), descending && i === 0) as typeof order;
  return order;
}

/** How two people stand to each other in an order: as `orderBy` puts them. */
function comparing(
  keys: readonly SortKey[],
  ids: Uint32Array,
  descending: boolean,
): (a: number, b: number) => number {
  const steps = keys.map(({ column }, i) => stepOf(column, descending && i === 0));
  return (a, b) => {
    for (const step of steps) {
      const found = step(a, b);
      if (found !== 0) return found;
    }
    return ids[a]! - ids[b]!;
  };
}

function stepOf(column: Column, descending: boolean): (a: number, b: number) => number {
  const turn = descending ? -1 : 1;
  const by = <V extends string | number>(valueOf: (ordinal: number) => V | null) => {
    return (a: number, b: number) => {
      const [one, other] = [valueOf(a), valueOf(b)];
      if (one === null || other === null) return Number(one === null) - Number(other === null);
      return one < other ? -turn : one > other ? turn : 0;
    };
  };
  switch (column.kind) {
    case 'text': {
      const words = new Map<number, string>();
      const wordOf = (code: number) => {
        let word = words.get(code);
        if (word === undefined) words.set(code, (word = folded(column.dictionary[code]!)));
        return word;
      };
      return by((ordinal) => (column.codes[ordinal] === 0 ? null : wordOf(column.codes[ordinal]!)));
    }
    case 'number':
      return by((ordinal) => (Number.isNaN(column.values[ordinal]) ? null : column.values[ordinal]!));
    case 'day':
      return by((ordinal) => (column.values[ordinal] === NO_DAY ? null : column.values[ordinal]!));
    case 'monthDay':
      return by((ordinal) => (column.values[ordinal] === 0 ? null : column.values[ordinal]!));
    default:
      throw new Error(`expected a column that people can be put in order by, got ${column.kind}`);
  }
}

/**
 * An order without some people. A byte for each is looked up sooner than a set: the first page after a change
 * took 39 ms and not 186.
 */
function without(order: Uint32Array, some: ReadonlySet<number>, size: number): Uint32Array {
  const gone = new Uint8Array(size);
  for (const ordinal of some) gone[ordinal] = 1;
  const out = new Uint32Array(order.length);
  let n = 0;
  for (let i = 0; i < order.length; i++) {
    const ordinal = order[i]!;
    out[n] = ordinal;
    n += 1 - gone[ordinal]!;
  }
  return out.subarray(0, n);
}

/**
 * The same order after some people's values changed and some came new: they are taken out, put in order among
 * themselves, and each is put where it belongs by halving. Costs one pass over everybody, and a few
 * comparisons for each who moves.
 */
export function mendedOrder(
  order: Uint32Array,
  keys: readonly SortKey[],
  ids: Uint32Array,
  size: number,
  descending: boolean,
  changed: ReadonlySet<number>,
): Uint32Array {
  const compare = comparing(keys, ids, descending);
  const rest = without(order, changed, size);
  const fresh = Array.from({ length: size - order.length }, (_none, i) => order.length + i).filter(
    (ordinal) => !changed.has(ordinal),
  );
  const moving = [...changed, ...fresh].sort(compare);
  const out = new Uint32Array(rest.length + moving.length);
  let [from, to] = [0, 0];
  for (const ordinal of moving) {
    let [low, high] = [from, rest.length];
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (compare(rest[middle]!, ordinal) < 0) low = middle + 1;
      else high = middle;
    }
    out.set(rest.subarray(from, low), to);
    to += low - from;
    from = low;
    out[to++] = ordinal;
  }
  out.set(rest.subarray(from), to);
  return out;
}
