import { CHOICE_ASKS, readText, WRITTEN_AS_KEPT, type FieldKind } from '../field-kind';

/** One of the choices that the field offers. */
export const choiceKind: FieldKind = {
  ...WRITTEN_AS_KEPT,
  asks: CHOICE_ASKS,
  read: (text) => readText(text),
};
