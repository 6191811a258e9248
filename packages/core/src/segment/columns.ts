import type { Bits, Day } from '../common';
import type { PermissionState } from '../permission';
import type { Line } from './tree';

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
  | { kind: 'gifts'; starts: Uint32Array; days: Int32Array; amounts: Float64Array };

export type ColumnKey = string;

/** Everybody in question and what is known of them; `get` throws for a column that was not loaded. */
export interface Columns {
  size: number;
  get(key: ColumnKey): Column;
}

/** The column that a line reads. */
export function columnKey(line: Line): ColumnKey {
  switch (line.kind) {
    case 'field':
      return `field:${line.field}`;
    case 'tag':
      return `tag:${line.tagId}`;
    case 'list':
      return `list:${line.listId}`;
    case 'batch':
      return `batch:${line.batchId}`;
    case 'permission':
      return `permission:${line.channel}:${line.scope}`;
    case 'may':
    case 'lapses':
      return `${line.kind}:${line.channel}:${line.scope}`;
    case 'gave':
      return 'gifts';
  }
}

/** The moment a segment is read at. */
export interface Reading {
  today: Day;
}

export type { PermissionState };
