import { Injectable } from '@nestjs/common';
import type { ListView, MembershipView, TagUse, TagView } from '@goodword/core/contract';
import type { Scoped } from '../platform/scoped';

/** A chapter sees its own tags, and those of the organization that are handed down to it. */
const SEEN = '(:chapter IS NULL OR t.chapter_id = :chapter OR (t.chapter_id IS NULL AND t.handed_down = 1))';
const MINE = 'JOIN supporter s ON s.id = m.supporter_id AND (:chapter IS NULL OR s.chapter_id = :chapter)';

/** Tags and lists: groups kept by hand. Owns `tag`, `list`, `supporter_tag`, `supporter_list`. */
@Injectable()
export class GroupsRepository {
  async tags(db: Scoped): Promise<Omit<TagView, 'people'>[]> {
    const rows = await db.sql<Omit<TagView, 'handedDown' | 'people'> & { handed_down: number }>(
      `SELECT t.id, t.name, c.name AS chapter, t.handed_down FROM tag t
        LEFT JOIN chapter c ON c.id = t.chapter_id
        WHERE t.organization_id = :org AND ${SEEN}
        ORDER BY t.name`,
    );
    return rows.map(({ handed_down, ...row }) => ({ ...row, handedDown: handed_down === 1 }));
  }

  /**
   * Groups with how many people of the caller's each has. All are counted in one pass over an index; one by
   * one the optimizer went through everybody for each group. Whoever is bound to a chapter has its people
   * gone through, no others.
   */
  async counted<G extends { id: number }>(
    db: Scoped,
    kind: 'tag' | 'list',
    groups: readonly G[],
  ): Promise<(G & { people: number })[]> {
    const mine = `supporter s FORCE INDEX (by_chapter)
      STRAIGHT_JOIN supporter_${kind} m ON m.supporter_id = s.id`;
    const of = 's.organization_id = :org AND s.erased_at IS NULL AND s.chapter_id = :chapter AND';
    const [from, bound] = db.scope.chapterId === null ? [`supporter_${kind} m`, ''] : [mine, of];
    const rows = await db.sql<{ id: number; people: number }>(
      `SELECT m.${kind}_id AS id, COUNT(*) AS people
        FROM ${from}
        WHERE ${bound} m.organization_id = :org
        GROUP BY m.${kind}_id`,
    );
    const people = new Map(rows.map((row) => [row.id, row.people]));
    return groups.map((group) => ({ ...group, people: people.get(group.id) ?? 0 }));
  }

  /** How many people of each chapter have a tag. */
  async tagUse(db: Scoped, id: number): Promise<TagUse[]> {
    return db.sql<TagUse>(
      `SELECT c.name AS chapter, COUNT(*) AS people
        FROM supporter_tag m ${MINE} AND s.erased_at IS NULL
        JOIN chapter c ON c.id = s.chapter_id
        WHERE m.organization_id = :org AND m.tag_id = :id GROUP BY c.id ORDER BY people DESC, c.name`,
      { id },
    );
  }

  /**
   * Nobody joins or deletes these until the transaction ends; `others` may hold them at the same time, to put
   * people in. The first reading of the transaction, in the order of ids, for whoever wants the same two.
   */
  async lockForUpdate(
    tx: Scoped,
    kind: 'tag' | 'list',
    ids: readonly number[],
    others: 'wait' | 'too' = 'wait',
  ): Promise<void> {
    const lock = others === 'wait' ? 'FOR UPDATE' : 'LOCK IN SHARE MODE';
    await tx.sql(`SELECT id FROM ${kind} WHERE organization_id = :org AND id IN (:ids) ORDER BY id ${lock}`, {
      ids,
    });
  }

  /** A tag as it stands, and nobody else changes it until the transaction ends. */
  async holdTag(tx: Scoped, id: number): Promise<{ name: string; handedDown: boolean } | undefined> {
    const [row] = await tx.sql<{ name: string; handed_down: number }>(
      'SELECT name, handed_down FROM tag WHERE organization_id = :org AND id = :id FOR UPDATE',
      {
        id,
      },
    );
    return row && { name: row.name, handedDown: row.handed_down === 1 };
  }

