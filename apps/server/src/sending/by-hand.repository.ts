import { Injectable } from '@nestjs/common';
import type { Verdict } from '@goodword/core/permission';
import type { Scoped } from '../platform/scoped';
import { addEvents } from './delivery-events';

/** Deliveries that people make themselves: letters that are posted, calls that are made. */
@Injectable()
export class ByHandRepository {
  /** Holds one back at the door, with why. */
  async refuse(tx: Scoped, id: number, verdict: Verdict, detail: string | null = null): Promise<void> {
    await tx.execute(
      `UPDATE delivery
        SET state = 'door', door_verdict = :verdict, detail = :detail
        WHERE organization_id = :org AND id = :id AND state = 'ready'`,
      { id, verdict, detail },
    );
    await addEvents(tx, [id], 'door', '');
  }

  /** They came to their people, at a moment. */
  async came(tx: Scoped, ids: readonly number[], at: Date): Promise<void> {
    if (ids.length === 0) return;
    await tx.execute(
      `INSERT INTO delivery_event (organization_id, delivery_id, message_id, supporter_id, kind, at)
        SELECT organization_id, id, message_id, supporter_id, 'sent', :at
        FROM delivery
        WHERE organization_id = :org AND id IN (:ids) AND state IN ('ready', 'stopped')`,
      { ids, at },
    );
    await tx.execute(
      `UPDATE delivery
        SET state = 'sent', sent_at = :at
        WHERE organization_id = :org AND id IN (:ids) AND state IN ('ready', 'stopped')`,
      { ids, at },
    );
  }

  /** What was said to have come did not: it waits again, or was not made. */
  async cameNot(tx: Scoped, id: number, state: 'ready' | 'stopped'): Promise<void> {
    await tx.execute(
      `DELETE FROM delivery_event
        WHERE organization_id = :org AND delivery_id = :id AND kind = 'sent'`,
      { id },
    );
    await tx.execute(
      `UPDATE delivery
        SET state = :state, sent_at = NULL
        WHERE organization_id = :org AND id = :id AND state = 'sent'`,
      { id, state },
    );
  }
}
