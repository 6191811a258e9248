import { Inject, Injectable } from '@nestjs/common';
import { FULL_MAILBOX, PAUSE_AT_POLICY, type DeliveryFault } from '@goodword/core/delivery';
import { HoldsRepository } from '../permission/holds.repository';
import type { Scoped } from '../platform/scoped';
import { sentence } from '../platform/words';

/** A delivery that was refused or came back, and what that was about. */
interface FaultyDelivery {
  id: number;
  contact_point_id: number;
  fault: DeliveryFault;
  detail: string;
}

/** What follows from a refusal: an address is held, a sending pauses itself, or nothing. */
@Injectable()
export class DeliveryFaultsRepository {
  constructor(@Inject(HoldsRepository) private readonly holds: HoldsRepository) {}

  /** The delivery has its state and fault already. */
  async follow(tx: Scoped, delivery: FaultyDelivery): Promise<void> {
    switch (delivery.fault) {
      case 'address':
        return this.holds.putOnHold(tx, delivery.contact_point_id, delivery.detail);
      case 'full':
        if (await this.isOftenFull(tx, delivery.contact_point_id))
          await this.holds.putOnHold(tx, delivery.contact_point_id, sentence('send.often-full'));
        return;
      case 'policy':
        return this.pauseAtPolicy(tx, delivery);
      case 'provider':
      case 'message':
      case 'unknown':
        return;
    }
  }

  private async isOftenFull(tx: Scoped, contactPointId: number): Promise<boolean> {
    const [row] = await tx.sql<{ n: number }>(
      `SELECT COUNT(DISTINCT d.id) AS n
        FROM delivery d
        JOIN delivery_event e ON e.delivery_id = d.id AND e.kind = 'bounced'
        WHERE d.organization_id = :org AND d.contact_point_id = :contactPointId AND d.fault = 'full'
          AND e.at > UTC_TIMESTAMP(3) - INTERVAL :days DAY`,
      { contactPointId, days: FULL_MAILBOX.days },
    );
    return Number(row?.n ?? 0) >= FULL_MAILBOX.times;
  }

  /** Some who refuse us for who we are or what we say: the rest waits until somebody has looked. */
  private async pauseAtPolicy(tx: Scoped, { id, detail }: FaultyDelivery): Promise<void> {
    const [row] = await tx.sql<{ messageId: number; n: number }>(
      `SELECT m.id AS messageId,
          (SELECT COUNT(*) FROM delivery d
            WHERE d.message_id = m.id AND d.fault = 'policy' AND (d.state = 'ready' OR EXISTS (
              SELECT 1 FROM delivery_event e
              WHERE e.delivery_id = d.id AND e.kind IN ('bounced', 'failed')
                AND e.at > COALESCE(m.resumed_at, m.created_at)))) AS n
        FROM message m
        WHERE m.organization_id = :org
          AND m.id = (SELECT message_id FROM delivery WHERE organization_id = :org AND id = :id)`,
      { id },
    );
    if (!row || Number(row.n) < PAUSE_AT_POLICY) return;
    const why = sentence('send.paused-by-policy', { count: Number(row.n), detail }).slice(0, 400);
    await tx.execute(
      `UPDATE message
        SET state = 'paused', paused_why = :why
        WHERE organization_id = :org AND id = :messageId AND state = 'sending'`,
      { messageId: row.messageId, why },
    );
  }

  /** What was refused for who we are is tried again when a sending goes on: somebody has looked. */
  async forget(tx: Scoped, messageId: number): Promise<void> {
    await tx.execute(
      `UPDATE delivery
        SET fault = NULL, not_before = NULL
        WHERE organization_id = :org AND message_id = :messageId AND state = 'ready' AND fault = 'policy'`,
      { messageId },
    );
  }
}
