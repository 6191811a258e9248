import fc from 'fast-check';
import { parse, STANDARD_NAMES } from '@goodword/core/merge';
import { offeredFields, openBrace, withField } from './braces';

test.each([
  ['Dear {', { from: 5, typed: '' }],
  ['Dear {fir', { from: 5, typed: 'fir' }],
  ['{First name}, {la', { from: 14, typed: 'la' }],
  ['Dear {First name}', null],
  ['Dear {First name, or "fr', null],
  ['no brace', null],
  ['a brace \\{fi', null],
  ['{\nline', null],
  [`{${'x'.repeat(41)}`, null],
])('%j', (before, brace) => expect(openBrace(before)).toEqual(brace));

test('fields that begin so come first, then those that hold it; nothing typed offers all', () => {
  const names = STANDARD_NAMES;
  expect(offeredFields(names, '')).toEqual([...names]);
  expect(offeredFields(names, 'fir')[0]!.name).toBe('First name');
  expect(offeredFields(names, ' NAME ').map(({ name }) => name)).toEqual(
    names.filter(({ name }) => name.toLowerCase().includes('name')).map(({ name }) => name),
  );
  expect(offeredFields(names, 'zzz')).toEqual([]);
});

test.each([
  ['Dear {', 6, 'Dear {First name}', 17],
  ['Dear {fir there', 9, 'Dear {First name} there', 17],
  ['Dear {fir}', 9, 'Dear {First name}', 17],
  ['Dear ', 5, 'Dear {First name}', 17],
  ['{Last name} and ', 16, '{Last name} and {First name}', 28],
])('%j at %d', (text, caret, put, at) =>
  expect(withField(text, caret, 'First name')).toEqual({ text: put, caret: at }),
);

test('wherever the caret stands, what is put in is read as one field, and no brace is left over', () => {
  const plain = fc.string({ maxLength: 20 }).map((text) => text.replace(/[{}\\]/g, ''));
  fc.assert(
    fc.property(plain, plain, fc.constantFrom('', '{', '{fi', '{First na'), (before, after, typed) => {
      const text = `${before}${typed}${after}`;
      const { text: put } = withField(text, before.length + typed.length, 'First name');
      const { pieces, faults } = parse(put);
      expect(faults).toEqual([]);
      expect(pieces.filter(({ kind }) => kind === 'merge')).toHaveLength(1);
    }),
  );
});
