import { treeOf } from './groups';

test('a group that was chosen is a rule of one line', () => {
  expect(treeOf('segment:4')).toEqual({ kind: 'segment', segmentId: 4, in: true });
  expect(treeOf('roster:2')).toEqual({ kind: 'roster', campaignId: 2, stages: [], on: true });
  expect(() => treeOf('batch:1')).toThrow('expected a segment, list, tag or roster, got "batch:1"');
});
