import { dateParts, type Day, type MonthDay } from '../common';

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

/** A minute of the day on a clock of 24 hours: `08:05`. */
export function clockText(minute: number): string {
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
