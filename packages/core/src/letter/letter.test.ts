import { compile, registryOf, render, STANDARD_NAMES } from '../merge';
import { compileLetter, escapeHtml, letterFault, wrapLetter, type LetterDoc } from '.';
import { spoken } from '../words';

const around = {
  registry: registryOf(STANDARD_NAMES),
  imageUrl: (src: string) => `https://ferry.test${src}`,
};
const paragraph = (text: string, marks: object[] = []) => ({
  type: 'paragraph',
  content: [{ type: 'text', text, marks }],
});
const doc = (...content: object[]) => ({ type: 'doc', content }) as LetterDoc;

function html(letter: LetterDoc, values = {}): string {
  return render(compileLetter(letter, around).html, values, escapeHtml);
}

test('text and values are escaped', () => {
  expect(html(doc(paragraph('a < b, {First name}')), { firstName: '<script>' })).toContain(
    'a &#60; b, &#60;script&#62;',
  );
});

test('blocks of every kind', () => {
  const out = html(
    doc(
      { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'Planks' }] },
      { type: 'bulletList', content: [{ type: 'listItem', content: [paragraph('oak')] }] },
      { type: 'button', attrs: { href: 'https://ferry.test/give', label: 'Give' } },
      { type: 'image', attrs: { src: '/media/3', alt: 'The "hull"' } },
      paragraph('bold link', [{ type: 'bold' }, { type: 'link', attrs: { href: 'https://ferry.test/x' } }]),
    ),
  );
  for (const piece of [
    '<h2',
    '<ul',
    '<li>',
    '>Give</a>',
    'alt="The &#34;hull&#34;"',
    'src="https://ferry.test/media/3"',
    '<strong><a href="https:',
  ]) {
    expect(out).toContain(piece);
  }
});

test('equal links are one link, and each can be replaced', () => {
  const link = (href: string) => paragraph('x', [{ type: 'link', attrs: { href } }]);
  const compiled = compileLetter(
    doc(link('https://a.test'), link('https://b.test'), link('https://a.test')),
    around,
  );
  expect(compiled.links).toEqual(['https://a.test', 'https://b.test']);
  const out = render(compiled.html, { 'link:0': 'https://t.test/1' });
  expect(out.match(/https:\/\/t\.test\/1/g)).toHaveLength(2);
  expect(out).toContain('href="https://b.test"');
});

test('the footer names who wrote, where they live and the way out', () => {
  const footer = { imprint: 'Lantern Ferry Trust, 1 Slip Lane', why: 'You asked for Ferry news.' };
  const out = render(
    wrapLetter(compileLetter(doc(paragraph('hi')), around), footer, compile('', around.registry)).html,
    {
      leave: 'https://l.test/1',
    },
  );
  for (const piece of [
    'Lantern Ferry Trust, 1 Slip Lane',
    'You asked for Ferry news.',
    'href="https://l.test/1"',
  ])
    expect(out).toContain(piece);
});

test('the line after the subject and the words for a picture merge as any text does, and are escaped', () => {
  const footer = { imprint: 'O, A', why: 'W' };
  const body = doc({ type: 'image', attrs: { src: '/i/1.png', alt: 'The boat of {First name}' } });
  const html = wrapLetter(
    compileLetter(body, around),
    footer,
    compile('Dear {First name} & all', around.registry),
  ).html;
  const out = render(html, { firstName: 'A"n<n' }, escapeHtml);
  expect(out).toContain('Dear A&#34;n&#60;n &#38; all</div>');
  expect(out).toContain('alt="The boat of A&#34;n&#60;n"');
  expect(render(html, { why: 'You gave.' })).toContain('You gave. <a');
});

test.each([
  [doc(paragraph('x', [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }])), /needs an address/],
  [doc({ type: 'iframe' }), /can't be mailed/],
  [doc({ type: 'image', attrs: { src: 'https://elsewhere.test/x.png' } }), /not from the library/],
  [doc({ type: 'button', attrs: { label: 'Go', href: '' } }), /needs an address/],
  [{ type: 'paragraph' }, /letter document/],
  [{ type: 'doc', content: 'x' }, /list of pieces/],
  [doc(...Array.from({ length: 2001 }, () => ({ type: 'paragraph' }))), /2,000/],
])('what cannot be mailed is refused in a sentence (%#)', (bad, message) =>
  expect(spoken(letterFault(bad))).toMatch(message),
);

test('a sound letter has no fault', () =>
  expect(spoken(letterFault(doc(paragraph('x', [{ type: 'bold' }]))))).toBeNull());
