import fc from 'fast-check';
import { oneLine, seen, seenAll } from '.';

test.each([
  ['Ann\u0000Lin', 'AnnLin', 'AnnLin'],
  ['Ann\r\nBcc: all@example.org', 'Ann\nBcc: all@example.org', 'Ann Bcc: all@example.org'],
  ['\u202egro.elpmaxe@nna\u202c', 'gro.elpmaxe@nna', 'gro.elpmaxe@nna'],
  ['Zoë\u2066 Núñez\u2069', 'Zoë Núñez', 'Zoë Núñez'],
  ['line\tone\nline two', 'line\tone\nline two', 'line one line two'],
  ['العربية 👩‍🚀 שלום', 'العربية 👩‍🚀 שלום', 'العربية 👩‍🚀 שלום'],
])('%j', (text, lines, line) => {
  expect([seen(text), oneLine(text)]).toEqual([lines, line]);
});

test('done again it is the same, and nothing unseen is left', () => {
  const text = fc.string({ unit: 'binary' });
  fc.assert(
    fc.property(text, (one) => {
      expect(seen(seen(one))).toBe(seen(one));
      expect(oneLine(oneLine(one))).toBe(oneLine(one));
      expect(oneLine(one)).not.toMatch(/[\p{Cc}\u202a-\u202e\u2066-\u2069\u2028\u2029]/u);
    }),
  );
});

test('whatever is sent in is gone through, and what is no text stays', () => {
  const day = new Date(0);
  expect(seenAll({ a: ['x\u0007', { b: '\u202ey' }], n: 1, day, none: null })).toEqual({ a: ['x', { b: 'y' }], n: 1, day, none: null });
});
