import { Bits } from '../common';
import { SMALL_AMOUNTS, type GiftsColumn } from './columns';
import type { Plan } from './plan';
import { BEGINNING, type DayRange } from './windows';

/*
 * One loop for each kind of plan, since a call for each of a million people costs five times the comparison itself (19 ms
 * against 4 ms for a range of days, measured on 2 cores). Words are put together bit by bit without a branch: which way
 * the next person goes can't be foreseen. What is asked most is written out four people at a time, which takes the loop's
 * own counting out of three of them: a third less time, measured beside the plain loop.
 */

/** Everybody who passes a plan. */
export function scan(plan: Plan, size: number): Bits {
  const bits = new Bits(size);
  switch (plan.kind) {
    case 'member':
      return plan.wanted ? plan.bits : plan.bits.not();
    case 'test':
      return Bits.where(size, plan.test);
    case 'range':
      if (plan.values instanceof Int32Array) wholeRange(bits.words, plan.values, plan.from, plan.to, size);
      else realRange(bits.words, plan.values, plan.from, plan.to, size);
      return plan.wanted ? bits : bits.not();
    case 'table':
      if (plan.codes instanceof Uint32Array) wideTable(bits.words, plan.codes, plan.passes, size);
      else narrowTable(bits.words, plan.codes, plan.passes, size);
      return bits;
    case 'gifts':
      giftScan(bits.words, plan, size);
      return plan.wanted ? bits : bits.not();
    case 'messages': {
      const { least } = plan;
      for (let i = 0; i < size; i++) if (messagesOf(plan, i) >= least) bits.add(i);
      return plan.wanted ? bits : bits.not();
    }
  }
}

/** Whether one person passes a plan. */
export function passes(plan: Plan, ordinal: number): boolean {
  switch (plan.kind) {
    case 'member':
      return plan.bits.has(ordinal) === plan.wanted;
    case 'test':
      return plan.test(ordinal);
    case 'range': {
      const value = plan.values[ordinal]!;
      return (value >= plan.from && value <= plan.to) === plan.wanted;
    }
    case 'table':
      return plan.passes[plan.codes[ordinal]!] === 1;
    case 'gifts': {
      const value = measured(plan, ordinal);
      return (value >= plan.least && value <= plan.most) === plan.wanted;
    }
    case 'messages':
      return messagesOf(plan, ordinal) >= plan.least === plan.wanted;
  }
}

/** How many of so many people stand in whole words of the set. */
const wholeWords = (size: number) => size & ~31;

function wholeRange(words: Uint32Array, values: Int32Array, from: number, to: number, size: number): void {
  // Whole bounds of 32 bits keep the comparison in integers.
  const [low, high] = [Math.max(from, -0x80000000) | 0, Math.min(to, 0x7fffffff) | 0];
  if (low > high || to < -0x80000000) return;
  const within = (value: number) => Number(value >= low) & Number(value <= high);
  let i = 0;
  for (const end = wholeWords(size); i < end;) {
    let word = 0;
    for (let bit = 0; bit < 32; bit += 4, i += 4)
      word |= (within(values[i]!) | (within(values[i + 1]!) << 1) | (within(values[i + 2]!) << 2) | (within(values[i + 3]!) << 3)) << bit;
    words[(i - 1) >>> 5] = word;
  }
  for (; i < size; i++) words[i >>> 5]! |= within(values[i]!) << (i & 31);
}

function realRange(words: Uint32Array, values: Float64Array, from: number, to: number, size: number): void {
  for (let i = 0, w = 0; i < size; w++) {
    let word = 0;
    for (let bit = 0; bit < 32 && i < size; bit++, i++) {
      const value = values[i]!;
      word |= (Number(value >= from) & Number(value <= to)) << bit;
    }
    words[w] = word;
  }
}

function wideTable(words: Uint32Array, codes: Uint32Array, table: Uint8Array, size: number): void {
  let i = 0;
  for (const end = wholeWords(size); i < end;) {
    let word = 0;
    for (let bit = 0; bit < 32; bit += 4, i += 4)
      word |= (table[codes[i]!]! | (table[codes[i + 1]!]! << 1) | (table[codes[i + 2]!]! << 2) | (table[codes[i + 3]!]! << 3)) << bit;
    words[(i - 1) >>> 5] = word;
  }
  for (; i < size; i++) words[i >>> 5]! |= table[codes[i]!]! << (i & 31);
}

