import fc from 'fast-check';
import { BASIC, countParts, EXTENSION, septets, straighten } from '.';

describe('the GSM 7 bit default alphabet (3GPP TS 23.038 §6.2.1, code points checked from the table, from memory)', () => {
  test('has 128 places', () => expect([...BASIC]).toHaveLength(128));

  test.each([
    [0x00, '@'],
    [0x01, '£'],
    [0x02, '$'],
    [0x09, 'Ç'],
    [0x0a, '\n'],
    [0x10, 'Δ'],
    [0x11, '_'],
    [0x12, 'Φ'],
    [0x1c, 'Æ'],
    [0x1e, 'ß'],
    [0x1f, 'É'],
    [0x20, ' '],
    [0x24, '¤'],
    [0x30, '0'],
    [0x40, '¡'],
    [0x41, 'A'],
    [0x5a, 'Z'],
    [0x5b, 'Ä'],
    [0x5f, '§'],
    [0x60, '¿'],
    [0x61, 'a'],
    [0x7a, 'z'],
    [0x7b, 'ä'],
    [0x7f, 'à'],
  ])('0x%s', (code, char) => expect([...BASIC][code]).toBe(char));

  test('the extension table costs two septets', () => {
    for (const char of EXTENSION) expect(septets(char)).toBe(2);
    expect([...EXTENSION].sort()).toEqual([...'\f^{}\\[~]|€'].sort());
  });

  test('lower-case ç is not in it though Ç is', () =>
    expect([septets('ç'), septets('Ç')]).toEqual([null, 1]));
});

describe('parts (3GPP TS 23.040 §9.2.3.24.1: 160 or 153 septets, 70 or 67 units)', () => {
  test.each([
    ['', 0],
    ['a'.repeat(160), 1],
    ['a'.repeat(161), 2],
    ['a'.repeat(306), 2],
    ['a'.repeat(307), 3],
    ['€'.repeat(80), 1],
    ['€'.repeat(81), 2],
    ['ж'.repeat(70), 1],
    ['ж'.repeat(71), 2],
    ['ж'.repeat(134), 2],
    ['ж'.repeat(135), 3],
  ])('%#', (text, parts) => expect(countParts(text).parts).toBe(parts));

  test('an escape pair is not cut: 152 letters and a euro end the first part early', () => {
    const text = 'a'.repeat(152) + '€' + 'a'.repeat(151);
    expect(countParts(text)).toMatchObject({ units: 305, parts: 2, left: 0 });
    expect(countParts(text + 'a').parts).toBe(3);
  });

  test('a surrogate pair is not cut either', () => {
    expect(countParts('ж'.repeat(66) + '😀' + 'ж'.repeat(65)).parts).toBe(2);
    expect(countParts('ж'.repeat(66) + '😀' + 'ж'.repeat(66)).parts).toBe(3);
  });

  test('the characters that force the expensive alphabet are named', () => {
    expect(countParts('Don’t wait… don’t')).toMatchObject({ alphabet: 'ucs2', costly: ['’', '…'] });
    expect(countParts(straighten('Don’t wait…')).alphabet).toBe('gsm7');
  });

  test('a longer text never takes fewer parts', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 400 }),
        fc.string({ maxLength: 5 }),
        (text, more) => {
          expect(countParts(text + more).parts).toBeGreaterThanOrEqual(countParts(text).parts);
        },
      ),
    );
  });
});
