import fc from 'fast-check';
import { findTemplates, type FindableTemplate } from '.';

const template = (id: number, name: string, more: Partial<FindableTemplate> = {}): FindableTemplate => ({
  id,
  name,
  folder: '',
  words: '',
  uses: 0,
  ...more,
});
const ALL = [
  template(1, 'Winter appeal', { folder: 'Appeals', words: 'The hull needs oak planks' }),
  template(2, 'Thank you', { folder: 'Thanks', words: 'Your gift arrived in winter', uses: 40 }),
  template(3, 'Été: une planche', { folder: 'Appels', words: 'Chère amie', uses: 2 }),
  template(4, 'Winter evening', { uses: 7 }),
];
const found = (typed: string) => findTemplates(ALL, typed).map(({ id }) => id);

test('by the beginning of words in the name, the folder and the words inside', () => {
  expect(found('plank')).toEqual([1]);
  expect(found('THANKS')).toEqual([2]);
  expect(found('ete')).toEqual([3]);
  expect(found('chère plan')).toEqual([3]);
  expect(found('lanks')).toEqual([]);
});

test('names first, then what was used most; nothing typed finds all', () => {
  expect(found('winter')).toEqual([4, 1, 2]);
  expect(found('')).toEqual([2, 4, 3, 1]);
  expect(found('  ?! ')).toEqual([2, 4, 3, 1]);
});

test('more typed never finds more, and the order of what comes in does not matter', () => {
  const word = fc.constantFrom('oak', 'Plank', 'hull', 'Été', 'gift', 'win');
  const made = fc.array(fc.tuple(word, word, word, fc.nat(3)), { maxLength: 12 });
  fc.assert(
    fc.property(made, word, word, (rows, first, second) => {
      const all = rows.map(([name, folder, words, uses], i) => template(i, name, { folder, words, uses }));
      const ids = (typed: string, of = all) => findTemplates(of, typed).map(({ id }) => id);
      const less = ids(`${first} ${second}`);
      expect(less.every((id) => ids(first).includes(id))).toBe(true);
      expect(ids(first, [...all].reverse())).toEqual(ids(first));
    }),
  );
});
