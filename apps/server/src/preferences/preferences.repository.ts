import { Injectable } from '@nestjs/common';
import { type Database } from '../platform/database';
import { type Scoped, rowsOf } from '../platform/scoped';
import { currentRecord } from '../supporters/merged';

/** Who a link belongs to. */
export interface LinkHolder {
  organizationId: number;
  supporterId: number;
}

@Injectable()
export class PreferencesRepository {
  /**
   * A signed token is all the proof there is, so the person is found without a scope, and gives the scope.
   */
  async holder(database: Database, of: number): Promise<LinkHolder | null> {
    const supporterId = await currentRecord(database, of);
    const row = await rowsOf(database.unscoped(), 'supporter')
      .where('id', supporterId)
      .whereNull('erased_at')
      .first('id', 'organization_id');
    return row ? { organizationId: row.organization_id, supporterId: row.id } : null;
  }

  async sentAt(db: Scoped, deliveryId: number): Promise<Date | null> {
    const [row] = await db.sql<{ sent_at: Date | null }>(
      'SELECT sent_at FROM delivery WHERE organization_id = :org AND id = :deliveryId',
      {
        deliveryId,
      },
    );
    return row?.sent_at ?? null;
  }

  async lists(db: Scoped): Promise<{ id: number; name: string; description: string; why: string }[]> {
    return db.sql(
      `SELECT id, name, description, why
        FROM list
        WHERE organization_id = :org AND is_public = 1 AND on_preferences = 1
        ORDER BY position, name`,
    );
  }

  async erasureAsked(db: Scoped, supporterId: number): Promise<boolean> {
    const rows = await db.sql(
      `SELECT 1
        FROM task
        WHERE organization_id = :org AND kind = 'erasure'
          AND supporter_id = :supporterId AND done_at IS NULL`,
      {
        supporterId,
      },
    );
    return rows.length > 0;
  }

  async askErasure(tx: Scoped, supporterId: number): Promise<void> {
    await tx.insert('task', {
      kind: 'erasure',
      supporter_id: supporterId,
      words: 'Asked on the preference page',
    });
  }

  /** What was sent to the person and what came of it, for their copy of it all. */
  async messages(
    db: Scoped,
    supporterId: number,
  ): Promise<
    { name: string; channel: string; sent_at: Date | null; state: string; opened: number; clicked: number }[]
  > {
    return db.sql(
      `SELECT m.name, d.channel, d.sent_at, d.state, d.opened, d.clicked
        FROM delivery d
        JOIN message m ON m.id = d.message_id
        WHERE d.organization_id = :org AND d.supporter_id = :supporterId ORDER BY d.id`,
      { supporterId },
    );
  }
}
