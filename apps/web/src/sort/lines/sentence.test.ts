import { asTop, newFieldLine, replaceAt, startValue, treeFrom, typeOf, withOr } from './sentence';

const fields = [
  {
    id: 3,
    name: 'Membership renews',
    type: 'date' as const,
    section: '',
    fallback: null,
    choices: null,
    help: '',
    sensitive: false,
    required: false,
  },
];
const tag = { kind: 'tag' as const, tagId: 1, has: true };
const list = { kind: 'list' as const, listId: 2, on: true };

test('a line begins with a question that its field can be asked', () => {
  expect(newFieldLine(3, fields)).toEqual({ kind: 'field', field: 3, op: 'within-next', value: 30 });
  expect(newFieldLine(3, fields, 'filled')).toEqual({ kind: 'field', field: 3, op: 'filled' });
  expect(newFieldLine(3, fields, 'contains').op).toBe('within-next');
  expect(newFieldLine('firstName', fields)).toEqual({
    kind: 'field',
    field: 'firstName',
    op: 'is',
    value: '',
  });
});

test.each([
  ['date', 'anniversary', { value: 30 }],
  ['date', 'during', { value: 'this-month' }],
  ['birthday', 'ahead', { value: 30 }],
  ['money', 'between', { value: 0, to: 100 }],
  ['text', 'empty', {}],
] as const)('a question of a %s field, %s, begins with a value', (type, op, value) =>
  expect(startValue(type, op)).toEqual(value),
);

test('fields that everybody has know their type', () => {
  expect([
    typeOf('created', fields),
    typeOf('postcode', fields),
    typeOf(3, fields),
    typeOf(99, fields),
  ]).toEqual(['date', 'text', 'date', 'text']);
});

test('a line alone reads as a group of one', () => expect(asTop(tag)).toEqual({ kind: 'all', rules: [tag] }));

test('lines join by "or"', () => {
  const joined = withOr(tag, list);
  expect(joined).toEqual({ kind: 'any', rules: [tag, list] });
  expect(withOr(joined, tag).rules).toHaveLength(3);
});

test('a line is replaced or taken out', () => {
  const top = asTop(tag);
  expect(replaceAt(top, 0, list).rules).toEqual([list]);
  expect(replaceAt(top, 0, null).rules).toEqual([]);
});

test('a tree in an address opens the builder on it, and what is none opens it empty', () => {
  const line = { kind: 'lapses', channel: 'email', scope: 'appeals', days: 30 };
  expect(treeFrom(JSON.stringify(line))).toEqual({ kind: 'all', rules: [line] });
  for (const text of [null, '', '{', 'null', '7']) expect(treeFrom(text)).toEqual({ kind: 'all', rules: [] });
});
