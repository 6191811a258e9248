import { addMonths, dateParts, dayOf, type Day } from '../common';
import { monthNumber, parseDate, type DateOrder } from './dates';

const WEEK = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'];
/** 1 January 1970 was a Thursday. */
const weekdayOf = (day: Day): number => (((day + 4) % 7) + 7) % 7;

/** The next day from tomorrow on for which something holds, within a year and a day. */
function nextOn(today: Day, holds: (day: Day) => boolean): Day | null {
  for (let day = today + 1; day <= today + 366; day++) if (holds(day)) return day;
  return null;
}

/** `tue` is the next Tuesday after today, `tue 10` the next tenth, where that is a Tuesday. */
function weekday(text: string, today: Day): Day | null {
  const found = /^(sun|mon|tue|wed|thu|fri|sat)[a-z]*\.?(?: (?:the )?(\d{1,2})(?:st|nd|rd|th)?)?$/.exec(text);
  if (!found) return null;
  const on = WEEK.indexOf(found[1]!);
  if (!found[2]) return nextOn(today, (day) => weekdayOf(day) === on);
  const date = Number(found[2]);
  const day = nextOn(today, (one) => dateParts(one).day === date);
  return day !== null && weekdayOf(day) === on ? day : null;
}

/** `dec 4` and `4 december`: the next one from today on. */
function ofTheYear(text: string, today: Day): Day | null {
  const found =
    /^(?<d>\d{1,2})(?:st|nd|rd|th|\.)? (?<m>[\p{L}]{3,10})\.?$/u.exec(text) ??
    /^(?<m>[\p{L}]{3,10})\.? (?<d>\d{1,2})(?:st|nd|rd|th)?$/u.exec(text);
  if (!found?.groups) return null;
  const { year } = dateParts(today);
  for (const one of [year, year + 1, year + 2, year + 3, year + 4]) {
    const day = dayOf(one, monthNumber(found.groups.m!), Number(found.groups.d));
    if (day !== null && day >= today) return day;
  }
  return null;
}

/**
 * A day in words or figures, as it is typed where a day is asked for: `tomorrow`, `in 3 days`, `in 2 weeks`,
 * `tue`, `tue 10`, `dec 4`, and whatever `parseDate` reads. Null where it is none.
 */
export function parseDayWords(text: string, today: Day, order: DateOrder): Day | null {
  const words = text.trim().toLowerCase().replace(/\s+/g, ' ');
  if (words === 'today') return today;
  if (words === 'tomorrow') return today + 1;
  const later = /^in (a|an|\d{1,3}) (day|week|month)s?$/.exec(words);
  if (later) {
    const count = /^\d/.test(later[1]!) ? Number(later[1]) : 1;
    if (later[2] === 'month') return addMonths(today, count);
    return today + count * (later[2] === 'week' ? 7 : 1);
  }
  return weekday(words, today) ?? ofTheYear(words, today) ?? parseDate(text, order);
}
