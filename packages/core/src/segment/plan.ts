import type { Bits } from '../common';
import type { Column, GiftsColumn, MessagesColumn } from './columns';
import type { DayRange } from './windows';

/**
 * What of somebody's gifts in a window is looked at: their sum, their number, the largest; or the very first
 * or last of all.
 */
export const GIFT_MEASURES = ['sum', 'count', 'largest', 'first', 'last'] as const;
export type GiftMeasure = (typeof GIFT_MEASURES)[number];

/**
 * What a line asks of its column, worked out as far as it can be before anybody is looked at: the days of a
 * window, the words of a dictionary, the month-days of a birthday. The same plan is put to a million people
 * (see scan.ts) or to one.
 */
export type LinePlan =
  | { kind: 'member'; bits: Bits; wanted: boolean }
  /**
   * A value from `from` to `to`, both included; missing values (NaN, NO_DAY) lie outside of every range that
   * is asked for.
   */
  | { kind: 'range'; values: Int32Array | Float64Array; from: number; to: number; wanted: boolean }
  /** A code whose place in `passes` holds a one. */
  | { kind: 'table'; codes: Uint8Array | Uint16Array | Uint32Array; passes: Uint8Array }
  | {
      kind: 'gifts';
      gifts: GiftsColumn;
      measure: GiftMeasure;
      days: DayRange;
      least: number;
      most: number;
      wanted: boolean;
    }
  | {
      kind: 'messages';
      messages: MessagesColumn;
      messageId: number | null;
      days: DayRange;
      least: number;
      wanted: boolean;
    }
  /** Whatever is not asked often enough to have a loop of its own. */
  | { kind: 'test'; test: (ordinal: number) => boolean };

/** The column as one of a kind; a line that was given another is a fault of ours. */
export function columnOf<K extends Column['kind']>(column: Column, kind: K): Extract<Column, { kind: K }> {
  if (column.kind !== kind) throw new Error(`expected a column of ${kind}, got one of ${column.kind}`);
  return column as Extract<Column, { kind: K }>;
}

/** Those in a set, or those outside. */
export const memberPlan = (column: Column, wanted: boolean): LinePlan => ({
  kind: 'member',
  bits: columnOf(column, 'bits').bits,
  wanted,
});

/** Days in a range. The missing value lies below every range that begins at a real day. */
export const daysPlan = (values: Int32Array, { from, end }: DayRange): LinePlan => ({
  kind: 'range',
  values,
  from,
  to: end - 1,
  wanted: true,
});
