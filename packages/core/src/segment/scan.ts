import { Bits } from '../common';
import { SMALL_AMOUNTS } from './columns';
import { bytesWithin, sharesWithin, sumsWithin, wholeWithin } from './kernel';
import type { LinePlan } from './plan';
import { BEGINNING } from './windows';

/*
 * One loop for each kind of plan, since a call for each of a million people costs five times the comparison
 * itself (19 ms against 4 ms for a range of days, measured on 2 cores). Words are put together bit by bit
 * without a branch: which way the next person goes can't be foreseen. What is asked most is done several
 * people at a time (see kernel.ts).
 */

/** Everybody who passes a plan. */
export function scan(plan: LinePlan, size: number): Bits {
  const bits = new Bits(size);
  switch (plan.kind) {
    case 'member':
      return plan.wanted ? plan.bits : plan.bits.not();
    case 'test':
      return Bits.where(size, plan.test);
    case 'range':
      rangeScan(bits.words, plan, size);
      return plan.wanted ? bits : bits.not();
    case 'table':
      return tableScan(bits.words, plan, size);
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
export function passes(plan: LinePlan, ordinal: number): boolean {
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

function rangeScan(
  words: Uint32Array,
  { values, from, to }: Extract<LinePlan, { kind: 'range' }>,
  size: number,
): void {
  if (values instanceof Float64Array) return realRange(words, values, from, to, size);
  const bounds = wholeBounds(from, to);
  if (bounds) wholeWithin(words, values, bounds.low, bounds.high, size);
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

/** The whole numbers of 32 bits within two bounds, null where there are none. */
function wholeBounds(from: number, to: number): { low: number; high: number } | null {
  const [low, high] = [Math.max(Math.ceil(from), -0x80000000), Math.min(Math.floor(to), 0x7fffffff)];
  return low <= high ? { low, high } : null;
}

type TablePlan = Extract<LinePlan, { kind: 'table' }>;

/** Most tables pass one code, all but one, or those from one to another. */
function tableScan(words: Uint32Array, { codes, passes }: TablePlan, size: number): Bits {
  const bits = new Bits(size, words);
  const stretch = codes instanceof Uint16Array ? null : onlyStretch(passes);
  if (!stretch) eachCode(words, codes, passes, size);
  else if (codes instanceof Uint32Array) wholeWithin(words, codes, stretch.low, stretch.high, size);
  else if (codes instanceof Uint8Array) bytesWithin(words, codes, stretch.low, stretch.high, size);
  return stretch && !stretch.wanted ? bits.not() : bits;
}

/** The one stretch of codes that pass, or else that do not; null where both are in pieces. */
function onlyStretch(passes: Uint8Array): { low: number; high: number; wanted: boolean } | null {
  for (const wanted of [1, 0]) {
    const [low, high] = [passes.indexOf(wanted), passes.lastIndexOf(wanted)];
    const other = passes.indexOf(1 - wanted, low);
    if (low >= 0 && (other < 0 || other > high)) return { low, high, wanted: wanted === 1 };
  }
  return null;
}

function eachCode(words: Uint32Array, codes: TablePlan['codes'], passes: Uint8Array, size: number): void {
  for (let i = 0, w = 0; i < size; w++) {
    let word = 0;
    for (let bit = 0; bit < 32 && i < size; bit++, i++) word |= passes[codes[i]!]! << bit;
    words[w] = word;
  }
}

type GiftPlan = Extract<LinePlan, { kind: 'gifts' }>;

/** Sums and numbers of gifts are what is asked for most; whatever else there is goes person by person. */
function giftScan(words: Uint32Array, plan: GiftPlan, size: number): void {
  const { gifts, measure, days, least, most } = plan;
  const bounds = wholeBounds(days.from, days.end - 1);
  if (least > most || !bounds) return;
  if (measure === 'count')
    return sumsWithin(
      words,
      gifts,
      'given',
      { ...bounds, least: Math.max(1, smallBound(Math.ceil(least))), most: smallBound(Math.floor(most)) },
      size,
    );
  if (measure === 'sum' && gifts.amounts instanceof Int32Array) return sumScan(words, plan, bounds, size);
  for (let i = 0; i < size; i++) {
    const value = measured(plan, i);
    if (value >= least && value <= most) words[i >>> 5]! |= 1 << (i & 31);
  }
}

/**
 * Amounts are whole minor units, and small (see `narrowAmounts`): a bound that none of them reaches may stand
 * for any beyond it.
 */
const smallBound = (bound: number): number => Math.max(-SMALL_AMOUNTS, Math.min(SMALL_AMOUNTS, bound));

function sumScan(
  words: Uint32Array,
  { gifts, days, least, most }: GiftPlan,
  bounds: { low: number; high: number },
  size: number,
): void {
  const within = { ...bounds, least: smallBound(Math.ceil(least)), most: smallBound(Math.floor(most)) };
  const [anySum, always] = [
    least === -Infinity && most === Infinity,
    days.from <= BEGINNING && days.end === Infinity,
  ];
  if (anySum) words.fill(0xffffffff);
  else if (gifts.running && always) sharesWithin(words, gifts.starts, gifts.running, within, size);
  else sumsWithin(words, gifts, 'amounts', within, size);
  // Where nothing at all would pass too, it has to be asked who gave there.
  if (least > 0) return;
  const gave = new Uint32Array(words.length);
  sumsWithin(gave, gifts, 'each', { ...bounds, least: 1, most: SMALL_AMOUNTS }, size);
  for (let w = 0; w < gave.length; w++) words[w]! &= gave[w]!;
}

/** Somebody's measure in a range of days; NaN where they gave nothing there. Refunds count in a sum alone. */
function measured({ gifts, measure, days: { from, end } }: GiftPlan, ordinal: number): number {
  const { starts, days, amounts } = gifts;
  const last = starts[ordinal + 1]!;
  let value = NaN;
  switch (measure) {
    case 'sum':
      for (let g = starts[ordinal]!; g < last; g++)
        if (days[g]! >= from && days[g]! < end) value = (Number.isNaN(value) ? 0 : value) + amounts[g]!;
      return value;
    case 'count': {
      let n = 0;
      for (let g = starts[ordinal]!; g < last; g++)
        if (days[g]! >= from && days[g]! < end && amounts[g]! > 0) n++;
      return n === 0 ? NaN : n;
    }
    case 'largest':
      for (let g = starts[ordinal]!; g < last; g++)
        if (days[g]! >= from && days[g]! < end && amounts[g]! > 0 && !(amounts[g]! <= value))
          value = amounts[g]!;
      return value;
    case 'first':
    case 'last': {
      // Of gifts of one day the later written counts as the later given.
      let best = -1;
      for (let g = starts[ordinal]!; g < last; g++)
        if (
          amounts[g]! > 0 &&
          (best < 0 || (measure === 'last' ? days[g]! >= days[best]! : days[g]! < days[best]!))
        )
          best = g;
      return best >= 0 && days[best]! >= from && days[best]! < end ? amounts[best]! : NaN;
    }
  }
}

/** How many messages count for somebody. */
function messagesOf(
  { messages, messageId, days: { from, end } }: Extract<LinePlan, { kind: 'messages' }>,
  ordinal: number,
): number {
  const { starts, days, messageIds } = messages;
  let n = 0;
  for (let m = starts[ordinal]!; m < starts[ordinal + 1]!; m++)
    if (days[m]! >= from && days[m]! < end && (messageId === null || messageIds[m] === messageId)) n++;
  return n;
}
