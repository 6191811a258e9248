import { Injectable } from '@nestjs/common';
import type { NoteView } from '@goodword/core/contract';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

interface NoteRow extends Pick<Tables['note'], 'id' | 'body' | 'made_by' | 'made_at' | 'changed_at'> {
  kind: NoteView['kind'];
  name: string | null;
}

/**
 * What the team wrote down about a person: for themselves, never for the person to read in a message. Owns
 * `note`.
 */
@Injectable()
export class NotesRepository {
  async of(db: Scoped, supporterId: number, limit: number): Promise<NoteView[]> {
    const rows = await db.sql<NoteRow>(
      `SELECT n.id, n.kind, n.body, n.made_by, n.made_at, n.changed_at, t.name
        FROM note n
        LEFT JOIN teammate t ON t.id = n.made_by
        WHERE n.organization_id = :org AND n.supporter_id = :supporterId
        ORDER BY n.made_at DESC, n.id DESC
        LIMIT :limit`,
      { supporterId, limit },
    );
    return rows.map((row) => ({
      id: row.id,
      kind: row.kind,
      body: row.body,
      by: row.name ?? 'the program',
      at: row.made_at.toISOString(),
      changedAt: row.changed_at?.toISOString() ?? null,
      mine: row.made_by !== null && row.made_by === db.scope.actorId,
    }));
  }

  /** The newest note of each of these people. */
  async lastOf(db: Scoped, supporterIds: readonly number[]): Promise<Map<number, string>> {
    if (supporterIds.length === 0) return new Map();
    const rows = await db.sql<{ supporter_id: number; body: string }>(
      `SELECT supporter_id, body
        FROM note
        WHERE organization_id = :org AND supporter_id IN (:supporterIds)
        ORDER BY made_at, id`,
      { supporterIds },
    );
    return new Map(rows.map((row) => [row.supporter_id, row.body]));
  }

  async add(tx: Scoped, supporterId: number, kind: NoteView['kind'], body: string): Promise<number> {
    tx.unchanged();
    return tx.insert('note', { supporter_id: supporterId, kind, body, made_by: tx.scope.actorId });
  }

  async find(
    db: Scoped,
    supporterId: number,
    id: number,
  ): Promise<{ id: number; body: string; made_by: number | null } | undefined> {
    const [row] = await db.sql<Pick<Tables['note'], 'id' | 'body' | 'made_by'>>(
      `SELECT id, body, made_by
        FROM note
        WHERE organization_id = :org AND supporter_id = :supporterId AND id = :id`,
      { supporterId, id },
    );
    return row;
  }

  async change(tx: Scoped, id: number, body: string): Promise<void> {
    await tx.execute(
      'UPDATE note SET body = :body, changed_at = UTC_TIMESTAMP(3) WHERE organization_id = :org AND id = :id',
      { id, body },
    );
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    await tx.execute('DELETE FROM note WHERE organization_id = :org AND id = :id', { id });
  }
}
