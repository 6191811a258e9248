import fc from 'fast-check';
import {
  addMonths,
  Bits,
  dayOf,
  daysSinceBirthday,
  distanceKm,
  fiscalStart,
  isoDay,
  parseIsoDay,
  parsePoint,
} from '../common';
import {
  columnKey,
  evaluate,
  expand,
  trace,
  narrow,
  narrowAmounts,
  NO_DAY,
  runningTotals,
  windowDays,
  type Column,
  type Columns,
  type Names,
  type FieldLine,
  type GaveLine,
  type Line,
  type MessageLine,
  type Rule,
  type Window,
} from '.';
import { describe as inWords } from '../words';

const day = (text: string) => parseIsoDay(text)!;
const TODAY = day('2026-11-23');
const READING = { today: TODAY, fiscalMonth: 7 };

/** One column under whatever key is asked for. */
const over = (column: Column, size: number): Columns => ({ size, get: () => column });
const days = (...texts: (string | null)[]) =>
  over({ kind: 'day', values: Int32Array.from(texts, (t) => (t ? day(t) : NO_DAY)) }, texts.length);
const words = (...texts: string[]) =>
  over(
    {
      kind: 'text',
      dictionary: ['', ...texts],
      codes: Uint32Array.from([0, ...texts.keys()].map((_k, i) => i)),
    },
    texts.length + 1,
  );
const passing = (line: Line, columns: Columns) => evaluate(line, columns, READING).ordinals();
const field = (op: FieldLine['op'], rest: Partial<FieldLine> = {}): FieldLine => ({
  kind: 'field',
  field: 1,
  op,
  ...rest,
});

describe('dates', () => {
  const some = days(
    '2026-11-23',
    '2026-11-30',
    '2026-12-23',
    '2026-10-23',
    '2025-12-05',
    '2027-01-01',
    null,
    '2026-07-01',
    '2026-06-30',
  );
  test.each<[string, FieldLine, number[]]>([
    ['within the next week', field('within-next', { value: 1, unit: 'weeks' }), [0, 1]],
    ['within the next month', field('within-next', { value: 1, unit: 'months' }), [0, 1, 2]],
    ['within the last month', field('within-last', { value: 1, unit: 'months' }), [0, 3]],
    ['in exactly 7 days', field('ahead', { value: 7 }), [1]],
    ['exactly a month ago', field('ago', { value: 1, unit: 'months' }), [3]],
    ['this month', field('during', { value: 'this-month' }), [0, 1]],
    ['next month', field('during', { value: 'next-month' }), [2]],
    ['last month', field('during', { value: 'last-month' }), [3]],
    ['this year', field('during', { value: 'this-year' }), [0, 1, 2, 3, 7, 8]],
    ['last year', field('during', { value: 'last-year' }), [4]],
    ['next year', field('during', { value: 'next-year' }), [5]],
    ['this fiscal year, from July', field('during', { value: 'this-fiscal-year' }), [0, 1, 2, 3, 5, 7]],
    ['last fiscal year', field('during', { value: 'last-fiscal-year' }), [4, 8]],
    // The day of 5 December 2025 comes round in twelve days; what has not come yet has no anniversary.
    ['an anniversary soon', field('anniversary', { value: 12 }), [0, 4]],
    ['missing', field('empty'), [6]],
  ])('%s', (_name, line, expected) => expect(passing(line, some)).toEqual(expected));

  test('birthdays: 29 February is kept on 28 February in common years', () => {
    const birthdays = over({ kind: 'monthDay', values: Uint16Array.from([229, 228, 301, 0]) }, 4);
    const on = (today: string, line: FieldLine) =>
      evaluate(line, birthdays, { today: day(today) }).ordinals();
    expect(on('2027-02-28', field('ahead', { value: 0 }))).toEqual([0, 1]);
    expect(on('2028-02-28', field('ahead', { value: 0 }))).toEqual([1]);
    expect(on('2028-02-29', field('ahead', { value: 0 }))).toEqual([0]);
    expect(on('2027-03-01', field('within-last', { value: 1 }))).toEqual([0, 1, 2]);
    expect(daysSinceBirthday(229, day('2027-03-02'))).toBe(2);
  });

  test('months end where they end, forth and back', () => {
    expect(
      [
        addMonths(day('2026-01-31'), 1),
        addMonths(day('2028-03-31'), -1),
        addMonths(day('2026-11-23'), 14),
      ].map(isoDay),
    ).toEqual(['2026-02-28', '2028-02-29', '2028-01-23']);
    expect(
      [
        fiscalStart(day('2026-06-30'), 7),
        fiscalStart(day('2026-07-01'), 7),
        fiscalStart(day('2026-07-01'), 1),
      ].map(isoDay),
    ).toEqual(['2025-07-01', '2026-07-01', '2026-01-01']);
  });
});

