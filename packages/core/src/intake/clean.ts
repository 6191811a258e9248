import { parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/min';

/** `country` is that of a telephone number, where its number alone says so. */
export type Cleaned = { ok: true; normal: string; shown: string; country?: string } | { ok: false; reason: string };

const ATOM = /^[\p{L}\p{N}!#$%&'*+/=?^_`{|}~-]+(\.[\p{L}\p{N}!#$%&'*+/=?^_`{|}~-]+)*$/u;
const LABEL = /^[\p{L}\p{N}]([\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?$/u;

/**
 * An email address in its normal form: trimmed of the wrappings that programs add, lower case throughout (the local
 * part is case-sensitive in RFC 5321 §2.4, but no provider in use tells cases apart; common practice, no source).
 * Bounds of RFC 5321 §4.5.3.1: 64 octets before the @, 254 in all. Quoted local parts are refused.
 */
export function cleanEmail(text: string): Cleaned {
  const shown = text
    .trim()
    .replace(/^mailto:/i, '')
    .replace(/^.*<([^<>]+)>$/, '$1')
    .replace(/[,;.]+$/, '')
    .trim();
  const at = shown.lastIndexOf('@');
  if (at < 0) return { ok: false, reason: `expected an email address, got "${brief(text)}"` };
  const [local, domain] = [shown.slice(0, at), shown.slice(at + 1)];
  const labels = domain.split('.');
  if (labels.length < 2) return { ok: false, reason: `the email "${brief(text)}" has no ending such as .org` };
  const sound = ATOM.test(local) && labels.every((label) => LABEL.test(label)) && !/^\d+$/.test(labels.at(-1)!);
  if (!sound || octets(local) > 64 || octets(shown) > 254) return { ok: false, reason: `"${brief(text)}" is not an email address` };
  return { ok: true, normal: shown.normalize('NFC').toLowerCase(), shown };
}

function octets(text: string): number {
  return new TextEncoder().encode(text).length;
}

function brief(text: string): string {
  const trimmed = text.trim();
  return trimmed.length > 40 ? `${trimmed.slice(0, 40)}…` : trimmed;
}

/** A mobile number in E.164 (ITU-T E.164) by libphonenumber, read in a default country where it has no country code. */
export function cleanMobile(text: string, country: string): Cleaned {
  const trimmed = text.trim().replace(/^'/, '').replace(/^tel:/i, '');
  if (/^\d(?:[.,]\d+)?E\+?\d+$/i.test(trimmed)) {
    return { ok: false, reason: `"${brief(text)}" is a number that a spreadsheet has shortened; its last digits are gone` };
  }
  const number = parsePhoneNumberFromString(trimmed, country as CountryCode);
  if (!number?.isValid()) return { ok: false, reason: `"${brief(text)}" is not a telephone number in ${country}` };
  return { ok: true, normal: number.number, shown: number.formatInternational(), ...(number.country ? { country: number.country } : {}) };
}

/** A name as it should stand in a greeting: single spaces, and not all in one case where it was typed so. */
export function cleanName(text: string): string {
  const plain = text.normalize('NFC').trim().replace(/\s+/g, ' ').slice(0, 100);
  const oneCase = plain.length > 2 && (plain === plain.toUpperCase() || plain === plain.toLowerCase()) && /\p{L}{3}/u.test(plain);
  return oneCase
    ? plain.toLowerCase().replace(/(^|[\s'-])(\p{L})/gu, (_all, before: string, letter: string) => before + letter.toUpperCase())
    : plain;
}

/** Names compare without case, marks and spaces. */
export function nameMatchKey(text: string): string {
  return text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');
}
