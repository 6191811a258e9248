import fc from 'fast-check';
import { cityMapping } from 'city-timezones';
import { getCountry, getTimezone } from 'countries-and-timezones';
import { PRESETS } from '../permission';
import { localTime, nextDecentMoment, withinHours, ZONED_REGIONS, zonesOf, type IsHoliday } from '.';

const HOURS = { from: 8 * 60, to: 21 * 60 };
const zones = fc.uniqueArray(
  fc.constantFrom(
    'America/New_York',
    'Pacific/Honolulu',
    'Asia/Kolkata',
    'Europe/Paris',
    'Australia/Lord_Howe',
    'Pacific/Auckland',
  ),
  {
    minLength: 1,
    maxLength: 2,
  },
);
const moment = fc.integer({ min: Date.UTC(2026, 0, 1), max: Date.UTC(2027, 11, 31) });

describe('decent hours', () => {
  test('local time is that of Intl, to the millisecond', () => {
    fc.assert(
      fc.property(
        moment,
        fc.constantFrom('America/New_York', 'Asia/Kolkata', 'Australia/Lord_Howe'),
        (at, zone) => {
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
        },
      ),
    );
  });

  const span = fc
    .record({ from: fc.integer({ min: 0, max: 1439 }), to: fc.integer({ min: 0, max: 1440 }) })
    .filter(({ from, to }) => Math.abs(from - to) > 60);
  const anyHours = fc.record(
    {
      from: fc.constantFrom(0, 480, 540, 1320),
      to: fc.constantFrom(360, 1080, 1260, 1290),
      days: fc.record({ sat: fc.option(span), sun: fc.option(span), wed: span }, { requiredKeys: [] }),
      holidays: fc.option(span),
    },
    { requiredKeys: ['from', 'to'] },
  );
  const holiday = fc.constantFrom<IsHoliday>(
    () => false,
    (day) => day % 5 === 0,
  );

  test('the next decent moment is decent, not before now, and none lies before it, whatever the hours', () => {
    fc.assert(
      fc.property(
        anyHours,
        holiday,
        moment,
        zones,
        fc.double({ min: 0, max: 1, noNaN: true }),
        (hours, isHoliday, at, where, part) => {
          const next = nextDecentMoment(hours, where, at, isHoliday);
          expect(next).toBeGreaterThanOrEqual(at);
          const common = Array.from({ length: 9 * 24 * 6 }, (_v, i) => at + i * 600_000).some((one) =>
            withinHours(hours, where, one, isHoliday),
          );
          fc.pre(common);
          expect(withinHours(hours, where, next, isHoliday)).toBe(true);
          if (next - 60_000 > at)
            expect(withinHours(hours, where, Math.floor(at + (next - 60_000 - at) * part), isHoliday)).toBe(
              false,
            );
        },
      ),
      { numRuns: 150 },
    );
  });

  const AT = (iso: string) => Date.parse(iso);
  // CRTC Unsolicited Telecommunications Rules, Part III, s. 23 (from memory): weekdays 9:00 to 21:30,
  // week-ends 10:00 to 18:00.
  test.each<[string, string, boolean]>([
    ['Friday 21:30 in Toronto', '2026-11-27T21:30:00-05:00', true],
    ['Friday 21:31', '2026-11-27T21:31:00-05:00', false],
    ['Saturday 09:30', '2026-11-28T09:30:00-05:00', false],
    ['Saturday 10:00', '2026-11-28T10:00:00-05:00', true],
    ['Sunday 18:00', '2026-11-29T18:00:00-05:00', true],
    ['Sunday 18:01', '2026-11-29T18:01:00-05:00', false],
    ['Monday 09:00', '2026-11-30T09:00:00-05:00', true],
  ])('the hours of Canada: %s', (_name, iso, decent) => {
    expect(withinHours(PRESETS.canada.rules.hours.call, ['America/Toronto'], AT(iso))).toBe(decent);
  });

  test('hours that begin after they end reach over midnight, from the day on which they begin', () => {
    const night = { from: 22 * 60, to: 6 * 60, days: { sun: null } };
    const paris = (iso: string) => withinHours(night, ['Europe/Paris'], AT(iso));
    // 28 November 2026 is a Saturday: its night ends on Sunday at six, and Sunday has none.
    expect([
      paris('2026-11-28T21:59:00+01:00'),
      paris('2026-11-28T22:00:00+01:00'),
      paris('2026-11-29T05:59:00+01:00'),
    ]).toEqual([false, true, true]);
    expect([
      paris('2026-11-29T06:01:00+01:00'),
      paris('2026-11-29T23:00:00+01:00'),
      paris('2026-11-30T03:00:00+01:00'),
    ]).toEqual([false, false, false]);
    expect(nextDecentMoment(night, ['Europe/Paris'], AT('2026-11-29T12:00:00+01:00'))).toBe(
      AT('2026-11-30T22:00:00+01:00'),
    );
  });

  test('a holiday has hours of its own, or none', () => {
    const isHoliday: IsHoliday = (day) => day === AT('2026-12-25T00:00Z') / 86_400_000;
    const none = { ...HOURS, holidays: null };
    expect([
      withinHours(none, ['America/New_York'], AT('2026-12-25T12:00:00-05:00'), isHoliday),
      withinHours(HOURS, ['America/New_York'], AT('2026-12-25T12:00:00-05:00'), isHoliday),
    ]).toEqual([false, true]);
    expect(nextDecentMoment(none, ['America/New_York'], AT('2026-12-24T22:00:00-05:00'), isHoliday)).toBe(
      AT('2026-12-26T08:00:00-05:00'),
    );
  });

  test('where no hour is decent at all, nothing leaves', () => {
    const never = {
      ...HOURS,
      days: { sun: null, mon: null, tue: null, wed: null, thu: null, fri: null, sat: null },
    };
    expect(nextDecentMoment(never, ['Europe/Paris'], 0)).toBeGreaterThan(9 * 86_400_000);
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
      const offsets = new Set(
        getCountry(country as 'US')!.timezones.map((zone) => getTimezone(zone)!.utcOffset),
      );
      for (const [region, of] of Object.entries(regions)) {
        for (const zone of of) {
          const found = getTimezone(zone);
          expect([region, zone, found !== null]).toEqual([region, zone, true]);
          // Puerto Rico has a country code of its own there.
          if (region !== 'PR')
            expect([region, zone, offsets.has(found!.utcOffset)]).toEqual([region, zone, true]);
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

/*
 * IANA Time Zone Database, zone.tab (public domain), the lines of the United States and Canada: each zone
 * with the part of the country that it is used in. Where a comment names states or provinces, those have that
 * zone; the others are told apart by the largest cities of each (below).
 */
const ZONE_TAB = `CA America/St_Johns Newfoundland, Labrador (SE)
CA America/Halifax Atlantic - NS (most areas), PE
CA America/Glace_Bay Atlantic - NS (Cape Breton)
CA America/Blanc-Sablon AST - QC (Lower North Shore)
CA America/Toronto Eastern - ON & QC (most areas)
CA America/Iqaluit Eastern - NU (most areas)
CA America/Atikokan EST - ON (Atikokan), NU (Coral H)
CA America/Winnipeg Central - ON (west), Manitoba
CA America/Resolute Central - NU (Resolute)
CA America/Rankin_Inlet Central - NU (central)
CA America/Regina CST - SK (most areas)
CA America/Edmonton Mountain - AB, BC(E), NT(E), SK(W)
CA America/Cambridge_Bay Mountain - NU (west)
CA America/Inuvik Mountain - NT (west)
CA America/Creston MST - BC (Creston)
CA America/Fort_Nelson MST - BC (Ft Nelson)
CA America/Vancouver Pacific - BC (most areas)
US America/Detroit Eastern - MI (most areas)
US America/Kentucky/Louisville Eastern - KY (Louisville area)
US America/Indiana/Indianapolis Eastern - IN (most areas)
US America/Indiana/Tell_City Central - IN (Perry)
US America/Menominee Central - MI (Wisconsin border)
US America/North_Dakota/Center Central - ND (Oliver)
US America/Boise Mountain - ID (south), OR (east)
US America/Phoenix MST - AZ (except Navajo)`;

describe('held against the IANA database', () => {
  const offsets = (zone: string) =>
    [Date.UTC(2026, 0, 15), Date.UTC(2026, 6, 15)]
      .map((at) => (localTime(at, zone) - (at % 86_400_000) + 86_400_000) % 86_400_000)
      .join();
  const regionsIn = (country: string, comment: string) =>
    [...comment.matchAll(/\b([A-Z]{2})\b/g)]
      .map((found) => found[1]!)
      .filter((code) => code in ZONED_REGIONS[country]!);

  test.each(ZONE_TAB.split('\n').map((line) => line.split(' ')))('%s %s', (country, zone, ...comment) => {
    for (const region of regionsIn(country!, comment.join(' '))) {
      const known = ZONED_REGIONS[country!]![region]!.map(offsets);
      expect([region, known.includes(offsets(zone!))]).toEqual([region, true]);
    }
  });

  test('every larger city of every state and province lies in a zone of it', () => {
    const cities = cityMapping.filter(
      ({ iso2, pop, timezone }) => ['US', 'CA'].includes(iso2) && pop > 5000 && timezone,
    );
    expect(cities.length).toBeGreaterThan(500);
    const strangers = cities.filter(({ iso2, province, state_ansi, timezone }) => {
      const code = iso2 === 'US' ? state_ansi : PROVINCES[province];
      const known = code ? ZONED_REGIONS[iso2]![code] : undefined;
      return known && !known.map(offsets).includes(offsets(timezone));
    });
    expect(
      strangers.map(
        ({ city, state_ansi, province, timezone }) => `${city} ${state_ansi ?? province} ${timezone}`,
      ),
    ).toEqual([]);
  });
});

const PROVINCES: Record<string, string> = {
  Alberta: 'AB',
  'British Columbia': 'BC',
  Manitoba: 'MB',
  'New Brunswick': 'NB',
  'Newfoundland and Labrador': 'NL',
  'Northwest Territories': 'NT',
  'Nova Scotia': 'NS',
  Nunavut: 'NU',
  Ontario: 'ON',
  'Prince Edward Island': 'PE',
  Québec: 'QC',
  Saskatchewan: 'SK',
  Yukon: 'YT',
};
