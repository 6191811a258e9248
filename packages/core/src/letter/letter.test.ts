import { registryOf, render, STANDARD_NAMES } from '../merge';
import { spoken } from '../words';
import {
  compileLetter,
  currentLetter,
  escapeLines,
  letterFault,
  USUAL_STYLE,
  wrapLetter,
  type LetterDoc,
  type LetterSurroundings,
} from '.';

const around: LetterSurroundings & { organization: string } = {
  registry: registryOf(STANDARD_NAMES),
  picture: (src) => ({ url: (width) => `https://ferry.test${src}/${width}`, width: 1200, height: 600 }),
  organization: 'Lantern Ferry Trust',
};
const FRAME = {
  imprint: 'Lantern Ferry Trust, 1 Slip Lane',
  why: 'You asked for Ferry news.',
  leaveWords: 'Leave, or choose what you get',
  subject: 'Planks for {First name}',
  preheader: '',
  language: 'en-US',
};
const text = (words: string, ...marks: object[]) => ({ type: 'text', text: words, marks });
const paragraph = (words: string, marks: object[] = [], attrs?: object) => ({
  type: 'paragraph',
  ...(attrs ? { attrs } : {}),
  content: [text(words, ...marks)],
});
const doc = (...content: object[]) => ({ type: 'doc', version: 2, content }) as LetterDoc;
const link = (href: string) => ({ type: 'link', attrs: { href } });
const crew = { kind: 'tag', tagId: 3, has: true };
const personal = (fitting: object[], otherwise: object[], tree: object = crew) => ({
  type: 'personal',
  attrs: { tree },
  content: [
    { type: 'fitting', content: fitting },
    { type: 'otherwise', content: otherwise },
  ],
});

const html = (letter: LetterDoc, values = {}): string =>
  render({ parts: compileLetter(letter, around).html }, values, escapeLines);
const plain = (letter: LetterDoc, values = {}): string =>
  render({ parts: compileLetter(letter, around).plain }, values);
const mail = (letter: LetterDoc, values = {}, more: Partial<typeof FRAME> = {}, surroundings = around) => {
  const wrapped = wrapLetter(
    compileLetter(letter, surroundings),
    letter,
    { ...FRAME, ...more },
    surroundings,
  );
  return {
    html: render({ parts: wrapped.html }, values, escapeLines),
    plain: render({ parts: wrapped.plain }, values),
  };
};

test('text and values are escaped', () => {
  expect(html(doc(paragraph('a < b, {First name}')), { firstName: '<script>' })).toContain(
    'a &#60; b, &#60;script&#62;',
  );
});

const EVERY = doc(
  { type: 'heading', attrs: { level: 2, align: 'center' }, content: [text('Planks')] },
  { type: 'bulletList', content: [{ type: 'listItem', content: [paragraph('oak'), paragraph('dry')] }] },
  { type: 'orderedList', content: [{ type: 'listItem', content: [paragraph('first')] }] },
  { type: 'blockquote', content: [paragraph('She floats.')] },
  { type: 'horizontalRule' },
  { type: 'button', attrs: { href: 'https://ferry.test/give', label: 'Give' } },
  { type: 'gifts', attrs: { href: 'https://ferry.test/give#now' } },
  { type: 'image', attrs: { src: '/media/3', alt: 'The "hull"', width: 300, href: 'https://ferry.test/h' } },
  { type: 'image', attrs: { src: '/media/4', alt: '', width: 200, side: 'end' } },
  paragraph('bold link', [{ type: 'bold' }, link('https://ferry.test/x')], { align: 'end' }),
  {
    type: 'columns',
    content: [
      { type: 'column', content: [paragraph('left')] },
      { type: 'column', content: [paragraph('right')] },
    ],
  },
  { type: 'signature' },
  personal([paragraph('for the crew')], [paragraph('for the rest')]),
);
const EVERY_VALUES = {
  'fits:0': '1',
  'ask.first': '$25',
  'ask.third': '$100',
  'sender.signature': 'Ann\nKeeper',
};

