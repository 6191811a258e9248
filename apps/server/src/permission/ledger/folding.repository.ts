import { Injectable } from '@nestjs/common';
import { MARK_KINDS, type MarkKind } from '@goodword/core/permission';
import type { Bound, Scoped } from '../../platform/scoped';
import { COLUMN_OF, foldSql, HOLDERS, kindsMadeSql, kindsOf, MARK_COLUMNS } from './state.sql';

/**
 * Makes the cells of `permission_state` anew from entries, and says whether those that are kept are the same.
 */
@Injectable()
export class FoldingRepository {
  /**
   * Derives the states of some addresses and people anew: after entries were taken back or have become
   * somebody else's.
   */
  async refold(
    tx: Scoped,
    contactPointIds: readonly number[],
    supporterIds: readonly number[],
  ): Promise<void> {
    const [points, people] = [[...new Set(contactPointIds)], [...new Set(supporterIds)]];
    if (points.length > 0) {
      await tx.execute(
        'DELETE FROM permission_state WHERE organization_id = :org AND contact_point_id IN (:points)',
        { points },
      );
      await this.fold(tx, ['address', 'both'], 'contact_point_id IN (:points)', { points });
    }
    if (people.length > 0) {
      await tx.execute(
        `DELETE
          FROM permission_state
          WHERE organization_id = :org AND contact_point_id = 0 AND supporter_id IN (:people)`,
        {
          people,
        },
      );
      await this.fold(tx, ['person'], 'supporter_id IN (:people)', { people });
      tx.changed('reach', 0, people);
    }
    for (const id of points) tx.reached.add(id);
  }

  /** Derives the whole state table of an organization anew from its entries. */
  async rebuild(tx: Scoped): Promise<void> {
    tx.changed('reach', 0, 'everybody');
    await tx.execute('DELETE FROM permission_state WHERE organization_id = :org');
    await this.fold(tx, HOLDERS, '1 = 1', {});
  }

  async fold(
    tx: Scoped,
    holders: readonly (typeof HOLDERS)[number][],
    which: string,
    bindings: Record<string, Bound>,
    into = 'permission_state',
  ): Promise<void> {
    const made = (await tx.sql<Record<string, number | null>>(kindsMadeSql(which), bindings))[0];
    const there: MarkKind[] = MARK_KINDS.filter((kind) => Number(made?.[COLUMN_OF[kind]] ?? 0) === 1);
    for (const holder of holders) {
      const kinds = kindsOf(holder, there);
      if (kinds.length > 0) await tx.execute(foldSql(holder, kinds, which, into), bindings);
    }
  }

  /**
   * Derives the states anew beside those that are kept and returns how many rows differ: none, unless
   * something wrote past the ledger.
   */
  async differences(tx: Scoped): Promise<{ kept: number; derived: number; differing: number }> {
    await tx.knex.raw('DROP TEMPORARY TABLE IF EXISTS permission_state_anew');
    await tx.knex.raw('CREATE TEMPORARY TABLE permission_state_anew LIKE permission_state');
    await this.fold(tx, HOLDERS, '1 = 1', {}, 'permission_state_anew');
    const columns = `contact_point_id, supporter_id, channel, scope, ${MARK_COLUMNS.join(', ')}`;
    const rows = (table: string) => `SELECT ${columns} FROM ${table} WHERE organization_id = :org`;
    const count = async (from: string) =>
      (await tx.sql<{ n: number }>(`SELECT COUNT(*) AS n FROM (${from}) x`))[0]!.n;
    // A temporary table can be named once in a statement, so the two directions are two statements.
    const lost = await count(`${rows('permission_state')} EXCEPT ${rows('permission_state_anew')}`);
    const extra = await count(`${rows('permission_state_anew')} EXCEPT ${rows('permission_state')}`);
    const out = {
      kept: await count(rows('permission_state')),
      derived: await count(rows('permission_state_anew')),
      differing: lost + extra,
    };
    await tx.knex.raw('DROP TEMPORARY TABLE permission_state_anew');
    return out;
  }
}
