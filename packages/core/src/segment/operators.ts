import type { FieldType } from '../fields';
import type { FieldOp, STANDARD_FIELDS } from './tree';

/** The questions that can be asked of a field, by its type. */
export const FIELD_OPS_BY_TYPE: Record<FieldType, readonly FieldOp[]> = {
  text: ['is', 'is-not', 'contains', 'begins', 'filled', 'empty'],
  longtext: ['contains', 'filled', 'empty'],
  choice: ['is', 'is-not', 'filled', 'empty'],
  choices: ['has', 'has-not', 'filled', 'empty'],
  country: ['is', 'is-not', 'filled', 'empty'],
  region: ['is', 'is-not', 'filled', 'empty'],
  file: ['filled', 'empty'],
  place: ['within-km', 'filled', 'empty'],
  link: ['contains', 'filled', 'empty'],
  number: ['equals', 'at-least', 'at-most', 'between', 'filled', 'empty'],
  money: ['equals', 'at-least', 'at-most', 'between', 'filled', 'empty'],
  date: [
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
  ],
  datetime: [
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
  ],
  birthday: ['within-next', 'within-last', 'ahead', 'in-month', 'filled', 'empty'],
  yesno: ['yes', 'no', 'empty'],
};

/** What the fields that everybody has hold. */
export const STANDARD_FIELD_TYPES: Record<(typeof STANDARD_FIELDS)[number], FieldType> = {
  firstName: 'text',
  lastName: 'text',
  created: 'date',
  updated: 'date',
  country: 'text',
  region: 'text',
  postcode: 'text',
  externalId: 'text',
  household: 'number',
};