test('blocks of every kind', () => {
  expect(letterFault(EVERY)).toBeNull();
  const out = html(EVERY, EVERY_VALUES);
  for (const piece of [
    '<h2 class="t" style',
    ';text-align:center">Planks',
    '<ul',
    '<li><p',
    '<ol',
    '<blockquote',
    '<hr',
    'bgcolor="#17252B"',
    '>Give</a>',
    'alt="The &#34;hull&#34;" width="300" height="150"',
    'src="https://ferry.test/media/3/600"',
    'align="right" style="float:right;width:200px;max-width:50%',
    '<strong><a class="a" href="https:',
    'text-align:right">',
    'max-width:264px',
    'Ann<br>Keeper',
    'for the crew',
  ])
    expect(out).toContain(piece);
  expect(out).not.toContain('for the rest');
  expect(html(EVERY, { ...EVERY_VALUES, 'fits:0': '' })).toContain('for the rest');
});

test('a gift button stands for each amount that somebody is asked for, and leads there with it', () => {
  const out = html(EVERY, EVERY_VALUES);
  expect(out).toContain('>$25</a>');
  expect(out).toContain('>$100</a>');
  expect(out.match(/bgcolor/g)).toHaveLength(3);
  expect(compileLetter(EVERY, around).links).toContain(
    'https://ferry.test/give?amount={Ask: first, as number}#now',
  );
});

test('in plain text: lines, marks of lists, what is on pictures, and links by number below', () => {
  expect(plain(EVERY, EVERY_VALUES)).toBe(`Planks

* oak

  dry

1. first

> She floats.

----------

Give [1]

$25 [2]

$100 [4]

(The "hull") [5]

bold link [6]

left

right

Ann
Keeper

for the crew

[1] https://ferry.test/give
[2] https://ferry.test/give?amount={Ask: first, as number}#now
[4] https://ferry.test/give?amount={Ask: third, as number}#now
[5] https://ferry.test/h
[6] https://ferry.test/x

`);
});

test('a link of a passage is told below to those alone who read it', () => {
  const letter = doc(
    personal(
      [paragraph('crew', [link('https://ferry.test/a')])],
      [paragraph('rest', [link('https://b.test')])],
    ),
  );
  expect(plain(letter, { 'fits:0': '1' })).toBe('crew [1]\n\n[1] https://ferry.test/a\n\n');
  expect(plain(letter)).toBe('rest [2]\n\n[2] https://b.test\n\n');
});

test('equal sentences are asked once, and each block knows its own', () => {
  const other = { kind: 'tag', tagId: 4, has: true };
  const letter = doc(
    personal([paragraph('a')], []),
    personal([paragraph('b')], [], other),
    personal([paragraph('c')], []),
  );
  expect(compileLetter(letter, around).rules).toEqual([crew, other]);
  expect(plain(letter, { 'fits:0': '1' })).toBe('a\n\nc\n\n');
});

test('equal links are one link, and each can be replaced', () => {
  const to = (href: string) => paragraph('x', [link(href)]);
  const letter = doc(to('https://a.test'), to('https://b.test'), to('https://a.test'));
  expect(compileLetter(letter, around).links).toEqual(['https://a.test', 'https://b.test']);
  const out = html(letter, { 'link:0': 'https://t.test/1' });
  expect(out.match(/https:\/\/t\.test\/1/g)).toHaveLength(2);
  expect(out).toContain('href="https://b.test"');
});

test('the mail names its language and subject, who wrote, where they live and the way out, in both ways', () => {
  const { html: out, plain: words } = mail(doc(paragraph('hi')), {
    leave: 'https://l.test/1',
    firstName: 'A<b',
  });
  for (const piece of [
    '<html lang="en-US" dir="ltr">',
    '<title>Planks for A&#60;b</title>',
    'Lantern Ferry Trust, 1 Slip Lane',
    'You asked for Ferry news.',
    'href="https://l.test/1"',
    'color-scheme',
    'role="presentation"',
  ])
    expect(out).toContain(piece);
  expect(words).toBe(
    'hi\n\n----------\nYou asked for Ferry news.\nLeave, or choose what you get: https://l.test/1\nLantern Ferry Trust, 1 Slip Lane\n',
  );
  expect(mail(doc(), {}, { language: 'ar-EG' }).html).toContain('<html lang="ar-EG" dir="rtl">');
});

