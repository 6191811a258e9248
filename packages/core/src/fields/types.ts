import type { Day, MonthDay } from '../common';

/** Kinds of fields: each decides how a cell is read, kept, shown and asked for in a segment. */
export const FIELD_TYPES = [
  'text',
  'longtext',
  'number',
  'money',
  'date',
  'datetime',
  'birthday',
  'yesno',
  'choice',
  'choices',
  'country',
  'region',
  'place',
  'link',
  'file',
] as const;
export type FieldType = (typeof FIELD_TYPES)[number];

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
