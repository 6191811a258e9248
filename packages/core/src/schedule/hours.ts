import { dayInZone, type Day, type Instant } from '../common';
import { WEEKDAYS, type Hours, type HourSpan } from '../permission';

const MINUTE_MS = 60_000;
const DAY_MS = 86_400_000;
/** How far ahead a decent moment is looked for: over a week-end and some holidays. */
const DAYS_AHEAD = 10;
const clocks = new Map<string, Intl.DateTimeFormat>();

/** Whether a calendar day is a holiday where somebody is. */
export type IsHoliday = (day: Day) => boolean;
const noHolidays: IsHoliday = () => false;

/** Milliseconds after local midnight in an IANA zone. */
export function localTime(at: Instant, zone: string): number {
  let clock = clocks.get(zone);
  if (!clock) {
    clock = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      hourCycle: 'h23',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
    });
    clocks.set(zone, clock);
  }
  const [hours, minutes, seconds] = clock.format(at).split(':').map(Number) as [number, number, number];
  return ((hours * 60 + minutes) * 60 + seconds) * 1000 + (((at % 1000) + 1000) % 1000);
}

/**
 * The span of a calendar day: that of a holiday, of its weekday, or of every day; null where nothing is
 * decent all day.
 */
export function spanOf(hours: Hours, day: Day, isHoliday: IsHoliday = noHolidays): HourSpan | null {
  if (hours.holidays !== undefined && isHoliday(day)) return hours.holidays;
  // 1 January 1970 was a Thursday.
  const other = hours.days?.[WEEKDAYS[(((day + 4) % 7) + 7) % 7]!];
  return other === undefined ? { from: hours.from, to: hours.to } : other;
}

const isOvernight = ({ from, to }: HourSpan) => from > to;

/** Whether a local time lies in the part of a span that belongs to the day on which it begins. */
function inSpan(span: HourSpan | null, local: number): boolean {
  if (!span) return false;
  return local >= span.from * MINUTE_MS && (isOvernight(span) || local <= span.to * MINUTE_MS);
}

/** Whether it lies in what a span of the day before reaches over midnight. */
function inTail(span: HourSpan | null, local: number): boolean {
  return span !== null && isOvernight(span) && local <= span.to * MINUTE_MS;
}

function withinInZone(hours: Hours, zone: string, at: Instant, isHoliday: IsHoliday): boolean {
  const local = localTime(at, zone);
  const everyDay = hours.days === undefined && hours.holidays === undefined;
  const day = everyDay ? 0 : dayInZone(at, zone);
  return inSpan(spanOf(hours, day, isHoliday), local) || inTail(spanOf(hours, day - 1, isHoliday), local);
}

/**
 * Whether a moment lies within the hours in every one of the zones, both ends included. Hours may reach over
 * midnight.
 */
export function withinHours(
  hours: Hours | null,
  zones: readonly string[],
  at: Instant,
  isHoliday = noHolidays,
): boolean {
  return !hours || zones.every((zone) => withinInZone(hours, zone, at, isHoliday));
}

/**
 * The next moment at which the hours begin in a zone, after `at`; null where they do not within the days
 * looked at.
 */
function nextBeginning(hours: Hours, zone: string, at: Instant, isHoliday: IsHoliday): Instant | null {
  const [local, today] = [localTime(at, zone), dayInZone(at, zone)];
  for (let ahead = 0; ahead <= DAYS_AHEAD; ahead++) {
    const span = spanOf(hours, today + ahead, isHoliday);
    const begins = span && ahead * DAY_MS + span.from * MINUTE_MS - local;
    if (begins === null || begins <= 0) continue;
    // Where clocks were put forward or back on the way, what was added is an hour too much or too little.
    const shift = localTime(at + begins, zone) - span!.from * MINUTE_MS;
    return at + begins - (Math.abs(shift) <= DAY_MS / 2 ? shift : shift - Math.sign(shift) * DAY_MS);
  }
  return null;
}

/**
 * The first moment from `at` on that lies within the hours in all zones; where the zones lie so far apart
 * that no such moment comes within the days looked at, the first that is decent in the first of them.
 */
export function nextDecentMoment(
  hours: Hours | null,
  zones: readonly string[],
  at: Instant,
  isHoliday = noHolidays,
): Instant {
  if (!hours) return at;
  let then = at;
  while (then <= at + DAYS_AHEAD * DAY_MS) {
    const closed = zones.find((zone) => !withinInZone(hours, zone, then, isHoliday));
    if (closed === undefined) return then;
    const next = nextBeginning(hours, closed, then, isHoliday);
    if (next === null || next <= then) break;
    then = next;
  }
  return zones.length > 1
    ? nextDecentMoment(hours, zones.slice(0, 1), at, isHoliday)
    : then === at
      ? at + DAYS_AHEAD * DAY_MS
      : then;
}
