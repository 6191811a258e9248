import { dayOf, type Day } from '../common';

/** Which part of `03/04/2027` is the day. */
export type DateOrder = 'day-first' | 'month-first';

/**
 * Starts of the months' names in English, Spanish, French and German, without marks; the longer ones first
 * where a shorter would be two months.
 */
const MONTHS: [start: string, month: number][] = [
  ...(['juin', 'juil'] as const).map((start, i): [string, number] => [start, 6 + i]),
  ...'jan ene|feb fev|mar|abr apr avr|may mai|jun|jul|ago aou aug|sep set|oct okt|nov|dic dec dez'
    .split('|')
    .flatMap((starts, i) => starts.split(' ').map((start): [string, number] => [start, i + 1])),
];

/**
 * The number of a month by the beginning of its name, in the languages that dates are read in; 0 for none.
 */
export function monthNumber(word: string): number {
  const plain = word.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
  return MONTHS.find(([start]) => plain.startsWith(start))?.[1] ?? 0;
}

/** Two-digit years lie in the century that brings them nearest before 2050: 49 is 2049, 50 is 1950. */
function fullYear(text: string): number {
  const year = Number(text);
  if (text.length > 2) return year;
  return year < 50 ? 2000 + year : 1900 + year;
}

/**
 * Reads `2027-03-04`, `3/4/2027`, `3.4.27`, `4 March 2027`, `March 4, 2027`, `4 de marzo de 2027`, `4. März
 * 2027`, each with a time behind. Null where it is none of them.
 */
export function parseDate(text: string, order: DateOrder): Day | null {
  const trimmed = text.trim();
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ].*)?$/.exec(trimmed);
  if (iso) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const numeric = /^(\d{1,2})[-/.] ?(\d{1,2})[-/.] ?(\d{4}|\d{2})(?:,? \d{1,2}:.*)?$/.exec(trimmed);
  if (numeric) {
    const [first, second] = [Number(numeric[1]), Number(numeric[2])];
    const [day, month] = order === 'day-first' ? [first, second] : [second, first];
    return dayOf(fullYear(numeric[3]!), month, day);
  }
  const named =
    /^(?<d>\d{1,2})(?:st|nd|rd|th|er|\.|º)?(?: de)?[ -](?<m>\p{L}{3,10})\.?,?(?: del?)?[ -](?<y>\d{4}|\d{2})(?:,? \d{1,2}:.*)?$/iu.exec(
      trimmed,
    ) ??
    /^(?<m>\p{L}{3,10})\.? (?<d>\d{1,2})(?:st|nd|rd|th)?,? (?<y>\d{4})(?:,? \d{1,2}:.*)?$/iu.exec(trimmed);
  if (!named?.groups) return null;
  return dayOf(fullYear(named.groups.y!), monthNumber(named.groups.m!), Number(named.groups.d));
}

/**
 * The order in which days are usually written in a country: month first where both come before the year
 * (Unicode CLDR).
 */
export function usualOrder(country: string): DateOrder {
  if (!/^[A-Z]{2}$/.test(country)) return 'day-first';
  const { language } = new Intl.Locale('und', { region: country }).maximize();
  const parts = new Intl.DateTimeFormat(`${language}-${country}`, {
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
  })
    .formatToParts(0)
    .map(({ type }) => type);
  const [year, month, day] = (['year', 'month', 'day'] as const).map((part) => parts.indexOf(part)) as [
    number,
    number,
    number,
  ];
  return month < day && day < year ? 'month-first' : 'day-first';
}

/**
 * The order that a column of dates must be in: day first when a first part is over 12, month first when a
 * second part is, null when nothing tells (or both occur).
 */
export function dateOrderOf(values: Iterable<string>): DateOrder | null {
  let [dayFirst, monthFirst] = [false, false];
  for (const value of values) {
    const found = /^\s*(\d{1,2})[-/.](\d{1,2})(?:[-/.]\d{2,4})?\s*$/.exec(value);
    if (!found) continue;
    if (Number(found[1]) > 12) dayFirst = true;
    if (Number(found[2]) > 12) monthFirst = true;
  }
  if (dayFirst === monthFirst) return null;
  return dayFirst ? 'day-first' : 'month-first';
}