test('a house has its logo, colours, face and footer; a plain letter no logo', () => {
  const style = {
    ...USUAL_STYLE,
    logo: { src: '/media/9', width: 160 },
    main: '#F0C040',
    face: 'plain' as const,
    width: 520,
    footer: { en: 'A charity.\nNo. 12', de: 'Ein Verein.' },
  };
  const house = { ...around, style };
  const button = { type: 'button', attrs: { href: 'https://ferry.test', label: 'Go' } };
  const out = mail(doc(button), {}, {}, house).html;
  expect(out).toContain(
    'src="https://ferry.test/media/9/320" alt="Lantern Ferry Trust" width="160" height="80"',
  );
  // Dark words on a light button.
  expect(out).toContain('color:#000000;text-decoration:none');
  expect(out).toContain('width="520"');
  expect(out).toContain('A charity.<br>No. 12');
  expect(mail(doc(button), {}, { language: 'de-AT' }, house).html).toContain('Ein Verein.');
  expect(mail({ ...doc(button), plain: true }, {}, {}, house).html).not.toContain('/media/9');
});

test('the preview line and the words for a picture merge as any text does, and are escaped', () => {
  const body = doc({ type: 'image', attrs: { src: '/media/1', alt: 'The boat of {First name}' } });
  const { html: out } = mail(body, { firstName: 'A"n<n' }, { preheader: 'Dear {First name} & all' });
  expect(out).toContain('Dear A&#34;n&#60;n &#38; all</div>');
  expect(out).toContain('alt="The boat of A&#34;n&#60;n"');
});

test.each([
  ['Liebe {First name}', null],
  ['שלום {First name}', ' dir="rtl"'],
  ['{First name} مرحبا', ' dir="rtl"'],
  ['{First name}, 12', ' dir="auto"'],
])('%s has the direction of its own letters', (words, dir) =>
  expect(html(doc(paragraph(words)))).toMatch(new RegExp(`^<p class="t"${dir ?? ''} style`)),
);

test.each([
  [doc(paragraph('x', [link('javascript:alert(1)')])), /needs an address/],
  [doc(paragraph('x', [link('https://{First name}.test/')])), /needs an address/],
  [doc({ type: 'iframe' }), /can't be mailed/],
  [doc({ type: 'image', attrs: { src: 'https://elsewhere.test/x.png' } }), /not from the library/],
  [doc({ type: 'image', attrs: { src: '/media/1', side: 'top' } }), /side/],
  [doc({ type: 'button', attrs: { label: 'Go', href: '' } }), /needs an address/],
  [doc({ type: 'gifts', attrs: { href: 'give' } }), /gift buttons/],
  [doc({ type: 'columns', content: [{ type: 'column' }] }), /two or three/],
  [doc({ type: 'personal', attrs: {}, content: [{ type: 'fitting' }, { type: 'otherwise' }] }), /sentence/],
  [doc({ type: 'personal', attrs: { tree: {} }, content: [{ type: 'fitting' }] }), /two wordings/],
  [doc({ type: 'paragraph', content: [paragraph('within')] }), /can't be mailed/],
  [doc({ type: 'listItem' }), /can't be mailed/],
  [{ type: 'paragraph' }, /letter document/],
  [{ type: 'doc', content: 'x' }, /list of pieces/],
  [doc(...Array.from({ length: 2001 }, () => ({ type: 'paragraph' }))), /2,000/],
  [
    doc(
      Array.from({ length: 14 }).reduce<object>(
        (inner) => ({ type: 'blockquote', content: [inner] }),
        paragraph('deep'),
      ),
    ),
    /twelve deep/,
  ],
])('what cannot be mailed is refused in a sentence (%#)', (bad, message) =>
  expect(spoken(letterFault(bad))).toMatch(message),
);

test('a merge field may stand behind the host of a link', () => {
  expect(
    letterFault(doc(paragraph('x', [link('https://ferry.test/for/{Email}?a={First name, or "x y"}')]))),
  ).toBeNull();
});

test('an old document is read as one of today, and says the same', () => {
  const old = {
    type: 'doc',
    content: [
      paragraph('x', [{ type: 'bold' }]),
      { type: 'image', attrs: { src: '/media/1', alt: null, width: null, title: null } },
    ],
  } as LetterDoc;
  expect(letterFault(old)).toBeNull();
  const now = currentLetter(old);
  expect(now.content![1]).toEqual({ type: 'image', attrs: { src: '/media/1', alt: null } });
  expect(html(now)).toBe(html(old));
  expect(currentLetter(now)).toBe(now);
});
