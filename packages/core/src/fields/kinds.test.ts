import fc from 'fast-check';
import {
  choicesOf,
  coerce,
  countryCodes,
  countryName,
  formatValue,
  isoValue,
  readCountry,
  type FieldType,
  type FieldValue,
} from '.';
import { spoken } from '../words';

const MANNER = { locale: 'en-US', currency: 'USD' };
const kept = (type: Parameters<typeof coerce>[0], text: string) => {
  const read = spoken(coerce(type, text));
  return read.ok ? (read.value.text ?? null) : `! ${read.reason}`;
};

test.each([
  ['choices', 'boats, songs,boats', 'boats; songs'],
  ['choices', 'oak, white; pine', 'oak; white; pine'],
  ['country', 'Deutschland', 'DE'],
  ['country', 'estados unidos', 'US'],
  ['country', 'Atlantis', '! expected a country, got "Atlantis"'],
  ['place', ' 47.61 -122.33 ', '47.61, -122.33'],
  ['place', '147, 0', '! expected a latitude and a longitude, such as 47.61, -122.33, got "147, 0"'],
  ['link', 'ferry.example.org/boats', 'https://ferry.example.org/boats'],
  [
    'link',
    'javascript:alert(1)',
    '! expected a web address that begins with https://, got "javascript:alert(1)"',
  ],
  ['link', 'no address', '! expected a web address that begins with https://, got "no address"'],
] as const)('%s: %s', (type, text, expected) => expect(kept(type, text)).toBe(expected));

test('what is kept is kept when it is read again', () => {
  fc.assert(
    fc.property(
      fc.array(fc.string({ minLength: 1, maxLength: 12 }), { minLength: 1, maxLength: 6 }),
      (choices) => {
        const once = choicesOf(choices.join('; ')).join('; ');
        expect(choicesOf(once).join('; ')).toBe(once);
      },
    ),
    { numRuns: 2000 },
  );
});

// ISO 3166-1 has 249 officially assigned codes (ISO 3166 Maintenance Agency, iso.org/obp, read from memory);
// CLDR adds the user-assigned XK for Kosovo, which banks and customs use.
test('the countries are those of ISO 3166-1, each by its code and its name', () => {
  expect(countryCodes().filter((code) => code !== 'XK')).toHaveLength(249);
  for (const code of countryCodes()) expect([code, readCountry(code)]).toEqual([code, code]);
  for (const gone of ['EU', 'UK', 'SU', 'YU', 'ZZ', 'UN', 'DD']) expect(countryCodes()).not.toContain(gone);
  expect(formatValue('country', { text: 'DE' }, MANNER)).toBe('Germany');
  expect(countryName('?', 'en')).toBe('?');
});

const anyValue: fc.Arbitrary<[FieldType, FieldValue]> = fc.oneof(
  fc.tuple(
    fc.constant('number' as const),
    fc.record({ number: fc.oneof(fc.integer(), fc.constantFrom(1.125, -0.5, 1250.125, 12.5)) }),
  ),
  fc.tuple(fc.constant('money' as const), fc.record({ number: fc.integer({ min: -1e9, max: 1e9 }) })),
  fc.tuple(fc.constant('yesno' as const), fc.record({ number: fc.constantFrom(0, 1) })),
  fc.tuple(fc.constant('date' as const), fc.record({ date: fc.integer({ min: -20_000, max: 40_000 }) })),
  fc.tuple(fc.constant('birthday' as const), fc.record({ monthDay: fc.constantFrom(101, 229, 1231, 704) })),
  fc.tuple(fc.constant('country' as const), fc.record({ text: fc.constantFrom('DE', 'US') })),
  fc.tuple(fc.constant('region' as const), fc.record({ text: fc.constantFrom('US-WA', 'CA-QC', 'DE-BY') })),
  fc.tuple(
    fc.constant('datetime' as const),
    fc.record({ date: fc.integer({ min: -20_000, max: 40_000 }), number: fc.integer({ min: 0, max: 1439 }) }),
  ),
  fc.tuple(
    fc.constant('longtext' as const),
    fc.record({ text: fc.constantFrom('One line\nand another', 'x'.repeat(4000)) }),
  ),
  fc.tuple(fc.constant('link' as const), fc.record({ text: fc.constantFrom('https://example.org/a') })),
);

test('a value written plainly is read as the same value', () => {
  fc.assert(
    fc.property(anyValue, ([type, value]) =>
      expect(spoken(coerce(type, isoValue(type, value), { order: 'month-first' }))).toEqual({
        ok: true,
        value,
      }),
    ),
    { numRuns: 400 },
  );
});
