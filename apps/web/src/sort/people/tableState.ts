import { PEOPLE_ORDERS, type Rule } from '@goodword/core/segment';
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

/** What an address or a browser's memory says of the order; by name where it says nothing that there is. */
const orderOf = (said: string | number | null | undefined): PeopleColumns['by'] =>
  /^\d+$/.test(String(said)) ? Number(said) : (PEOPLE_ORDERS.find((order) => order === said) ?? 'name');

/**
 * How the table was last put in order and with which columns: what it opens with where its address says
 * nothing of either.
 */
export type Remembered = Partial<PeopleColumns>;

const KEPT_AT = 'people-table';

export function remembered(storage: Pick<Storage, 'getItem'>): Remembered {
  try {
    const kept = JSON.parse(storage.getItem(KEPT_AT) ?? '{}') as Remembered;
    return {
      ...(typeof kept.by === 'string' || typeof kept.by === 'number'
        ? { by: kept.by, descending: kept.descending === true }
        : {}),
      ...(Array.isArray(kept.fields) ? { fields: kept.fields.filter((id) => Number.isInteger(id)) } : {}),
    };
  } catch {
    return {};
  }
}

export function remember(storage: Pick<Storage, 'getItem' | 'setItem'>, columns: Remembered): void {
  storage.setItem(KEPT_AT, JSON.stringify({ ...remembered(storage), ...columns }));
}

export function tableState(params: URLSearchParams, kept: Remembered = {}): TableState {
  const spoken = params.has('tree');
  const searched = (params.get('search') ?? '') !== '' || params.has('hold');
  return {
    tree: searched ? null : spoken ? treeFrom(params.get('tree')) : quickTree(params),
    spoken,
    by: orderOf(params.get('by') ?? kept.by),
    descending:
      params.has('by') || params.has('down') ? params.get('down') === '1' : (kept.descending ?? false),
    fields: params.has('fields')
      ? params.get('fields')!.split(',').filter(Boolean).map(Number)
      : (kept.fields ?? []),
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
