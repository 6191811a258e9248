import { Injectable } from '@nestjs/common';
import type { ChannelPermission, IntakePlan } from '@goodword/core/intake';
import { LedgerRepository } from '../permission/ledger.repository';
import type { Scoped } from '../platform/database';
import type { BatchRow, Resolved } from './batches.repository';

/** Rows `from` to `to`, both included, of one batch. */
interface Slice extends Record<string, number> {
  batchId: number;
  from: number;
  to: number;
}

const ROWS = 'r.organization_id = :org AND r.batch_id = :batchId AND r.row_no BETWEEN :from AND :to';
const COMES = `${ROWS} AND r.supporter_id IS NOT NULL AND r.verdict IN ('new', 'shares', 'update')`;

/**
 * Brings staged rows in, a slice in one transaction and every step one statement over the slice. Each step could be run
 * twice without another result, so a slice that was cut off is simply brought in again.
 */
@Injectable()
export class BringInRepository {
  constructor(private readonly ledger: LedgerRepository) {}

  async bringIn(tx: Scoped, batch: BatchRow, plan: IntakePlan, resolved: Resolved, from: number, to: number): Promise<void> {
    const slice = { batchId: batch.id, from, to };
    await this.makePeople(tx, slice, batch.chapter_id);
    await this.updateNames(tx, slice);
    await this.addresses(tx, slice, 'email');
    await this.addresses(tx, slice, 'mobile');
    await this.values(tx, slice);
    await this.groups(tx, slice, resolved);
    await this.permission(tx, slice, 'email', plan.permission.email, batch);
    await this.permission(tx, slice, 'text', plan.permission.text, batch);
    await this.ledger.fold(tx, 'batch_id = :batchId AND batch_row BETWEEN :from AND :to', slice);
  }

  /** Staged values of fields that did not exist yet get the ids that these have now. */
  async resolveValues(tx: Scoped, batchId: number, fields: Record<number, number>): Promise<void> {
    for (const [column, fieldId] of Object.entries(fields)) {
      await tx.execute(
        'UPDATE batch_value SET field_id = :fieldId WHERE organization_id = :org AND batch_id = :batchId AND field_id = :placeholder',
        {
          batchId,
          fieldId,
          placeholder: -(Number(column) + 1),
        },
      );
    }
  }

  private async makePeople(tx: Scoped, slice: Slice, chapterId: number): Promise<void> {
    await tx.execute(
      `INSERT IGNORE INTO supporter (organization_id, chapter_id, first_name, last_name, country, batch_id, batch_row)
        SELECT :org, :chapterId, r.first_name, r.last_name, r.country, r.batch_id, r.row_no FROM batch_row r WHERE ${ROWS} AND r.verdict IN ('new', 'shares')`,
      { ...slice, chapterId },
    );
    await tx.execute(
      `UPDATE batch_row r JOIN supporter s ON s.batch_id = r.batch_id AND s.batch_row = r.row_no SET r.supporter_id = s.id WHERE ${ROWS} AND r.verdict IN ('new', 'shares')`,
      slice,
    );
    await tx.execute(
      `UPDATE batch_row r JOIN batch_row o ON o.batch_id = r.batch_id AND o.row_no = r.same_as_row SET r.supporter_id = o.supporter_id WHERE ${ROWS} AND r.same_as_row IS NOT NULL`,
      slice,
    );
  }

  /** A name that is there replaces; what stood before is kept under -1 (first) and -2 (last). */
  private async updateNames(tx: Scoped, slice: Slice): Promise<void> {
    for (const [column, key] of [
      ['first_name', -1],
      ['last_name', -2],
    ] as const) {
      const differs = `r.verdict = 'update' AND r.same_as_row IS NULL AND r.${column} <> '' AND BINARY s.${column} <> BINARY r.${column}`;
      await tx.execute(
        `INSERT IGNORE INTO batch_before (organization_id, batch_id, supporter_id, field_id, existed, text_value)
          SELECT :org, r.batch_id, s.id, ${key}, 1, s.${column} FROM batch_row r JOIN supporter s ON s.id = r.supporter_id WHERE ${ROWS} AND ${differs}`,
        slice,
      );
      await tx.execute(
        `UPDATE batch_row r JOIN supporter s ON s.id = r.supporter_id SET s.${column} = r.${column}, s.updated_at = UTC_TIMESTAMP(3) WHERE ${ROWS} AND ${differs}`,
        slice,
      );
    }
  }

