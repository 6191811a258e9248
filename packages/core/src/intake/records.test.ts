import fc from 'fast-check';
import { speak } from '../words';
import { CardReader, RecordReader, Unreadable } from '.';

const bytes = (text: string) => new TextEncoder().encode(text);
const reader = () => new RecordReader({ encoding: 'utf-8', delimiter: ',' });

/** Pushes pieces until the reader gives up; how many it took, and what it said. */
function until(
  push: (piece: Uint8Array) => unknown,
  piece: Uint8Array,
  most: number,
): { pieces: number; said: string } {
  for (let pieces = 1; pieces <= most; pieces++) {
    try {
      push(piece);
    } catch (error) {
      if (!(error instanceof Unreadable)) throw error;
      return { pieces, said: speak(error.said) };
    }
  }
  return { pieces: most, said: '' };
}

describe('what is no table is told by where it stops being one, long before its end', () => {
  // 100 MB in all, in pieces as they come from a file.
  const MOST = 400;
  const piece = (char: string) => bytes(char.repeat(256 * 1024));

  test.each([
    ['letters', 'a'],
    ['spaces', ' '],
    ['separators', ','],
    ['letters beyond ASCII', 'ä'],
    ['quotes', '"'],
  ])('a line of %s without end', (_what, char) => {
    const records = reader();
    records.push(bytes('Email,First name\nada@x.test,Ada\n'));
    const { pieces, said } = until((one) => records.push(one), piece(char), MOST);
    expect(pieces).toBeLessThan(8);
    expect(said).toMatch(/^Line 3 /);
  });

  test('a card without end', () => {
    const cards = new CardReader(bytes('BEGIN:VCARD\n'));
    cards.push(bytes('BEGIN:VCARD\nFN:Ada\nEND:VCARD\nBEGIN:VCARD\nPHOTO:'));
    const { pieces, said } = until((one) => cards.push(one), piece('A'), MOST);
    expect(pieces).toBeLessThan(30);
    expect(said).toMatch(/^Card 2 is longer than 5 million/);
  });

  test('a cell that is no value, with its column', () => {
    const long = bytes(`Email,Note\nada@x.test,${'x'.repeat(100_001)}\n`);
    expect(until((one) => reader().push(one), long, 1).said).toContain(
      'Line 2 has 100,001 characters in column 2',
    );
  });

  test('more cells than any table has', () => {
    expect(until((one) => reader().push(one), bytes(`Email\n${','.repeat(10_000)}\n`), 1).said).toContain(
      'Line 2 has 10,001 cells',
    );
  });
});

test('however a file is cut into pieces, its records are the same', () => {
  const cell = fc.oneof(fc.string({ unit: fc.constantFrom(...'aä ,"\n\r'), maxLength: 6 }), fc.constant(''));
  const quoted = (value: string) => `"${value.replaceAll('"', '""')}"`;
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 8 }),
      fc.integer({ min: 1, max: 9 }),
      (rows, step) => {
        const all = bytes(`h,h\n${rows.map((row) => row.map(quoted).join(',')).join('\n')}\n`);
        const read = (size: number) => {
          const records = reader();
          const out: string[][] = [];
          for (let at = 0; at < all.length; at += size)
            out.push(...records.push(all.subarray(at, at + size)));
          return [...out, ...records.end()];
        };
        expect(read(step)).toEqual(read(all.length));
        expect(read(all.length).slice(1)).toEqual(
          rows.map((row) => row.map((value, i) => (i === row.length - 1 ? value.replace(/\r$/, '') : value))),
        );
      },
    ),
  );
});
