import { type Code, dateParts, type Day, dayOf, oneLine, parsePoint, said, type Said, seen } from '../common';
import { readCountry } from './countries';
import { parseDate, type DateOrder } from './dates';
import { readRegion } from './regions';
import { LONG_TEXT_LIMIT, TEXT_LIMIT, type FieldType, type FieldValue } from './types';
import { readMoney } from './money';
import { parseNumber } from './numbers';

/** A value of a field as it is kept, nothing where the cell is empty, or why it cannot be read. */
export type Coerced = { ok: true; value: FieldValue } | { ok: false; reason: Said };

/**
 * Words of English, Spanish, French and German sheets, and the marks that stand for them (common practice, no
 * source).
 */
const YES = new Set([
  'yes',
  'y',
  'true',
  't',
  '1',
  'x',
  'on',
  'ok',
  'okay',
  'agreed',
  'agree',
  'subscribed',
  'opted in',
  'opt-in',
  'checked',
  '✓',
  '✔',
  '☑',
  '✅',
  'oui',
  'o',
  'vrai',
  'ja',
  'j',
  'wahr',
  'si',
  'sí',
  's',
  'verdadero',
]);
const NO = new Set([
  'no',
  'n',
  'false',
  'f',
  '0',
  'off',
  '-',
  'none',
  'never',
  'unsubscribed',
  'opted out',
  'opt-out',
  'unchecked',
  '✗',
  '✘',
  '☐',
  '❌',
  'non',
  'faux',
  'nein',
  'falsch',
  'falso',
]);

/** Reads yes or no in the words and marks that sheets use; null for anything else. */
export function parseYesNo(text: string): boolean | null {
  const word = text.trim().toLowerCase();
  if (YES.has(word)) return true;
  return NO.has(word) ? false : null;
}

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

/** A web address, with its scheme put before it where it was left out; null for anything else. */
function readLink(text: string): string | null {
  try {
    const url = new URL(/^[a-z][a-z0-9+.-]*:/i.test(text) ? text : `https://${text}`);
    const sound =
      (url.protocol === 'https:' || url.protocol === 'http:') &&
      url.hostname.includes('.') &&
      !/\s/.test(text) &&
      url.href.length <= TEXT_LIMIT;
    return sound ? url.href : null;
  } catch {
    return null;
  }
}

function fault(code: Code, text: string, values: Said['values'] = {}): Coerced {
  return {
    ok: false,
    reason: said(code, { ...values, got: text.length > 40 ? `${text.slice(0, 40)}…` : text }),
  };
}

/** What has to be known of where a text was written. */
export interface WrittenAs {
  /** Day first where nothing is said. */
  order?: DateOrder;
  /** The currency that money is kept in (ISO 4217); an amount in another one is a fault. */
  currency?: string;
  /** A day on which somebody was born lies before it. */
  today?: Day;
  /** A date, and so with its year, on which somebody was born. */
  born?: boolean;
}

