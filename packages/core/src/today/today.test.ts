import fc from 'fast-check';
import { pressing, usualWeek, weekOf, WITHIN_HOURS, type WaitingItem, type WaitingKind } from './index';

const NOW = Date.UTC(2026, 10, 29, 9);
const HOURS = 3_600_000;
const wait = (kind: WaitingKind, hours: number | null): WaitingItem<string> => ({
  kind,
  since: hours === null ? null : NOW - hours * HOURS,
  of: `${kind} ${hours}`,
});

test('whoever asked to stop is read first, then what is late, the latest first', () => {
  const waits = [
    wait('draft', 24),
    wait('reply', 30),
    wait('batch', 24 * 30),
    wait('lapsing', null),
    wait('reply', 2),
    wait('stop', 0.1),
  ];
  expect(pressing(waits, NOW).map(({ of, isLate }) => [of, isLate])).toEqual([
    ['stop 0.1', false],
    ['batch 720', true],
    ['reply 30', true],
    ['lapsing null', false],
    ['reply 2', false],
    ['draft 24', false],
  ]);
});

test('a request to be erased is late behind one month (GDPR, article 12(3))', () => {
  const late = (days: number) => pressing([wait('erasure', days * 24)], NOW)[0]!.isLate;
  expect([late(29), late(31)]).toEqual([false, true]);
});

test('nothing is lost, nothing late stands behind what is not, and what is dated ahead of the clock is new', () => {
  const kinds = fc.constantFrom(...(Object.keys(WITHIN_HOURS) as WaitingKind[]));
  fc.assert(
    fc.property(
      fc.array(fc.tuple(kinds, fc.option(fc.integer({ min: -5, max: 5000 }), { nil: null }))),
      (list) => {
        const waits = list.map(([kind, hours]) => wait(kind, hours));
        const sorted = pressing(waits, NOW);
        expect(sorted.map(({ of }) => of).sort()).toEqual(waits.map(({ of }) => of).sort());
        const others = sorted.filter(({ kind }) => kind !== 'stop');
        expect(others.map(({ isLate }) => Number(isLate))).toEqual(
          others.map(({ isLate }) => Number(isLate)).sort((a, b) => b - a),
        );
        for (const { since, isLate } of sorted)
          if (since !== null && since >= NOW) expect(isLate).toBe(false);
      },
    ),
  );
});

test('weeks are seven days that end with today', () => {
  expect([20_000, 19_994, 19_993, 19_986, 20_001].map((day) => weekOf(day, 20_000))).toEqual([
    0,
    0,
    1,
    2,
    null,
  ]);
});

// By the definition of a median: as many weeks lie at or above it as at or below, and of an even number it is
// half-way.
test('the usual week parts the weeks behind it into halves, whatever this one brings', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(500), { minLength: 4, maxLength: 26 }), (weeks) => {
      const counts = new Map([[0, 9_999], ...weeks.map((count, i): [number, number] => [i + 1, count])]);
      const usual = usualWeek(counts, weeks.length)!;
      const [below, above] = [weeks.filter((count) => count < usual), weeks.filter((count) => count > usual)];
      expect(Math.max(below.length, above.length)).toBeLessThanOrEqual(weeks.length / 2);
      if (!weeks.includes(usual)) expect(usual - Math.max(...below)).toBe(Math.min(...above) - usual);
    }),
  );
});

test('weeks in which nothing came count, and three weeks say nothing yet', () => {
  expect(usualWeek(new Map([[1, 40]]), 10)).toBe(0);
  expect(
    usualWeek(
      new Map([
        [1, 40],
        [2, 40],
        [3, 40],
      ]),
      3.9,
    ),
  ).toBeNull();
  // Older than half a year does not count.
  expect(usualWeek(new Map([[27, 40]]), 90)).toBe(0);
});
