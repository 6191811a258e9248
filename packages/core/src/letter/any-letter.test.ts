import fc from 'fast-check';
import { registryOf, render, STANDARD_NAMES } from '../merge';
import {
  compileLetter,
  currentLetter,
  escapeLines,
  hrefsIn,
  letterFault,
  letterTexts,
  wrapLetter,
  type LetterDoc,
  type LetterSurroundings,
} from '.';

/*
 * Whatever is written: the HTML is in balance, no value changes its structure, the plain text has every link,
 * and what was written in an old version is all there.
 */
const around: LetterSurroundings & { organization: string } = {
  registry: registryOf(STANDARD_NAMES),
  picture: (src) => ({ url: (width) => `https://m.test${src}/${width}`, width: 900, height: 450 }),
  organization: 'Lantern Ferry Trust',
};
const FRAME = {
  imprint: 'I',
  why: 'W',
  leaveWords: 'Leave',
  subject: 'S {First name}',
  preheader: 'P {Last name}',
  language: 'en-US',
};

const words = fc.oneof(
  fc.string({ maxLength: 12 }),
  fc.constantFrom(
    '{First name}',
    'a {Last name, or "<b>"} b',
    '<p>',
    '"&\'',
    '{Nobody}',
    'שלום',
    '{For x}',
    '\n',
  ),
);
const href = fc.constantFrom(
  'https://ferry.test/a?b=1&c="2"',
  'https://ferry.test/{Email}',
  'mailto:a@b.test',
  'tel:+12065550100',
);
const mark = fc.oneof(
  fc.constantFrom({ type: 'bold' }, { type: 'italic' }),
  href.map((to) => ({ type: 'link', attrs: { href: to } })),
);
const inline = fc.oneof(
  fc.constant({ type: 'hardBreak' }),
  fc.record({ type: fc.constant('text'), text: words, marks: fc.array(mark, { maxLength: 3 }) }),
);
const inlines = fc.array(inline, { maxLength: 4 });
const align = fc.constantFrom(undefined, null, 'center', 'end');
const tree = fc.nat(2).map((tagId) => ({ kind: 'tag', tagId, has: true }));
const { block } = fc.letrec<{ blocks: object[]; block: object }>((tie) => ({
  blocks: fc.array(tie('block'), { maxLength: 3 }),
  block: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    fc.record({ type: fc.constant('paragraph'), attrs: fc.record({ align }), content: inlines }),
    fc.record({
      type: fc.constant('heading'),
      attrs: fc.record({ level: fc.integer({ min: 1, max: 3 }), align }),
      content: inlines,
    }),
    fc.constantFrom({ type: 'horizontalRule' }, { type: 'signature' }),
    fc.record({ type: fc.constant('button'), attrs: fc.record({ href, label: words }) }),
    fc.record({ type: fc.constant('gifts'), attrs: fc.record({ href: fc.constant('https://give.test/') }) }),
    fc.record({
      type: fc.constant('image'),
      attrs: fc.record({
        src: fc.constant('/media/7'),
        alt: fc.option(words, { nil: null }),
        width: fc.option(fc.integer({ min: 1, max: 900 }), { nil: null }),
        side: fc.constantFrom(null, 'start', 'end'),
        href: fc.option(href, { nil: null }),
      }),
    }),
    fc.record({
      type: fc.constantFrom('bulletList', 'orderedList'),
      content: fc.array(fc.record({ type: fc.constant('listItem'), content: tie('blocks') }), {
        maxLength: 3,
      }),
    }),
    fc.record({ type: fc.constant('blockquote'), content: tie('blocks') }),
    fc.record({
      type: fc.constant('personal'),
      attrs: fc.record({ tree }),
      content: fc.tuple(
        fc.record({ type: fc.constant('fitting'), content: tie('blocks') }),
        fc.record({ type: fc.constant('otherwise'), content: tie('blocks') }),
      ),
    }),
  ),
}));
const columns = fc
  .array(fc.record({ type: fc.constant('column'), content: fc.array(block, { maxLength: 2 }) }), {
    minLength: 2,
    maxLength: 3,
  })
  .map((content) => ({ type: 'columns', content }));
const letters = fc
  .array(fc.oneof({ weight: 4, arbitrary: block }, { weight: 1, arbitrary: columns }), { maxLength: 6 })
  .map((content) => ({ type: 'doc', version: 2, content }) as LetterDoc);
