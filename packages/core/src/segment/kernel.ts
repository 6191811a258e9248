import type { GiftsColumn } from './columns';
import { KERNEL_BYTES } from './kernel-bytes';

/*
 * Loops over everybody, four or sixteen at a time, by the machine's own instructions for that (kernel.wat): a
 * third to a sixth of the time that the same loop takes written out in TypeScript. Columns stay what they
 * are; a block of people after the other is laid into the kernel's memory, which is small enough to stay in
 * the nearer caches.
 */

/** People of one block; a multiple of 32. */
const BLOCK = 8192;
/** Loops over gifts go on to the next multiple of four. */
const SPARE = 4;

interface Kernel {
  memory: WebAssembly.Memory;
  whole(values: number, words: number, people: number, low: number, high: number): void;
  bytes(values: number, words: number, people: number, low: number, high: number): void;
  running(days: number, amounts: number, totals: number, gifts: number, low: number, high: number): void;
  shares(starts: number, totals: number, words: number, people: number, least: number, most: number): void;
}

/**
 * Where things lie in the kernel's memory, in numbers of four bytes: a block's words, its people, then its
 * gifts.
 */
const WORDS = 0;
const PEOPLE = WORDS + BLOCK / 32;
const GIFTS = PEOPLE + BLOCK + 32;

let loaded: Kernel | undefined;
let integers = new Int32Array(0);

/** The kernel, with room for so many gifts in a block (days, amounts and running totals). */
function kernelFor(gifts: number): Kernel {
  loaded ??= new WebAssembly.Instance(
    new WebAssembly.Module(Uint8Array.from(atob(KERNEL_BYTES), (char) => char.charCodeAt(0))),
  ).exports as unknown as Kernel;
  const { memory } = loaded;
  const missing = (GIFTS + 3 * (gifts + SPARE)) * 4 - memory.buffer.byteLength;
  if (missing > 0) memory.grow(Math.ceil(missing / 65_536));
  if (integers.buffer !== memory.buffer) integers = new Int32Array(memory.buffer);
  return loaded;
}

const at = (place: number) => place * 4;

/** Takes a block's words out; what lies past the last person is whatever was left there, and is cut off. */
function takeWords(words: Uint32Array, begin: number, finish: number): void {
  words.set(new Uint32Array(integers.buffer, at(WORDS), (finish - begin + 31) >>> 5), begin >>> 5);
  if ((finish & 31) !== 0) words[finish >>> 5]! &= (1 << (finish & 31)) - 1;
}

const upTo32 = (people: number) => (people + 31) & ~31;

/**
 * Who has a whole number within the bounds, both of them met. Written over `words`, 32 people a word.
 * Unsigned numbers are those of a dictionary, which never reach 2³¹.
 */
export function wholeWithin(
  words: Uint32Array,
  values: Int32Array | Uint32Array,
  low: number,
  high: number,
  size: number,
): void {
  const kernel = kernelFor(0);
  const signed = new Int32Array(values.buffer, values.byteOffset, values.length);
  for (let begin = 0; begin < size; begin += BLOCK) {
    const finish = Math.min(size, begin + BLOCK);
    integers.set(signed.subarray(begin, finish), PEOPLE);
    kernel.whole(at(PEOPLE), at(WORDS), upTo32(finish - begin), low, high);
    takeWords(words, begin, finish);
  }
}

/** As `wholeWithin`, of codes from 0 to 255. */
export function bytesWithin(
  words: Uint32Array,
  values: Uint8Array,
  low: number,
  high: number,
  size: number,
): void {
  const kernel = kernelFor(0);
  const bytes = new Uint8Array(integers.buffer, at(PEOPLE), BLOCK);
  for (let begin = 0; begin < size; begin += BLOCK) {
    const finish = Math.min(size, begin + BLOCK);
    bytes.set(values.subarray(begin, finish));
    kernel.bytes(at(PEOPLE), at(WORDS), upTo32(finish - begin), low, high);
    takeWords(words, begin, finish);
  }
}

/**
 * What is added up: amounts in 32 bits, one for each gift that is no refund, or one for whatever there is.
 */
export type Weight = 'amounts' | 'given' | 'each';

/**
 * Whose sum over their gifts of some days lies within the bounds; of who has none, it is 0. First the running
 * total of a block's gifts, one behind the other, then each person's share of it: two loops in which nothing
 * has to be foreseen.
 */
export function sumsWithin(
  words: Uint32Array,
  { starts, days, amounts }: GiftsColumn,
  weight: Weight,
  within: { low: number; high: number; least: number; most: number },
  size: number,
): void {
  for (let begin = 0; begin < size; begin += BLOCK) {
    const finish = Math.min(size, begin + BLOCK);
    const [first, last] = [starts[begin]!, starts[finish]!];
    const room = last - first + SPARE;
    const kernel = kernelFor(last - first);
    const [dayAt, amountAt, totalAt] = [GIFTS, GIFTS + room, GIFTS + 2 * room];
    integers.set(days.subarray(first, last), dayAt);
    if (weight === 'each') integers.fill(1, amountAt, amountAt + last - first);
    else if (weight === 'amounts') integers.set(amounts.subarray(first, last), amountAt);
    else
      for (let gift = first; gift < last; gift++)
        integers[amountAt + gift - first] = Number(amounts[gift]! > 0);
    kernel.running(at(dayAt), at(amountAt), at(totalAt), last - first, within.low, within.high);
    shares(kernel, words, starts, totalAt, within, begin, finish);
  }
}

/** As `sumsWithin` over all days, from the totals that are kept (see `runningTotals`). */
export function sharesWithin(
  words: Uint32Array,
  starts: Uint32Array,
  running: Int32Array,
  within: { least: number; most: number },
  size: number,
): void {
  for (let begin = 0; begin < size; begin += BLOCK) {
    const finish = Math.min(size, begin + BLOCK);
    const [first, last] = [starts[begin]!, starts[finish]!];
    const kernel = kernelFor(last - first);
    integers.set(running.subarray(first, last + 1), GIFTS);
    shares(kernel, words, starts, GIFTS, within, begin, finish);
  }
}

function shares(
  kernel: Kernel,
  words: Uint32Array,
  starts: Uint32Array,
  totalAt: number,
  { least, most }: { least: number; most: number },
  begin: number,
  finish: number,
): void {
  const people = finish - begin;
  integers.set(new Int32Array(starts.buffer, starts.byteOffset + at(begin), people + 1), PEOPLE);
  // Who would come after the last one has nothing.
  integers.fill(starts[finish]!, PEOPLE + people + 1, PEOPLE + upTo32(people) + 1);
  kernel.shares(at(PEOPLE), at(totalAt) - at(starts[begin]!), at(WORDS), upTo32(people), least, most);
  takeWords(words, begin, finish);
}
