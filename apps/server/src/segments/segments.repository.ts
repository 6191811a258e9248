import { Injectable } from '@nestjs/common';
import type { Rule } from '@goodword/core/segment';
import type { Scoped } from '../platform/database';

export interface SegmentRow {
  id: number;
  name: string;
  tree: Rule;
}

@Injectable()
export class SegmentsRepository {
  async all(db: Scoped): Promise<SegmentRow[]> {
    return db.sql<SegmentRow>(
      'SELECT id, name, tree FROM segment WHERE organization_id = :org AND (:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter) ORDER BY name',
    );
  }

  /** Names of everything that a line can ask for and that has no repository in sight here. */
  async named(db: Scoped): Promise<Record<'batch' | 'campaign' | 'chapter' | 'message' | 'segment', { id: number; name: string }[]>> {
    const of = (table: string) => db.sql<{ id: number; name: string }>(`SELECT id, name FROM ${table} WHERE organization_id = :org`);
    const [batch, campaign, chapter, message, segment] = await Promise.all(['batch', 'campaign', 'chapter', 'message', 'segment'].map(of));
    return { batch: batch!, campaign: campaign!, chapter: chapter!, message: message!, segment: segment! };
  }

  async find(db: Scoped, id: number): Promise<SegmentRow | undefined> {
    return (await this.all(db)).find((segment) => segment.id === id);
  }

  async make(tx: Scoped, segment: { name: string; tree: Rule }): Promise<number> {
    return tx.insert('segment', { name: segment.name, tree: JSON.stringify(segment.tree), chapter_id: tx.scope.chapterId });
  }

  async change(tx: Scoped, id: number, segment: { name: string; tree: Rule }): Promise<void> {
    await tx
      .table('segment')
      .where('segment.id', id)
      .update({ name: segment.name, tree: JSON.stringify(segment.tree), updated_at: new Date() });
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    await tx.table('segment').where('segment.id', id).delete();
  }
}