describe('texts', () => {
  test('several choices are had one by one', () => {
    const choices = words('boats; songs', 'boat', 'songs');
    expect(passing(field('has', { value: 'Songs' }), choices)).toEqual([1, 3]);
    expect(passing(field('has-not', { value: 'boats' }), choices)).toEqual([0, 2, 3]);
  });

  test('places lie within a distance of a point', () => {
    const places = words('47.61, -122.33', '45.52, -122.68', 'nowhere');
    expect(passing(field('within-km', { value: 50, to: '47.25, -122.44' }), places)).toEqual([1]);
    expect(passing(field('within-km', { value: 300, to: '47.25, -122.44' }), places)).toEqual([1, 2]);
  });
});

describe('distances', () => {
  // Great-circle distances between airports as printed in Williams, "Aviation Formulary" (worked example LAX
  // to JFK: 2144 nautical miles); the half and quarter meridian follow from the mean radius of GRS 80. Values
  // from memory.
  test('agree with published ones', () => {
    const lax = { latitude: 33 + 57 / 60, longitude: -(118 + 24 / 60) };
    const jfk = { latitude: 40 + 38 / 60, longitude: -(73 + 47 / 60) };
    expect(distanceKm(lax, jfk) / 1.852).toBeCloseTo(2144, -1);
    expect(distanceKm({ latitude: 90, longitude: 0 }, { latitude: -90, longitude: 12 })).toBeCloseTo(
      Math.PI * 6371.0088,
      6,
    );
    expect(distanceKm({ latitude: 0, longitude: 179 }, { latitude: 0, longitude: -179 })).toBeCloseTo(
      (Math.PI * 6371.0088) / 90,
      6,
    );
  });

  test('points are read, and what is none is refused', () => {
    expect(parsePoint('47.61, -122.33')).toEqual({ latitude: 47.61, longitude: -122.33 });
    expect(['', 'Port Alder', '91, 0', '0, 181', '1'].map(parsePoint)).toEqual([
      null,
      null,
      null,
      null,
      null,
    ]);
  });
});

describe('giving', () => {
  interface Gift {
    day: number;
    amount: number;
  }
  const columnsOf = (people: Gift[][], narrowed: boolean): Columns => {
    const starts = new Uint32Array(people.length + 1);
    people.forEach((gifts, i) => (starts[i + 1] = starts[i]! + gifts.length));
    const all = people.flat();
    const wide = Float64Array.from(all, (g) => g.amount);
    const amounts = narrowed ? narrowAmounts(starts, wide) : wide;
    const running = amounts instanceof Int32Array ? { running: runningTotals(amounts) } : {};
    return over(
      { kind: 'gifts', starts, days: Int32Array.from(all, (g) => g.day), amounts, ...running },
      people.length,
    );
  };
  const inside = (gift: Gift, window: Window) => {
    const { from, end } = windowDays(window, READING);
    return gift.day >= from && gift.day < end;
  };
  /** The plain reading: what somebody's gifts come to, or null where they gave nothing there. */
  const measured = (gifts: Gift[], { measure = 'sum', window }: GaveLine): number | null => {
    const real = gifts.filter((g) => g.amount > 0);
    const there = (measure === 'sum' ? gifts : real).filter((g) => inside(g, window));
    const amounts = there.map((g) => g.amount);
    if (measure === 'first' || measure === 'last') {
      const sorted = [...real].sort((a, b) => a.day - b.day);
      const one = measure === 'first' ? sorted[0] : sorted.at(-1);
      return one && inside(one, window) ? one.amount : null;
    }
    if (amounts.length === 0) return null;
    return measure === 'sum'
      ? amounts.reduce((a, b) => a + b, 0)
      : measure === 'count'
        ? amounts.length
        : Math.max(...amounts);
  };
  const gift = fc.record({
    day: fc.integer({ min: TODAY - 900, max: TODAY }),
    amount: fc.constantFrom(-500, 500, 1000, 2500, 2 ** 29, -(2 ** 29), 3e9),
  });
  const line: fc.Arbitrary<GaveLine> = fc.record({
    kind: fc.constant('gave' as const),
    did: fc.boolean(),
    measure: fc.constantFrom(
      'sum' as const,
      'count' as const,
      'largest' as const,
      'first' as const,
      'last' as const,
    ),
    atLeast: fc.constantFrom(null, 1, 2, 1000, 2000, -600, 0, 1500.5, 2 ** 30, 6e9),
    atMost: fc.constantFrom(null, 1, 3, 2500, -1, 999.5, 2 ** 31, 4e9),
    window: fc.constantFrom<Window>(
      { over: 'ever' },
      { over: 'last-months', days: 6 },
      { over: 'last-fiscal-year' },
      { over: 'between', from: '2025-01-01', to: '2025-12-31' },
    ),
  });

  test('agrees with a plain reading, whatever is measured and whenever', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(gift, { maxLength: 5 }), { maxLength: 40 }),
        line,
        fc.boolean(),
        (people, one, narrowed) => {
          const expected = people.flatMap((gifts, i) => {
            const value = measured(gifts, one);
            const passes =
              value !== null && value >= (one.atLeast ?? -Infinity) && value <= (one.atMost ?? Infinity);
            return passes === one.did ? [i] : [];
          });
          expect(passing(one, columnsOf(people, narrowed))).toEqual(expected);
        },
      ),
      { numRuns: 1500 },
    );
  });
});

