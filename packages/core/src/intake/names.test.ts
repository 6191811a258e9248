import fc from 'fast-check';
import { jaro, jaroWinkler, kinship, sameByShortForm, type NameKinship } from '.';

// Winkler, W. E. (1990): String Comparator Metrics and Enhanced Decision Rules in the Fellegi-Sunter Model of
// Record Linkage. The pairs and figures as they are commonly quoted from its table; the Jaro values likewise.
test.each([
  ['MARTHA', 'MARHTA', 0.944, 0.961],
  ['DWAYNE', 'DUANE', 0.822, 0.84],
  ['DIXON', 'DICKSONX', 0.767, 0.813],
])('%s and %s', (a, b, plain, winkler) => {
  expect(jaro(a, b)).toBeCloseTo(plain, 3);
  expect(jaroWinkler(a, b)).toBeCloseTo(winkler, 3);
});

test('similarity is symmetric, 1 for the same only, and between 0 and 1', () => {
  const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c', 'd'), maxLength: 8 });
  fc.assert(
    fc.property(word, word, (a, b) => {
      const s = jaro(a, b);
      expect(s).toBeCloseTo(jaro(b, a), 10);
      expect(s).toBeGreaterThanOrEqual(0);
      expect(s).toBeLessThanOrEqual(1);
      expect(s === 1).toBe(a === b);
      expect(jaroWinkler(a, b)).toBeGreaterThanOrEqual(s);
    }),
  );
});

test('short forms of given names (common practice, no source)', () => {
  expect(sameByShortForm('bob', 'robert')).toBe(true);
  expect(sameByShortForm('liz', 'beth')).toBe(true);
  expect(sameByShortForm('bob', 'liz')).toBe(false);
  expect(sameByShortForm('quill', 'quill')).toBe(false);
});

// "First Last / First Last" and how the two stand to each other.
test.each<[string, NameKinship]>([
  ['Ann Reyes / ANN réyes', 'same'],
  ['Ann Reyes / Ann', 'partly'],
  ['Ann / Reyes Ann', 'other'],
  ['Bob Reyes / Robert Reyes', 'short-form'],
  ['A Reyes / Ann Reyes', 'initial'],
  ['Reyes Ann / Ann Reyes', 'transposed'],
  ['Marisol Castellan / Marisol Castelan', 'alike'],
  ['Jun Reyes / Ann Reyes', 'other'],
  ['Ann Reyes / Ann Okafor', 'other'],
])('%s is %s', (pair, expected) => {
  const [a, b] = pair.split(' / ').map((name) => {
    const [firstName = '', lastName = ''] = name.split(' ');
    return { firstName, lastName };
  });
  expect(kinship(a!, b!)).toBe(expected);
});
