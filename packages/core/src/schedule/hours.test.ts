import fc from 'fast-check';
import { getCountry, getTimezone } from 'countries-and-timezones';
import { localTime, nextDecentMoment, withinHours, ZONED_REGIONS, zonesOf } from '.';

const HOURS = { from: 8 * 60, to: 21 * 60 };
const zones = fc.uniqueArray(
  fc.constantFrom('America/New_York', 'Pacific/Honolulu', 'Asia/Kolkata', 'Europe/Paris', 'Australia/Lord_Howe', 'Pacific/Auckland'),
  {
    minLength: 1,
    maxLength: 2,
  },
);
const moment = fc.integer({ min: Date.UTC(2026, 0, 1), max: Date.UTC(2027, 11, 31) });

describe('decent hours', () => {
  test('local time is that of Intl, to the millisecond', () => {
    fc.assert(
      fc.property(moment, fc.constantFrom('America/New_York', 'Asia/Kolkata', 'Australia/Lord_Howe'), (at, zone) => {
        const shown = new Intl.DateTimeFormat('en-GB', {
          timeZone: zone,
          hourCycle: 'h23',
          hour: '2-digit',
          minute: '2-digit',
          second: '2-digit',
          fractionalSecondDigits: 3,
        }).format(at);
        const ms = localTime(at, zone);
        const pad = (n: number, width = 2) => String(n).padStart(width, '0');
        expect(
          `${pad(Math.floor(ms / 3_600_000))}:${pad(Math.floor(ms / 60_000) % 60)}:${pad(Math.floor(ms / 1000) % 60)}.${pad(ms % 1000, 3)}`,
        ).toBe(shown);
      }),
    );
  });

  test('the next decent moment is decent, not before now, and none lies before it', () => {
    fc.assert(
      fc.property(moment, zones, fc.double({ min: 0, max: 1, noNaN: true }), (at, where, part) => {
        const next = nextDecentMoment(HOURS, where, at);
        expect(next).toBeGreaterThanOrEqual(at);
        const common = Array.from({ length: 48 * 6 }, (_v, i) => at + i * 600_000).some((one) => withinHours(HOURS, where, one));
        fc.pre(common);
        expect(withinHours(HOURS, where, next)).toBe(true);
        // Whole minutes are looked at, so only what lies a minute before it must be indecent.
        if (next - 60_000 > at) expect(withinHours(HOURS, where, Math.floor(at + (next - 60_000 - at) * part))).toBe(false);
      }),
      { numRuns: 60 },
    );
  });

  test('zones without a common hour fall to the first', () => {
    const narrow = { from: 9 * 60, to: 10 * 60 };
    const at = nextDecentMoment(narrow, ['America/New_York', 'Asia/Kolkata'], Date.UTC(2026, 0, 15));
    expect(withinHours(narrow, ['America/New_York'], at)).toBe(true);
  });

  test('no hours are any hour', () => {
    expect(nextDecentMoment(null, ['Europe/Paris'], 5)).toBe(5);
  });
});

describe('where somebody may be', () => {
  test('every region named is in a zone of its country by the IANA database, as countries-and-timezones ships it', () => {
    for (const [country, regions] of Object.entries(ZONED_REGIONS)) {
      const offsets = new Set(getCountry(country as 'US')!.timezones.map((zone) => getTimezone(zone)!.utcOffset));
      for (const [region, of] of Object.entries(regions)) {
        for (const zone of of) {
          const found = getTimezone(zone);
          expect([region, zone, found !== null]).toEqual([region, zone, true]);
          // Puerto Rico has a country code of its own there.
          if (region !== 'PR') expect([region, zone, offsets.has(found!.utcOffset)]).toEqual([region, zone, true]);
        }
      }
    }
  });

  test('fifty states, the district and the island; thirteen provinces and territories', () => {
    expect(Object.keys(ZONED_REGIONS.US!).length).toBe(52);
    expect(Object.keys(ZONED_REGIONS.CA!).length).toBe(13);
  });

  test('what is not known is every zone it could be, or home', () => {
    expect(zonesOf({ country: null, region: null }, 'Europe/Paris')).toEqual(['Europe/Paris']);
    expect(zonesOf({ country: 'US', region: 'WA' }, 'Europe/Paris')).toEqual(['America/Los_Angeles']);
    expect(zonesOf({ country: 'US', region: null }, 'Europe/Paris').length).toBeGreaterThan(10);
    expect(zonesOf({ country: 'ZZ', region: null }, 'Europe/Paris')).toEqual(['Europe/Paris']);
  });
});
