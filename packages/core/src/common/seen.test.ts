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
  expect(seenAll({ a: ['x\u0007', { b: '\u202ey' }], n: 1, day, none: null })).toEqual({
    a: ['x', { b: 'y' }],
    n: 1,
    day,
    none: null,
  });
});

test.each([
  ['a space without width within a name', 'J\u200bane', 'Jane'],
  ['a byte order mark and a soft hyphen', '\ufeffLind\u00adqvist', 'Lindqvist'],
  ['a mark of direction', 'Zo\u200fe', 'Zoe'],
  ['a joiner that joins nothing', 'Jo\u200dan \u200cLin', 'Joan Lin'],
  ['a family that is one sign', '\u{1f469}\u200d\u{1f467}', '\u{1f469}\u200d\u{1f467}'],
  ['a sign of two with its form chosen', '\u{1f3f3}\ufe0f\u200d\u{1f308}', '\u{1f3f3}\ufe0f\u200d\u{1f308}'],
  [
    'Persian, whose letters take the form of their neighbours',
    '\u0645\u06cc\u200c\u062e\u0648\u0627\u0647\u0645',
    '\u0645\u06cc\u200c\u062e\u0648\u0627\u0647\u0645',
  ],
])('%s', (_what, text, kept) => {
  expect(oneLine(text)).toBe(kept);
});
