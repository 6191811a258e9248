import { readText, WRITTEN_AS_KEPT, type FieldKind } from '../field-kind';

/** Between the choices of a field that takes several. */
export const CHOICE_SEPARATOR = '; ';

/**
 * The choices in a text, each once, in the order in which they stand. Semicolons, commas, bars and line
 * breaks all part them, whatever else stands in the text: so what was kept is read as the same choices again.
 */
export function choicesOf(text: string): string[] {
  const parts = text.split(/[;,|\n]/).map((one) => one.trim());
  return [...new Set(parts.filter(Boolean))];
}

/** Several of the choices that the field offers. */
export const choicesKind: FieldKind = {
  ...WRITTEN_AS_KEPT,
  asks: ['has', 'has-not', 'filled', 'empty'],
  read: (text) => {
    const whole = readText(text);
    return whole.ok ? { ok: true, value: { text: choicesOf(text).join(CHOICE_SEPARATOR) } } : whole;
  },
};