function narrowTable(words: Uint32Array, codes: Uint8Array | Uint16Array, table: Uint8Array, size: number): void {
  let i = 0;
  for (const end = wholeWords(size); i < end;) {
    let word = 0;
    for (let bit = 0; bit < 32; bit += 4, i += 4)
      word |= (table[codes[i]!]! | (table[codes[i + 1]!]! << 1) | (table[codes[i + 2]!]! << 2) | (table[codes[i + 3]!]! << 3)) << bit;
    words[(i - 1) >>> 5] = word;
  }
  for (; i < size; i++) words[i >>> 5]! |= table[codes[i]!]! << (i & 31);
}

type GiftPlan = Extract<Plan, { kind: 'gifts' }>;

function giftScan(words: Uint32Array, plan: GiftPlan, size: number): void {
  if (plan.measure === 'sum') return sumScan(words, plan.gifts, plan.days, plan.least, plan.most, size);
  const { least, most } = plan;
  for (let i = 0; i < size; i++) {
    const value = measured(plan, i);
    if (value >= least && value <= most) words[i >>> 5]! |= 1 << (i & 31);
  }
}

/** People of one block: their running totals lie in the nearest cache, which halves the time. A multiple of 32. */
const BLOCK = 2048;
/** Running totals of the gifts of one block, whole and real. */
let wholeTotals = new Int32Array(BLOCK * 4);
let realTotals = new Float64Array(BLOCK * 4);

/**
 * Sums are what is asked for most. First the running total of a block's gifts in the window, one behind the other, then
 * each person's share of it: two loops without a branch. A loop over each person's own gifts takes three times as long,
 * for where it ends can't be foreseen. Amounts are whole minor units, so that nothing is lost by adding them all up; where
 * they are small, running totals may wrap around 32 bits, since differences of two come out right all the same.
 */
function sumScan(words: Uint32Array, gifts: GiftsColumn, { from, end }: DayRange, least: number, most: number, size: number): void {
  const { starts, days } = gifts;
  // Whole bounds of 32 bits keep the comparison in integers.
  const [low, high] = [Math.max(from, -0x80000000) | 0, Math.min(end - 1, 0x7fffffff) | 0];
  // Small sums are whole, and less than the greatest bound: what is asked beyond it comes to the same.
  const [few, many] = [smallBound(Math.ceil(least)), smallBound(Math.floor(most))];
  if (low > high || least > most) return;
  // Of all time, the totals are there already.
  if (gifts.running && from <= BEGINNING && end === Infinity) wholeShares(words, gifts.running, starts, few, many, 0, size);
  else sumBlocks(words, gifts, [low, high], [few, many, least, most], size);
  // Where nothing at all would pass too, it has to be asked who gave there.
  if (least > 0) return;
  const gave = gaveIn(days, low, high, starts, size);
  for (let w = 0; w < gave.length; w++) words[w]! &= gave[w]!;
}

/** Block by block: running totals within the days, then whose share lies within the bounds (whole ones, and as they were asked). */
function sumBlocks(
  words: Uint32Array,
  { starts, days, amounts }: GiftsColumn,
  [low, high]: [number, number],
  [few, many, least, most]: [number, number, number, number],
  size: number,
): void {
  for (let begin = 0; begin < size; begin += BLOCK) {
    const finish = Math.min(size, begin + BLOCK);
    const [first, last] = [starts[begin]!, starts[finish]!];
    if (amounts instanceof Int32Array) {
      if (wholeTotals.length <= last - first) wholeTotals = new Int32Array((last - first) * 2);
      wholeRunning(wholeTotals, days, amounts, low, high, first, last);
      wholeShares(words, wholeTotals, starts, few, many, begin, finish);
    } else {
      if (realTotals.length <= last - first) realTotals = new Float64Array((last - first) * 2);
      realRunning(realTotals, days, amounts, low, high, first, last);
      realShares(words, realTotals, starts, least, most, begin, finish);
    }
  }
}

const smallBound = (bound: number): number => Math.max(-SMALL_AMOUNTS, Math.min(SMALL_AMOUNTS, bound)) | 0;

function wholeRunning(sums: Int32Array, days: Int32Array, amounts: Int32Array, low: number, high: number, first: number, last: number): void {
  // The amount where the day lies in the window, else 0: all ones or all zeros are what it is joined with.
  const counted = (gift: number) => amounts[gift]! & -(Number(days[gift]! >= low) & Number(days[gift]! <= high));
  let [gift, n, sum] = [first, 1, 0];
  sums[0] = 0;
  for (const end = last - 3; gift < end; gift += 4, n += 4) {
    const one = (sum + counted(gift)) | 0;
    const two = (one + counted(gift + 1)) | 0;
    const three = (two + counted(gift + 2)) | 0;
    sum = (three + counted(gift + 3)) | 0;
    sums[n] = one;
    sums[n + 1] = two;
    sums[n + 2] = three;
    sums[n + 3] = sum;
  }
  for (; gift < last; gift++, n++) sums[n] = sum = (sum + counted(gift)) | 0;
}

