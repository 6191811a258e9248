import { dayInZone, type Day, type Instant } from '../common';
import type { Place } from '../permission';
import { localTime } from './hours';
import { zonesOf } from './zones';

const MINUTE_MS = 60_000;
const DAY_MS = 86_400_000;

/** A day and minutes after its midnight, on whatever clock. */
export interface WallTime {
  day: Day;
  minutes: number;
}

/** What the clocks of a place do at a time that is not there once: it is left out, or comes twice. */
export type ClockChange = 'left-out' | 'twice';

/** What a clock in a zone shows, to the minute. */
export const wallTimeOf = (at: Instant, zone: string): WallTime => ({
  day: dayInZone(at, zone),
  minutes: Math.floor(localTime(at, zone) / MINUTE_MS),
});

/** Milliseconds by which a zone's clock is ahead of UTC. */
const offsetOf = (at: Instant, zone: string): number =>
  dayInZone(at, zone) * DAY_MS + localTime(at, zone) - at;

/**
 * The moment at which a clock in a zone shows a time: of one that comes twice the first, and one that is left
 * out by the offset before the gap (RFC 5545 §3.3.5), so that 2:30 comes at what is 3:30 then.
 */
export function momentOf(
  { day, minutes }: WallTime,
  zone: string,
): { at: Instant; change: ClockChange | null } {
  const wanted = day * DAY_MS + minutes * MINUTE_MS;
  // A day before and after: no zone changes its clocks twice within two days.
  const [before, after] = [offsetOf(wanted - DAY_MS, zone), offsetOf(wanted + DAY_MS, zone)];
  const at = wanted - before;
  if (before === after) return { at, change: null };
  const later = wanted - after;
  const [isThen, isLater] = [offsetOf(at, zone) === before, offsetOf(later, zone) === after];
  if (isThen) return { at, change: isLater ? 'twice' : null };
  return isLater ? { at: later, change: null } : { at, change: 'left-out' };
}

/** Of countries with several zones, that in which most people live, where it is not the first by name. */
export const MAIN_ZONES: Readonly<Record<string, string>> = {
  AU: 'Australia/Sydney',
  BR: 'America/Sao_Paulo',
  CA: 'America/Toronto',
  CD: 'Africa/Kinshasa',
  CL: 'America/Santiago',
  CY: 'Asia/Nicosia',
  ES: 'Europe/Madrid',
  FM: 'Pacific/Pohnpei',
  GL: 'America/Nuuk',
  KI: 'Pacific/Tarawa',
  MH: 'Pacific/Majuro',
  MN: 'Asia/Ulaanbaatar',
  MX: 'America/Mexico_City',
  MY: 'Asia/Kuala_Lumpur',
  PF: 'Pacific/Tahiti',
  PG: 'Pacific/Port_Moresby',
  PT: 'Europe/Lisbon',
  RU: 'Europe/Moscow',
  US: 'America/New_York',
  UZ: 'Asia/Tashkent',
  VN: 'Asia/Ho_Chi_Minh',
};

/**
 * The one zone that somebody's time is told in: that of their region; where it is not known, the house's own
 * if it may be theirs, else that in which most people of the country live; without a country the house's own.
 */
export function zoneOf(place: Place, home: string): string {
  const zones = zonesOf(place, home);
  if (zones.includes(home)) return home;
  const isRegionKnown =
    place.region !== null && zones.length < zonesOf({ ...place, region: null }, home).length;
  return (isRegionKnown ? undefined : MAIN_ZONES[place.country ?? '']) ?? zones[0]!;
}

/**
 * When a time comes where somebody is. With the country of their number as well, as texts want it, the later
 * of the two: it is not before that hour in either.
 */
export function momentFor(
  time: WallTime,
  place: Place,
  home: string,
  numberCountry: string | null = null,
): { at: Instant; zone: string; change: ClockChange | null } {
  const zones = [
    zoneOf(place.country || !numberCountry ? place : { country: numberCountry, region: null }, home),
  ];
  if (numberCountry && place.country && numberCountry !== place.country)
    zones.push(zoneOf({ country: numberCountry, region: null }, home));
  return zones
    .map((zone) => ({ ...momentOf(time, zone), zone }))
    .reduce((last, one) => (one.at > last.at ? one : last));
}
