import type { Day, MonthDay } from '../common';

export const FIELD_TYPES = ['text', 'number', 'money', 'date', 'birthday', 'yesno', 'choice', 'choices', 'country', 'place', 'link'] as const;
export type FieldType = (typeof FIELD_TYPES)[number];

/**
 * A value as it is kept: exactly one member is set. Text for text, choices (several with “; ” between), countries
 * (ISO 3166-1), places (latitude, longitude) and links, number for number, yes/no (1, 0) and
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
  choices: 'several choices',
  country: 'country',
  place: 'place on the map',
  link: 'web link',
};

/** Longest text a field keeps, in UTF-16 units. */
export const TEXT_LIMIT = 500;