  /** Whoever has the one tag has the other from now on. Returns how many had not had it. */
  async joinTags(tx: Scoped, fromId: number, intoId: number): Promise<number> {
    tx.changed('tag', fromId, 'everybody');
    tx.changed('tag', intoId, 'everybody');
    const gained = await tx.execute(
      `INSERT IGNORE INTO supporter_tag (organization_id, supporter_id, tag_id, batch_id, added_by, added_at)
        SELECT organization_id, supporter_id, :intoId, batch_id, added_by, added_at
        FROM supporter_tag
        WHERE organization_id = :org AND tag_id = :fromId`,
      { fromId, intoId },
    );
    await tx.table('supporter_tag').where('tag_id', fromId).delete();
    await tx.table('tag').where('id', fromId).delete();
    return gained;
  }

  /** The order in which public lists stand on the preference page. */
  async orderLists(tx: Scoped, ids: readonly number[]): Promise<void> {
    if (ids.length > 0)
      await tx.execute(
        'UPDATE list SET position = FIELD(id, :ids) WHERE organization_id = :org AND id IN (:ids)',
        { ids },
      );
  }

  /** Those that the caller may change; others stay where they are. */
  async moveLists(tx: Scoped, ids: readonly number[], folder: string): Promise<void> {
    const mine = tx.ofChapter('list').whereIn('list.id', ids);
    const { boundTo } = tx.scope;
    await (boundTo === null ? mine : mine.where('list.chapter_id', boundTo)).update({ folder });
  }

  async lists(db: Scoped): Promise<Omit<ListView, 'people'>[]> {
    const rows = await db.sql<
      Omit<ListView, 'people'> & { is_public: number; on_preferences: number; by_form: number }
    >(
      `SELECT l.id, l.version, l.name, l.is_public, l.on_preferences, l.by_form, l.description, l.why,
          l.folder
        FROM list l
        WHERE l.organization_id = :org
          AND (:chapter IS NULL OR l.chapter_id IS NULL OR l.chapter_id = :chapter)
        ORDER BY l.position, l.name`,
    );
    return rows.map(({ is_public, on_preferences, by_form, ...row }) => ({
      ...row,
      isPublic: is_public === 1,
      onPreferences: on_preferences === 1,
      byForm: by_form === 1,
    }));
  }

  async find(
    db: Scoped,
    kind: 'tag' | 'list',
    id: number,
  ): Promise<{ id: number; name: string } | undefined> {
    const found = db.ofChapter(kind).where(`${kind}.id`, id);
    if (kind === 'tag' && db.scope.chapterId !== null)
      void found.where(
        (q) => void q.where('tag.handed_down', 1).orWhere('tag.chapter_id', db.scope.chapterId),
      );
    return (await found.first('id', 'name')) as { id: number; name: string } | undefined;
  }

  async byName(db: Scoped, kind: 'tag' | 'list', name: string): Promise<number | null> {
    const row = await db.table(kind).where('name', name).first('id');
    return row?.id ?? null;
  }

  async makeTag(tx: Scoped, name: string, batchId: number | null = null, handedDown = true): Promise<number> {
    return tx.insert('tag', {
      name,
      chapter_id: tx.scope.chapterId,
      batch_id: batchId,
      handed_down: handedDown,
    });
  }

  async makeList(
    tx: Scoped,
    list: { name: string } & Record<string, string | boolean>,
    batchId: number | null = null,
  ): Promise<number> {
    return tx.insert('list', { ...list, chapter_id: tx.scope.chapterId, batch_id: batchId });
  }

  async change(
    tx: Scoped,
    kind: 'tag' | 'list',
    id: number,
    values: Record<string, string | boolean | undefined>,
  ): Promise<void> {
    await tx.table(kind).where(`${kind}.id`, id).update(values);
  }

