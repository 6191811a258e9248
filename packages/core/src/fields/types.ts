import type { Day, MonthDay } from '../common';

export const FIELD_TYPES = ['text', 'number', 'money', 'date', 'birthday', 'yesno', 'choice'] as const;
export type FieldType = (typeof FIELD_TYPES)[number];

/**
 * A value as it is kept: exactly one member is set. Text for text and choice, number for number, yes/no (1, 0) and
 * money (minor units), date for dates, monthDay for birthdays.
 */
export interface FieldValue {
  text?: string;
  number?: number;
  date?: Day;
  monthDay?: MonthDay;
}

export const FIELD_TYPE_WORDS: Record<FieldType, string> = {
  text: 'text',
  number: 'number',
  money: 'money',
  date: 'date',
  birthday: 'birthday',
  yesno: 'yes or no',
  choice: 'choice',
};

/** Longest text a field keeps, in UTF-16 units. */
export const TEXT_LIMIT = 500;
