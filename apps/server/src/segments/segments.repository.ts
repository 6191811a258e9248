import { Injectable } from '@nestjs/common';
import type { Rule } from '@goodword/core/segment';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export type SegmentRow = Pick<
  Tables['segment'],
  'id' | 'name' | 'tree' | 'chapter_id' | 'version' | 'changed_by'
>;

export interface VersionRow extends Pick<SegmentRow, 'id' | 'name' | 'tree'> {
  people: number | null;
  saved_at: Date;
  saved_name: string | null;
}

/**
 * Segments, every version of them, and how many they took in day by day. Owns `segment`, `segment_version`,
 * `segment_size`.
 */
@Injectable()
export class SegmentsRepository {
  async all(db: Scoped): Promise<SegmentRow[]> {
    return db.sql<SegmentRow>(
      `SELECT id, name, tree, chapter_id, version, changed_by
        FROM segment
        WHERE organization_id = :org AND (:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter)
        ORDER BY name`,
    );
  }

  /** Names of things that lines ask for and that have no repository in sight here. */
  async named(
    db: Scoped,
    kind: 'batch' | 'campaign' | 'chapter' | 'message' | 'segment',
    ids: readonly number[],
  ): Promise<{ id: number; name: string }[]> {
    // Another chapter's are known to be there, not what they are called.
    const mine = '(:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter)';
    const name = kind === 'chapter' ? 'name' : `IF(${mine}, name, :other) AS name`;
    return db.sql<{ id: number; name: string }>(
      `SELECT id, ${name} FROM ${kind} WHERE organization_id = :org AND id IN (:ids)`,
      {
        other: `a ${kind} of another chapter`,
        ids,
      },
    );
  }

  async find(db: Scoped, id: number): Promise<SegmentRow | undefined> {
    return (await this.all(db)).find((segment) => segment.id === id);
  }

  async make(tx: Scoped, segment: { name: string; tree: Rule }): Promise<number> {
    return tx.insert('segment', {
      name: segment.name,
      tree: JSON.stringify(segment.tree),
      chapter_id: tx.scope.chapterId,
    });
  }

  async change(tx: Scoped, id: number, segment: { name: string; tree: Rule }): Promise<void> {
    await tx
      .table('segment')
      .where('segment.id', id)
      .update({
        name: segment.name,
        tree: JSON.stringify(segment.tree),
        updated_at: new Date(),
        changed_by: tx.scope.actorId,
      });
  }

  async keepVersion(
    tx: Scoped,
    id: number,
    segment: { name: string; tree: Rule },
    people: number | null,
  ): Promise<void> {
    await tx.insert('segment_version', {
      segment_id: id,
      name: segment.name,
      tree: JSON.stringify(segment.tree),
      people,
      saved_by: tx.scope.actorId,
    });
  }

  async versions(db: Scoped, id: number): Promise<VersionRow[]> {
    return db.sql<VersionRow>(
      `SELECT v.id, v.name, v.tree, v.people, v.saved_at, t.name AS saved_name
        FROM segment_version v
        LEFT JOIN teammate t ON t.id = v.saved_by
        WHERE v.organization_id = :org AND v.segment_id = :id ORDER BY v.id DESC LIMIT 200`,
      { id },
    );
  }

  /** One number for each day: the last that was counted on it. */
  async keepSize(tx: Scoped, id: number, day: number, people: number): Promise<void> {
    await tx.execute(
      `INSERT INTO segment_size (organization_id, segment_id, chapter_id, day, people)
        VALUES (:org, :id, COALESCE(:chapter, 0), :day, :people)
        ON DUPLICATE KEY UPDATE people = VALUES(people)`,
      { id, day, people },
    );
  }

  async sizes(db: Scoped, id: number): Promise<{ day: number; people: number }[]> {
    return db.sql(
      `SELECT day, people
        FROM segment_size
        WHERE organization_id = :org AND segment_id = :id AND chapter_id = COALESCE(:chapter, 0)
        ORDER BY day`,
      { id },
    );
  }

  /** Segments whose size of a day nobody has counted yet. */
  async unsized(db: Scoped, day: number): Promise<SegmentRow[]> {
    return db.sql<SegmentRow>(
      `SELECT g.id, g.name, g.tree, g.chapter_id, g.version, g.changed_by
        FROM segment g
        LEFT JOIN segment_size z ON z.segment_id = g.id AND z.chapter_id = 0 AND z.day = :day
        WHERE g.organization_id = :org AND z.day IS NULL ORDER BY g.id LIMIT 20`,
      { day },
    );
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    for (const table of ['segment_version', 'segment_size'] as const)
      await tx.table(table).where('segment_id', id).delete();
    await tx.table('segment').where('segment.id', id).delete();
  }
}