/** Reads the text of a cell or an editor as a value of the type. Never throws. */
export function coerce(type: FieldType, text: string, as: WrittenAs = {}): Coerced {
  const { order = 'day-first' } = as;
  const trimmed = (type === 'longtext' ? seen(text) : oneLine(text)).trim();
  switch (type) {
    case 'text':
    case 'choice':
      if (trimmed.length > TEXT_LIMIT) return fault('value.long', trimmed, { most: TEXT_LIMIT });
      return { ok: true, value: { text: trimmed } };
    case 'longtext':
      if (trimmed.length > LONG_TEXT_LIMIT) return fault('value.long', trimmed, { most: LONG_TEXT_LIMIT });
      return { ok: true, value: { text: trimmed } };
    case 'choices':
      if (trimmed.length > TEXT_LIMIT) return fault('value.long', trimmed, { most: TEXT_LIMIT });
      return { ok: true, value: { text: choicesOf(trimmed).join(CHOICE_SEPARATOR) } };
    case 'country': {
      const code = readCountry(trimmed);
      return code === null ? fault('value.country', trimmed) : { ok: true, value: { text: code } };
    }
    case 'region': {
      const code = readRegion(trimmed);
      return code === null ? fault('value.region', trimmed) : { ok: true, value: { text: code } };
    }
    case 'file':
      return { ok: false, reason: said('value.file') };
    case 'place': {
      const point = parsePoint(trimmed);
      if (!point) return fault('value.place', trimmed);
      return { ok: true, value: { text: `${point.latitude}, ${point.longitude}` } };
    }
    case 'link': {
      const url = readLink(trimmed);
      return url === null ? fault('value.link', trimmed) : { ok: true, value: { text: url } };
    }
    case 'number': {
      const number = parseNumber(trimmed);
      return number === null ? fault('value.number', trimmed) : { ok: true, value: { number } };
    }
    case 'money': {
      const money = readMoney(trimmed);
      if (money === null) return fault('value.amount', trimmed);
      if (as.currency && money.currency && money.currency !== as.currency)
        return fault('value.currency', trimmed, { currency: as.currency });
      return { ok: true, value: { number: money.minor } };
    }
    case 'yesno': {
      const yes = parseYesNo(trimmed);
      return yes === null ? fault('value.yesno', trimmed) : { ok: true, value: { number: yes ? 1 : 0 } };
    }
    case 'date': {
      const date = parseDate(trimmed, order);
      if (date === null) return fault('value.date', trimmed);
      return as.born ? bornOn(date, trimmed, as.today) : { ok: true, value: { date } };
    }
    case 'datetime':
      return coerceMoment(trimmed, order);
    case 'birthday':
      return coerceBirthday(trimmed, order, as.today);
  }
}

const CLOCK =
  /[T ,]{1,5}(?:at |um |à )?(?<hour>\d{1,2})(?:[:.h](?<minute>\d{2}))?(?:[:.]\d{2}(?:[.,]\d{1,9})?)?\s{0,3}(?<half>[ap]\.?m\.?)?(?: uhr|Z)?$/i;

/**
 * A date with a time of day, on the clock of the place where it is: no zone is kept, and one that is given is
 * not looked at.
 */
function coerceMoment(text: string, order: DateOrder): Coerced {
  const clock = CLOCK.exec(text);
  const date = parseDate(clock ? text.slice(0, clock.index) : text, order);
  const { hour, minute = '0', half } = clock?.groups ?? {};
  const twelve = half ? (Number(hour) % 12) + (/^p/i.test(half) ? 12 : 0) : Number(hour);
  if (date === null || !clock || twelve > 23 || Number(minute) > 59) return fault('value.moment', text);
  return { ok: true, value: { date, number: twelve * 60 + Number(minute) } };
}

/**
 * Nobody was born tomorrow: `3/4/62` of a birthday is 1962, and a whole year that is still to come is a slip.
 */
function bornOn(date: Day, text: string, today: Day | undefined): Coerced {
  if (today === undefined || date <= today) return { ok: true, value: { date } };
  const { year, month, day } = dateParts(date);
  const before = text.includes(String(year)) ? null : dayOf(year - 100, month, day);
  return before === null ? fault('value.born', text) : { ok: true, value: { date: before } };
}

/** A birthday is read from a whole date or from day and month alone (`29 February`, `29/02`). */
function coerceBirthday(text: string, order: DateOrder, today: Day | undefined): Coerced {
  const leapYear = '2000';
  const whole = parseDate(text, order);
  if (whole !== null) {
    const born = bornOn(whole, text, today);
    if (!born.ok) return born;
  }
  const date =
    whole ??
    parseDate(`${text} ${leapYear}`, order) ??
    parseDate(`${text}/${leapYear}`, order) ??
    parseDate(text.replace(/^--?(\d\d)-(\d\d)$/, `${leapYear}-$1-$2`), order);
  if (date === null) return fault('value.birthday', text);
  const { month, day } = dateParts(date);
  return { ok: true, value: { monthDay: month * 100 + day } };
}
