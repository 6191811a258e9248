import { Injectable } from '@nestjs/common';
import { LedgerRepository } from '../permission/ledger.repository';
import type { Scoped } from '../platform/database';

/** Takes a whole batch back out, in one transaction. */
@Injectable()
export class TakeOutRepository {
  constructor(private readonly ledger: LedgerRepository) {}

  /** How many messages went out on the batch's strength: to people it made, or resting on its entries. */
  async countSent(db: Scoped, batchId: number): Promise<number> {
    const gone = "d.state IN ('leased', 'handing', 'sent', 'delivered', 'bounced', 'unsure')";
    const [row] = await db.sql<{ n: number }>(
      `SELECT (SELECT COUNT(*) FROM delivery d JOIN supporter s ON s.id = d.supporter_id AND s.batch_id = :batchId WHERE d.organization_id = :org AND ${gone})
        + (SELECT COUNT(*) FROM delivery d JOIN permission_entry e ON e.id = d.entry_id AND e.batch_id = :batchId WHERE d.organization_id = :org AND ${gone}) AS n`,
      { batchId },
    );
    return Number(row?.n ?? 0);
  }

  async takeOut(tx: Scoped, batchId: number): Promise<void> {
    const of = { batchId };
    await this.restoreValues(tx, of);
    await this.restoreNames(tx, of);
    await tx.execute('DELETE FROM supporter_tag WHERE organization_id = :org AND batch_id = :batchId', of);
    await tx.execute('DELETE FROM supporter_list WHERE organization_id = :org AND batch_id = :batchId', of);
    await this.ledger.takeBackBatch(tx, batchId);
    await this.removePeople(tx, of);
    await this.removeAddresses(tx, of);
    await this.removeNewThings(tx, of);
    await tx.execute('UPDATE batch_row SET supporter_id = NULL WHERE organization_id = :org AND batch_id = :batchId', of);
  }

  /** Only a value that is still as the batch left it goes back to what it was: a later edit stays. */
  private async restoreValues(tx: Scoped, of: { batchId: number }): Promise<void> {
    const still = `FROM batch_before b JOIN batch_row r ON r.batch_id = b.batch_id AND r.supporter_id = b.supporter_id
      JOIN batch_value v ON v.batch_id = b.batch_id AND v.row_no = r.row_no AND v.field_id = b.field_id
      JOIN field_value f ON f.supporter_id = b.supporter_id AND f.field_id = b.field_id
        AND f.text_value <=> v.text_value AND f.number_value <=> v.number_value AND f.date_value <=> v.date_value AND f.month_day <=> v.month_day
      WHERE b.organization_id = :org AND b.batch_id = :batchId`;
    const restore = still
      .replace('FROM ', 'UPDATE ')
      .replace(
        'WHERE',
        'SET f.text_value = b.text_value, f.number_value = b.number_value, f.date_value = b.date_value, f.month_day = b.month_day WHERE',
      );
    await tx.execute(`${restore} AND b.existed = 1`, of);
    await tx.execute(`DELETE f ${still} AND b.existed = 0`, of);
  }

  private async restoreNames(tx: Scoped, of: { batchId: number }): Promise<void> {
    for (const [column, key] of [
      ['first_name', -1],
      ['last_name', -2],
    ] as const) {
      await tx.execute(
        `UPDATE batch_before b JOIN batch_row r ON r.batch_id = b.batch_id AND r.supporter_id = b.supporter_id JOIN supporter s ON s.id = b.supporter_id AND BINARY s.${column} = BINARY r.${column}
          SET s.${column} = b.text_value WHERE b.organization_id = :org AND b.batch_id = :batchId AND b.field_id = ${key}`,
        of,
      );
    }
  }

  /** Joins, not IN: the delete of a subquery would read the whole table once for each person. */
  private async removePeople(tx: Scoped, of: { batchId: number }): Promise<void> {
    const ungiven = 'NOT EXISTS (SELECT 1 FROM gift g WHERE g.supporter_id = t.supporter_id)';
    await tx.execute(`DELETE t FROM supporter_contact t WHERE t.organization_id = :org AND t.batch_id = :batchId AND ${ungiven}`, of);
    for (const table of ['supporter_contact', 'supporter_tag', 'supporter_list', 'field_value']) {
      await tx.execute(
        `DELETE t FROM supporter s JOIN ${table} t ON t.supporter_id = s.id WHERE s.organization_id = :org AND s.batch_id = :batchId AND ${ungiven}`,
        of,
      );
    }
    await tx.execute(
      'DELETE s FROM supporter s WHERE s.organization_id = :org AND s.batch_id = :batchId AND NOT EXISTS (SELECT 1 FROM gift g WHERE g.supporter_id = s.id)',
      of,
    );
  }

  /** Addresses that only this batch knew go, unless somebody said no there: a no is never forgotten. */
  private async removeAddresses(tx: Scoped, of: { batchId: number }): Promise<void> {
    await tx.execute(
      `DELETE cp FROM contact_point cp WHERE cp.organization_id = :org AND cp.batch_id = :batchId
        AND NOT EXISTS (SELECT 1 FROM supporter_contact sc WHERE sc.contact_point_id = cp.id)
        AND NOT EXISTS (SELECT 1 FROM permission_entry e WHERE e.organization_id = :org AND e.contact_point_id = cp.id AND e.state = 'no')`,
      of,
    );
  }

  private async removeNewThings(tx: Scoped, of: { batchId: number }): Promise<void> {
    const unused: [string, string][] = [
      ['tag', 'supporter_tag'],
      ['list', 'supporter_list'],
      ['field', 'field_value'],
    ];
    for (const [table, members] of unused) {
      await tx.execute(
        `DELETE g FROM \`${table}\` g WHERE g.organization_id = :org AND g.batch_id = :batchId AND NOT EXISTS (SELECT 1 FROM ${members} m WHERE m.${table}_id = g.id)
          ${table === 'list' ? 'AND NOT EXISTS (SELECT 1 FROM message m WHERE m.list_id = g.id)' : ''}`,
        of,
      );
    }
  }
}
