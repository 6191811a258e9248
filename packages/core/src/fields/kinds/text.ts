import { readText, WRITTEN_AS_KEPT, type FieldKind } from '../field-kind';

/** Words on one line. */
export const textKind: FieldKind = {
  ...WRITTEN_AS_KEPT,
  asks: ['is', 'is-not', 'contains', 'begins', 'filled', 'empty'],
  read: (text) => readText(text),
};
