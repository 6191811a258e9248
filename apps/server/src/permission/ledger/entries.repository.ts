import { Injectable } from '@nestjs/common';
import {
  type Channel,
  type CollectionMethod,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import type { Bound, Scoped } from '../../platform/scoped';
import { asNew, type EntryRow, type NewEntry, type Revocation } from './entries';

/** An entry at an address, in short. */
interface SaidAt {
  id: number;
  supporterId: number | null;
  contactPointId: number;
  scope: string;
  state: string;
  how: string;
  /** Milliseconds. */
  saidAt: number;
  words: string;
}

/**
 * What was written into the ledger, read: entries of people, of addresses, of deliveries and batches. Reads
 * `permission_entry`.
 */
@Injectable()
export class EntriesRepository {
  /**
   * Leavings of one message's link that are not taken back, since a moment; what was answered to it is none.
   */
  async leavingsOf(db: Scoped, deliveryId: number, since: Date): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT id
        FROM permission_entry
        WHERE organization_id = :org AND delivery_id = :deliveryId AND state = 'no'
        AND how IN ('one-click', 'reply') AND reply_id IS NULL AND said_at >= :since AND taken_back_at IS NULL`,
      { deliveryId, since },
    );
    return rows.map(({ id }) => id);
  }

  /**
   * Whether the same was said through the same message since a moment, and nothing of the channel by anybody
   * there after it.
   */
  async hasJustLeft(
    db: Scoped,
    deliveryId: number,
    said: { scope: PermissionScope; how: CollectionMethod },
    since: Date,
  ): Promise<boolean> {
    const rows = await db.sql(
      `SELECT 1
        FROM permission_entry e
        WHERE e.organization_id = :org AND e.delivery_id = :deliveryId AND e.state = 'no'
        AND e.scope = :scope AND e.how = :how AND e.reply_id IS NULL AND e.recorded_at >= :since
        AND e.taken_back_at IS NULL
        AND NOT EXISTS (SELECT 1 FROM permission_entry n
        WHERE n.organization_id = :org AND n.supporter_id = e.supporter_id
          AND n.channel = e.channel AND n.id > e.id) LIMIT 1`,
      { deliveryId, ...said, since },
    );
    return rows.length > 0;
  }

  /** What these people have in the ledger on a channel, bare. */
  async saidBy(
    db: Scoped,
    supporterIds: readonly number[],
    channel: Channel,
  ): Promise<
    {
      supporterId: number;
      contactPointId: number | null;
      scope: string;
      state: string;
      how: string;
      saidAt: number;
      words: string;
    }[]
  > {
    if (supporterIds.length === 0) return [];
    const rows = await db.sql<EntryRow>(
      `SELECT supporter_id, contact_point_id, scope, state, how, said_at, words FROM permission_entry
        WHERE organization_id = :org AND supporter_id IN (:supporterIds) AND channel = :channel
        AND state <> 'back' AND taken_back_at IS NULL`,
      { supporterIds, channel },
    );
    return rows.map((row) => ({
      supporterId: row.supporter_id!,
      contactPointId: row.contact_point_id,
      scope: row.scope,
      state: row.state,
      how: row.how,
      saidAt: row.said_at.getTime(),
      words: row.words,
    }));
  }

  /** As `saidBy`, of some addresses. */
  async saidAt(db: Scoped, contactPointIds: readonly number[], channel: Channel): Promise<SaidAt[]> {
    if (contactPointIds.length === 0) return [];
    const rows = await db.sql<EntryRow>(
      `SELECT id, supporter_id, contact_point_id, scope, state, how, said_at, words FROM permission_entry
        WHERE organization_id = :org AND contact_point_id IN (:points) AND channel = :channel
        AND state <> 'back' AND taken_back_at IS NULL`,
      { points: [...new Set(contactPointIds)], channel },
    );
    return rows.map((row) => ({
      id: row.id,
      supporterId: row.supporter_id,
      contactPointId: row.contact_point_id!,
      scope: row.scope,
      state: row.state,
      how: row.how,
      saidAt: row.said_at.getTime(),
      words: row.words,
    }));
  }

  /** What rows of a batch have written already: "row:address:channel". */
  async rowsOf(db: Scoped, slice: { batchId: Bound; from: Bound; to: Bound }): Promise<Set<string>> {
    const rows = await db.sql<{ batch_row: number; contact_point_id: number | null; channel: Channel }>(
      `SELECT batch_row, contact_point_id, channel FROM permission_entry
        WHERE organization_id = :org AND batch_id = :batchId AND batch_row BETWEEN :from AND :to
        AND state <> 'back'`,
      { batchId: slice.batchId, from: slice.from, to: slice.to },
    );
    return new Set(rows.map((row) => `${row.batch_row}:${row.contact_point_id ?? 0}:${row.channel}`));
  }

  /** The newest entries of some people, and refusals of others at their addresses. */
  async newestAbout(db: Scoped, ids: readonly number[], limit: number): Promise<EntryRow[]> {
    return db.sql(
      // Two ways to an entry, each by its own index: one condition for both goes through everybody's.
      `SELECT recorded_at, state, channel, scope, how, source
        FROM permission_entry
        WHERE organization_id = :org AND supporter_id IN (:ids)
        UNION ALL SELECT e.recorded_at, e.state, e.channel, e.scope, e.how, e.source FROM supporter_contact sc
          JOIN permission_entry e ON e.organization_id = :org AND e.contact_point_id = sc.contact_point_id
          WHERE sc.supporter_id IN (:ids) AND e.state = 'no' AND NOT (e.supporter_id <=> sc.supporter_id)
            AND COALESCE(e.supporter_id, 0) NOT IN (:ids) ORDER BY recorded_at DESC LIMIT :limit`,
      { ids, limit },
    );
  }

  async countOf(db: Scoped, supporterId: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n
        FROM permission_entry
        WHERE organization_id = :org AND supporter_id = :supporterId`,
      { supporterId },
    );
    return row?.n ?? 0;
  }

  /** Refusals of one person that were written down since a moment and not taken back. */
  async refusalsSince(db: Scoped, supporterId: number, since: Date): Promise<NewEntry[]> {
    const rows = await db.sql<EntryRow>(
      `SELECT id, contact_point_id, supporter_id, channel, scope, state, said_at, until_at, by_person, how,
          words, source, origin, batch_id, evidence_id, delivery_id, recorded_by, recorded_at, form_id,
          form_version, page, reply_id, taken_back_at
        FROM permission_entry
        WHERE organization_id = :org AND supporter_id = :supporterId AND state = 'no'
        AND recorded_at >= :since AND taken_back_at IS NULL`,
      { supporterId, since },
    );
    return rows.map(asNew);
  }

  /** Addresses that anything was ever said of by a person. */
  async pointsOf(db: Scoped, supporterId: number): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT DISTINCT contact_point_id AS id
        FROM permission_entry
        WHERE organization_id = :org AND supporter_id = :supporterId
        AND contact_point_id IS NOT NULL`,
      { supporterId },
    );
    return rows.map(({ id }) => id);
  }

  /** Every no, newest first, before an entry; of one chapter where the caller has one. */
  async revocations(db: Scoped, before: number, limit: number): Promise<Revocation[]> {
    return db.sql<Revocation>(
      `SELECT e.id, e.contact_point_id, e.supporter_id, e.channel, e.scope, e.state, e.said_at, e.until_at,
          e.by_person, e.how, e.words, e.source, e.origin, e.batch_id, e.evidence_id, e.delivery_id,
          e.recorded_by, e.recorded_at, e.form_id, e.form_version, e.page, e.reply_id, e.taken_back_at,
          t.name AS recorded_name, cp.shown, r.received_at, k.done_at AS read_at,
        k.asked_at AS held_at
        FROM permission_entry e
        LEFT JOIN contact_point cp ON cp.id = e.contact_point_id
        LEFT JOIN teammate t ON t.id = e.recorded_by
        LEFT JOIN supporter s ON s.id = e.supporter_id LEFT JOIN reply r ON r.id = e.reply_id
        LEFT JOIN task k ON k.organization_id = :org AND k.kind = 'stop' AND k.reply_id = e.reply_id
        WHERE e.organization_id = :org AND e.state = 'no' AND e.id < :before
        AND (:chapter IS NULL OR s.chapter_id = :chapter)
        ORDER BY e.id DESC LIMIT :limit`,
      { before, limit },
    );
  }

  /** Who said anything at some addresses. */
  async peopleAt(db: Scoped, points: readonly number[]): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT DISTINCT supporter_id AS id FROM permission_entry
        WHERE organization_id = :org AND contact_point_id IN (:points) AND supporter_id IS NOT NULL`,
      { points: [...points, 0] },
    );
    return rows.map(({ id }) => id);
  }

  /**
   * Entries that bear on a person: their own, and every no and START at an address of theirs, or at others
   * that were theirs. Newest first.
   */
  async entriesOf(db: Scoped, supporterId: number, others: readonly number[] = []): Promise<EntryRow[]> {
    // Each way by its own index: one condition for both would go through everybody's entries.
    return db.sql<EntryRow>(
      `WITH mine AS (
        SELECT id FROM permission_entry WHERE organization_id = :org AND supporter_id = :supporterId
        UNION SELECT e.id FROM supporter_contact sc STRAIGHT_JOIN permission_entry e
          ON e.organization_id = :org AND e.contact_point_id = sc.contact_point_id
          AND e.state IN ('no', 'start')
          WHERE sc.organization_id = :org AND sc.supporter_id = :supporterId
        UNION
        SELECT id
        FROM permission_entry
        WHERE organization_id = :org AND contact_point_id IN (:others) AND state IN ('no', 'start'))
        SELECT e.id, e.contact_point_id, e.supporter_id, e.channel, e.scope, e.state, e.said_at, e.until_at,
          e.by_person, e.how, e.words, e.source, e.origin, e.batch_id, e.evidence_id, e.delivery_id,
          e.recorded_by, e.recorded_at, e.form_id, e.form_version, e.page, e.reply_id, e.taken_back_at,
          t.name AS recorded_name, cp.shown
        FROM mine
        STRAIGHT_JOIN permission_entry e ON e.id = mine.id
        LEFT JOIN contact_point cp ON cp.id = e.contact_point_id LEFT JOIN teammate t ON t.id = e.recorded_by
        ORDER BY e.said_at DESC, e.id DESC`,
      { supporterId, others: [...others, 0] },
    );
  }
}
