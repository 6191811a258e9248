import type { Bits, Day } from '../common';

/** No day: a date column's missing value. */
export const NO_DAY = -0x80000000;

/** One fact about everybody, by ordinal. */
export type Column =
  | { kind: 'bits'; bits: Bits }
  /** Lower-cased text by dictionary; code 0 is "no value" and stands for the empty text. */
  | { kind: 'text'; codes: Uint32Array; dictionary: string[] }
  /** NaN is "no value". */
  | { kind: 'number'; values: Float64Array }
  | { kind: 'day'; values: Int32Array }
  /** 0 is "no value". */
  | { kind: 'monthDay'; values: Uint16Array }
  /** Index into STATES. */
  | { kind: 'state'; codes: Uint8Array }
  /** The gifts of person i are at starts[i] … starts[i+1]-1. */
  | GiftsColumn
  /** Codes of stages: 0 is not on the roster, else index into `stages` plus one. */
  | { kind: 'stage'; codes: Uint8Array; stages: string[] }
  /** The id of everybody's chapter. */
  | { kind: 'chapter'; ids: Uint32Array }
  | MessagesColumn;

/** Gifts of everybody: where each person's begin, then days and amounts side by side. */
export interface GiftsColumn {
  kind: 'gifts';
  starts: Uint32Array;
  days: Int32Array;
  /**
   * Minor units; in 32 bits where nobody's gifts and refunds together reach `SMALL_AMOUNTS` (see
   * `narrowAmounts`).
   */
  amounts: Float64Array | Int32Array;
  /**
   * For amounts in 32 bits: what all gifts before each come to, wrapping around; one more at the end (see
   * `runningTotals`).
   */
  running?: Int32Array;
}

/** Below this a person's sums, and what they lie from any bound that can matter, stay within 32 bits. */
export const SMALL_AMOUNTS = 2 ** 30;

/**
 * What the gifts before each come to; the difference of two is right as long as it is small, however often
 * they wrapped around.
 */
export function runningTotals(amounts: Int32Array): Int32Array {
  const running = new Int32Array(amounts.length + 1);
  for (let gift = 0; gift < amounts.length; gift++) running[gift + 1] = (running[gift]! + amounts[gift]!) | 0;
  return running;
}

/** Amounts in 32 bits if everybody's fit (half the memory, and sums in half the time), else as they are. */
export function narrowAmounts(starts: Uint32Array, amounts: Float64Array): Float64Array | Int32Array {
  for (let i = 0; i + 1 < starts.length; i++) {
    let reach = 0;
    for (let gift = starts[i]!; gift < starts[i + 1]!; gift++) reach += Math.abs(amounts[gift]!);
    if (!(reach < SMALL_AMOUNTS)) return amounts;
  }
  return Int32Array.from(amounts);
}

/** What became of messages: those of person i at starts[i] … starts[i+1]-1, each message once. */
export interface MessagesColumn {
  kind: 'messages';
  starts: Uint32Array;
  days: Int32Array;
  messageIds: Uint32Array;
}

/** The key of a column: what it holds, and of which field, tag or list. */
export type ColumnKey = string;

/** Everybody in question and what is known of them; `get` throws for a column that was not loaded. */
export interface Columns {
  size: number;
  get(key: ColumnKey): Column;
}

/** The moment a segment is read at. */
export interface EvaluationContext {
  today: Day;
  /** The month that fiscal years begin with, 1 to 12; January where nothing is said. */
  fiscalMonth?: number;
}
