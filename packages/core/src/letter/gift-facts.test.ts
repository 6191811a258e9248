import fc from 'fast-check';
import { giftFacts } from '.';

const gift = (on: number, amount: number) => ({ on, amount });

test('first, last and largest are gifts; what was given back is taken from the sums alone', () => {
  const gifts = [gift(10, 5000), gift(20, 9000), gift(30, -9000), gift(40, 2000)];
  expect(giftFacts(gifts, 20)).toEqual({
    first: gift(10, 5000),
    last: gift(40, 2000),
    largest: gift(20, 9000),
    thisYear: { amount: 2000, number: 2 },
    all: { amount: 7000, number: 3 },
  });
});

test('nobody gave: there is nothing to say', () => {
  const none = { amount: 0, number: 0 };
  expect(giftFacts([], 20)).toEqual({ first: null, last: null, largest: null, thisYear: none, all: none });
});

test('the order in which they are read does not matter', () => {
  const some = fc.uniqueArray(fc.record({ on: fc.nat(50), amount: fc.integer({ min: -500, max: 500 }) }), {
    selector: ({ on }) => on,
  });
  fc.assert(
    fc.property(some, fc.nat(50), (gifts, year) => {
      const facts = giftFacts(gifts, year);
      expect(giftFacts([...gifts].reverse(), year)).toEqual(facts);
      const given = gifts.filter(({ amount }) => amount > 0);
      expect(facts.largest?.amount ?? 0).toBe(Math.max(0, ...given.map(({ amount }) => amount)));
      expect(facts.all.number).toBe(given.length);
      expect(facts.thisYear.number).toBeLessThanOrEqual(facts.all.number);
    }),
  );
});
