import { tableState } from './tableState';

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

test('a search is no rule', () => expect([of('search=ann&tag=3').tree, of('hold=1').tree]).toEqual([null, null]));

test('order, fields and the sentence are read from the address', () => {
  const state = of(`by=7&down=1&fields=7,9&tree=${encodeURIComponent('{"kind":"tag","tagId":3,"has":true}')}`);
  expect(state).toMatchObject({
    by: 7,
    descending: true,
    fields: [7, 9],
    spoken: true,
    tree: { kind: 'all', rules: [{ kind: 'tag', tagId: 3, has: true }] },
  });
  expect(of('by=created')).toMatchObject({ by: 'created', descending: false, fields: [], spoken: false });
});
