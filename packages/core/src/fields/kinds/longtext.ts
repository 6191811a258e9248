import { LONG_TEXT_LIMIT, readText, WRITTEN_AS_KEPT, type FieldKind } from '../field-kind';

/** Words on several lines. */
export const longTextKind: FieldKind = {
  ...WRITTEN_AS_KEPT,
  asks: ['contains', 'filled', 'empty'],
  lines: true,
  read: (text) => readText(text, LONG_TEXT_LIMIT),
};
