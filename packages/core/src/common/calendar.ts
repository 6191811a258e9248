import type { Day, Instant, MonthDay } from './brand';

const DAY_MS = 86_400_000;

/**
 * The day number of a calendar date, or null where there is no such date (31 April, 29 February of a common
 * year).
 */
export function dayOf(year: number, month: number, day: number): Day | null {
  const ms = Date.UTC(year, month - 1, day);
  const back = new Date(ms);
  const exists =
    back.getUTCFullYear() === year && back.getUTCMonth() === month - 1 && back.getUTCDate() === day;
  return exists ? ms / DAY_MS : null;
}

/** Year, month (1 to 12) and day (1 to 31) of a day number. */
export function dateParts(day: Day): { year: number; month: number; day: number } {
  const at = new Date(day * DAY_MS);
  return { year: at.getUTCFullYear(), month: at.getUTCMonth() + 1, day: at.getUTCDate() };
}

/** `2026-11-23`, the calendar form of ISO 8601. */
export function isoDay(day: Day): string {
  return new Date(day * DAY_MS).toISOString().slice(0, 10);
}

/** Reads exactly `YYYY-MM-DD`; null for anything else. */
export function parseIsoDay(text: string): Day | null {
  const found = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  return found ? dayOf(Number(found[1]), Number(found[2]), Number(found[3])) : null;
}

/** One a zone: making one takes a hundred times as long as using it. */
const calendars = new Map<string, Intl.DateTimeFormat>();

/** The calendar day that a moment falls on in an IANA time zone. */
export function dayInZone(at: Instant, zone: string): Day {
  let text = calendars.get(zone);
  if (!text) {
    text = new Intl.DateTimeFormat('en-CA', {
      timeZone: zone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
    });
    calendars.set(zone, text);
  }
  return parseIsoDay(text.format(at)) ?? Math.floor(at / DAY_MS);
}

/** A moment that lies on the day in an IANA time zone, about its middle. */
export function noonOf(day: Day, zone: string): Instant {
  const noon = day * DAY_MS + DAY_MS / 2;
  // Zones are at most 14 hours ahead and 12 behind (IANA): noon in Greenwich can be another day there.
  const there = dayInZone(noon, zone);
  return there === day ? noon : noon + Math.sign(day - there) * (DAY_MS / 4);
}

/** First day of the year that `day` lies in. */
export function yearStart(day: Day): Day {
  return Date.UTC(dateParts(day).year, 0, 1) / DAY_MS;
}

/** First day of the year after the one that `day` lies in. */
export function nextYearStart(day: Day): Day {
  return Date.UTC(dateParts(day).year + 1, 0, 1) / DAY_MS;
}

/**
 * The month-day that a birthday is kept on in a given year: 29 February is kept on 28 February in common
 * years.
 */
export function keptOn(birthday: MonthDay, year: number): MonthDay {
  return birthday === 229 && dayOf(year, 2, 29) === null ? 228 : birthday;
}

/** Days from `today` to the next time the birthday is kept, 0 (today) to 365. */
export function daysToBirthday(birthday: MonthDay, today: Day): number {
  const { year } = dateParts(today);
  for (const candidate of [year, year + 1]) {
    const kept = keptOn(birthday, candidate);
    const day = dayOf(candidate, Math.floor(kept / 100), kept % 100);
    if (day !== null && day >= today) return day - today;
  }
  throw new Error(`expected a month-day 101 to 1231, got ${birthday}`);
}

/** Days since the birthday was last kept, 0 (today) to 365. */
export function daysSinceBirthday(birthday: MonthDay, today: Day): number {
  const { year } = dateParts(today);
  for (const candidate of [year, year - 1]) {
    const kept = keptOn(birthday, candidate);
    const day = dayOf(candidate, Math.floor(kept / 100), kept % 100);
    if (day !== null && day <= today) return today - day;
  }
  throw new Error(`expected a month-day 101 to 1231, got ${birthday}`);
}

/** The same day so many months on (or back), or the last of a month that has no such day. */
export function addMonths(day: Day, months: number): Day {
  const { year, month, day: d } = dateParts(day);
  const target = month - 1 + months;
  const [y, m] = [year + Math.floor(target / 12), (((target % 12) + 12) % 12) + 1];
  for (let tried = d; ; tried--) {
    const found = dayOf(y, m, tried);
    if (found !== null) return found;
  }
}

/** First day of the month that `day` lies in. */
export function monthStart(day: Day): Day {
  return day - dateParts(day).day + 1;
}

/** First day of the year that `day` lies in, where years begin with a month (1 to 12). */
export function fiscalStart(day: Day, month: number): Day {
  const { year, month: now } = dateParts(day);
  return Date.UTC(now >= month ? year : year - 1, month - 1, 1) / DAY_MS;
}

/**
 * The first moment of a calendar day in an IANA time zone; where clocks skip midnight, the first that there
 * is.
 */
export function startOfDay(day: Day, zone: string): Instant {
  // Zones lie at most 14 hours ahead of UTC and 12 behind.
  let [before, after] = [day * DAY_MS - 15 * 3_600_000, day * DAY_MS + 15 * 3_600_000];
  while (after - before > 1) {
    const middle = Math.floor((before + after) / 2);
    if (dayInZone(middle, zone) < day) before = middle;
    else after = middle;
  }
  return after;
}
