import {
  addMonths,
  fiscalStart,
  monthStart,
  nextYearStart,
  parseIsoDay,
  said,
  yearStart,
  type Day,
  type Said,
} from '../common';
import { formatDay } from '../fields';
import { NO_DAY, type EvaluationContext } from './columns';

/** Units of stretches of time in a line. */
export const UNITS = ['days', 'weeks', 'months'] as const;
export type Unit = (typeof UNITS)[number];

/**
 * Stretches of the calendar that a date can lie in. Fiscal years begin with the month that the organization
 * set.
 */
export const STRETCHES = [
  'this-month',
  'last-month',
  'next-month',
  'this-year',
  'last-year',
  'next-year',
  'this-fiscal-year',
  'last-fiscal-year',
] as const;
export type Stretch = (typeof STRETCHES)[number];

/** A window of days: the last or next so many, a month or year, between two days, ever. */
export type Window =
  | { over: 'ever' | 'earlier-years' | Stretch }
  | { over: 'last-days' | 'last-weeks' | 'last-months'; days: number }
  /** Both ends, as ISO days, included. */
  | { over: 'between'; from: string; to: string };

/** A half-open range of days: from the first to before the end. */
export interface DayRange {
  from: Day;
  end: Day;
}

const NOTHING: DayRange = { from: 0, end: 0 };
/** Before every real day and after the missing one. */
export const BEGINNING = NO_DAY + 1;

/** The days of this, the last or the next month or year: day numbers, both ends included. */
export function stretchDays(stretch: Stretch, { today, fiscalMonth = 1 }: EvaluationContext): DayRange {
  const month = monthStart(today);
  const fiscal = fiscalStart(today, fiscalMonth);
  switch (stretch) {
    case 'this-month':
      return { from: month, end: addMonths(month, 1) };
    case 'last-month':
      return { from: addMonths(month, -1), end: month };
    case 'next-month':
      return { from: addMonths(month, 1), end: addMonths(month, 2) };
    case 'this-year':
      return { from: yearStart(today), end: nextYearStart(today) };
    case 'last-year':
      return { from: yearStart(yearStart(today) - 1), end: yearStart(today) };
    case 'next-year':
      return { from: nextYearStart(today), end: nextYearStart(nextYearStart(today)) };
    case 'this-fiscal-year':
      return { from: fiscal, end: addMonths(fiscal, 12) };
    case 'last-fiscal-year':
      return { from: addMonths(fiscal, -12), end: fiscal };
  }
}

/** So many days, weeks or months after (or, negative, before) a day. */
export function shift(day: Day, n: number, unit: Unit = 'days'): Day {
  switch (unit) {
    case 'days':
      return day + n;
    case 'weeks':
      return day + 7 * n;
    case 'months':
      return addMonths(day, n);
  }
}

/** The days of a window as seen on a day: day numbers, both ends included. */
export function windowDays(window: Window, reading: EvaluationContext): DayRange {
  const { today } = reading;
  switch (window.over) {
    case 'ever':
      return { from: BEGINNING, end: Infinity };
    case 'earlier-years':
      return { from: BEGINNING, end: yearStart(today) };
    case 'last-days':
      return { from: today - window.days, end: today + 1 };
    case 'last-weeks':
      return { from: shift(today, -window.days, 'weeks'), end: today + 1 };
    case 'last-months':
      return { from: shift(today, -window.days, 'months'), end: today + 1 };
    case 'between': {
      const [from, to] = [parseIsoDay(window.from), parseIsoDay(window.to)];
      return from === null || to === null ? NOTHING : { from, end: to + 1 };
    }
    default:
      return stretchDays(window.over, reading);
  }
}

/** "30 days", "1 week": what a line counts. */
export function spanSaid({ value, unit = 'days' }: { value?: string | number; unit?: Unit }): Said {
  return said(`span.${unit}`, { n: Number(value ?? 0) });
}

/** A window of days. */
export const windowSaid = (window: Window, locale: string): Said => {
  switch (window.over) {
    case 'ever':
    case 'earlier-years':
      return said(`window.${window.over}`);
    case 'last-days':
    case 'last-weeks':
    case 'last-months':
      return said('window.last', {
        span: spanSaid({ value: window.days, unit: window.over.slice(5) as 'days' }),
      });
    case 'between': {
      const day = (text: string) => {
        const at = parseIsoDay(text);
        return at === null ? text : formatDay(at, locale);
      };
      return said('window.between', { from: day(window.from), to: day(window.to) });
    }
    default:
      return said(`stretch.${window.over}`);
  }
};

/** Within a window, as the end of what a line says. */
export function whenSaid(window: Window, locale: string): Said {
  if (window.over === 'ever') return said('when.ever');
  return said(window.over === 'between' ? 'when.between' : 'when.in', { window: windowSaid(window, locale) });
}
