import fc from 'fast-check';
import type { Day } from '../common';
import { askAmounts, friendlyAmount, USUAL_ASK, type AskRule } from '.';

const TODAY = 20_000 as Day;
const gift = (amount: number, ago = 10) => ({ on: (TODAY - ago) as Day, amount });
const ask = (gifts: ReturnType<typeof gift>[], rule: Partial<AskRule> = {}) =>
  askAmounts({ ...USUAL_ASK, ...rule }, gifts, TODAY);

// Worked by hand from the rule's own words: half, the same and twice the last gift of the last 24 months,
// rounded to friendly steps, at least $15, at most $500, else $25, $50, $100.
test.each([
  [[gift(5000)], [2500, 5000, 10_000]],
  [
    [gift(12_000), gift(4000, 5)],
    [2000, 4000, 8000],
  ],
  [[gift(3333)], [1700, 3500, 6500]],
  // Half of 10 is below the least: the next is a step above it.
  [[gift(1000)], [1500, 1600, 2000]],
  // Twice 400 is above the most.
  [[gift(40_000)], [20_000, 40_000, 50_000]],
  // All of it is: one amount is asked for.
  [[gift(900_000)], [50_000]],
  // Of 25 months ago: it counts no more.
  [[gift(8000, 770)], [2500, 5000, 10_000]],
  [[], [2500, 5000, 10_000]],
  // What was given back is no gift.
  [[gift(-5000)], [2500, 5000, 10_000]],
])('%j is asked for %j', (gifts, amounts) => expect(ask(gifts)).toEqual(amounts));

test('of the largest or the average, of any time, unrounded', () => {
  const gifts = [gift(10_000, 900), gift(2000, 20), gift(3001, 10)];
  expect(ask(gifts, { of: 'largest' })).toEqual([1500, 3000, 6000]);
  expect(ask(gifts, { of: 'largest', months: null })).toEqual([5000, 10_000, 20_000]);
  expect(ask(gifts, { of: 'average', friendly: false, months: null })).toEqual([2500, 5000, 10_001]);
});

test('friendly steps', () => {
  expect([1, 149, 150, 1949, 2249, 2250, 9751, 26_000, 74_900].map(friendlyAmount)).toEqual([
    100, 100, 200, 1900, 2000, 2500, 10_000, 25_000, 75_000,
  ]);
});

test('always rising, within the bounds, and never nothing', () => {
  const rules = fc
    .record({
      shares: fc.tuple(
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.constant(1),
        fc.double({ min: 1, max: 5, noNaN: true }),
      ),
      of: fc.constantFrom('last' as const, 'largest' as const, 'average' as const),
      months: fc.option(fc.integer({ min: 1, max: 60 }), { nil: null }),
      friendly: fc.boolean(),
      least: fc.integer({ min: 100, max: 5000 }),
      span: fc.integer({ min: 0, max: 1_000_000 }),
      otherwise: fc.tuple(fc.constant(2500), fc.constant(5000), fc.constant(10_000)),
    })
    .map(({ span, ...rule }): AskRule => ({ ...rule, most: rule.least + span }));
  const gifts = fc.array(
    fc.record({
      on: fc.integer({ min: 15_000, max: 20_000 }),
      amount: fc.integer({ min: -1000, max: 10_000_000 }),
    }),
    { maxLength: 6 },
  );
  fc.assert(
    fc.property(rules, gifts, (rule, given) => {
      const amounts = askAmounts(rule, given as { on: Day; amount: number }[], TODAY);
      expect(amounts.length).toBeGreaterThan(0);
      amounts.forEach((amount, at) => {
        expect(Number.isInteger(amount)).toBe(true);
        expect(amount).toBeGreaterThanOrEqual(rule.least);
        expect(amount).toBeLessThanOrEqual(rule.most);
        if (at > 0) expect(amount).toBeGreaterThan(amounts[at - 1]!);
      });
    }),
  );
});
