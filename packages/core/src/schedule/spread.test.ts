import fc from 'fast-check';
import { spreadOf } from '.';

const ids = fc.integer({ min: 1, max: 2 ** 31 - 1 });

test('somebody has one moment of the span, whenever it is asked', () => {
  fc.assert(
    fc.property(ids, ids, fc.integer({ min: 1, max: 336 }), (message, person, hours) => {
      const at = spreadOf(message, person, hours);
      expect(at).toBeGreaterThanOrEqual(0);
      expect(at).toBeLessThan(hours * 3_600_000);
      expect(spreadOf(message, person, hours)).toBe(at);
    }),
  );
});

test('people who came one after the other are spread evenly, of every message otherwise', () => {
  const tenths = (message: number) => {
    const out = new Array<number>(10).fill(0);
    for (let person = 1; person <= 20_000; person++)
      out[Math.floor(spreadOf(message, person, 10) / 3_600_000)]! += 1;
    return out;
  };
  for (const message of [1, 2, 977]) {
    // 2,000 each; a chi-square of nine degrees over 33.7 comes once in 10,000 (NIST/SEMATECH 1.3.6.7.4).
    const chi = tenths(message).reduce((sum, n) => sum + (n - 2000) ** 2 / 2000, 0);
    expect(chi).toBeLessThan(33.7);
  }
  expect(tenths(1)).not.toEqual(tenths(2));
});