const fits = fc.record({
  'fits:0': fc.constantFrom('', '1'),
  'fits:1': fc.constantFrom('', '1'),
  'fits:2': fc.constantFrom('', '1'),
  'ask.first': fc.constantFrom('', '$5'),
});
const nasty = fc.oneof(
  fc.string(),
  fc.constantFrom('</p><script>', '" onload="x', '<!--', '-->', '\r\nBcc: a@b', '{First name}', '\u202eevil'),
);

const VOID = new Set(['img', 'br', 'hr', 'meta']);

/** The tags of a page with the names of their attributes; fails where one closes what is not open. */
function structureOf(html: string): string[] {
  const open: string[] = [];
  const out: string[] = [];
  const bare = html.replace(/^<!doctype html>/, '').replace(/<!--\[if mso\]>.*?<!\[endif\]-->/g, '');
  for (const [, close, name, attributes] of bare.matchAll(/<(\/?)([a-z][a-z0-9]*)((?:"[^"]*"|[^">])*)>/g)) {
    const names = [...attributes!.matchAll(/([a-z-]+)="/g)].map(([, one]) => one);
    out.push(`${close}${name} ${names.join(' ')}`);
    if (close) expect([open.pop(), html]).toEqual([name, html]);
    else if (!VOID.has(name!)) open.push(name!);
  }
  expect(open).toEqual([]);
  return out;
}

function mailOf(letter: LetterDoc, values: object) {
  const compiled = compileLetter(letter, around);
  const wrapped = wrapLetter(compiled, letter, FRAME, around);
  return {
    compiled,
    html: render({ parts: wrapped.html }, { ...values }, escapeLines),
    plain: render({ parts: wrapped.plain }, { ...values }),
  };
}

test('what is drawn here can be mailed, is in balance, and tables for one program are too', () => {
  fc.assert(
    fc.property(letters, fits, (letter, values) => {
      expect(letterFault(letter)).toBeNull();
      const { html } = mailOf(letter, values);
      structureOf(html);
      const mso = [...html.matchAll(/<!--\[if mso\]>(.*?)<!\[endif\]-->/g)]
        .map(([, inside]) => inside)
        .join('');
      structureOf(mso);
    }),
    { numRuns: 300 },
  );
});

test('no value of anybody changes the structure, and none is read as a mark', () => {
  fc.assert(
    fc.property(letters, fits, nasty, nasty, (letter, values, firstName, lastName) => {
      const usual = { ...values, firstName: 'A', lastName: 'B', email: 'c', 'sender.signature': 'D' };
      const odd = { ...values, firstName, lastName, email: firstName, 'sender.signature': lastName };
      const [one, other] = [mailOf(letter, usual), mailOf(letter, odd)];
      // A line end in a signature is a line end; nothing else of a value is anything but words.
      const without = (html: string) => structureOf(html).filter((tag) => tag !== 'br ');
      expect(without(other.html)).toEqual(without(one.html));
      expect(other.html).not.toMatch(/[\u202a-\u202e\u2066-\u2069]/);
    }),
    { numRuns: 300 },
  );
});

test('the plain text has every link that the HTML has, by its number', () => {
  fc.assert(
    fc.property(letters, fits, (letter, values) => {
      const { compiled } = mailOf(letter, values);
      const marks = Object.fromEntries(
        compiled.links.map((_href, at) => [`link:${at}`, `https://l.test/${at}.`]),
      );
      const html = render({ parts: compiled.html }, { ...values, ...marks }, escapeLines);
      const plain = render({ parts: compiled.plain }, { ...values, ...marks });
      for (let at = 0; at < compiled.links.length; at++) {
        const line = `[${at + 1}] https://l.test/${at}.`;
        expect([line, plain.includes(line)]).toEqual([line, html.includes(`"https://l.test/${at}."`)]);
      }
    }),
    { numRuns: 300 },
  );
});

test('a document of the first version loses nothing: words, addresses, pictures', () => {
  fc.assert(
    fc.property(letters, (letter) => {
      const { version: _none, ...old } = letter;
      const now = currentLetter(old);
      expect(now.version).toBe(2);
      expect(letterTexts(now)).toEqual(letterTexts(old));
      expect(hrefsIn(now)).toEqual(hrefsIn(old));
      expect(compileLetter(old, around)).toEqual(compileLetter({ ...old, version: 2 }, around));
    }),
    { numRuns: 200 },
  );
});