function wholeShares(words: Uint32Array, sums: Int32Array, starts: Uint32Array, least: number, most: number, begin: number, finish: number): void {
  const first = starts[begin]!;
  const passes = (before: number, after: number) => {
    const value = (after - before) | 0;
    return Number(value >= least) & Number(value <= most);
  };
  const totalAt = (person: number) => sums[starts[person]! - first]!;
  let [i, before] = [begin, 0];
  for (const end = begin + wholeWords(finish - begin); i < end;) {
    let word = 0;
    for (let bit = 0; bit < 32; bit += 4, i += 4) {
      const one = totalAt(i + 1);
      const two = totalAt(i + 2);
      const three = totalAt(i + 3);
      const four = totalAt(i + 4);
      word |= (passes(before, one) | (passes(one, two) << 1) | (passes(two, three) << 2) | (passes(three, four) << 3)) << bit;
      before = four;
    }
    words[(i - 1) >>> 5] = word;
  }
  for (; i < finish; i++) {
    const after = totalAt(i + 1);
    words[i >>> 5]! |= passes(before, after) << (i & 31);
    before = after;
  }
}

function realRunning(sums: Float64Array, days: Int32Array, amounts: Float64Array, low: number, high: number, first: number, last: number): void {
  let sum = 0;
  sums[0] = 0;
  for (let gift = first, n = 1; gift < last; gift++, n++) {
    const day = days[gift]!;
    sum += amounts[gift]! * (Number(day >= low) & Number(day <= high));
    sums[n] = sum;
  }
}

function realShares(words: Uint32Array, sums: Float64Array, starts: Uint32Array, least: number, most: number, begin: number, finish: number): void {
  const first = starts[begin]!;
  let before = 0;
  for (let i = begin, w = begin >>> 5; i < finish; w++) {
    let word = 0;
    for (let bit = 0; bit < 32 && i < finish; bit++) {
      const after = sums[starts[++i]! - first]!;
      const value = after - before;
      before = after;
      word |= (Number(value >= least) & Number(value <= most)) << bit;
    }
    words[w] = word;
  }
}

/** Who has a gift in the window at all. */
function gaveIn(days: Int32Array, low: number, high: number, starts: Uint32Array, size: number): Uint32Array {
  const words = new Uint32Array((size + 31) >>> 5);
  for (let i = 0; i < size; i++) {
    const last = starts[i + 1]!;
    let gave = 0;
    for (let gift = starts[i]!; gift < last; gift++) gave |= Number(days[gift]! >= low) & Number(days[gift]! <= high);
    words[i >>> 5]! |= gave << (i & 31);
  }
  return words;
}

/** Somebody's measure in a range of days; NaN where they gave nothing there. Refunds count in a sum alone. */
function measured({ gifts, measure, days: { from, end } }: GiftPlan, ordinal: number): number {
  const { starts, days, amounts } = gifts;
  const last = starts[ordinal + 1]!;
  let value = NaN;
  switch (measure) {
    case 'sum':
      for (let g = starts[ordinal]!; g < last; g++) if (days[g]! >= from && days[g]! < end) value = (Number.isNaN(value) ? 0 : value) + amounts[g]!;
      return value;
    case 'count': {
      let n = 0;
      for (let g = starts[ordinal]!; g < last; g++) if (days[g]! >= from && days[g]! < end && amounts[g]! > 0) n++;
      return n === 0 ? NaN : n;
    }
    case 'largest':
      for (let g = starts[ordinal]!; g < last; g++)
        if (days[g]! >= from && days[g]! < end && amounts[g]! > 0 && !(amounts[g]! <= value)) value = amounts[g]!;
      return value;
    case 'first':
    case 'last': {
      // Of gifts of one day the later written counts as the later given.
      let best = -1;
      for (let g = starts[ordinal]!; g < last; g++)
        if (amounts[g]! > 0 && (best < 0 || (measure === 'last' ? days[g]! >= days[best]! : days[g]! < days[best]!))) best = g;
      return best >= 0 && days[best]! >= from && days[best]! < end ? amounts[best]! : NaN;
    }
  }
}

/** How many messages count for somebody. */
function messagesOf({ messages, messageId, days: { from, end } }: Extract<Plan, { kind: 'messages' }>, ordinal: number): number {
  const { starts, days, messageIds } = messages;
  let n = 0;
  for (let m = starts[ordinal]!; m < starts[ordinal + 1]!; m++)
    if (days[m]! >= from && days[m]! < end && (messageId === null || messageIds[m] === messageId)) n++;
  return n;
}