  private async addresses(tx: Scoped, slice: Slice, kind: 'email' | 'mobile'): Promise<void> {
    await tx.execute(
      `INSERT IGNORE INTO contact_point (organization_id, kind, normal, shown, batch_id)
        SELECT :org, '${kind}', r.${kind}, MIN(r.${kind}_shown), r.batch_id FROM batch_row r WHERE ${COMES} AND r.${kind} IS NOT NULL GROUP BY r.${kind}, r.batch_id`,
      slice,
    );
    await tx.execute(
      `INSERT IGNORE INTO supporter_contact (organization_id, supporter_id, contact_point_id, position, batch_id)
        SELECT :org, r.supporter_id, cp.id, IF(r.verdict = 'update', 1, 0), r.batch_id FROM batch_row r
        JOIN contact_point cp ON cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = r.${kind} WHERE ${COMES}`,
      slice,
    );
  }

  private async values(tx: Scoped, slice: Slice): Promise<void> {
    const join = 'FROM batch_row r JOIN batch_value v ON v.batch_id = r.batch_id AND v.row_no = r.row_no';
    await tx.execute(
      `INSERT IGNORE INTO batch_before (organization_id, batch_id, supporter_id, field_id, existed, text_value, number_value, date_value, month_day)
        SELECT :org, r.batch_id, r.supporter_id, v.field_id, f.supporter_id IS NOT NULL, f.text_value, f.number_value, f.date_value, f.month_day ${join}
        LEFT JOIN field_value f ON f.supporter_id = r.supporter_id AND f.field_id = v.field_id WHERE ${COMES} AND r.verdict = 'update'`,
      slice,
    );
    await tx.execute(
      `INSERT INTO field_value (organization_id, supporter_id, field_id, text_value, number_value, date_value, month_day)
        SELECT :org, r.supporter_id, v.field_id, v.text_value, v.number_value, v.date_value, v.month_day ${join} WHERE ${COMES} ORDER BY r.row_no
        ON DUPLICATE KEY UPDATE text_value = VALUES(text_value), number_value = VALUES(number_value), date_value = VALUES(date_value), month_day = VALUES(month_day)`,
      slice,
    );
  }

  private async groups(tx: Scoped, slice: Slice, resolved: Resolved): Promise<void> {
    const put = (kind: 'tag' | 'list', groupId: number) =>
      tx.execute(
        `INSERT IGNORE INTO supporter_${kind} (organization_id, supporter_id, ${kind}_id, batch_id, added_by)
          SELECT :org, r.supporter_id, :groupId, r.batch_id, b.created_by FROM batch_row r JOIN batch b ON b.id = r.batch_id WHERE ${COMES}`,
        { ...slice, groupId },
      );
    for (const tagId of resolved.tagIds) await put('tag', tagId);
    if (resolved.listId !== null) await put('list', resolved.listId);
  }

  /** Entries of one channel: the yes that the plan vouches for, and every no that a consent column says. */
  private async permission(tx: Scoped, slice: Slice, channel: 'email' | 'text', said: ChannelPermission, batch: BatchRow): Promise<void> {
    const kind = channel === 'email' ? 'email' : 'mobile';
    const says = `r.${channel === 'email' ? 'email' : 'text'}_says`;
    const insert = (state: 'yes' | 'no', scope: string, when: string, facts: { at: Date; how: string; words: string }) =>
      tx.execute(
        `INSERT INTO permission_entry (organization_id, contact_point_id, supporter_id, channel, scope, state, said_at, by_person, how, words, source, batch_id, batch_row, recorded_by)
          SELECT :org, cp.id, r.supporter_id, :channel, :scope, :state, :at, 0, :how, :words, CONCAT(:source, ', row ', r.row_no), r.batch_id, r.row_no, b.created_by
          FROM batch_row r JOIN batch b ON b.id = r.batch_id JOIN contact_point cp ON cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = r.${kind}
          WHERE ${COMES} AND ${when}`,
        { ...slice, channel, scope, state, source: batch.file_name, ...facts },
      );
    const at = said.said === 'yes' ? new Date(`${said.on}T12:00:00Z`) : batch.created_at;
    const agreed = new Date(Math.min(at.getTime(), Date.now()));
    await insert('no', 'all', `${says} = 0`, { at: agreed, how: 'file', words: 'A consent column of the file says no' });
    if (said.said === 'nothing') return;
    const when = said.from === 'column' ? `${says} = 1` : `COALESCE(${says}, 1) = 1`;
    const words = `${said.words} (vouched for by ${said.voucher})`;
    for (const scope of said.scopes) await insert('yes', scope, when, { at: agreed, how: said.how, words });
  }
}
