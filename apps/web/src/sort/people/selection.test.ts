import { countOf, groupOf, isChosen, EMPTY_SELECTION, toggle, type Chosen } from './selection';

const EVERYBODY: Chosen = { all: true, without: new Set() };
const TREE = { kind: 'tag' as const, tagId: 1, has: true };

test('people are chosen one by one, and let go again', () => {
  const two = toggle(toggle(EMPTY_SELECTION, 4), 9);
  expect([isChosen(two, 4), isChosen(two, 5), countOf(two, 100)]).toEqual([true, false, 2]);
  expect(groupOf(two, TREE)).toEqual({ ids: [4, 9] });
  expect(countOf(toggle(toggle(two, 4), 9), 100)).toBe(0);
});

test('everybody less some is told by the rule, whoever is loaded', () => {
  const most = toggle(EVERYBODY, 4);
  expect([isChosen(most, 4), isChosen(most, 5), countOf(most, 4793)]).toEqual([false, true, 4792]);
  expect(groupOf(most, TREE)).toEqual({ tree: TREE, without: [4] });
  expect(groupOf(toggle(most, 4), TREE)).toEqual({ tree: TREE, without: [] });
  expect(() => groupOf(most, null)).toThrow('a rule');
});
