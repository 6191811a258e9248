import { Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import type { FeedPlan } from '@goodword/core/feeds';
import { rowsOf, type Bound, type Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

/** A feed as it is kept. */
export type FeedRow = Omit<Tables['feed'], 'organization_id' | 'made_by' | 'made_at' | 'changed_by'> & {
  plan: FeedPlan;
};

const COLUMNS = `id, chapter_id, across, source_id, name, plan, is_on, on_since, next_run_at, etag, position,
  failures, problem, hook_key, hook_secret, told_up_to, version`;
const MINE = '(:chapter IS NULL OR chapter_id = :chapter)';

/** Feeds: what each says, and where its next reading begins. Owns `feed` and `feed_hook`. */
@Injectable()
export class FeedsRepository {
  async all(db: Scoped): Promise<FeedRow[]> {
    return db.sql(
      `SELECT ${COLUMNS} FROM feed WHERE organization_id = :org AND ${MINE} ORDER BY name LIMIT 500`,
    );
  }

  async find(db: Scoped, id: number, lock: '' | 'FOR UPDATE' = ''): Promise<FeedRow | undefined> {
    const [row] = await db.sql<FeedRow>(
      `SELECT ${COLUMNS} FROM feed WHERE organization_id = :org AND ${MINE} AND id = :id ${lock}`,
      { id },
    );
    return row;
  }

  /** Who is told that a feed stopped: who made it, else the owners. */
  async caretakers(db: Scoped, id: number): Promise<{ id: number; email: string }[]> {
    const people = await db.sql<{ id: number; email: string; made: number }>(
      `SELECT t.id, t.email, t.id = f.made_by AS made
        FROM feed f
        JOIN teammate t ON t.organization_id = f.organization_id AND t.left_at IS NULL
        AND (t.id = f.made_by OR t.role = 'owner')
        WHERE f.organization_id = :org AND f.id = :id
        ORDER BY made DESC, t.id
        LIMIT 20`,
      { id },
    );
    return people[0]?.made ? [people[0]] : people;
  }

  async make(tx: Scoped, values: Record<string, Bound>): Promise<number> {
    return tx.insert('feed', { ...values, made_by: tx.scope.actorId });
  }

  async change(tx: Scoped, id: number, values: Record<string, Bound>): Promise<void> {
    await tx.table('feed').where('feed.id', id).update(values);
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    await tx.table('feed_hook').where('feed_hook.feed_id', id).delete();
    await tx.table('feed_notice').where('feed_notice.feed_id', id).delete();
    await tx.table('feed').where('feed.id', id).delete();
  }

  /** Feeds of any organization that are to look by now: by their clock, or since they were told to. */
  async due(knex: Knex, now: Date): Promise<{ id: number; organization_id: number; told: number }[]> {
    const [rows] = (await knex.raw(
      `SELECT f.id, f.organization_id, MAX(h.id IS NOT NULL) AS told
        FROM feed f
        LEFT JOIN feed_hook h ON h.is_open = 1 AND h.feed_id = f.id
        WHERE f.is_on = 1 AND (f.next_run_at <= ? OR h.id IS NOT NULL)
        GROUP BY f.id
        ORDER BY f.id
        LIMIT 100`,
      [now],
    )) as [{ id: number; organization_id: number; told: number }[]];
    return rows;
  }

  /** Feeds of any organization that tell their sources of noes. */
  async telling(knex: Knex): Promise<{ id: number; organization_id: number }[]> {
    return await rowsOf(knex, 'feed')
      .where('is_on', 1)
      .whereRaw("JSON_VALUE(plan, '$.tell') = 1")
      .orderBy('id')
      .select('id', 'organization_id');
  }

  /** The feed that is told of changes at an address of ours. */
  async byHook(
    knex: Knex,
    key: string,
  ): Promise<{ id: number; organization_id: number; hook_secret: string | null; is_on: number } | undefined> {
    return await rowsOf(knex, 'feed')
      .where('hook_key', key)
      .first('id', 'organization_id', 'hook_secret', 'is_on');
  }

  /** Keeps that a change was told of; the same once more is one. */
  async tellOf(knex: Knex, feed: { id: number; organization_id: number }, hookId: string): Promise<void> {
    await rowsOf(knex, 'feed_hook')
      .insert({ organization_id: feed.organization_id, feed_id: feed.id, hook_id: hookId })
      .onConflict(['feed_id', 'hook_id'])
      .ignore();
  }

  /** Everything that was told so far is looked at by a run that begins now. */
  async takeHooks(tx: Scoped, id: number): Promise<void> {
    await tx.execute(
      'UPDATE feed_hook SET is_open = 0 WHERE organization_id = :org AND feed_id = :id AND is_open = 1',
      { id },
    );
    await tx.execute(
      `DELETE FROM feed_hook
        WHERE organization_id = :org AND feed_id = :id AND is_open = 0
        AND at < UTC_TIMESTAMP(3) - INTERVAL 7 DAY`,
      { id },
    );
  }
}
