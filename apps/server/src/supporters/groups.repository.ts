import { Injectable } from '@nestjs/common';
import type { ListView, TagView } from '@goodword/core/contract';
import type { Scoped } from '../platform/database';

const MINE = 'JOIN supporter s ON s.id = m.supporter_id AND (:chapter IS NULL OR s.chapter_id = :chapter)';

/** Tags and lists: groups kept by hand. */
@Injectable()
export class GroupsRepository {
  async tags(db: Scoped): Promise<TagView[]> {
    return db.sql<TagView>(
      `SELECT t.id, t.name, (SELECT COUNT(*) FROM supporter_tag m ${MINE} WHERE m.tag_id = t.id) AS people FROM tag t
        WHERE t.organization_id = :org AND (:chapter IS NULL OR t.chapter_id IS NULL OR t.chapter_id = :chapter) ORDER BY t.name`,
    );
  }

  async lists(db: Scoped): Promise<ListView[]> {
    const rows = await db.sql<ListView & { is_public: number; on_preferences: number; by_form: number }>(
      `SELECT l.id, l.name, l.is_public, l.on_preferences, l.by_form, l.description, l.why, l.folder, (SELECT COUNT(*) FROM supporter_list m ${MINE} WHERE m.list_id = l.id) AS people FROM list l
        WHERE l.organization_id = :org AND (:chapter IS NULL OR l.chapter_id IS NULL OR l.chapter_id = :chapter) ORDER BY l.position, l.name`,
    );
    return rows.map(({ is_public, on_preferences, by_form, ...row }) => ({
      ...row,
      isPublic: is_public === 1,
      onPreferences: on_preferences === 1,
      byForm: by_form === 1,
    }));
  }

  async find(db: Scoped, kind: 'tag' | 'list', id: number): Promise<{ id: number; name: string } | undefined> {
    return (await db.ofChapter(kind).where(`${kind}.id`, id).first('id', 'name')) as { id: number; name: string } | undefined;
  }

  async byName(db: Scoped, kind: 'tag' | 'list', name: string): Promise<number | null> {
    const row = (await db.table(kind).where('name', name).first('id')) as { id: number } | undefined;
    return row?.id ?? null;
  }

  async makeTag(tx: Scoped, name: string, batchId: number | null = null): Promise<number> {
    return tx.insert('tag', { name, chapter_id: tx.scope.chapterId, batch_id: batchId });
  }

  async makeList(tx: Scoped, list: { name: string } & Record<string, string | boolean>, batchId: number | null = null): Promise<number> {
    return tx.insert('list', { ...list, chapter_id: tx.scope.chapterId, batch_id: batchId });
  }

  async change(tx: Scoped, kind: 'tag' | 'list', id: number, values: Record<string, string | boolean | undefined>): Promise<void> {
    await tx.table(kind).where(`${kind}.id`, id).update(values);
  }

  async countPeople(db: Scoped, kind: 'tag' | 'list', id: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(`SELECT COUNT(*) AS n FROM supporter_${kind} WHERE organization_id = :org AND ${kind}_id = :id`, {
      id,
    });
    return row?.n ?? 0;
  }

  async remove(tx: Scoped, kind: 'tag' | 'list', id: number): Promise<void> {
    tx.changed(kind, id, 'everybody');
    await tx.table(`supporter_${kind}`).where(`${kind}_id`, id).delete();
    await tx.table(kind).where('id', id).delete();
  }

  async put(tx: Scoped, kind: 'tag' | 'list', supporterId: number, groupId: number): Promise<boolean> {
    tx.changed(kind, groupId, [supporterId]);
    const changed = await tx.execute(
      `INSERT IGNORE INTO supporter_${kind} (organization_id, supporter_id, ${kind}_id, added_by) VALUES (:org, :supporterId, :groupId, :actor)`,
      { supporterId, groupId, actor: tx.scope.actorId },
    );
    return changed > 0;
  }

  async takeOff(tx: Scoped, kind: 'tag' | 'list', supporterId: number, groupId: number): Promise<boolean> {
    tx.changed(kind, groupId, [supporterId]);
    const changed = await tx.execute(
      `DELETE FROM supporter_${kind} WHERE organization_id = :org AND supporter_id = :supporterId AND ${kind}_id = :groupId`,
      { supporterId, groupId },
    );
    return changed > 0;
  }

  async of(db: Scoped, kind: 'tag' | 'list', supporterId: number): Promise<{ id: number; name: string; isPublic: boolean }[]> {
    const isPublic = kind === 'list' ? 'g.is_public' : '0';
    const rows = await db.sql<{ id: number; name: string; pub: number }>(
      `SELECT g.id, g.name, ${isPublic} AS pub FROM supporter_${kind} m JOIN ${kind} g ON g.id = m.${kind}_id WHERE m.organization_id = :org AND m.supporter_id = :supporterId ORDER BY g.name`,
      { supporterId },
    );
    return rows.map((row) => ({ id: row.id, name: row.name, isPublic: row.pub === 1 }));
  }
}
