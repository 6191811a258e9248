import { createRequire } from 'node:module';
import fc from 'fast-check';
import { compile, registryOf, render, STANDARD_NAMES, type MergePart } from '../merge';
import {
  encodedWords,
  encodePiece,
  fillMail,
  foldHeader,
  mailboxHeader,
  mailDate,
  mailSkeleton,
  QuotedPrintable,
  relaxedHeader,
  signedNames,
  wordsHeader,
} from '.';

// Independent readers: libqp 2 for quoted-printable, libmime 5 for encoded words (both read mail in
// mailparser).
const load = createRequire(__filename);
const { decode } = load('libqp') as { decode(text: string): Buffer };
const mime = load('libmime') as { decodeWords(text: string): string };

const letters = fc.oneof(
  { weight: 6, arbitrary: fc.constantFrom(...'abcF.=- \t') },
  {
    weight: 1,
    arbitrary: fc.constantFrom('From ', '\n', '\r\n', '..', '--=_words', 'é', '中', '😀', '\u00a0', '  '),
  },
);
const words = fc.array(letters, { maxLength: 260 }).map((all) => all.join(''));
const asLines = (text: string) => text.replace(/\r\n|\r|\n/g, '\r\n');

/** What RFC 2045 §6.7, RFC 5321 §4.5.2 and RFC 6376 §3.4.4 ask, so that nothing on the way changes a body. */
function expectSafe(encoded: string): void {
  for (const line of encoded.split('\r\n')) {
    expect(line).toMatch(/^[\x20-\x7e]*$/);
    expect(line.length).toBeLessThanOrEqual(76);
    expect(line).not.toMatch(/^\.|^From | $| {2}/);
  }
  expect(encoded.replaceAll('\r\n', '')).not.toMatch(/[\r\n]/);
}

test('pieces and values, joined at any column, read as they were', () => {
  const pieces = fc.array(fc.record({ text: words, fixed: fc.boolean() }), { maxLength: 8 });
  fc.assert(
    fc.property(pieces, (all) => {
      const writer = new QuotedPrintable();
      for (const { text, fixed } of all)
        if (fixed) writer.piece(encodePiece(text));
        else writer.value(text);
      expectSafe(writer.toString());
      expect(decode(writer.toString()).toString('utf8')).toBe(all.map(({ text }) => asLines(text)).join(''));
    }),
    { numRuns: 1500 },
  );
});

test('a mail filled by its skeleton has the words of the merge language', () => {
  const registry = registryOf(STANDARD_NAMES);
  const source = 'Dear {First name, or "neighbour"}, {Last gift: amount} from {City}.\nFrom us\n.'.repeat(3);
  const parts: MergePart[] = [
    ...compile(source, registry).parts,
    { when: 'fits:0', then: ['For you. '], otherwise: [{ key: 'city', name: 'City', or: 'There' }] },
  ];
  const skeleton = mailSkeleton({ text: parts, html: parts });
  const escape = (value: string) => value.replaceAll('<', '&lt;');
  const people = fc.record(
    { firstName: words, city: words, 'fits:0': fc.constantFrom('', '1') },
    { requiredKeys: [] },
  );
  fc.assert(
    fc.property(people, (values) => {
      const body = fillMail(skeleton, values, escape);
      expectSafe(body);
      const [, plain, html] = body.split(/--=_words(?:--)?\r\n/);
      const read = (part: string) => decode(part.slice(part.indexOf('\r\n\r\n') + 4, -2)).toString('utf8');
      expect(read(plain!)).toBe(asLines(render({ parts }, values)));
      expect(read(html!)).toBe(asLines(render({ parts }, values, escape)));
    }),
    { numRuns: 400 },
  );
});

describe('headers', () => {
  const unfolded = (header: string) => header.replace(/\r\n(?=[ \t])/g, '').replace(/\r\n$/, '');
  const anything = fc.oneof(fc.string({ maxLength: 200, unit: 'grapheme' }), words);
  const seenOf = (text: string) =>
    text
      .replace(/[\u0000-\u001f\u007f-\u009f\u2028\u2029]+/g, ' ')
      .replace(/ {2,}/g, ' ')
      .trim();

  // RFC 2047 §2: 75 characters an encoded word, 76 a line that has one.
  test('a subject is one header and reads as it was typed, whatever it is', () => {
    fc.assert(
      fc.property(anything, (subject) => {
        const header = wordsHeader('Subject', subject);
        expect(header).toMatch(/^Subject:(?: [\x20-\x7e]*)?(?:\r\n [\x21-\x7e][\x20-\x7e]*)*\r\n$/);
        for (const line of header.split('\r\n')) expect(line.length).toBeLessThanOrEqual(90);
        for (const word of header.match(/=\?utf-8\?[QB]\?[^?]*\?=/g) ?? [])
          expect(word.length).toBeLessThanOrEqual(75);
        expect(mime.decodeWords(unfolded(header).slice(9))).toBe(seenOf(subject));
      }),
      { numRuns: 1000 },
    );
  });

  test('a name ends no header and hides no address', () => {
    fc.assert(
      fc.property(anything, (name) => {
        const header = mailboxHeader('From', { name, address: 'hello@lanternferry.test' });
        expect(header.match(/\r\n(?! )/g)).toHaveLength(1);
        expect(unfolded(header)).toMatch(/<hello@lanternferry\.test>$/);
      }),
    );
  });

  test('as they are written', () => {
    expect(wordsHeader('Subject', 'Two planks left')).toBe('Subject: Two planks left\r\n');
    expect(wordsHeader('Subject', 'Für Jun')).toBe('Subject: =?utf-8?Q?F=C3=BCr_Jun?=\r\n');
    expect(wordsHeader('Subject', 'Hi\r\nBcc: all@example.org')).toBe('Subject: Hi Bcc: all@example.org\r\n');
    expect(mailboxHeader('From', { name: 'Rosa "Ro" Oduya, Ferry', address: 'a@b.test' })).toBe(
      'From: "Rosa \\"Ro\\" Oduya, Ferry" <a@b.test>\r\n',
    );
    expect(encodedWords('中'.repeat(40), 9).split('\r\n ').length).toBeGreaterThan(2);
    expect(foldHeader('List-Unsubscribe', `<https://${'a'.repeat(70)}.test>, <mailto:b@c.test>`)).toContain(
      ',\r\n <mailto',
    );
    // RFC 5322 §3.3, by the example of RFC 5322 A.1.1 in UTC.
    expect(mailDate(new Date(Date.UTC(1997, 10, 21, 15, 55, 6)))).toBe('Fri, 21 Nov 1997 15:55:06 +0000');
  });

  // RFC 6376 §3.4.5, its own example of the relaxed form.
  test('the relaxed form of a header', () => {
    expect(relaxedHeader('A: X\r\n')).toBe('a:X');
    expect(relaxedHeader('B : Y\t\r\n\tZ  \r\n')).toBe('b:Y Z');
  });

  // RFC 6376 §5.4.2: a name once more than it is there, so that none can be added.
  test('sealed headers are named once more than they are there', () => {
    expect(signedNames(['To: a\r\n', 'From: b\r\n', 'X-Other: c\r\n'], ['From', 'To', 'Cc'])).toEqual([
      ...['from', 'from', 'to', 'to', 'cc'],
    ]);
  });
});
