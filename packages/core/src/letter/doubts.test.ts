import { speak } from '../words';
import { letterDoubts, picturesOf, type LetterDoc } from '.';

const LIGHT = { html: 2000, pictures: 0 };
const linked = (href: string) => ({
  type: 'paragraph' as const,
  content: [{ type: 'text' as const, text: 'here', marks: [{ type: 'link' as const, attrs: { href } }] }],
});
const letter = (...content: LetterDoc['content'] & object): LetterDoc => ({ type: 'doc', content });
const told = (doc: LetterDoc, weight = LIGHT) => letterDoubts(doc, weight).map(speak);

test('a letter in order is not doubted', () => {
  const doc = letter(
    linked('https://ferry.test/hull'),
    linked('mailto:rosa@ferry.test'),
    { type: 'button', attrs: { href: 'https://ferry.test/give', label: 'Give' } },
    { type: 'image', attrs: { src: '/media/1', alt: 'The ferry at dawn' } },
  );
  expect(told(doc)).toEqual([]);
  expect(told({ type: 'doc' })).toEqual([]);
});

test('links that begin with http are told, each once, wherever they stand', () => {
  const doc = letter(
    linked('http://ferry.test/old'),
    { type: 'bulletList', content: [{ type: 'listItem', content: [linked('http://ferry.test/old')] }] },
    { type: 'button', attrs: { href: 'HTTP://ferry.test/give', label: 'Give' } },
  );
  const words = told(doc);
  expect(words).toHaveLength(2);
  expect(words[0]).toContain('http://ferry.test/old');
  expect(words[1]).toContain('HTTP://ferry.test/give');
});

test('a picture of which nothing was said is told; one that only decorates was said to', () => {
  const picture = (alt?: string | null) => ({ type: 'image' as const, attrs: { src: '/media/1', alt } });
  expect(told(letter(picture('')))).toEqual([]);
  expect(told(letter(picture(null)))[0]).toMatch(/^One picture/);
  expect(told(letter(picture(), picture(null)))[0]).toMatch(/^2 pictures/);
});

test('weight is told above what is cut off, and above what is slow', () => {
  const doc = letter(linked('https://ferry.test'));
  expect(told(doc, { html: 102_000, pictures: 1_000_000 })).toEqual([]);
  const words = told(doc, { html: 102_001, pictures: 1_250_000 });
  expect(words[0]).toContain('102 kB');
  expect(words[1]).toMatch(/1\.3 MB|1\.2 MB/);
});

test('pictures are found at every depth, each once', () => {
  const image = (src: string) => ({ type: 'image' as const, attrs: { src, alt: '' } });
  const list = {
    type: 'orderedList' as const,
    content: [{ type: 'listItem' as const, content: [image('/media/2')] }],
  };
  expect(picturesOf(letter(image('/media/1'), list, image('/media/1')))).toEqual(['/media/1', '/media/2']);
});
