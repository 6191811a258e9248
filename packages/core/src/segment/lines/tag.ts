import { said } from '../../common';
import { memberPlan } from '../plan';
import { whether, type LineKind } from './line-kind';

/** Has a tag, or has it not. */
export interface TagLine {
  kind: 'tag';
  tagId: number;
  has: boolean;
}

/** What such a line reads, asks and says. */
export const tagLine: LineKind<TagLine> = {
  kind: 'tag',
  column: ({ tagId }) => `tag:${tagId}`,
  named: ({ tagId }) => [{ kind: 'tag', id: tagId }],
  plan: ({ has }, column) => memberPlan(column, has),
  said: ({ has, tagId }, names) => said('line.tag', { yes: whether(has), tag: names.tag(tagId) }),
};
