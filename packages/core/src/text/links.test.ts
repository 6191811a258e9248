import fc from 'fast-check';
import { markLinks, partsOfMarked } from '.';

test.each([
  ['Give: https://give.example/now.', ['https://give.example/now']],
  ['(see https://a.example/x_(y))', ['https://a.example/x_(y)']],
  [
    'http://a.example, or http://b.example/?q={First name, or "you"}!',
    ['http://a.example', 'http://b.example/?q={First name, or "you"}'],
  ],
  ['{Link: giving page}?from=text and {First name}', ['{Link: giving page}?from=text']],
  ['HTTPS://A.EXAMPLE twice HTTPS://A.EXAMPLE', ['HTTPS://A.EXAMPLE']],
  ['no link: give.example or ftp://x.example', []],
  ['https:// alone', []],
])('%s', (text, links) => expect(markLinks(text).links).toEqual(links));

test('with the links put back, it is the text that was typed', () => {
  const piece = fc.constantFrom(
    'Hi ',
    '{First name}',
    'https://a.example/b',
    '.',
    ' ',
    '(',
    ')',
    '{Link: x}',
    '\n',
    'é',
  );
  fc.assert(
    fc.property(fc.array(piece), (pieces) => {
      const text = pieces.join('');
      const { marked, links } = markLinks(text);
      const back = partsOfMarked(marked).map((part) => (typeof part === 'number' ? links[part]! : part));
      expect(back.join('')).toBe(text);
    }),
  );
});