test('amounts are kept in 32 bits as long as nobody’s, refunds counted like gifts, reach what sums may hold', () => {
  const starts = Uint32Array.from([0, 2, 3]);
  const kept = (...amounts: number[]) => narrowAmounts(starts, Float64Array.from(amounts)).constructor.name;
  expect(kept(500, -500, 2500)).toBe('Int32Array');
  expect(kept(2 ** 29, 2 ** 29 - 1, 2 ** 30 - 1)).toBe('Int32Array');
  expect(kept(2 ** 29, -(2 ** 29), 0)).toBe('Float64Array');
  expect(kept(1, 1, 2 ** 30)).toBe('Float64Array');
  expect(kept(1, 1, NaN)).toBe('Float64Array');
});

test('messages count each once in its window', () => {
  const column: Column = {
    kind: 'messages',
    starts: Uint32Array.from([0, 2, 3, 3]),
    days: Int32Array.from([TODAY - 3, TODAY - 200, TODAY - 1]),
    messageIds: Uint32Array.from([7, 8, 9]),
  };
  const line = (rest: Partial<MessageLine>): MessageLine => ({
    kind: 'message',
    event: 'opened',
    did: true,
    messageId: null,
    atLeast: 1,
    window: { over: 'ever' },
    ...rest,
  });
  const columns = over(column, 3);
  expect(passing(line({}), columns)).toEqual([0, 1]);
  expect(passing(line({ atLeast: 2 }), columns)).toEqual([0]);
  expect(passing(line({ atLeast: 2, window: { over: 'last-days', days: 30 } }), columns)).toEqual([]);
  expect(passing(line({ messageId: 9 }), columns)).toEqual([1]);
  expect(passing(line({ did: false }), columns)).toEqual([2]);
});

test('rosters and chapters', () => {
  const roster = over({ kind: 'stage', codes: Uint8Array.from([0, 1, 2]), stages: ['asked', 'pledged'] }, 3);
  const on = (stages: string[], is = true) =>
    passing({ kind: 'roster', campaignId: 1, stages, on: is }, roster);
  expect([on([]), on(['pledged']), on(['pledged'], false), on([], false)]).toEqual([
    [1, 2],
    [2],
    [0, 1],
    [0],
  ]);
  const chapters = over({ kind: 'chapter', ids: Uint32Array.from([4, 5]) }, 2);
  expect(passing({ kind: 'chapter', chapterId: 5, in: true }, chapters)).toEqual([1]);
});

describe('a segment inside another', () => {
  const tag: Rule = { kind: 'tag', tagId: 1, has: true };
  const inside = (segmentId: number, is = true): Rule => ({ kind: 'segment', segmentId, in: is });
  const trees: Record<number, Rule> = {
    1: tag,
    2: { kind: 'any', rules: [inside(1), inside(3, false)] },
    3: tag,
    4: inside(5),
    5: { kind: 'all', rules: [inside(4)] },
  };
  const of = (rule: Rule) => expand(rule, (id) => trees[id]);

  test('stands for its tree', () => {
    expect(of(inside(2))).toEqual({
      ok: true,
      rule: {
        kind: 'all',
        rules: [
          {
            kind: 'any',
            rules: [
              { kind: 'all', rules: [tag] },
              { kind: 'none', rules: [tag] },
            ],
          },
        ],
      },
    });
  });

  test('cycles and those that are gone are told', () => {
    expect(of(inside(4))).toEqual({ ok: false, why: 'cycle', segmentId: 4 });
    expect(of({ kind: 'all', rules: [tag, inside(9)] })).toEqual({ ok: false, why: 'gone', segmentId: 9 });
    expect(() => columnKey(inside(1) as Line)).toThrow('expanded');
  });
});