  async countPeople(db: Scoped, kind: 'tag' | 'list', id: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n FROM supporter_${kind} WHERE organization_id = :org AND ${kind}_id = :id`,
      {
        id,
      },
    );
    return row?.n ?? 0;
  }

  async remove(tx: Scoped, kind: 'tag' | 'list', id: number): Promise<void> {
    tx.changed(kind, id, 'everybody');
    await tx.table(`supporter_${kind}`).where(`${kind}_id`, id).delete();
    await tx.table(kind).where('id', id).delete();
  }

  /** Puts somebody on; `messageId` is the message that they got a tag by. */
  async put(
    tx: Scoped,
    kind: 'tag' | 'list',
    supporterId: number,
    groupId: number,
    messageId: number | null = null,
  ): Promise<boolean> {
    tx.changed(kind, groupId, [supporterId]);
    const [column, value] = kind === 'tag' ? [', message_id', ', :messageId'] : ['', ''];
    const changed = await tx.execute(
      `INSERT IGNORE INTO supporter_${kind} (organization_id, supporter_id, ${kind}_id, added_by${column})
        VALUES (:org, :supporterId, :groupId, :actor${value})`,
      { supporterId, groupId, actor: tx.scope.actorId, messageId },
    );
    return changed > 0;
  }

  async takeOff(tx: Scoped, kind: 'tag' | 'list', supporterId: number, groupId: number): Promise<boolean> {
    tx.changed(kind, groupId, [supporterId]);
    const changed = await tx.execute(
      `DELETE
        FROM supporter_${kind}
        WHERE organization_id = :org AND supporter_id = :supporterId AND ${kind}_id = :groupId`,
      { supporterId, groupId },
    );
    return changed > 0;
  }

  /** As `put` and `takeOff` for many people at once. */
  async putAll(tx: Scoped, kind: 'tag' | 'list', people: readonly number[], groupId: number): Promise<void> {
    tx.changed(kind, groupId, people);
    await tx.insertAll(
      `supporter_${kind}`,
      ['supporter_id', `${kind}_id`, 'added_by'],
      people.map((id) => [id, groupId, tx.scope.actorId]),
      true,
    );
  }

  async takeOffAll(
    tx: Scoped,
    kind: 'tag' | 'list',
    people: readonly number[],
    groupId: number,
  ): Promise<void> {
    tx.changed(kind, groupId, people);
    for (let at = 0; at < people.length; at += 5000)
      await tx.execute(
        `DELETE
          FROM supporter_${kind}
          WHERE organization_id = :org AND supporter_id IN (:some) AND ${kind}_id = :groupId`,
        { some: people.slice(at, at + 5000), groupId },
      );
  }

  /** The names of the tags or lists of many people. */
  async namesOf(
    db: Scoped,
    kind: 'tag' | 'list',
    supporterIds: readonly number[],
  ): Promise<Map<number, string[]>> {
    const out = new Map<number, string[]>();
    if (supporterIds.length === 0) return out;
    const rows = await db.sql<{ supporter_id: number; name: string }>(
      `SELECT m.supporter_id, g.name
        FROM supporter_${kind} m
        JOIN ${kind} g ON g.id = m.${kind}_id
        WHERE m.organization_id = :org AND m.supporter_id IN (:supporterIds)
        ORDER BY g.name`,
      { supporterIds },
    );
    for (const row of rows) out.set(row.supporter_id, [...(out.get(row.supporter_id) ?? []), row.name]);
    return out;
  }

  async of(
    db: Scoped,
    kind: 'tag' | 'list',
    supporterId: number,
  ): Promise<(MembershipView & { isPublic: boolean })[]> {
    const isPublic = kind === 'list' ? 'g.is_public' : '0';
    const [message, joined] =
      kind === 'tag' ? ['w.name', 'LEFT JOIN message w ON w.id = m.message_id'] : ['NULL', ''];
    const rows = await db.sql<Membership>(
      `SELECT g.id, g.name, ${isPublic} AS pub, m.added_at, t.name AS by_name, b.name AS batch,
          ${message} AS message
        FROM supporter_${kind} m
        JOIN ${kind} g ON g.id = m.${kind}_id
        LEFT JOIN teammate t ON t.id = m.added_by
        LEFT JOIN batch b ON b.id = m.batch_id ${joined}
        WHERE m.organization_id = :org AND m.supporter_id = :supporterId
        ORDER BY g.name`,
      { supporterId },
    );
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      isPublic: row.pub === 1,
      since: row.added_at.toISOString(),
      how: howOf(row),
    }));
  }
}

interface Membership {
  id: number;
  name: string;
  pub: number;
  added_at: Date;
  by_name: string | null;
  batch: string | null;
  message: string | null;
}

function howOf({ batch, by_name, message }: Membership): string {
  if (batch) return `with the batch ${batch}`;
  if (message) return `by what they did with “${message}”`;
  return by_name ? `by ${by_name}` : 'by themselves or the program';
}
