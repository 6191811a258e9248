import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { LayoutView } from '@goodword/core/contract';
import { layoutKey, type Layout } from '@goodword/core/intake';
import type { Scoped } from '../../platform/scoped';

const hashOf = (header: readonly string[], what: string) =>
  createHash('sha256')
    .update(`${what}:${layoutKey(header)}`)
    .digest('hex');

/** Layouts: what columns became, remembered by their headers. Owns `layout`. */
@Injectable()
export class LayoutsRepository {
  async all(db: Scoped): Promise<LayoutView[]> {
    const rows = await db.sql<Omit<LayoutView, 'usedAt'> & { used_at: Date }>(
      `SELECT l.id, l.version, l.name, l.what, l.header, l.columns, l.used_at, t.name AS madeBy
        FROM layout l
        LEFT JOIN teammate t ON t.id = l.made_by
        WHERE l.organization_id = :org
          AND (:chapter IS NULL OR l.chapter_id IS NULL OR l.chapter_id = :chapter)
        ORDER BY l.used_at DESC
        LIMIT 200`,
    );
    return rows.map(({ used_at, ...row }) => ({ ...row, usedAt: used_at.toISOString() }));
  }

  /** Keeps what was decided for these headers; the same headers again replace it and keep its name. */
  async remember(tx: Scoped, layout: Layout & { name: string }): Promise<void> {
    await tx.execute(
      `INSERT INTO layout (organization_id, chapter_id, name, what, header_key, header, columns, made_by)
        VALUES (:org, :chapter, :name, :what, :key, :header, :columns, :actor)
        ON DUPLICATE KEY UPDATE columns = VALUES(columns), used_at = UTC_TIMESTAMP(3)`,
      {
        name: layout.name,
        what: layout.what,
        key: hashOf(layout.header, layout.what),
        header: JSON.stringify(layout.header),
        columns: JSON.stringify(layout.columns),
        actor: tx.scope.actorId,
      },
    );
  }

  async change(tx: Scoped, id: number, values: { name?: string; columns?: string }): Promise<number> {
    return tx.table('layout').where('layout.id', id).update(values);
  }

  async remove(tx: Scoped, id: number): Promise<number> {
    return tx.table('layout').where('layout.id', id).delete();
  }
}
