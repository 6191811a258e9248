import fc from 'fast-check';
import { wilson } from '.';

// R. G. Newcombe, "Two-sided confidence intervals for the single proportion", Statistics in Medicine 17
// (1998), table I, method 3 (score, no continuity correction); values from memory.
test.each([
  [81, 263, 0.2553, 0.3662],
  [15, 148, 0.0624, 0.1605],
  [0, 20, 0, 0.1611],
  [1, 29, 0.0061, 0.1718],
])('Wilson %i of %i', (count, of, low, high) => {
  const rate = wilson(count, of)!;
  expect(rate.low).toBeCloseTo(low, 4);
  expect(rate.high).toBeCloseTo(high, 4);
});

test('the rate lies in its interval', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 5000 }), fc.nat(), (of, n) => {
      const rate = wilson(n % (of + 1), of)!;
      expect(rate.low).toBeLessThanOrEqual(rate.rate + 1e-12);
      expect(rate.high).toBeGreaterThanOrEqual(rate.rate - 1e-12);
    }),
  );
  expect(wilson(0, 0)).toBeNull();
});
