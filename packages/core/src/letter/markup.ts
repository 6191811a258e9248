import type { Inline } from './doc';

/** HTML text and attribute escaping. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (char) => `&#${char.charCodeAt(0)};`);
}

/** A value in HTML: what has lines keeps them. */
export function escapeLines(text: string): string {
  const html = escapeHtml(text);
  return html.includes('\n') ? html.replace(/\n/g, '<br>') : html;
}

/** The first letter that has a direction of its own (Unicode Standard Annex #9, P2). */
const STRONG = /\p{L}/u;
const RIGHT_TO_LEFT =
  /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Adlam}]/u;

/**
 * The direction of a paragraph by its own first letter; null where it has none of its own (a name alone), and
 * whoever shows it decides.
 */
export function directionOf(text: string): 'ltr' | 'rtl' | null {
  const first = STRONG.exec(text)?.[0];
  if (first === undefined) return null;
  return RIGHT_TO_LEFT.test(first) ? 'rtl' : 'ltr';
}

/** The words of a line as typed, without its merge fields. */
export const literalWords = (inlines: readonly Inline[] | undefined): string =>
  (inlines ?? [])
    .map((inline) => (inline.type === 'text' ? inline.text : ' '))
    .join('')
    .replace(/\{[^{}]*\}/g, ' ');
