import { useMemo, useState } from 'react';
import type { PeopleGroup, SupporterRow } from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import type { TableSelection } from '../../ui/VirtualTable';

/** Who is chosen: some by hand, or everybody less some. */
export type Chosen = { all: false; ids: ReadonlySet<number> } | { all: true; without: ReadonlySet<number> };

export const EMPTY_SELECTION: Chosen = { all: false, ids: new Set() };

function toggled(set: ReadonlySet<number>, id: number): Set<number> {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
}

export function toggle(chosen: Chosen, id: number): Chosen {
  return chosen.all
    ? { all: true, without: toggled(chosen.without, id) }
    : { all: false, ids: toggled(chosen.ids, id) };
}

export function isChosen(chosen: Chosen, id: number): boolean {
  return chosen.all ? !chosen.without.has(id) : chosen.ids.has(id);
}

export function countOf(chosen: Chosen, total: number): number {
  return chosen.all ? Math.max(0, total - chosen.without.size) : chosen.ids.size;
}

/** The group as the server is told of it. Everybody can only be meant where a rule says who that is. */
export function groupOf(chosen: Chosen, tree: Rule | null): PeopleGroup {
  if (!chosen.all) return { ids: [...chosen.ids] };
  if (!tree) throw new Error('expected a rule that says who everybody is');
  return { tree, without: [...chosen.without] };
}

/** Choosing in a table: each by its box, all by the box above. `key` begins anew with nobody. */
export function useSelection(
  key: string,
  total: number,
  canAll: boolean,
): { chosen: Chosen; clear: () => void; selection: TableSelection<SupporterRow> } {
  const [kept, setKept] = useState<{ key: string; chosen: Chosen }>({ key, chosen: EMPTY_SELECTION });
  const chosen = kept.key === key ? kept.chosen : EMPTY_SELECTION;
  return useMemo(() => {
    const set = (next: Chosen) => setKept({ key, chosen: next });
    const many = countOf(chosen, total);
    const state = many === 0 ? 'none' : many >= total ? 'all' : 'some';
    return {
      chosen,
      clear: () => set(EMPTY_SELECTION),
      selection: {
        has: (row) => isChosen(chosen, row.id),
        toggle: (row) => set(toggle(chosen, row.id)),
        state,
        toggleAll: () =>
          set(state === 'none' && canAll ? { all: true, without: new Set() } : EMPTY_SELECTION),
      },
    };
  }, [key, chosen, total, canAll]);
}
