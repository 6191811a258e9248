import { said } from '../../common';
import { memberPlan } from '../plan';
import { whether, type LineKind } from './line-kind';

/** Is on a list, or is not. */
export interface ListLine {
  kind: 'list';
  listId: number;
  on: boolean;
}

/** What such a line reads, asks and says. */
export const listLine: LineKind<ListLine> = {
  kind: 'list',
  column: ({ listId }) => `list:${listId}`,
  named: ({ listId }) => [{ kind: 'list', id: listId }],
  plan: ({ on }, column) => memberPlan(column, on),
  said: ({ on, listId }, names) => said('line.list', { yes: whether(on), list: names.list(listId) }),
};
