import fc from 'fast-check';
import { foldersOf, listMoved } from './folders';

const lists = [
  { id: 1, folder: '' },
  { id: 2, folder: 'Past' },
  { id: 3, folder: 'Ferry' },
  { id: 4, folder: '' },
];

test('lists lie in their folders, those in none first', () => {
  expect(foldersOf(lists).map(({ folder, lists: some }) => [folder, some.map(({ id }) => id)])).toEqual([
    ['', [1, 4]],
    ['Ferry', [3]],
    ['Past', [2]],
  ]);
  expect(foldersOf([])).toEqual([]);
  expect(foldersOf([{ id: 2, folder: 'Past' }])).toHaveLength(1);
});

test('moving one loses none and keeps the order of the others', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(50), { minLength: 2 }), fc.nat(), fc.nat(), (ids, a, b) => {
      const all = ids.map((id) => ({ id, folder: '' }));
      const [from, to] = [ids[a % ids.length]!, ids[b % ids.length]!];
      const after = listMoved(all, from, to);
      expect(after.indexOf(from)).toBe(ids.indexOf(to));
      expect(after.filter((id) => id !== from)).toEqual(ids.filter((id) => id !== from));
    }),
  );
  expect(listMoved(lists, 9, 1)).toEqual([1, 2, 3, 4]);
});
