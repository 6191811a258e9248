import { Inject, Injectable } from '@nestjs/common';
import {
  brakeAt,
  FULL_MAILBOX,
  PAUSE_AT_POLICY,
  type BrakeLimits,
  type DeliveryFault,
} from '@goodword/core/delivery';
import { HoldsRepository } from '../permission/holds.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import type { Bound, Scoped } from '../platform/scoped';
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
  constructor(
    @Inject(HoldsRepository) private readonly holds: HoldsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
  ) {}

  /** The delivery has its state and fault already. */
  async follow(tx: Scoped, delivery: FaultyDelivery): Promise<void> {
    switch (delivery.fault) {
      case 'address':
        await this.holds.putOnHold(tx, delivery.contact_point_id, delivery.detail);
        return this.brake(tx, delivery.id, 'unknown');
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

  /** An address that a confirmation or another mail of the program itself came back from. */
  async holdPoint(tx: Scoped, contactPointId: number, detail: string): Promise<void> {
    await this.holds.putOnHold(tx, contactPointId, detail);
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
    await this.pause(tx, row.messageId, sentence('send.paused-by-policy', { count: Number(row.n), detail }));
  }

  /**
   * Pauses the sending of a delivery where too many of it are at fault by now; counted anew since somebody
   * went on with it. With many faults not each of them counts anew.
   */
  async brake(tx: Scoped, deliveryId: number, what: keyof BrakeLimits): Promise<void> {
    const [message] = await tx.sql<{ id: number; since: Date }>(
      `SELECT m.id, COALESCE(m.resumed_at, m.created_at) AS since
        FROM delivery d
        JOIN message m ON m.id = d.message_id AND m.state = 'sending' AND m.personal_to IS NULL
        WHERE d.organization_id = :org AND d.id = :deliveryId`,
      { deliveryId },
    );
    if (!message) return;
    const count = async (which: string): Promise<number> => {
      const [row] = await tx.sql<{ n: number }>(
        `SELECT COUNT(*) AS n
          FROM delivery_event e
          ${which}
          AND e.organization_id = :org AND e.message_id = :id AND e.at >= :since`,
        message as unknown as Record<string, Bound>,
      );
      return Number(row?.n ?? 0);
    };
    const unknown = await count(
      "JOIN delivery d ON d.id = e.delivery_id AND d.fault = 'address' WHERE e.kind = 'bounced'",
    );
    if (what === 'unknown' && (unknown < 3 || (unknown > 5 && unknown % 5 !== 0))) return;
    const complaints = await count("WHERE e.kind = 'complained'");
    const refused = await count(
      "JOIN delivery d ON d.id = e.delivery_id AND d.sent_at IS NULL WHERE e.kind = 'bounced'",
    );
    const tried = (await count("WHERE e.kind = 'sent'")) + refused;
    const { brake } = await this.houseRules.rules(tx);
    const pulled = brakeAt({ tried, unknown, complaints }, brake);
    if (!pulled) return;
    const n = pulled === 'unknown' ? unknown : complaints;
    const percent = Math.round((n * 1000) / tried) / 10;
    await this.pause(tx, message.id, sentence(`send.brake.${pulled}`, { tried, count: n, percent }));
  }

  private async pause(tx: Scoped, messageId: number, why: string): Promise<void> {
    await tx.execute(
      `UPDATE message
        SET state = 'paused', paused_why = :why
        WHERE organization_id = :org AND id = :messageId AND state = 'sending'`,
      { messageId, why: why.slice(0, 400) },
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
