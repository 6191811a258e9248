/*
 * Characters that nobody sees and that change what others see: controls other than tab and line end (C0, DEL,
 * C1), and the overrides, embeddings and isolates of direction (Unicode Standard Annex #9, §2), by which a
 * name can turn the words around it. Names and values are kept without them, whatever the road.
 */

const UNSEEN = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\u202a-\u202e\u2066-\u2069]/g;
/**
 * Spaces without width, soft hyphens, marks of order and of direction: they part one name from the same name.
 */
const WIDTHLESS = /[\u00ad\u061c\u180e\u200b\u200e\u200f\u2060\ufeff]/g;
/**
 * Joiners that join nothing: they have a use between signs of an emoji, and in scripts whose letters take the
 * form of their neighbours (Unicode Standard Annex #31, §2.3.1; Arabic with Persian, and the scripts of
 * India).
 */
const JOINERS =
  /(?<![\p{Extended_Pictographic}\p{Emoji_Modifier}\ufe0f\p{Script=Arabic}\p{Script=Devanagari}\p{Script=Bengali}\p{Script=Gujarati}\p{Script=Gurmukhi}\p{Script=Kannada}\p{Script=Malayalam}\p{Script=Oriya}\p{Script=Sinhala}\p{Script=Tamil}\p{Script=Telugu}])[\u200c\u200d]+/gu;

const PLAIN = /^[\u0020-\u007e]*$/;

/**
 * Text without characters that nobody sees; lines end in a line feed. Linear, and the same when done again.
 */
export function seen(text: string): string {
  return PLAIN.test(text) ? text : text.replace(/\r\n?/g, '\n').replace(UNSEEN, '');
}

/** Likewise, and without what has no width: a cell of a sheet, whose lines may be several addresses. */
export function visible(text: string): string {
  return PLAIN.test(text) ? text : seen(text).replace(WIDTHLESS, '').replace(JOINERS, '');
}

/** Likewise, on one line: what is a name, a title or a short value. */
export function oneLine(text: string): string {
  return PLAIN.test(text) ? text : visible(text).replace(/[\n\t\u0085\u2028\u2029]+/g, ' ');
}

/** Every text in a value as it came over the wire, however deep. */
export function seenAll(value: unknown): unknown {
  if (typeof value === 'string') return seen(value);
  if (Array.isArray(value)) return value.map(seenAll);
  if (value === null || typeof value !== 'object' || Object.getPrototypeOf(value) !== Object.prototype)
    return value;
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, seenAll(one)]));
}
