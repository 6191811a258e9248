import { dateParts, isoDay, type Day, type MonthDay } from '../common';
import { countryName } from './countries';
import { fileOf } from './files';
import { regionName } from './regions';
import type { FieldType, FieldValue } from './types';

/** How values are written for people: BCP 47 locale and ISO 4217 currency of the organization. */
export interface Manner {
  locale: string;
  currency: string;
}

/** A day number (days since 1970-01-01) as a locale writes it. */
export function formatDay(day: Day, locale: string): string {
  const { year, month, day: d } = dateParts(day);
  return new Intl.DateTimeFormat(locale, { dateStyle: 'medium', timeZone: 'UTC' }).format(
    Date.UTC(year, month - 1, d),
  );
}

function clock(minute: number): string {
  return `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
}

/** A day with a minute of it, as the locale writes times. */
export function formatMoment(day: Day, minute: number, locale: string): string {
  const { year, month, day: d } = dateParts(day);
  return new Intl.DateTimeFormat(locale, { dateStyle: 'medium', timeStyle: 'short', timeZone: 'UTC' }).format(
    Date.UTC(year, month - 1, d, Math.floor(minute / 60), minute % 60),
  );
}

/** A birthday without its year (month * 100 + day) as a locale writes it. */
export function formatMonthDay(monthDay: MonthDay, locale: string): string {
  const at = Date.UTC(2000, Math.floor(monthDay / 100) - 1, monthDay % 100);
  return new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'long', timeZone: 'UTC' }).format(at);
}

/** Minor units as money; cents are left out where there are none. */
export function formatMoney(minor: number, manner: Manner): string {
  return new Intl.NumberFormat(manner.locale, {
    style: 'currency',
    currency: manner.currency,
    minimumFractionDigits: minor % 100 === 0 ? 0 : 2,
    maximumFractionDigits: 2,
  }).format(minor / 100);
}

/** A kept value in words. An empty value gives an empty text. */
export function formatValue(type: FieldType, value: FieldValue, manner: Manner): string {
  switch (type) {
    case 'text':
    case 'longtext':
    case 'choice':
    case 'choices':
    case 'place':
    case 'link':
      return value.text ?? '';
    case 'country':
      return value.text ? countryName(value.text, manner.locale) : '';
    case 'region':
      return value.text ? regionName(value.text, manner.locale) : '';
    case 'file':
      return value.text ? (fileOf(value.text)?.name ?? '') : '';
    case 'datetime':
      return value.date === undefined ? '' : formatMoment(value.date, value.number ?? 0, manner.locale);
    case 'number':
      return value.number === undefined ? '' : new Intl.NumberFormat(manner.locale).format(value.number);
    case 'money':
      return value.number === undefined ? '' : formatMoney(value.number, manner);
    case 'yesno':
      return value.number === undefined ? '' : value.number === 1 ? 'yes' : 'no';
    case 'date':
      return value.date === undefined ? '' : formatDay(value.date, manner.locale);
    case 'birthday':
      return value.monthDay === undefined ? '' : formatMonthDay(value.monthDay, manner.locale);
  }
}

/**
 * A kept value as it can be read again whatever the locale: dates as ISO days, amounts with a point, yes and
 * no.
 */
export function isoValue(type: FieldType, value: FieldValue): string {
  switch (type) {
    case 'text':
    case 'longtext':
    case 'choice':
    case 'choices':
    case 'country':
    case 'region':
    case 'place':
    case 'link':
      return value.text ?? '';
    case 'file':
      return value.text ? (fileOf(value.text)?.name ?? '') : '';
    case 'datetime':
      return value.date === undefined ? '' : `${isoDay(value.date)} ${clock(value.number ?? 0)}`;
    case 'number':
      // Three digits behind the point would read as thousands.
      return value.number === undefined ? '' : String(value.number).replace(/(\.\d{3})$/, '$10');
    case 'money':
      return value.number === undefined ? '' : (value.number / 100).toFixed(2);
    case 'yesno':
      return value.number === undefined ? '' : value.number === 1 ? 'yes' : 'no';
    case 'date':
      return value.date === undefined ? '' : isoDay(value.date);
    case 'birthday':
      return value.monthDay === undefined
        ? ''
        : `--${String(Math.floor(value.monthDay / 100)).padStart(2, '0')}-${String(value.monthDay % 100).padStart(2, '0')}`;
  }
}
