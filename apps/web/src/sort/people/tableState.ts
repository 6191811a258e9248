import type { Rule } from '@goodword/core/segment';
import { STATES, type PermissionState } from '@goodword/core/permission';
import type { PeopleColumns } from '@goodword/core/contract';
import { treeFrom } from '../lines/sentence';

/** What the address says of the table: whom it holds, in which order, with which fields. */
export interface TableState extends PeopleColumns {
  /** Null where a search or an address on hold says who is in it: no rule does. */
  tree: Rule | null;
  /** The filter was written as a sentence. */
  spoken: boolean;
}

const numberOr = (text: string | null, otherwise: string): string | number => (text && /^\d+$/.test(text) ? Number(text) : (text ?? otherwise));

export function tableState(params: URLSearchParams): TableState {
  const spoken = params.has('tree');
  const searched = (params.get('search') ?? '') !== '' || params.has('hold');
  return {
    tree: searched ? null : spoken ? treeFrom(params.get('tree')) : quickTree(params),
    spoken,
    by: numberOr(params.get('by'), 'name'),
    descending: params.get('down') === '1',
    fields: (params.get('fields') ?? '').split(',').filter(Boolean).map(Number),
  };
}

/** The quick filters as the rule that they stand for. */
export function quickTree(params: URLSearchParams): Rule {
  const id = (name: string) => Number(params.get(name));
  const rules: Rule[] = [];
  if (params.has('tag')) rules.push({ kind: 'tag', tagId: id('tag'), has: true });
  if (params.has('list')) rules.push({ kind: 'list', listId: id('list'), on: true });
  if (params.has('batch')) rules.push({ kind: 'batch', batchId: id('batch'), in: true });
  const [channel, state] = [params.get('channel'), params.get('state') as PermissionState];
  if ((channel === 'email' || channel === 'text') && STATES.includes(state))
    rules.push({ kind: 'permission', channel, scope: 'appeals', states: [state] });
  return { kind: 'all', rules };
}
