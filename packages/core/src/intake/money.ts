import { parseNumber } from '../fields';

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
 * An amount with its sign and separators as any of the common locales writes it. `(25.00)`, `-25` and `25-` are minus;
 * the currency is what the text itself says, by code or sign, else null. In hundredths of the currency's unit, as money is kept
 * everywhere, whether the currency itself has two digits after its mark, none or three.
 */
export function readMoney(text: string): { minor: number; currency: string | null } | null {
  let plain = text.trim();
  const minus = /^\(.*\)$/.test(plain) || /^[-−]|[-−]$/.test(plain) || /^\D{0,4}[-−]\s*\d/.test(plain);
  plain = plain.replace(/[()−]/g, '').replace(/^-|-$/g, '').trim();
  const code = /^([A-Z]{3})\b|\b([A-Z]{3})$/.exec(plain);
  const sign = Object.keys(SIGNS)
    .sort((a, b) => b.length - a.length)
    .find((one) => plain.includes(one));
  const named = code ? (code[1] ?? code[2])! : sign ? SIGNS[sign]! : null;
  // The sign goes with the letters that some locales put beside it (`$US`, `JP¥`).
  const digits = plain.replace(/[A-Z]{0,3}\p{Sc}[A-Z]{0,2}|zł|^[A-Z]{3}\b|\b[A-Z]{3}$/gu, '').replace(/[-−]/g, '');
  const number = parseNumber(digits.trim());
  if (number === null) return null;
  const minor = Math.round(Math.abs(number) * 100);
  return { minor: minus ? -minor : minor, currency: named };
}