test('narrowing counts the rules inside groups too, and one person is asked alone', () => {
  const bits = (...ordinals: number[]): Column => {
    const set = new Bits(5);
    ordinals.forEach((one) => set.add(one));
    return { kind: 'bits', bits: set };
  };
  const all: Record<string, Column> = { 'tag:1': bits(0, 1, 2), 'tag:2': bits(2, 3), 'tag:3': bits(4) };
  const columns: Columns = { size: 5, get: (key) => all[key]! };
  const has = (tagId: number): Rule => ({ kind: 'tag', tagId, has: true });
  const tree: Rule = {
    kind: 'all',
    rules: [
      { kind: 'any', rules: [has(1), has(3)] },
      { kind: 'none', rules: [has(2)] },
    ],
  };
  const { bits: set, steps } = narrow(tree, columns, READING);
  expect(set.ordinals()).toEqual([0, 1, 4]);
  expect(steps.map(({ alone, left, inner }) => [alone, left, inner.map((one) => one.alone)])).toEqual([
    [4, 4, [3, 1]],
    [3, 3, [2]],
  ]);
  expect([0, 1, 2, 3, 4].filter((i) => trace(tree, columns, i, READING).holds)).toEqual(set.ordinals());
});

const NAMES: Names = {
  locale: 'en-US',
  currency: 'USD',
  field: () => ({ name: 'Membership renews', type: 'date' }),
  tag: () => 'plank menders',
  list: () => 'Ferry news',
  batch: () => 'winter fair',
  campaign: () => 'Winter hull appeal',
  chapter: () => 'Upriver',
  message: () => 'Boots on Saturday',
  segment: () => 'Lapsed donors',
};

test.each<[Line, string]>([
  [field('within-next', { value: 1, unit: 'weeks' }), 'have Membership renews within the next 1 week'],
  [field('ahead', { value: 30 }), 'have Membership renews in exactly 30 days'],
  [field('ago', { value: 2, unit: 'months' }), 'have Membership renews exactly 2 months ago'],
  [field('anniversary', { value: 14 }), 'have an anniversary of Membership renews within the next 14 days'],
  [field('during', { value: 'last-fiscal-year' }), 'have Membership renews in last fiscal year'],
  [
    { kind: 'gave', did: true, measure: 'count', atLeast: 3, window: { over: 'last-months', days: 12 } },
    'gave at least 3 gifts in the last 12 months',
  ],
  [
    {
      kind: 'gave',
      did: true,
      measure: 'last',
      atLeast: 5000,
      window: { over: 'between', from: '2025-01-01', to: '2025-06-30' },
    },
    'gave their last gift (at least $50) from Jan 1, 2025 to Jun 30, 2025',
  ],
  [
    { kind: 'gave', did: false, measure: 'largest', atLeast: 1000, atMost: 2000, window: { over: 'ever' } },
    'did not give a gift of at least $10 and at most $20 as their largest ever',
  ],
  [
    { kind: 'roster', campaignId: 1, stages: ['asked', 'thinking'], on: true },
    'are on the roster of Winter hull appeal as asked or thinking',
  ],
  [{ kind: 'chapter', chapterId: 1, in: false }, 'are not of the chapter Upriver'],
  [
    { kind: 'message', event: 'clicked', did: false, messageId: 3, atLeast: 1, window: { over: 'ever' } },
    'clicked no link in the message Boots on Saturday ever',
  ],
  [
    {
      kind: 'message',
      event: 'got',
      did: true,
      messageId: null,
      atLeast: 4,
      window: { over: 'this-fiscal-year' },
    },
    'got 4 messages or more in this fiscal year',
  ],
  [{ kind: 'segment', segmentId: 1, in: true }, 'are in the segment Lapsed donors'],
])('reads as words: %j', (line, expected) => expect(inWords(line, NAMES)).toBe(expected));

test('dates before the epoch and far ahead keep their order', () => {
  expect(windowDays({ over: 'earlier-years' }, READING).end).toBe(dayOf(2026, 1, 1));
  expect(passing(field('before', { value: '1900-01-01' }), days('1899-12-31', '1900-01-01', null))).toEqual([
    0,
  ]);
});
