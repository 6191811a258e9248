import type { Rule } from '@goodword/core/segment';

/** The rule behind a group that was chosen, such as "segment:4" or "roster:2". */
export function treeOf(of: string): Rule {
  const [kind, id] = of.split(':');
  const n = Number(id);
  switch (kind) {
    case 'segment':
      return { kind: 'segment', segmentId: n, in: true };
    case 'list':
      return { kind: 'list', listId: n, on: true };
    case 'tag':
      return { kind: 'tag', tagId: n, has: true };
    case 'roster':
      return { kind: 'roster', campaignId: n, stages: [], on: true };
    default:
      throw new Error(`expected a segment, list, tag or roster, got "${of}"`);
  }
}
