import { Injectable } from '@nestjs/common';
import type { CheckedRecord, MailLimits, TextNumber } from '@goodword/core/delivery';
import { Database } from '../platform/database';
import { type Scoped, rowsOf } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export type SenderCheckRow = Tables['sender_check'];

/** How a key of ours was found in a mail that came back. */
export interface SeenSignature {
  selector: string;
  holds: boolean;
}

/** Owns `sender_check`. */
@Injectable()
export class SenderRepository {
  async find(db: Scoped): Promise<SenderCheckRow | undefined> {
    return rowsOf(db.knex, 'sender_check').where('organization_id', db.scope.organizationId).first();
  }

  async keepRecords(tx: Scoped, records: readonly CheckedRecord[]): Promise<void> {
    await this.keep(tx, { checked_at: new Date(), records: JSON.stringify(records) });
  }

  /** A mail is on its way through: what was known of the one before is not of it. */
  async keepThrough(tx: Scoped, key: string, fault: string | null): Promise<void> {
    await this.keep(tx, {
      ...{ through_key: key, through_at: new Date(), through_fault: fault?.slice(0, 300) ?? null },
      ...{ back_at: null, back_signatures: null, back_tls: null },
    });
  }

  /** Only of the newest one, and once. */
  async keepBack(
    tx: Scoped,
    key: string,
    signatures: readonly SeenSignature[],
    tls: boolean | null,
  ): Promise<void> {
    await tx.execute(
      `UPDATE sender_check
        SET back_at = UTC_TIMESTAMP(3), back_signatures = :signatures, back_tls = :tls
        WHERE organization_id = :org AND through_key = :key AND back_at IS NULL`,
      { key, signatures: JSON.stringify(signatures), tls: tls === null ? null : Number(tls) },
    );
  }

  /** Organizations whose records nobody has looked for within a day. */
  async due(database: Database): Promise<number[]> {
    const rows = await database
      .unscoped()('organization as o')
      .leftJoin('sender_check as c', 'c.organization_id', 'o.id')
      .where('o.from_email', '<>', '')
      .where((asked) =>
        asked.whereNull('c.checked_at').orWhereRaw('c.checked_at < UTC_TIMESTAMP(3) - INTERVAL 1 DAY'),
      )
      .limit(20)
      .select<{ id: number }[]>('o.id');
    return rows.map(({ id }) => id);
  }

  /** People who were reached in the last 30 days, and who of them complained. */
  async complaints(db: Scoped): Promise<{ reached: number; complained: number }> {
    const [row] = await db.sql<{ reached: number; complained: number }>(
      `SELECT COUNT(DISTINCT CASE WHEN e.kind = 'sent' THEN e.delivery_id END) AS reached,
          COUNT(DISTINCT CASE WHEN e.kind = 'complained' THEN e.delivery_id END) AS complained
        FROM delivery_event e
        JOIN message m ON m.id = e.message_id AND m.channel = 'email'
        WHERE e.organization_id = :org AND e.kind IN ('sent', 'complained')
          AND e.at > UTC_TIMESTAMP(3) - INTERVAL 30 DAY`,
    );
    return { reached: Number(row?.reached ?? 0), complained: Number(row?.complained ?? 0) };
  }

  async keepLimits(tx: Scoped, limits: MailLimits | null): Promise<void> {
    await rowsOf(tx.knex, 'organization')
      .where('id', tx.scope.organizationId)
      .update({ mail_limits: limits === null ? null : (JSON.stringify(limits) as never) });
  }

  async keepNumber(tx: Scoped, number: TextNumber | null): Promise<void> {
    await rowsOf(tx.knex, 'organization')
      .where('id', tx.scope.organizationId)
      .update({ text_number: number === null ? null : (JSON.stringify(number) as never) });
  }

  private async keep(tx: Scoped, values: object): Promise<void> {
    await rowsOf(tx.knex, 'sender_check')
      .insert({ organization_id: tx.scope.organizationId, ...values } as never)
      .onConflict('organization_id')
      .merge(Object.keys(values) as never);
  }
}
