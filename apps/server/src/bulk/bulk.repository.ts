import { Injectable } from '@nestjs/common';
import type { BulkAct } from '@goodword/core/contract';
import type { Bound, Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface BulkRow extends Pick<
  Tables['bulk'],
  | 'id'
  | 'act'
  | 'words'
  | 'state'
  | 'people'
  | 'done'
  | 'next_id'
  | 'changed'
  | 'made_by'
  | 'made_at'
  | 'ended_at'
  | 'file_key'
  | 'file_name'
  | 'told'
  | 'problem'
> {
  made_by_name: string | null;
}

type BulkValues = Partial<
  Record<
    'state' | 'done' | 'next_id' | 'changed' | 'ended_at' | 'file_key' | 'file_name' | 'told' | 'problem',
    string | number | Date | null
  >
>;

/** Acts on groups of people, with the people that each was asked for. Owns `bulk`, `bulk_member`. */
@Injectable()
export class BulkRepository {
  async make(tx: Scoped, bulk: { act: BulkAct; words: string; ids: readonly number[] }): Promise<number> {
    const id = await tx.insert('bulk', {
      act: JSON.stringify(bulk.act),
      words: bulk.words.slice(0, 300),
      people: bulk.ids.length,
      chapter_id: tx.scope.chapterId,
      made_by: tx.scope.actorId,
    });
    for (let at = 0; at < bulk.ids.length; at += 50_000)
      await tx.load(
        'bulk_member',
        ['bulk_id', 'supporter_id'],
        bulk.ids.slice(at, at + 50_000).map((supporterId) => [id, supporterId]),
      );
    return id;
  }

  async find(db: Scoped, id: number, hold = false): Promise<BulkRow | undefined> {
    const [row] = await this.select(db, `AND b.id = :id ${hold ? 'FOR UPDATE' : ''}`, { id });
    return row;
  }

  async recent(db: Scoped): Promise<BulkRow[]> {
    return this.select(db, 'ORDER BY b.id DESC LIMIT 50', {});
  }

  private async select(db: Scoped, rest: string, bindings: Record<string, Bound>): Promise<BulkRow[]> {
    return db.sql<BulkRow>(
      `SELECT b.id, b.act, b.words, b.state, b.people, b.done, b.next_id, b.changed, b.made_by, b.made_at,
          b.ended_at, b.file_key, b.file_name, b.told, b.problem,
          t.name AS made_by_name FROM bulk b LEFT JOIN teammate t ON t.id = b.made_by
        WHERE b.organization_id = :org AND (:chapter IS NULL OR b.chapter_id = :chapter) ${rest}`,
      bindings,
    );
  }

  async change(tx: Scoped, id: number, values: BulkValues): Promise<void> {
    await tx.table('bulk').where('bulk.id', id).update(values);
  }

  /** The last of the next so many people after one; null when there are none. */
  async sliceEnd(
    db: Scoped,
    id: number,
    after: number,
    size: number,
  ): Promise<{ last: number; people: number } | null> {
    const [row] = await db.sql<{ last: number | null; people: number }>(
      `SELECT MAX(supporter_id) AS last, COUNT(*) AS people
        FROM (SELECT supporter_id FROM bulk_member
          WHERE organization_id = :org AND bulk_id = :id AND supporter_id > :after
        ORDER BY supporter_id LIMIT :size) m`,
      { id, after, size },
    );
    return row?.last === null || row === undefined ? null : { last: row.last, people: row.people };
  }

  /** The ids of a slice, those who were changed alone if asked. */
  async ids(db: Scoped, id: number, from: number, to: number, changedAlone = false): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT supporter_id AS id
        FROM bulk_member
        WHERE organization_id = :org AND bulk_id = :id AND supporter_id > :from
          AND supporter_id <= :to ${changedAlone ? 'AND changed = 1' : ''}
        ORDER BY supporter_id`,
      { id, from, to },
    );
    return rows.map((row) => row.id);
  }

  /**
   * Nobody takes people of a slice away until the transaction ends: a group's act puts nothing on whoever is
   * gone.
   */
  async holdPeople(tx: Scoped, id: number, from: number, to: number): Promise<void> {
    await tx.sql(
      `SELECT COUNT(*) AS n FROM bulk_member m STRAIGHT_JOIN supporter s ON s.id = m.supporter_id
        WHERE m.organization_id = :org AND m.bulk_id = :id AND m.supporter_id > :from
        AND m.supporter_id <= :to LOCK IN SHARE MODE`,
      { id, from, to },
    );
  }

  async markAll(tx: Scoped, id: number, from: number, to: number): Promise<void> {
    await tx.execute(
      `UPDATE bulk_member
        SET changed = 1
        WHERE organization_id = :org AND bulk_id = :id AND supporter_id > :from AND supporter_id <= :to`,
      { id, from, to },
    );
  }

  async mark(tx: Scoped, id: number, supporterIds: readonly number[]): Promise<void> {
    for (let at = 0; at < supporterIds.length; at += 5000)
      await tx.execute(
        `UPDATE bulk_member
          SET changed = 1
          WHERE organization_id = :org AND bulk_id = :id AND supporter_id IN (:some)`,
        {
          id,
          some: supporterIds.slice(at, at + 5000),
        },
      );
  }

  async countChanged(db: Scoped, id: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      'SELECT COUNT(*) AS n FROM bulk_member WHERE organization_id = :org AND bulk_id = :id AND changed = 1',
      { id },
    );
    return row?.n ?? 0;
  }
}
