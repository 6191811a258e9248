import { Injectable } from '@nestjs/common';
import type { Scoped } from '../platform/database';

/** Addresses that wait: one that bounced, one whose owner said something that a person must read. Each hold is kept with its end. */
@Injectable()
export class HoldsRepository {
  /** Nothing goes to the address until somebody has looked at it. */
  async hold(tx: Scoped, contactPointId: number, reason: string): Promise<void> {
    tx.reached.add(contactPointId);
    const hold = { contactPointId, reason: reason.slice(0, 300) };
    await tx.execute(
      `UPDATE contact_point SET on_hold = 1, hold_reason = :reason, hold_at = UTC_TIMESTAMP(3)
        WHERE organization_id = :org AND id = :contactPointId`,
      hold,
    );
    await tx.execute(
      `INSERT INTO address_hold (organization_id, contact_point_id, held_at, reason)
        VALUES (:org, :contactPointId, UTC_TIMESTAMP(3), :reason)`,
      hold,
    );
  }

  /** Takes an address off hold: somebody has looked and it is good, or its owner has answered. */
  async release(tx: Scoped, contactPointId: number, why: string): Promise<void> {
    tx.reached.add(contactPointId);
    await tx.execute(
      `UPDATE contact_point SET on_hold = 0, hold_reason = NULL, hold_at = NULL
        WHERE organization_id = :org AND id = :contactPointId`,
      { contactPointId },
    );
    await tx.execute(
      `UPDATE address_hold SET released_at = UTC_TIMESTAMP(3), released_by = :actor, released_why = :why
        WHERE organization_id = :org AND contact_point_id = :contactPointId AND released_at IS NULL`,
      { contactPointId, why: why.slice(0, 300), actor: tx.scope.actorId },
    );
  }

  /** Holds those addresses of a kind that a batch names and that are not on hold; whoever calls tells who is reached. */
  async holdOfBatch(tx: Scoped, batchId: number, kind: 'email' | 'mobile', reason: string): Promise<void> {
    const bindings = { batchId, kind, reason: reason.slice(0, 300) };
    const theirs = 'cp.organization_id = :org AND cp.kind = :kind AND cp.on_hold = 0';
    await tx.execute(
      `INSERT INTO address_hold (organization_id, contact_point_id, held_at, reason, batch_id)
        SELECT :org, cp.id, UTC_TIMESTAMP(3), :reason, :batchId FROM contact_point cp
          JOIN batch_hold h ON h.contact_point_id = cp.id AND h.batch_id = :batchId WHERE ${theirs}`,
      bindings,
    );
    await tx.execute(
      `UPDATE contact_point cp JOIN batch_hold h ON h.contact_point_id = cp.id AND h.batch_id = :batchId
        SET cp.on_hold = 1, cp.hold_at = UTC_TIMESTAMP(3), cp.hold_reason = :reason WHERE ${theirs}`,
      bindings,
    );
  }

  /** What a batch put on hold is as it was, but for what was held for another reason since. */
  async releaseOfBatch(tx: Scoped, batchId: number): Promise<void> {
    const open = 'h.organization_id = :org AND h.batch_id = :batchId AND h.released_at IS NULL';
    await tx.execute(
      `UPDATE contact_point cp JOIN address_hold h ON h.contact_point_id = cp.id AND ${open}
        SET cp.on_hold = 0, cp.hold_reason = NULL, cp.hold_at = NULL
        WHERE cp.organization_id = :org AND NOT EXISTS (SELECT 1 FROM address_hold o WHERE o.organization_id = :org
          AND o.contact_point_id = cp.id AND o.released_at IS NULL AND NOT (o.batch_id <=> :batchId))`,
      { batchId },
    );
    await tx.execute(
      `UPDATE address_hold h SET h.released_at = UTC_TIMESTAMP(3), h.released_by = :actor, h.released_why = 'The batch was taken back out'
        WHERE ${open}`,
      { batchId, actor: tx.scope.actorId },
    );
    await tx.execute('DELETE FROM batch_hold WHERE organization_id = :org AND batch_id = :batchId', { batchId });
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
