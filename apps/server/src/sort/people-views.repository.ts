import { Injectable } from '@nestjs/common';
import type { PeopleColumns, PeopleView } from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import type { Scoped } from '../platform/database';

/** Tables of people under names, shared by the chapter or by all: of whom, what is shown, in which order. */
@Injectable()
export class PeopleViewsRepository {
  async all(db: Scoped): Promise<PeopleView[]> {
    const rows = await db.sql<{
      id: number;
      name: string;
      tree: Rule;
      sort_by: string;
      descending: number;
      fields: number[];
      made_by_name: string | null;
    }>(
      'SELECT v.*, t.name AS made_by_name FROM people_view v LEFT JOIN teammate t ON t.id = v.made_by WHERE v.organization_id = :org AND (:chapter IS NULL OR v.chapter_id IS NULL OR v.chapter_id = :chapter) ORDER BY v.name',
    );
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      tree: row.tree,
      by: /^\d+$/.test(row.sort_by) ? Number(row.sort_by) : row.sort_by,
      descending: row.descending === 1,
      fields: row.fields,
      madeBy: row.made_by_name ?? '',
    }));
  }

  async keep(tx: Scoped, { name, tree, by, descending, fields }: PeopleColumns & { name: string; tree: Rule }): Promise<void> {
    await tx.execute(
      `INSERT INTO people_view (organization_id, chapter_id, name, tree, sort_by, descending, fields, made_by)
          VALUES (:org, :chapter, :name, :tree, :by, :descending, :fields, :actor)
        ON DUPLICATE KEY UPDATE tree = VALUES(tree), sort_by = VALUES(sort_by), descending = VALUES(descending), fields = VALUES(fields), made_by = VALUES(made_by)`,
      {
        name,
        tree: JSON.stringify(tree),
        by: String(by),
        descending,
        fields: JSON.stringify(fields),
        actor: tx.scope.actorId,
      },
    );
  }

  async forget(tx: Scoped, id: number): Promise<number> {
    return tx.execute('DELETE FROM people_view WHERE organization_id = :org AND id = :id', { id });
  }
}
