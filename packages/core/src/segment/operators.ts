import type { FieldType } from '../fields';
import type { FieldOp } from './tree';

/** The questions that can be asked of a field, by its type. */
export const FIELD_OPS_BY_TYPE: Record<FieldType, readonly FieldOp[]> = {
  text: ['is', 'is-not', 'contains', 'begins', 'filled', 'empty'],
  choice: ['is', 'is-not', 'filled', 'empty'],
  number: ['equals', 'at-least', 'at-most', 'between', 'filled', 'empty'],
  money: ['equals', 'at-least', 'at-most', 'between', 'filled', 'empty'],
  date: ['within-next', 'within-last', 'on', 'before', 'after', 'between', 'filled', 'empty'],
  birthday: ['within-next', 'in-month', 'filled', 'empty'],
  yesno: ['yes', 'no', 'empty'],
};
