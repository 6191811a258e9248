/*
 * Characters that nobody sees and that change what others see: controls other than tab and line end (C0, DEL, C1), and
 * the overrides, embeddings and isolates of direction (Unicode Standard Annex #9, §2), by which a name can turn the words
 * around it. Names and values are kept without them, whatever the road.
 */

const UNSEEN = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\u202a-\u202e\u2066-\u2069]/g;

const PLAIN = /^[\u0020-\u007e]*$/;

/** Text without characters that nobody sees; lines end in a line feed. Linear, and the same when done again. */
export function seen(text: string): string {
  return PLAIN.test(text) ? text : text.replace(/\r\n?/g, '\n').replace(UNSEEN, '');
}

/** Likewise, on one line: what is a name, a title or a short value. */
export function oneLine(text: string): string {
  return PLAIN.test(text) ? text : seen(text).replace(/[\n\t\u0085\u2028\u2029]+/g, ' ');
}

/** Every text in a value as it came over the wire, however deep. */
export function seenAll(value: unknown): unknown {
  if (typeof value === 'string') return seen(value);
  if (Array.isArray(value)) return value.map(seenAll);
  if (value === null || typeof value !== 'object' || Object.getPrototypeOf(value) !== Object.prototype) return value;
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, seenAll(one)]));
}
