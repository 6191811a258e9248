import { Injectable } from '@nestjs/common';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export type CallDelivery = Pick<Tables['delivery'], 'id' | 'supporter_id' | 'state'>;

/** Deliveries of steps that call. */
@Injectable()
export class StepCallsRepository {
  /** Those who are still to be called, by name. */
  async waiting(db: Scoped, messageId: number): Promise<CallDelivery[]> {
    return db.sql(
      `SELECT d.id, d.supporter_id, d.state
        FROM delivery d
        JOIN supporter s ON s.id = d.supporter_id
        WHERE d.organization_id = :org AND d.message_id = :messageId AND d.state = 'ready'
        ORDER BY s.last_name, s.first_name, s.id`,
      { messageId },
    );
  }

  async of(db: Scoped, messageId: number, supporterId: number): Promise<CallDelivery | undefined> {
    const [row] = await db.sql<CallDelivery>(
      `SELECT id, supporter_id, state
        FROM delivery
        WHERE organization_id = :org AND message_id = :messageId AND supporter_id = :supporterId`,
      { messageId, supporterId },
    );
    return row;
  }
}
