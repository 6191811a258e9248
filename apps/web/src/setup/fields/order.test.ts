import { moved, sectionMoved, sectionPut, fieldSections } from './order';

const FIELDS = [
  { id: 1, section: 'Water' },
  { id: 2, section: 'Land' },
  { id: 3, section: 'Water' },
  { id: 4, section: 'Land' },
];

test('sections stand where their first field does', () => {
  expect(fieldSections(FIELDS).map(({ name, fields }) => [name, fields.map(({ id }) => id)])).toEqual([
    ['Water', [1, 3]],
    ['Land', [2, 4]],
  ]);
});

test('a field moves within its section, a section as a whole', () => {
  expect(moved(FIELDS, 3, 1)).toEqual([3, 1, 2, 4]);
  expect(moved(FIELDS, 1, 3)).toEqual([3, 1, 2, 4]);
  expect(moved(FIELDS, 9, 1)).toEqual([1, 3, 2, 4]);
  expect(sectionMoved(FIELDS, 'Land', -1)).toEqual([2, 4, 1, 3]);
  expect(sectionMoved(FIELDS, 'Water', -1)).toEqual([1, 3, 2, 4]);
  expect(sectionMoved(FIELDS, 'Land', 1)).toEqual([1, 3, 2, 4]);
});

test('a section is put where another stands, over those between them', () => {
  const fields = [...FIELDS, { id: 5, section: 'Sky' }];
  expect(sectionPut(fields, 'Sky', 'Water')).toEqual([5, 1, 3, 2, 4]);
  expect(sectionPut(fields, 'Water', 'Sky')).toEqual([2, 4, 5, 1, 3]);
  expect(sectionPut(fields, 'Land', 'Land')).toEqual([1, 3, 2, 4, 5]);
  expect(sectionPut(fields, 'Nowhere', 'Sky')).toEqual([1, 3, 2, 4, 5]);
});
