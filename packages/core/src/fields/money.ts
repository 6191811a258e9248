import { parseNumber } from './numbers';

/** Signs that name one currency; `$` and `¥` do not, and leave it to the file or the organization. */
const SIGNS: Record<string, string> = {
  '€': 'EUR',
  '£': 'GBP',
  '₹': 'INR',
  '₩': 'KRW',
  '₺': 'TRY',
  '₽': 'RUB',
  zł: 'PLN',
  US$: 'USD',
  CA$: 'CAD',
  A$: 'AUD',
  C$: 'CAD',
};

/**
 * An amount with its sign and separators as any of the common locales writes it. `(25.00)`, `-25` and `25-`
 * are minus; the currency is what the text itself says, by code or sign, else null. In hundredths of the
 * currency's unit, as money is kept everywhere, whether the currency itself has two digits after its mark,
 * none or three.
 */
export function readMoney(text: string): { minor: number; currency: string | null } | null {
  const bare = text.trim();
  const bracketed = /^\((.*)\)$/.exec(bare)?.[1];
  const signed = (bracketed ?? bare).trim();
  const signs = signed.match(/[-−]/g)?.length ?? 0;
  // One sign, before the digits or behind all of it: a second is a slip.
  if (signs > 1 || (signs === 1 && !/^\D{0,5}[-−]|[-−]$/.test(signed))) return null;
  const minus = bracketed !== undefined || signs === 1;
  const plain = signed.replace(/[-−]/, '').trim();
  const code = /^([A-Z]{3})\b|\b([A-Z]{3})$/.exec(plain);
  const sign = Object.keys(SIGNS)
    .sort((a, b) => b.length - a.length)
    .find((one) => plain.includes(one));
  const named = code ? (code[1] ?? code[2])! : sign ? SIGNS[sign]! : null;
  // The sign goes with the letters that some locales put beside it (`$US`, `JP¥`).
  const digits = plain.replace(/[A-Z]{0,3}\p{Sc}[A-Z]{0,2}|zł|^[A-Z]{3}\b|\b[A-Z]{3}$/gu, '');
  const number = parseNumber(digits.trim());
  if (number === null) return null;
  const minor = Math.round(Math.abs(number) * 100);
  return { minor: minus ? -minor : minor, currency: named };
}
