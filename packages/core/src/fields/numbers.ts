/**
 * Whole digits, in groups of three behind one to three, or as South Asia groups them, in twos before the last
 * three.
 */
const GROUPED = /^\d{1,3}(?:([.,])\d{3})(?:\1\d{3})*$|^\d{1,2}(?:,\d{2})*,\d{3}$/;
/** Groups set off by spaces or apostrophes, up to the decimal mark. */
const SPACED = /^\d{1,3}(?:[\s\u00a0\u202f'’]\d{3})+(?=$|[.,])/;

/** Digits without the marks of their groups; null where the groups are none. */
function wholeOf(text: string): string | null {
  if (/^\d*$/.test(text)) return text;
  return GROUPED.test(text) ? text.replace(/[.,]/g, '') : null;
}

/**
 * A number written with either decimal mark: the last of `.` and `,` is decimal unless exactly three digits
 * follow it and it is the only one, in which case it groups thousands (`1,250` is twelve hundred and fifty).
 * Groups are whole or it is no number: `1,25.00` and `12.3.4` are slips that nobody can read for sure.
 */
export function parseNumber(text: string): number | null {
  const plain = text
    .trim()
    .replace(/^(?:\p{Sc}|[A-Z]{3})|(?:\p{Sc}|[A-Z]{3}|%)$/gu, '')
    .trim();
  const minus = plain.startsWith('-') ? '-' : '';
  const written = plain.slice(minus.length).trim();
  const digits = written.replace(SPACED, (groups) => groups.replace(/\D/g, ''));
  if (!/^[\d.,]+$/.test(digits) || !/\d/.test(digits)) return null;
  const at = Math.max(digits.lastIndexOf('.'), digits.lastIndexOf(','));
  const [head, tail] = at < 0 ? [digits, ''] : [digits.slice(0, at), digits.slice(at + 1)];
  const groups =
    at >= 0 && (head.includes(digits[at]!) || (tail.length === 3 && /^[1-9]\d{0,2}$/.test(head)));
  const whole = wholeOf(groups ? digits : head);
  if (whole === null) return null;
  const number = Number(`${minus}${whole === '' ? '0' : whole}${groups || tail === '' ? '' : `.${tail}`}`);
  return Number.isFinite(number) ? number : null;
}
