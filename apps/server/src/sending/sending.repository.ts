import { Injectable } from '@nestjs/common';
import type { HeldReason, Verdict } from '@goodword/core/permission';
import { bindingsOf, groupVerdictSql, type Asking } from '../permission/verdict.sql';
import type { Scoped } from '../platform/database';

/** The outbox: who is in a message's group, what was decided of each, and the deliveries that came of it. */
@Injectable()
export class SendingRepository {
  async freezeGroup(tx: Scoped, messageId: number, ids: readonly number[]): Promise<void> {
    await tx.execute('DELETE FROM message_group WHERE organization_id = :org AND message_id = :messageId', { messageId });
    await tx.insertAll(
      'message_group',
      ['message_id', 'supporter_id'],
      ids.map((id) => [messageId, id]),
    );
  }

  /** Decides for the whole frozen group and keeps the verdicts for the last look. */
  async look(tx: Scoped, messageId: number, asking: Asking): Promise<void> {
    await tx.execute('DELETE FROM last_look WHERE organization_id = :org AND message_id = :messageId', { messageId });
    const people = 'SELECT supporter_id FROM message_group WHERE organization_id = :org AND message_id = :messageId';
    await tx.execute(
      `INSERT INTO last_look (organization_id, message_id, supporter_id, verdict, contact_point_id, entry_id)
        SELECT :org, :messageId, supporter_id, verdict, contact_point_id, entry_id FROM (${groupVerdictSql(people, asking)}) v`,
      { ...bindingsOf(asking, messageId), messageId },
    );
  }

  /** What a message would meet at one person now, and the address that it would go to. */
  async verdictOf(db: Scoped, supporterId: number, asking: Asking): Promise<{ verdict: Verdict; shown: string | null }> {
    const [row] = await db.sql<{ verdict: Verdict; shown: string | null }>(
      `SELECT v.verdict, cp.shown FROM (${groupVerdictSql('SELECT :supporterId AS supporter_id', asking)}) v
        LEFT JOIN contact_point cp ON cp.organization_id = :org AND cp.id = v.contact_point_id`,
      { ...bindingsOf(asking), supporterId },
    );
    return row ?? { verdict: 'no-address', shown: null };
  }

  async lookCounts(db: Scoped, messageId: number): Promise<Map<Verdict, number>> {
    const rows = await db.sql<{ verdict: Verdict; n: number }>(
      'SELECT verdict, COUNT(*) AS n FROM last_look WHERE organization_id = :org AND message_id = :messageId GROUP BY verdict',
      { messageId },
    );
    return new Map(rows.map((row) => [row.verdict, row.n]));
  }

  async lookPeople(db: Scoped, messageId: number, verdict: Verdict | HeldReason, after: number, limit: number): Promise<number[]> {
    const rows = await db.sql<{ supporter_id: number }>(
      'SELECT supporter_id FROM last_look WHERE organization_id = :org AND message_id = :messageId AND verdict = :verdict AND supporter_id > :after ORDER BY supporter_id LIMIT :limit',
      { messageId, verdict, after, limit },
    );
    return rows.map((row) => row.supporter_id);
  }

  /**
   * Writes the deliveries of the next people of the frozen group, each with its verdict. Returns the last id written, or
   * null when there was nobody left. A delivery is unique by message and person, so a slice may be written again.
   */
  async prepareSlice(tx: Scoped, messageId: number, after: number, size: number, asking: Asking): Promise<number | null> {
    const ids = await tx.sql<{ supporter_id: number }>(
      'SELECT supporter_id FROM message_group WHERE organization_id = :org AND message_id = :messageId AND supporter_id > :after ORDER BY supporter_id LIMIT :size',
      { messageId, after, size },
    );
    const last = ids.at(-1)?.supporter_id;
    if (last === undefined) return null;
    const people =
      'SELECT supporter_id FROM message_group WHERE organization_id = :org AND message_id = :messageId AND supporter_id > :after AND supporter_id <= :last';
    const taken = `EXISTS (SELECT 1 FROM delivery o WHERE o.organization_id = :org AND o.contact_point_id = v.contact_point_id AND o.message_id = :messageId AND o.verdict = 'send' AND o.supporter_id < v.supporter_id)`;
    await tx.execute(
      `INSERT IGNORE INTO delivery (organization_id, message_id, supporter_id, channel, contact_point_id, entry_id, verdict, state, provider_key, counts)
        SELECT :org, :messageId, w.supporter_id, :channel, w.contact_point_id, w.entry_id, w.verdict, IF(w.verdict = 'send', 'ready', 'held'), UUID(), IF(:scope = 'service', 0, 1)
        FROM (SELECT v.supporter_id, v.contact_point_id, v.entry_id, IF(v.verdict = 'send' AND ${taken}, 'shared-address', v.verdict) AS verdict FROM (${groupVerdictSql(people, asking)}) v) w`,
      { ...bindingsOf(asking, messageId), messageId, after, last },
    );
    return last;
  }

  /** Deliveries that have not left are stopped for good. */
  async stopReady(tx: Scoped, messageId: number): Promise<number> {
    return tx.execute("UPDATE delivery SET state = 'stopped' WHERE organization_id = :org AND message_id = :messageId AND state = 'ready'", {
      messageId,
    });
  }

  async countReady(db: Scoped, messageId: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      "SELECT COUNT(*) AS n FROM delivery WHERE organization_id = :org AND message_id = :messageId AND state IN ('ready', 'leased', 'handing')",
      { messageId },
    );
    return row?.n ?? 0;
  }
}
