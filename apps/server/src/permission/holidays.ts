import Holidays from 'date-holidays';
import type { Day } from '@goodword/core/common';
import type { Place } from '@goodword/core/permission';
import type { IsHoliday } from '@goodword/core/schedule';

const DAY_MS = 86_400_000;
const FREE = new Set(['public', 'bank']);
const calendars = new Map<string, Map<number, ReadonlySet<Day>>>();

/**
 * The public holidays of a place, by the calendars of the package date-holidays: those of the region where it
 * is known, else of the country; `home` stands for a country that is not known. A country without a calendar
 * has none.
 */
export function holidaysOf(place: Place, home: string): IsHoliday {
  const country = place.country ?? home;
  const key = `${country}-${place.country ? (place.region ?? '') : ''}`;
  const years = calendars.get(key) ?? new Map<number, ReadonlySet<Day>>();
  calendars.set(key, years);
  return (day) => {
    const year = new Date(day * DAY_MS).getUTCFullYear();
    let days = years.get(year);
    if (!days) years.set(year, (days = daysOf(key, year)));
    return days.has(day);
  };
}

function daysOf(key: string, year: number): ReadonlySet<Day> {
  const [country = '', region = ''] = key.split('-');
  const known = new Holidays();
  if (!(country in known.getCountries())) return new Set();
  const calendar =
    region in (known.getStates(country) ?? {}) ? new Holidays(country, region) : new Holidays(country);
  const out = new Set<Day>();
  for (const { type, date, start, end } of calendar.getHolidays(year)) {
    if (!FREE.has(type)) continue;
    // The date is the local one; a holiday of more than one day says so by its end.
    const first = Date.parse(`${date.slice(0, 10)}T00:00Z`) / DAY_MS;
    const days = Math.max(1, Math.round((end.getTime() - start.getTime()) / DAY_MS));
    for (let more = 0; more < days; more++) out.add(first + more);
  }
  return out;
}
