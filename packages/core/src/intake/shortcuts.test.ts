import fc from 'fast-check';
import { cleanEmail, cleanName, cleanPhone, cutAddresses, cutPhones, looseEmail, nameMatchKey } from '.';

/*
 * Most cells are plain, and for these there are short ways that look at no rule but their own. Whatever goes
 * in, the short way must come out where the long one does: something that changes nothing, put around the
 * cell, takes it off the short way.
 */
const letters = (of: string, min: number, max: number) =>
  fc.string({ unit: fc.constantFrom(...of), minLength: min, maxLength: max });
const addressish = fc.oneof(
  fc
    .tuple(letters('abzAZ09._+-', 1, 12), letters('abz09-.', 1, 14))
    .map(([local, domain]) => `${local}@${domain}`),
  letters('ab@.+-_ 9é', 0, 16),
  fc.tuple(letters('a', 60, 68), letters('b.', 1, 200)).map(([local, domain]) => `${local}@${domain}.org`),
);

test('an email comes out the same by the short and by the long way', () => {
  fc.assert(
    fc.property(addressish, (text) => {
      fc.pre(text.trim() !== '');
      const [short, long] = [cleanEmail(text), cleanEmail(`mailto:${text}`)];
      expect(short.ok).toBe(long.ok);
      if (short.ok && long.ok) expect([short.normal, short.shown]).toEqual([long.normal, long.shown]);
    }),
    { numRuns: 5000 },
  );
});

// RFC 5321 §4.5.3.1.1 and .3: 64 octets before the @, and 254 in all (errata 1690 of RFC 3696).
test.each([
  ['64 before the @', `${'a'.repeat(64)}@example.org`, true],
  ['65 before the @', `${'a'.repeat(65)}@example.org`, false],
  ['254 in all', `ab@${`${'b'.repeat(61)}.`.repeat(4)}org`, true],
  ['one more', `abc@${`${'b'.repeat(61)}.`.repeat(4)}org`, false],
  ['a label of 63', `a@${'b'.repeat(63)}.org`, true],
  ['a label of 64', `a@${'b'.repeat(64)}.org`, false],
])('the bounds of an address: %s', (_name, text, ok) => {
  expect(cleanEmail(text).ok).toBe(ok);
  expect(cleanEmail(`<${text}>`).ok).toBe(ok);
});

test('a telephone number likewise, whatever its area and wherever it is read', () => {
  const digits = (length: number) => letters('0123456789', length, length);
  const between = fc.constantFrom('', ' ', '-', '.', ') ', ')');
  const number = fc
    .tuple(
      fc.constantFrom('', '(', '1', '1 ', '+1', '+1 (', '+1-', '+44', '0'),
      digits(3),
      between,
      fc.oneof(fc.constant('555'), digits(3)),
      between,
      digits(4),
    )
    .map((parts) => parts.join(''));
  fc.assert(
    fc.property(number, fc.constantFrom('US', 'CA', 'GB', 'DE', 'DO'), (text, country) => {
      // The prefix of a link is taken off on the long way only.
      const [short, long] = [cleanPhone(text, country), cleanPhone(`tel:${text}`, country)];
      if (long.ok) expect(short).toEqual(long);
      else expect(short.ok).toBe(false);
    }),
    { numRuns: 8000 },
  );
});

// Every area code of three digits: which are in use is libphonenumber's to say.
test('no area code is read otherwise', () => {
  for (let area = 200; area < 1000; area++) {
    const text = `${area} 555 0142`;
    const [short, long] = [cleanPhone(text, 'US'), cleanPhone(`tel:${text}`, 'US')];
    expect(short.ok).toBe(long.ok);
    if (long.ok) expect(short).toEqual(long);
  }
});

const nameish = letters("abzABZ éÉß'-0.", 0, 14);

test('a name, its key and the loose form of an address likewise', () => {
  fc.assert(
    fc.property(nameish, addressish, (name, address) => {
      // A space at the end is trimmed, a soft mark is left out: neither changes what comes out.
      expect(cleanName(name)).toBe(cleanName(`${name} `));
      expect(nameMatchKey(name)).toBe(nameMatchKey(`${name}\u2019`));
      const at = address.lastIndexOf('@');
      if (at >= 0)
        expect(looseEmail(address)).toBe(looseEmail(`${address.slice(0, at)}+${address.slice(at)}`));
    }),
    { numRuns: 3000 },
  );
});

test('what holds no separator is one cell, and what holds one is cut as before', () => {
  const cell = letters('ab@.;, |/1+()\n', 0, 14);
  fc.assert(
    fc.property(cell, (text) => {
      const cut = cutAddresses(text);
      expect(cut.length > 1).toBe(
        /[;,\n|]|\s(?:\/|or|and|y|et|und|oder|ou)\s|\s+(?=\S+@)/.test(text) && cut.length > 1,
      );
      if (!/[;,|\s]/.test(text)) expect(cut).toEqual([text]);
      if (/^[\d ().+-]*$/.test(text)) expect(cutPhones(text)).toEqual([text]);
    }),
    { numRuns: 2000 },
  );
  expect(cutPhones('206 555 0101\n206 555 0102')).toHaveLength(2);
});
