import type { Instant } from '../common';
import type { Hours } from '../permission';

const MINUTE_MS = 60_000;
const clocks = new Map<string, Intl.DateTimeFormat>();

/** Milliseconds after local midnight in an IANA zone. */
export function localTime(at: Instant, zone: string): number {
  let clock = clocks.get(zone);
  if (!clock) {
    clock = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hourCycle: 'h23', hour: '2-digit', minute: '2-digit', second: '2-digit' });
    clocks.set(zone, clock);
  }
  const [hours, minutes, seconds] = clock.format(at).split(':').map(Number) as [number, number, number];
  return ((hours * 60 + minutes) * 60 + seconds) * 1000 + (((at % 1000) + 1000) % 1000);
}

/** Whether a moment lies within the hours in every one of the zones, both ends included. */
export function withinHours(hours: Hours | null, zones: readonly string[], at: Instant): boolean {
  if (!hours) return true;
  return zones.every((zone) => {
    const local = localTime(at, zone);
    return local >= hours.from * MINUTE_MS && local <= hours.to * MINUTE_MS;
  });
}

/**
 * The first moment from `at` on that lies within the hours in all zones; where the zones lie so far apart that no such
 * moment comes within two days, the first that is decent in the first of them. Looks at whole minutes after `at`.
 */
export function nextDecentMoment(hours: Hours | null, zones: readonly string[], at: Instant): Instant {
  if (withinHours(hours, zones, at)) return at;
  const minute = Math.ceil(at / MINUTE_MS) * MINUTE_MS;
  for (let ahead = 0; ahead <= 2 * 24 * 60; ahead++) {
    const then = minute + ahead * MINUTE_MS;
    if (withinHours(hours, zones, then)) return then;
  }
  return zones.length > 1 ? nextDecentMoment(hours, zones.slice(0, 1), at) : at;
}
