import { Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import type { Channel, Scope as PermissionScope } from '@goodword/core/permission';
import type { Scoped } from '../../platform/scoped';

/** A no that is on its way to a source. */
export interface NoticeRow {
  id: number;
  feed_id: number;
  entry_id: number;
  record_key: string;
  supporter_id: number;
  channel: Channel;
  scope: PermissionScope;
  said_at: Date;
  attempts: number;
  problem: string | null;
}

const COLUMNS = `n.id, n.feed_id, n.entry_id, n.record_key, n.supporter_id, n.channel, n.scope, n.said_at,
  n.attempts, n.problem`;

/** Noes that sources are told of: each once, in their order. Owns `feed_notice`. */
@Injectable()
export class NoticesRepository {
  /**
   * Puts noes on the queue, for every record of the feed that is one of these people; what stands on it
   * already, what came by this feed itself, and what nobody over there is, is left out.
   */
  async put(
    tx: Scoped,
    feedId: number,
    noes: readonly {
      id: number;
      supporterId: number;
      channel: Channel;
      scope: PermissionScope;
      saidAt: Date;
      batchId: number | null;
    }[],
  ): Promise<void> {
    for (let at = 0; at < noes.length; at += 2000) {
      const slice = noes.slice(at, at + 2000);
      const records = await tx.sql<{ record_key: string; supporter_id: number }>(
        `SELECT record_key, supporter_id
          FROM feed_record
          WHERE organization_id = :org AND feed_id = :feedId AND supporter_id IN (:people) AND is_gone = 0`,
        { feedId, people: slice.map(({ supporterId }) => supporterId) },
      );
      const own = new Set(
        (
          await tx.sql<{ batch_id: number }>(
            `SELECT batch_id
              FROM feed_run
              WHERE organization_id = :org AND feed_id = :feedId AND batch_id IN (:batches)`,
            { feedId, batches: [0, ...slice.map(({ batchId }) => batchId ?? 0)] },
          )
        ).map((row) => row.batch_id),
      );
      await tx.insertAll(
        'feed_notice',
        ['feed_id', 'entry_id', 'record_key', 'supporter_id', 'channel', 'scope', 'said_at'],
        slice.flatMap((no) =>
          no.batchId !== null && own.has(no.batchId)
            ? []
            : records
                .filter((record) => record.supporter_id === no.supporterId)
                .map(({ record_key: key }) => [
                  ...[feedId, no.id, key, no.supporterId, no.channel, no.scope, no.saidAt],
                ]),
        ),
        true,
      );
    }
  }

  /** Feeds of any organization of which something is due. */
  async due(knex: Knex, now: Date): Promise<{ feed_id: number; organization_id: number }[]> {
    const [rows] = (await knex.raw(
      `SELECT DISTINCT n.feed_id, n.organization_id
        FROM feed_notice n
        JOIN feed f ON f.id = n.feed_id AND f.is_on = 1
        WHERE n.state = 'waiting' AND n.next_at <= ?
        LIMIT 100`,
      [now],
    )) as [{ feed_id: number; organization_id: number }[]];
    return rows;
  }

  /** The oldest that waits, held for a minute for whoever tells it; undefined where none is due. */
  async claim(tx: Scoped, feedId: number, now: Date): Promise<NoticeRow | undefined> {
    const [row] = await tx.sql<NoticeRow & { next_at: Date }>(
      `SELECT ${COLUMNS}, n.next_at
        FROM feed_notice n
        WHERE n.organization_id = :org AND n.feed_id = :feedId AND n.state = 'waiting'
        ORDER BY n.id
        LIMIT 1
        FOR UPDATE`,
      { feedId },
    );
    // They are told in their order: what is behind one that waits for another try waits with it.
    if (!row || row.next_at > now) return undefined;
    await tx.execute('UPDATE feed_notice SET next_at = :until WHERE organization_id = :org AND id = :id', {
      ...{ id: row.id, until: new Date(now.getTime() + 60_000) },
    });
    return row;
  }

  async end(tx: Scoped, id: number, state: 'told' | 'dropped'): Promise<void> {
    await tx.execute(
      `UPDATE feed_notice
        SET state = :state, told_at = UTC_TIMESTAMP(3), problem = NULL
        WHERE organization_id = :org AND id = :id`,
      { id, state },
    );
  }

  async later(tx: Scoped, id: number, problem: string, nextAt: Date): Promise<void> {
    await tx.execute(
      `UPDATE feed_notice
        SET attempts = LEAST(attempts + 1, 250), problem = :problem, next_at = :nextAt
        WHERE organization_id = :org AND id = :id`,
      { id, problem: problem.slice(0, 500), nextAt },
    );
  }

  /** How many were told, how many wait, and what keeps the first of them. */
  async counts(
    db: Scoped,
    feedId: number,
  ): Promise<{ told: number; waiting: number; problem: string | null }> {
    const [row] = await db.sql<{ told: number; waiting: number; problem: string | null }>(
      `SELECT COUNT(IF(n.state = 'told', 1, NULL)) AS told,
          COUNT(IF(n.state = 'waiting', 1, NULL)) AS waiting,
          (SELECT f.problem FROM feed_notice f
          WHERE f.organization_id = :org AND f.feed_id = :feedId AND f.state = 'waiting'
          ORDER BY f.id LIMIT 1) AS problem
        FROM feed_notice n
        WHERE n.organization_id = :org AND n.feed_id = :feedId`,
      { feedId },
    );
    return row ?? { told: 0, waiting: 0, problem: null };
  }

  /** Those that wait, oldest first, with whom each is about. */
  async waiting(db: Scoped, feedId: number): Promise<(NoticeRow & { name: string })[]> {
    return db.sql(
      `SELECT ${COLUMNS}, TRIM(CONCAT_WS(' ', s.first_name, s.last_name)) AS name
        FROM feed_notice n
        LEFT JOIN supporter s ON s.organization_id = :org AND s.id = n.supporter_id
        WHERE n.organization_id = :org AND n.feed_id = :feedId AND n.state = 'waiting'
        ORDER BY n.id
        LIMIT 200`,
      { feedId },
    );
  }
}
