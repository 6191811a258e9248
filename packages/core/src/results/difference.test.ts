import fc from 'fast-check';
import { jStat } from 'jstat';
import { differenceOf, liftOf, peopleToTell, toldFrom } from '.';

// R. G. Newcombe, "Interval estimation for the difference between independent proportions: comparison of
// eleven methods", Statistics in Medicine 17 (1998), table II, method 10; values from memory.
test.each([
  [56, 70, 48, 80, 0.0524, 0.3339],
  [9, 10, 3, 10, 0.1705, 0.809],
  [6, 7, 2, 7, 0.0582, 0.8062],
  [5, 56, 0, 29, -0.0381, 0.1926],
  [0, 10, 0, 20, -0.1611, 0.2775],
  [0, 10, 0, 10, -0.2775, 0.2775],
  [10, 10, 0, 20, 0.6791, 1],
  [10, 10, 0, 10, 0.6075, 1],
])('%i of %i beside %i of %i', (count, of, less, ofLess, low, high) => {
  const found = differenceOf({ count: less, of: ofLess }, { count, of })!;
  expect(found.low).toBeCloseTo(low, 4);
  expect(found.high).toBeCloseTo(high, 4);
});

const shares = fc
  .tuple(fc.integer({ min: 1, max: 4000 }), fc.double({ min: 0, max: 1, noNaN: true }))
  .map(([of, part]) => ({ count: Math.round(of * part), of }));

/** Pearson's chi-squared of a table of two by two, by what was expected of each cell. */
function chiSquared(one: { count: number; of: number }, other: { count: number; of: number }): number {
  const total = one.of + other.of;
  const yes = one.count + other.count;
  const cells = [one, other].flatMap(({ count, of }) => [
    [count, (of * yes) / total],
    [of - count, (of * (total - yes)) / total],
  ]);
  return cells.reduce(
    (sum, [seen, awaited]) => sum + (awaited === 0 ? 0 : (seen! - awaited!) ** 2 / awaited!),
    0,
  );
}

test('z squared is the chi-squared of the table, and as rare by a package of statistics', () => {
  fc.assert(
    fc.property(shares, shares, (one, other) => {
      const { z, more, low, high } = differenceOf(one, other)!;
      expect(z * z).toBeCloseTo(chiSquared(one, other), 6);
      const rare = 2 * (1 - jStat.normal.cdf(Math.abs(z), 0, 1));
      expect(rare).toBeCloseTo(1 - jStat.chisquare.cdf(z * z, 1), 6);
      expect(low).toBeLessThanOrEqual(more + 1e-12);
      expect(high).toBeGreaterThanOrEqual(more - 1e-12);
      const turned = differenceOf(other, one)!;
      expect(turned.low).toBeCloseTo(-high, 9);
    }),
  );
  expect(differenceOf({ count: 0, of: 0 }, { count: 1, of: 2 })).toBeNull();
});

// "To tell 2 % from 3 % you need 3,826 each": a figure of the trade.
test('how many each must have, to tell one share from another', () => {
  expect(peopleToTell(0.02, 0.03)).toBe(3826);
  expect(peopleToTell(0.03, 0.02)).toBe(3826);
  expect(peopleToTell(0.02, 0.02)).toBe(Infinity);
  expect(jStat.normal.inv(0.975, 0, 1)).toBeCloseTo(1.959964, 5);
  expect(jStat.normal.inv(0.8, 0, 1)).toBeCloseTo(0.841621, 5);
});

test('with so many each, eight in ten differences are seen', () => {
  const [one, other] = [0.1, 0.16];
  const of = peopleToTell(one, other);
  let state = 11;
  const chance = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  const tried = (part: number) => ({
    count: Array.from({ length: of }, chance).filter((n) => n < part).length,
    of,
  });
  const runs = 1500;
  let seen = 0;
  for (let i = 0; i < runs; i++) if (Math.abs(differenceOf(tried(one), tried(other))!.z) > 1.959964) seen++;
  expect(Math.abs(seen / runs - 0.8)).toBeLessThan(0.04);
});

test('what so many each can tell is what needs no more of them', () => {
  expect(toldFrom(0.02, 3826)).toBe(0.03);
  expect(toldFrom(0.02, 3825)).toBe(0.031);
  expect(toldFrom(0.05, 2)).toBeNull();
});

test('what a message did is seen only where chance does not explain it, by a package of statistics', () => {
  fc.assert(
    fc.property(shares, shares, (kept, meant) => {
      const { differs, z } = liftOf(kept, meant)!;
      const rare = 2 * (1 - jStat.normal.cdf(Math.abs(z), 0, 1));
      fc.pre(Math.abs(rare - 0.05) > 1e-6);
      expect(differs).toBe(rare < 0.05);
    }),
  );
  // 3 of 100 gave anyway, and 5 of 100 with it: seen among thousands, and not among hundreds.
  expect(liftOf({ count: 3, of: 100 }, { count: 5, of: 100 })).toMatchObject({ differs: false });
  expect(liftOf({ count: 90, of: 3000 }, { count: 150, of: 3000 })).toMatchObject({ differs: true });
  expect(liftOf({ count: 0, of: 0 }, { count: 5, of: 100 })).toBeNull();
});
