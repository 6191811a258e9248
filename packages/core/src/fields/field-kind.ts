import { said, type Code, type Day, type MonthDay, type Said } from '../common';
import type { DateOrder } from './dates';
import type { Manner } from './format';
import type { FieldOp } from './ops';

/**
 * A value as it is kept. Text for text, choices (several with “; ” between), countries (ISO 3166-1), regions
 * (ISO 3166-2), places (latitude, longitude), links and files (“id/name”); number for number, yes/no (1, 0)
 * and money (minor units); date for dates, and with it number, the minute of the day, for a date and time;
 * monthDay for birthdays.
 */
export interface FieldValue {
  text?: string;
  number?: number;
  date?: Day;
  monthDay?: MonthDay;
}

/** Longest text a field keeps, in UTF-16 units. */
export const TEXT_LIMIT = 500;
/** The same of a long text. */
export const LONG_TEXT_LIMIT = 4000;

/** A value of a field as it is kept, nothing where the cell is empty, or why it cannot be read. */
export type Coerced = { ok: true; value: FieldValue } | { ok: false; reason: Said };

/** What has to be known of where a text was written. */
export interface WrittenAs {
  /** Day first where nothing is said. */
  order?: DateOrder;
  /** The currency that money is kept in (ISO 4217); an amount in another one is a fault. */
  currency?: string;
  /** A day on which somebody was born lies before it. */
  today?: Day;
  /** A date, and so with its year, on which somebody was born. */
  born?: boolean;
}

/**
 * A kind of field: how it is kept, read, written and asked for. A new one is a file in `kinds/` and a place
 * in `FIELD_KINDS`; then the compiler asks for its control on a form (server) and on a record (web), and the
 * catalog for its name.
 */
export interface FieldKind {
  /** The part of a value that says whether there is one; columns and tables follow it. */
  kept: keyof FieldValue;
  /** What a line of a segment can ask of it, the most usual first. */
  asks: readonly FieldOp[];
  /** May have line breaks. */
  lines?: true;
  /** A day or a time, whose order of day and month has to be known. */
  dated?: true;
  /** Reads the text of a cell or an editor; text without control characters, on one line but for `lines`. */
  read(text: string, as: WrittenAs): Coerced;
  /** In words, as the locale writes it; empty for no value. */
  write(value: FieldValue, manner: Manner): string;
  /** As it can be read again whatever the locale; empty for no value. */
  iso(value: FieldValue): string;
}

/** A text that can't be read, with what it was. */
export function fault(code: Code, text: string, values: Said['values'] = {}): Coerced {
  return {
    ok: false,
    reason: said(code, { ...values, got: text.length > 40 ? `${text.slice(0, 40)}…` : text }),
  };
}

/** What can be asked of numbers. */
export const NUMBER_ASKS: readonly FieldOp[] = [
  'equals',
  'at-least',
  'at-most',
  'between',
  'filled',
  'empty',
];
/** What can be asked of days. */
export const DAY_ASKS: readonly FieldOp[] = [
  'within-next',
  'within-last',
  'ahead',
  'ago',
  'anniversary',
  'during',
  'on',
  'before',
  'after',
  'between',
  'filled',
  'empty',
];
/** What can be asked of one of some values. */
export const CHOICE_ASKS: readonly FieldOp[] = ['is', 'is-not', 'filled', 'empty'];

const asText = ({ text }: FieldValue) => text ?? '';

/** The text of a value kept as text, which is written as it is kept. */
export const WRITTEN_AS_KEPT = { kept: 'text', write: asText, iso: asText } as const;

/** Text that is no longer than a field keeps. */
export function readText(text: string, most = TEXT_LIMIT): Coerced {
  return text.length > most ? fault('value.long', text, { most }) : { ok: true, value: { text } };
}

/** A text that a reader of ours makes another of (a code, an address); a fault where it can't. */
export const readAs =
  (read: (text: string) => string | null, code: Code) =>
  (text: string): Coerced => {
    const found = read(text);
    return found === null ? fault(code, text) : { ok: true, value: { text: found } };
  };
