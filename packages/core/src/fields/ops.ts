/**
 * What a line asks of a value, by the type of its field: text and choice (is … filled), several choices (has,
 * has-not), number and money (equals … between), date (on … anniversary), birthday (within-next, within-last,
 * ahead, in-month), yes/no (yes, no), place (within-km). Dates are ISO days, money minor units; "within",
 * "ahead" and "ago" count in whole days, weeks or months. "is-not" and "has-not" hold for people without a
 * value too.
 */
export const FIELD_OPS = [
  'is',
  'is-not',
  'contains',
  'begins',
  'equals',
  'at-least',
  'at-most',
  'between',
  'on',
  'before',
  'after',
  'within-next',
  'within-last',
  'ahead',
  'ago',
  'anniversary',
  'during',
  'in-month',
  'has',
  'has-not',
  'within-km',
  'yes',
  'no',
  'empty',
  'filled',
] as const;
/** What a line can ask of a field; which of them fit is told by `asksOf`. */
export type FieldOp = (typeof FIELD_OPS)[number];
