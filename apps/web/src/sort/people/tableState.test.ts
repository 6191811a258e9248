import { remember, remembered, tableState } from './tableState';

const of = (text: string) => tableState(new URLSearchParams(text));

test('quick filters stand for a rule, so that everybody in the table can be meant', () => {
  expect(of('tag=3&channel=email&state=yes').tree).toEqual({
    kind: 'all',
    rules: [
      { kind: 'tag', tagId: 3, has: true },
      { kind: 'permission', channel: 'email', scope: 'appeals', states: ['yes'] },
    ],
  });
  expect(of('').tree).toEqual({ kind: 'all', rules: [] });
  expect(of('channel=email&state=nonsense').tree).toEqual({ kind: 'all', rules: [] });
});

test('a search is no rule', () =>
  expect([of('search=ann&tag=3').tree, of('hold=1').tree]).toEqual([null, null]));

test('order, fields and the sentence are read from the address', () => {
  const state = of(
    `by=7&down=1&fields=7,9&tree=${encodeURIComponent('{"kind":"tag","tagId":3,"has":true}')}`,
  );
  expect(state).toMatchObject({
    by: 7,
    descending: true,
    fields: [7, 9],
    spoken: true,
    tree: { kind: 'all', rules: [{ kind: 'tag', tagId: 3, has: true }] },
  });
  expect(of('by=created')).toMatchObject({ by: 'created', descending: false, fields: [], spoken: false });
});

describe('what was last chosen', () => {
  const storage = () => {
    const kept = new Map<string, string>();
    return {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
    };
  };

  test('opens a table whose address says nothing, and yields to one that does', () => {
    const box = storage();
    remember(box, { by: 3, descending: true });
    remember(box, { fields: [3, 1] });
    expect(tableState(new URLSearchParams(''), remembered(box))).toMatchObject({
      by: 3,
      descending: true,
      fields: [3, 1],
    });
    expect(tableState(new URLSearchParams('by=name'), remembered(box))).toMatchObject({
      by: 'name',
      descending: false,
      fields: [3, 1],
    });
    expect(tableState(new URLSearchParams('fields=2'), remembered(box))).toMatchObject({
      by: 3,
      fields: [2],
    });
  });

  test('all columns taken away stay away', () => {
    const box = storage();
    remember(box, { fields: [1] });
    remember(box, { fields: [] });
    expect(tableState(new URLSearchParams(''), remembered(box)).fields).toEqual([]);
  });

  test.each(['', 'not json', '[]', '{"by":{},"fields":"1"}', '{"fields":[1,"x",2.5]}'])(
    'whatever stands there, the table opens: %s',
    (text) => {
      const { by, fields } = tableState(new URLSearchParams(''), remembered({ getItem: () => text }));
      expect(by).toBe('name');
      expect(fields.every(Number.isInteger)).toBe(true);
    },
  );
});
