import fc from 'fast-check';
import { brakeAt, USUAL_BRAKE } from '.';

test.each([
  [{ tried: 1000, unknown: 21, complaints: 0 }, 'unknown'],
  [{ tried: 1000, unknown: 20, complaints: 0 }, null],
  [{ tried: 1000, unknown: 0, complaints: 4 }, 'complaints'],
  [{ tried: 1000, unknown: 0, complaints: 3 }, null],
  // Two of few are nobody's rate.
  [{ tried: 99, unknown: 90, complaints: 9 }, null],
  [{ tried: 100, unknown: 0, complaints: 2 }, null],
  [{ tried: 1000, unknown: 50, complaints: 50 }, 'complaints'],
] as const)('%j: %s', (counts, brake) => expect(brakeAt(counts)).toBe(brake));

test('a limit of the house is the one that counts, and 0 is none', () => {
  const counts = { tried: 1000, unknown: 30, complaints: 5 };
  expect(brakeAt(counts, { unknown: 5, complaints: 1 })).toBeNull();
  expect(brakeAt(counts, { unknown: 1, complaints: 0 })).toBe('unknown');
  expect(brakeAt(counts, { unknown: 0, complaints: 0 })).toBeNull();
});

test('more faults never release the brake, and more who were reached never pull it', () => {
  const some = fc.record({ tried: fc.nat(5000), unknown: fc.nat(200), complaints: fc.nat(50) });
  fc.assert(
    fc.property(some, fc.nat(50), (counts, more) => {
      const held = brakeAt(counts) !== null;
      if (held) expect(brakeAt({ ...counts, unknown: counts.unknown + more })).not.toBeNull();
      if (!held && counts.tried >= 100)
        expect(brakeAt({ ...counts, tried: counts.tried + more }, USUAL_BRAKE)).toBeNull();
    }),
  );
});
