import fc from 'fast-check';
import { dayOf } from '../common';
import { cityMapping } from 'city-timezones';
import { getAllCountries } from 'countries-and-timezones';
import { MAIN_ZONES, momentFor, momentOf, wallTimeOf, zoneOf } from '.';

const wall = (year: number, month: number, day: number, hour: number, minute = 0) => ({
  day: dayOf(year, month, day)!,
  minutes: hour * 60 + minute,
});

// RFC 5545 §3.3.5, its own two examples of a local time that comes twice and of one that is left out.
test.each([
  [wall(2007, 11, 4, 1, 30), '2007-11-04T05:30:00.000Z', 'twice'],
  [wall(2007, 3, 11, 2, 30), '2007-03-11T07:30:00.000Z', 'left-out'],
] as const)('New York %j is %s (%s)', (time, at, change) => {
  const moment = momentOf(time, 'America/New_York');
  expect([new Date(moment.at).toISOString(), moment.change]).toEqual([at, change]);
});

// Half an hour (Lord Howe), a day that was left out (Samoa, 30 December 2011), quarters of an hour (Nepal).
test.each([
  ['Australia/Lord_Howe', wall(2026, 10, 4, 2, 15), 'left-out'],
  ['Australia/Lord_Howe', wall(2026, 4, 5, 1, 45), 'twice'],
  ['Asia/Kathmandu', wall(2026, 6, 1, 10), null],
] as const)('%s %j: %s', (zone, time, change) => expect(momentOf(time, zone).change).toBe(change));

const ZONES = Intl.supportedValuesOf('timeZone');

// Against the IANA data of the platform: a clock there shows that time at that moment, and at none before it.
test('in every zone, on any day: the clock shows it then, and never earlier', () => {
  const day = fc.integer({ min: dayOf(2000, 1, 1)!, max: dayOf(2037, 12, 31)! });
  fc.assert(
    fc.property(fc.constantFrom(...ZONES), day, fc.nat(1439), (zone, on, minutes) => {
      const time = { day: on, minutes };
      const { at, change } = momentOf(time, zone);
      // A whole day that was left out (the date line moved) is no gap of a clock.
      if (change === 'left-out') return;
      expect(wallTimeOf(at, zone)).toEqual(time);
      for (const earlier of [30, 60, 120]) expect(wallTimeOf(at - earlier * 60_000, zone)).not.toEqual(time);
      const again = [30, 60, 120].some((later) => {
        const then = wallTimeOf(at + later * 60_000, zone);
        return then.day === on && then.minutes === minutes;
      });
      expect(again).toBe(change === 'twice');
    }),
    { numRuns: 3000 },
  );
});

// The people of cities, by the package city-timezones 1.3 (some 7,000 cities of Natural Earth).
test('where most people of a country live, where it has several zones', () => {
  const people = new Map<string, Map<string, number>>();
  for (const { iso2, timezone, pop } of cityMapping) {
    const zones = people.get(iso2) ?? new Map<string, number>();
    people.set(iso2, zones.set(timezone, (zones.get(timezone) ?? 0) + (pop || 0)));
  }
  for (const [country, { timezones }] of Object.entries(getAllCountries())) {
    const [most] = [...(people.get(country) ?? [])].sort((a, b) => b[1] - a[1]);
    if (timezones.length < 2 || !most?.[0]) continue;
    const renamed = most[0] === 'America/Godthab' ? 'America/Nuuk' : most[0];
    expect([country, MAIN_ZONES[country] ?? timezones[0]]).toEqual([country, renamed]);
  }
});

test('whose zone: the house’s own where it may be theirs, else the first of the place', () => {
  const home = 'America/Los_Angeles';
  expect(zoneOf({ country: null, region: null }, home)).toBe(home);
  expect(zoneOf({ country: 'US', region: null }, home)).toBe(home);
  expect(zoneOf({ country: 'US', region: 'NY' }, home)).toBe('America/New_York');
  expect(zoneOf({ country: 'DE', region: null }, home)).toBe('Europe/Berlin');
  expect(zoneOf({ country: 'CA', region: null }, home)).toBe('America/Toronto');
  expect(zoneOf({ country: 'CA', region: 'AB' }, home)).toBe('America/Edmonton');
  expect(zoneOf({ country: 'US', region: null }, 'Europe/Berlin')).toBe('America/New_York');
});

test('a text waits for the hour in both, where place and number are of two countries', () => {
  const time = wall(2026, 12, 4, 10);
  const berlin = { country: 'DE', region: null };
  const newYork = { country: 'US', region: 'NY' };
  const at = (moment: { at: number }) => new Date(moment.at).toISOString();
  expect(at(momentFor(time, berlin, 'America/New_York'))).toBe('2026-12-04T09:00:00.000Z');
  expect(at(momentFor(time, berlin, 'America/New_York', 'US'))).toBe('2026-12-04T15:00:00.000Z');
  expect(at(momentFor(time, newYork, 'America/New_York', 'DE'))).toBe('2026-12-04T15:00:00.000Z');
  expect(at(momentFor(time, { country: null, region: null }, 'America/New_York', 'DE'))).toBe(
    '2026-12-04T09:00:00.000Z',
  );
});
