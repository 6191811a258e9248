import { Injectable } from '@nestjs/common';
import type { Bound, Scoped } from '../platform/scoped';

/**
 * Addresses that wait: one that bounced, one whose owner said something that a person must read. Each hold is
 * kept with its end. Owns `address_hold`.
 */
@Injectable()
export class HoldsRepository {
  /** Nothing goes to the address until somebody has looked at it. */
  async putOnHold(tx: Scoped, contactPointId: number, reason: string): Promise<void> {
    await this.add(tx, contactPointId, reason, false);
  }

  /**
   * Its owner said something of which a person must say what was meant; only that answer, or theirs, releases
   * it.
   */
  async holdForAnswer(tx: Scoped, contactPointId: number, words: string): Promise<void> {
    await this.add(tx, contactPointId, `${words}: waits for a person to say what is meant`, true);
  }

  private async add(tx: Scoped, contactPointId: number, reason: string, asks: boolean): Promise<void> {
    tx.reached.add(contactPointId);
    const hold = { contactPointId, reason: reason.slice(0, 300), asks };
    await tx.execute(
      `UPDATE contact_point SET on_hold = 1, hold_reason = :reason, hold_at = UTC_TIMESTAMP(3)
        WHERE organization_id = :org AND id = :contactPointId`,
      hold,
    );
    await tx.execute(
      `INSERT INTO address_hold (organization_id, contact_point_id, held_at, reason, asks)
        VALUES (:org, :contactPointId, UTC_TIMESTAMP(3), :reason, :asks)`,
      hold,
    );
  }

  /** Takes an address off hold: somebody has looked and it is good. */
  async release(tx: Scoped, contactPointId: number, why: string): Promise<void> {
    await this.end(tx, contactPointId, why, '');
  }

  /** What was asked is answered. An address that bounced as well stays on hold for that. */
  async releaseAnswered(tx: Scoped, contactPointId: number, why: string): Promise<void> {
    await this.end(tx, contactPointId, why, 'AND asks = 1');
  }

  private async end(
    tx: Scoped,
    contactPointId: number,
    why: string,
    which: '' | 'AND asks = 1',
  ): Promise<void> {
    tx.reached.add(contactPointId);
    await tx.execute(
      `UPDATE address_hold SET released_at = UTC_TIMESTAMP(3), released_by = :actor, released_why = :why
        WHERE organization_id = :org AND contact_point_id = :contactPointId AND released_at IS NULL ${which}`,
      { contactPointId, why: why.slice(0, 300), actor: tx.scope.actorId },
    );
    await this.showOpen(tx, 'JOIN (SELECT :contactPointId AS id) one ON one.id = cp.id', { contactPointId });
  }

  /** An address shows the newest of its holds that are open, and is on hold as long as there is one. */
  private async showOpen(tx: Scoped, among: string, bindings: Record<string, Bound>): Promise<void> {
    await tx.execute(
      `UPDATE contact_point cp ${among}
        LEFT JOIN address_hold h ON h.id = (SELECT MAX(o.id) FROM address_hold o
          WHERE o.organization_id = :org AND o.contact_point_id = cp.id AND o.released_at IS NULL)
        SET cp.on_hold = h.id IS NOT NULL, cp.hold_reason = h.reason, cp.hold_at = h.held_at
        WHERE cp.organization_id = :org`,
      bindings,
    );
  }

  /**
   * Holds those addresses of a kind that a batch names, once for each batch; whoever calls tells who is
   * reached.
   */
  async holdOfBatch(tx: Scoped, batchId: number, kind: 'email' | 'mobile', reason: string): Promise<void> {
    const named = `batch_hold b ON b.contact_point_id = cp.id AND b.batch_id = :batchId
      AND b.organization_id = :org
      AND cp.kind = :kind AND NOT EXISTS (SELECT 1 FROM address_hold h
      WHERE h.organization_id = :org AND h.contact_point_id = cp.id
        AND h.batch_id = :batchId)`;
    const bindings = { batchId, kind, reason: reason.slice(0, 300) };
    // What is on hold already keeps the reason that it shows.
    await tx.execute(
      `UPDATE contact_point cp
        JOIN ${named}
        SET cp.on_hold = 1, cp.hold_at = UTC_TIMESTAMP(3), cp.hold_reason = :reason
        WHERE cp.organization_id = :org AND cp.on_hold = 0`,
      bindings,
    );
    await tx.execute(
      `INSERT INTO address_hold (organization_id, contact_point_id, held_at, reason, batch_id)
        SELECT :org, cp.id, UTC_TIMESTAMP(3), :reason, :batchId
        FROM contact_point cp
        JOIN ${named}
        WHERE cp.organization_id = :org`,
      bindings,
    );
  }

  /** What a batch put on hold is as it was, but for what was held for another reason since. */
  async releaseOfBatch(tx: Scoped, batchId: number): Promise<void> {
    await tx.execute(
      `UPDATE address_hold
        SET released_at = UTC_TIMESTAMP(3), released_by = :actor,
          released_why = 'The batch was taken back out'
        WHERE organization_id = :org AND batch_id = :batchId AND released_at IS NULL`,
      { batchId, actor: tx.scope.actorId },
    );
    const named = `JOIN batch_hold b ON b.organization_id = :org AND b.batch_id = :batchId
        AND b.contact_point_id = cp.id`;
    await this.showOpen(tx, named, { batchId });
    await tx.execute('DELETE FROM batch_hold WHERE organization_id = :org AND batch_id = :batchId', {
      batchId,
    });
  }

  /** What was kept of an erased address. */
  async blank(tx: Scoped, contactPointId: number): Promise<void> {
    await tx.execute(
      `UPDATE address_hold SET reason = '(erased)', released_why = IF(released_why IS NULL, NULL, '(erased)')
        WHERE organization_id = :org AND contact_point_id = :contactPointId`,
      { contactPointId },
    );
  }
}
