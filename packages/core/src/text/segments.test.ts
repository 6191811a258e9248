import fc from 'fast-check';
import { BASIC, countParts, EXTENSION, ROOM, segmentsOf, septets } from '.';

const LETTERS = [...BASIC.replace('\u001b', ''), ...EXTENSION];
const text = fc.oneof(
  fc.string({ unit: fc.constantFrom(...LETTERS), maxLength: 400 }),
  fc.string({ unit: 'grapheme', maxLength: 300 }),
  fc.string({ unit: fc.constantFrom('😀', 'é', 'ł', 'a', '€'), maxLength: 300 }),
);

test('segments put together are the text, as many as are counted, and each fits (3GPP TS 23.038, 23.040)', () => {
  fc.assert(
    fc.property(text, (words) => {
      const { alphabet, segments } = segmentsOf(words);
      expect(segments.join('')).toBe(words);
      const counted = countParts(words);
      expect([alphabet, segments.length]).toEqual([counted.alphabet, counted.parts]);
      const room = segments.length > 1 ? ROOM[alphabet].part : ROOM[alphabet].single;
      for (const segment of segments) {
        const units =
          alphabet === 'gsm7' ? [...segment].reduce((sum, char) => sum + septets(char)!, 0) : segment.length;
        expect(units).toBeLessThanOrEqual(room);
        // No letter of two UTF-16 units is cut.
        expect(/^[\uDC00-\uDFFF]|[\uD800-\uDBFF]$/.test(segment)).toBe(false);
      }
    }),
  );
});

test('an escape pair at the end of a segment goes whole into the next one', () => {
  const { segments } = segmentsOf('a'.repeat(152) + '€' + 'a'.repeat(151));
  expect(segments.map((one) => one.length)).toEqual([152, 152]);
});
