import { Injectable } from '@nestjs/common';
import type { PeopleColumns, PeopleView } from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import type { Scoped } from '../platform/scoped';
import { Conflict } from '../platform/errors';
import { nextVersion } from '../platform/versions';
import { sentence } from '../platform/words';
import type { Tables } from '../platform/tables/generated';

/**
 * Tables of people under names, shared by the chapter or by all: of whom, what is shown, in which order. Owns
 * `people_view`.
 */
@Injectable()
export class PeopleViewsRepository {
  async all(db: Scoped): Promise<PeopleView[]> {
    const rows = await db.sql<
      Pick<Tables['people_view'], 'id' | 'version' | 'name' | 'tree' | 'descending'> & {
        sort_by: Exclude<PeopleColumns['by'], number>;
        fields: number[];
        made_by_name: string | null;
      }
    >(
      `SELECT v.id, v.version, v.name, v.tree, v.sort_by, v.descending, v.fields, t.name AS made_by_name
        FROM people_view v
        LEFT JOIN teammate t ON t.id = v.made_by
        WHERE v.organization_id = :org
          AND (:chapter IS NULL OR v.chapter_id IS NULL OR v.chapter_id = :chapter)
        ORDER BY v.name`,
    );
    return rows.map((row) => ({
      id: row.id,
      version: row.version,
      name: row.name,
      tree: row.tree,
      by: /^\d+$/.test(row.sort_by) ? Number(row.sort_by) : row.sort_by,
      descending: row.descending === 1,
      fields: row.fields,
      madeBy: row.made_by_name ?? '',
    }));
  }

  /**
   * Keeps it under a name, in the place of the caller's own one of that name if it is still as they saw it.
   */
  async keep(
    tx: Scoped,
    view: PeopleColumns & { name: string; tree: Rule; basedOn: number | null },
  ): Promise<void> {
    await tx.lockOrganization();
    const [known] = await tx.sql<{ id: number }>(
      'SELECT id FROM people_view WHERE organization_id = :org AND name = :name AND chapter_id <=> :chapter',
      {
        name: view.name,
      },
    );
    const values = {
      name: view.name,
      tree: JSON.stringify(view.tree),
      sort_by: String(view.by),
      descending: view.descending,
      fields: JSON.stringify(view.fields),
      made_by: tx.scope.actorId,
    };
    if (!known) return void (await tx.insert('people_view', { ...values, chapter_id: tx.scope.chapterId }));
    if (view.basedOn === null) throw new Conflict(sentence('view.name-taken', { name: view.name }));
    await nextVersion(tx, 'people_view', known.id, view.basedOn, 'view');
    await tx.table('people_view').where('people_view.id', known.id).update(values);
  }

  async forget(tx: Scoped, id: number): Promise<number> {
    return tx.execute('DELETE FROM people_view WHERE organization_id = :org AND id = :id', { id });
  }
}
