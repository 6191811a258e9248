import { oneLine, said, type Said } from '../common';
import { parsePhoneNumberFromString, type CountryCode, type PhoneNumber } from 'libphonenumber-js/min';
import { plainAmerican } from './plain-numbers';

/**
 * An address as it is kept. `country` is that of a telephone number, where its number alone says so; `hint`
 * what is worth telling though nothing is wrong.
 */
export interface CleanAddress {
  normal: string;
  shown: string;
  country?: string;
  hint?: Said;
}
/** A cleaned cell: its value, or why it is none. */
export type Cleaned = ({ ok: true } & CleanAddress) | { ok: false; reason: Said };

const ATOM = /^[\p{L}\p{N}!#$%&'*+/=?^_`{|}~-]+(\.[\p{L}\p{N}!#$%&'*+/=?^_`{|}~-]+)*$/u;
const LABEL = /^[\p{L}\p{N}]([\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?$/u;
/** What nearly every address looks like: nothing around it, ASCII, an ending that begins with a letter. */
/** No address and no number is longer: what is, is no cell that anybody typed. */
const LONGEST = 1000;
const PLAIN =
  /^[a-z0-9_+-]+(?:\.[a-z0-9_+-]+)*@(?:[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z](?:[a-z0-9-]{0,61}[a-z0-9])$/i;

/**
 * An email address in its normal form: trimmed of the wrappings that programs add, lower case throughout (the
 * local part is case-sensitive in RFC 5321 §2.4, but no provider in use tells cases apart; common practice,
 * no source). Bounds of RFC 5321 §4.5.3.1: 64 octets before the @, 254 in all. Quoted local parts are
 * refused.
 */
export function cleanEmail(text: string): Cleaned {
  if (text.length > LONGEST) return { ok: false, reason: said('email.long', { length: text.length }) };
  if (text.length <= 254 && text.indexOf('@') <= 64 && PLAIN.test(text))
    return { ok: true, normal: text.toLowerCase(), shown: text };
  const bare = text
    .trim()
    .replace(/^mailto:/i, '')
    .replace(/^.*<([^<>]+)>$/, '$1');
  const shown = withoutEnd(bare, ',;.').trim();
  const at = shown.lastIndexOf('@');
  if (at < 0) return { ok: false, reason: said('email.none', { got: brief(text) }) };
  const [local, domain] = [shown.slice(0, at), shown.slice(at + 1)];
  const labels = domain.split('.');
  if (labels.length < 2) return { ok: false, reason: said('email.ending', { got: brief(text) }) };
  const sound =
    ATOM.test(local) && labels.every((label) => LABEL.test(label)) && !/^\d+$/.test(labels.at(-1)!);
  if (!sound || octets(local) > 64 || octets(shown) > 254)
    return { ok: false, reason: said('email.wrong', { got: brief(text) }) };
  return { ok: true, normal: shown.normalize('NFC').toLowerCase(), shown };
}

/** The text without any of these characters at its end. */
function withoutEnd(text: string, characters: string): string {
  let end = text.length;
  while (end > 0 && characters.includes(text[end - 1]!)) end -= 1;
  return text.slice(0, end);
}

const UTF8 = new TextEncoder();
const octets = (text: string): number => UTF8.encode(text).length;

function brief(text: string): string {
  const trimmed = text.trim();
  return trimmed.length > 40 ? `${trimmed.slice(0, 40)}…` : trimmed;
}

/**
 * Digits that a spreadsheet wrote as a power of ten: all of them where the figure is whole, null where the
 * last are gone.
 */
function unshortened(text: string): string | null {
  const [, whole, part, power] = /^(\d)(?:[.,](\d+))?E\+?(\d+)$/i.exec(text) ?? [];
  if (whole === undefined || (part ?? '').length < Number(power)) return null;
  return part!.length === Number(power) ? whole + part! : null;
}

/**
 * A telephone number in E.164 (ITU-T E.164) by libphonenumber, read in a default country where it has no
 * country code. What a spreadsheet did to it is put right where that is certain, and told.
 */
export function cleanPhone(text: string, country: string): Cleaned {
  if (text.length > LONGEST) return { ok: false, reason: said('phone.long', { length: text.length }) };
  const plain = plainAmerican(text, country);
  if (plain) return { ok: true, ...plain, country: 'US' };
  let digits = text
    .trim()
    .replace(/^'/, '')
    .replace(/^tel:/i, '')
    // A number column's decimals; four are the last of a number written in groups.
    .replace(/(?<=\d)\.0{1,3}$/, '');
  let hint: Said | undefined;
  if (/^\d(?:[.,]\d+)?E\+?\d+$/i.test(digits)) {
    const whole = unshortened(digits);
    if (!whole) return { ok: false, reason: said('phone.shortened', { got: brief(text) }) };
    [digits, hint] = [whole, said('phone.written-out', { got: brief(text), whole })];
  }
  const number = parsePhoneNumberFromString(digits, country as CountryCode);
  if (number?.isValid()) return phone(number, hint);
  // A spreadsheet takes the plus sign off a number and nothing else.
  const international = /^\d{9,15}$/.test(digits) ? parsePhoneNumberFromString(`+${digits}`) : undefined;
  if (international?.isValid()) return phone(international, said('phone.plus', { digits }));
  const own = /^\s*(?:\+|00)/.test(text);
  return {
    ok: false,
    reason: own
      ? said('phone.wrong', { got: brief(text) })
      : said('phone.wrong-in', { got: brief(text), country }),
  };
}

function phone(number: PhoneNumber, hint: Said | undefined): Cleaned {
  return {
    ok: true,
    normal: number.number,
    shown: number.formatInternational(),
    ...(number.country ? { country: number.country } : {}),
    ...(hint ? { hint } : {}),
  };
}

/** As `cleanPhone`: a number that texts go to. */
export const cleanMobile = cleanPhone;

/** What stands between the cuts, without spaces around it; spaces in a row count as one. */
function partsOf(cell: string, cuts: RegExp): string[] {
  const even = cell
    .split('\n')
    .map((line) => line.trim().replace(/\s+/g, ' '))
    .join('\n');
  return even
    .split(cuts)
    .map((part) => part.trim())
    .filter((part) => part !== '');
}

/** Several addresses in one cell, cut at commas, semicolons, slashes, line ends, or "or" and "and". */
export function cutAddresses(cell: string): string[] {
  if (!/[;,|\s]/.test(cell)) return [cell];
  const parts = partsOf(cell, /[;,\n|]| (?:or|and|\/|y|et|und|oder|ou) | (?=[^ @]+@)/i);
  return parts.length > 1 && parts.every((part) => part.includes('@')) ? parts : [cell];
}

/** Several telephone numbers in one cell; a comma or slash inside one number does not cut. */
export function cutPhones(cell: string): string[] {
  if (/^[\d\s().+-]*$/.test(cell) && !cell.includes('\n')) return [cell];
  const parts = partsOf(cell, /[;\n|]|, ?(?=[+(\d])| (?:or|and|\/|y|et|und|oder|ou) |\/ ?(?=[+(]?\d{3})/i);
  return parts.length > 1 && parts.every((part) => part.replace(/\D/g, '').length >= 7) ? parts : [cell];
}

/** Parts of a family name that stand before it and belong to it (common practice, no source). */
const PARTICLES = new Set([
  'van',
  'von',
  'de',
  'der',
  'den',
  'del',
  'della',
  'di',
  'da',
  'dos',
  'du',
  'la',
  'le',
  'el',
  'al',
  'bin',
  'ibn',
  'ter',
  'ten',
  'st',
  'st.',
  'san',
]);
const TITLES = /^(?:mr|mrs|ms|mx|miss|dr|prof|sir|rev|herr|frau|sr|sra|m|mme|mlle)\.? /i;
const SUFFIXES = /,? (?:jr|sr|ii|iii|iv|phd|md|esq)\.?$/i;

/**
 * Cuts a whole name in two: "Reyes, Tomás" at the comma, else before the last word and the particles in front
 * of it.
 */
export function cutName(text: string): { firstName: string; lastName: string } {
  const plain = text.normalize('NFC').trim().replace(/\s+/g, ' ').replace(TITLES, '').replace(SUFFIXES, '');
  const comma = /^([^,]+),([^,]+)$/.exec(plain);
  if (comma) return { firstName: cleanName(comma[2]!), lastName: cleanName(comma[1]!) };
  const words = plain.split(' ');
  if (words.length === 1) return { firstName: cleanName(plain), lastName: '' };
  let at = words.length - 1;
  while (at > 1 && PARTICLES.has(words[at - 1]!.toLowerCase())) at -= 1;
  return {
    firstName: cleanName(words.slice(0, at).join(' ')),
    lastName: cleanName(words.slice(at).join(' ')),
  };
}

/** "Ruth Abara <ruth@example.org>" in its two parts. */
export function cutNameEmail(text: string): { name: string; email: string } {
  const [whole, open] = [text.trim(), text.trim().search(/[<(]/)];
  const [before, inside] = [whole.slice(0, Math.max(0, open)).trim(), whole.slice(open + 1, -1)];
  const name = before.replace(/^"|"$/g, '').trim();
  if (open >= 0 && whole.endsWith(whole[open] === '<' ? '>' : ')') && !/[<>()"]/.test(inside)) {
    if (whole[open] === '<' && inside !== '' && !/["@]/.test(name)) return { name, email: inside };
    if (before.includes('@') && !/\s/.test(before)) return { name: inside.trim(), email: before };
  }
  return { name: '', email: text };
}

/**
 * An address without what many providers pass over: dots and whatever follows a plus in the local part. Two
 * addresses that agree in this may be one person's; they are told, never taken for the same.
 */
export function looseEmail(normal: string): string {
  const at = normal.lastIndexOf('@');
  const first = normal.search(/[.+]/);
  if (first < 0 || first > at) return normal;
  const local = normal.slice(0, at).split('+')[0]!.replaceAll('.', '');
  return `${local}@${normal.slice(at + 1)}`;
}

/**
 * The mailbox that an address leads to: without what follows a plus in its local part (subaddress, RFC 5233).
 * A number is its own.
 */
export function mailboxOf(normal: string): string {
  const [at, plus] = [normal.lastIndexOf('@'), normal.indexOf('+')];
  return plus > 0 && plus < at ? normal.slice(0, plus) + normal.slice(at) : normal;
}

/**
 * A name as it is kept: on one line, with single spaces, in the case it was typed in, which may be meant
 * ("IDN").
 */
export function cleanName(text: string): string {
  if (/^[A-Z][a-z]{0,98}$/.test(text)) return text;
  return oneLine(text).normalize('NFC').trim().replace(/\s+/g, ' ').slice(0, 100);
}

/** Whether a name is typed all in one case, such as a caps lock or a till would leave it. */
export function isOneCase(text: string): boolean {
  return (
    text.length > 2 && (text === text.toUpperCase() || text === text.toLowerCase()) && /\p{L}{3}/u.test(text)
  );
}

/**
 * A name that is all in one case with capitals where they stand in a greeting; done where a person asks for
 * it.
 */
export function recased(text: string): string {
  if (!isOneCase(text)) return text;
  return text
    .toLowerCase()
    .replace(/(^|[\s'-])(\p{L})/gu, (_all, before: string, letter: string) => before + letter.toUpperCase());
}

/** Names compare without case, marks and spaces. */
export function nameMatchKey(text: string): string {
  if (/^[A-Za-z0-9]*$/.test(text)) return text.toLowerCase();
  return text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');
}
