import { Inject, Injectable } from '@nestjs/common';
import { readsRefusals, type IntakePlan } from '@goodword/core/intake';
import type { HouseRules } from '@goodword/core/permission';
import type { Scoped } from '../../platform/scoped';
import type { BatchContents } from '../checking/batch-contents';
import type { BatchRow, ResolvedPlan } from '../batches.repository';
import { RowPermissionRepository } from './row-permission.repository';
import { RowAddressesRepository } from './row-addresses.repository';
import { type RowSlice, ROWS, COMES, MORE_ADDRESSES, MORE } from './row-addresses.repository';

/** Columns of a supporter that a file may fill, each with the key under which its value before is kept. */
export const OWN_COLUMNS = [
  ['first_name', -1],
  ['last_name', -2],
  ['external_id', -3],
  ['postcode', -4],
  ['country', -5],
  ['region', -6],
] as const;

/**
 * Brings staged rows in, a slice in one transaction and every step one statement over the slice. Each step
 * could be run twice without another result, so a slice that was cut off is simply brought in again, and a
 * file that was brought in before changes nothing. Owns `batch_before`, `batch_roster_before`.
 */
@Injectable()
export class BringInRepository {
  constructor(
    @Inject(RowPermissionRepository) private readonly permission: RowPermissionRepository,
    @Inject(RowAddressesRepository) private readonly addresses: RowAddressesRepository,
  ) {}

  /**
   * The first half: the people themselves, and their addresses. May run ahead of the second half of the rows
   * before.
   */
  async bringPeople(
    tx: Scoped,
    batch: BatchRow,
    contents: BatchContents,
    within: { from: number; to: number },
  ): Promise<void> {
    const slice: RowSlice = { batchId: batch.id, from: within.from, to: within.to };
    const fills = contents.updates && batch.plan?.existing === 'fill';
    await this.makePeople(tx, slice, batch.chapter_id);
    if (fills) await this.keepOwn(tx, slice);
    if (contents.updates) await this.updateOwn(tx, slice);
    for (const kind of contents.own) await this.addresses.makeAddresses(tx, slice, kind);
    for (const kind of MORE_ADDRESSES)
      if (contents.more.has(kind)) await this.addresses.makeMoreAddresses(tx, slice, kind);
  }

  /** The second half: all that hangs on them. */
  async bringIn(
    tx: Scoped,
    batch: BatchRow,
    plan: IntakePlan,
    resolved: ResolvedPlan,
    contents: BatchContents,
    within: { from: number; to: number; rules: HouseRules },
  ): Promise<void> {
    const slice: RowSlice = { batchId: batch.id, from: within.from, to: within.to };
    if (plan.what !== 'here') {
      for (const kind of contents.own) await this.addresses.linkAddresses(tx, slice, kind);
      for (const kind of MORE_ADDRESSES)
        if (contents.more.has(kind)) await this.addresses.linkMoreAddresses(tx, slice, kind);
      if (contents.values && plan.existing === 'fill') await this.keepValues(tx, slice);
      if (contents.values) await this.values(tx, slice);
    }
    await this.groups(tx, slice, resolved, contents);
    if (plan.roster) await this.roster(tx, slice, plan.roster);
    if (readsRefusals(plan.what))
      await this.permission.write(tx, batch, plan, within, {
        rules: within.rules,
        now: Date.now(),
        contents,
      });
  }

  /** Whom these rows are about. */
  async peopleOf(db: Scoped, slice: RowSlice): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT r.supporter_id AS id
        FROM batch_row r FORCE INDEX (PRIMARY)
        WHERE ${ROWS} AND r.supporter_id > 0`,
      slice,
    );
    return [...new Set(rows.map(({ id }) => id))];
  }

  /** Staged values of fields that did not exist yet get the ids that these have now. */
  async resolveValues(tx: Scoped, batchId: number, fields: Record<number, number>): Promise<void> {
    for (const [column, fieldId] of Object.entries(fields)) {
      await tx.execute(
        `UPDATE IGNORE batch_value
          SET field_id = :fieldId
          WHERE organization_id = :org AND batch_id = :batchId AND field_id = :placeholder`,
        {
          batchId,
          fieldId,
          placeholder: -(Number(column) + 1),
        },
      );
    }
  }

  private async makePeople(tx: Scoped, slice: RowSlice, chapterId: number): Promise<void> {
    await tx.execute(
      `INSERT IGNORE INTO supporter
        (organization_id, chapter_id, first_name, last_name, country, region, external_id, postcode, batch_id,
        batch_row)
        SELECT :org, COALESCE(r.chapter_id, :chapterId), r.first_name, r.last_name, r.country, r.region,
          r.external_id, r.postcode, r.batch_id, r.row_no
        FROM batch_row r
        WHERE ${ROWS} AND r.verdict IN ('new', 'shares')`,
      { ...slice, chapterId },
    );
    await tx.execute(
      `UPDATE batch_row r
        JOIN supporter s ON s.batch_id = r.batch_id AND s.batch_row = r.row_no
        SET r.supporter_id = s.id
        WHERE ${ROWS} AND r.verdict IN ('new', 'shares')`,
      slice,
    );
    await tx.execute(
      `UPDATE batch_row r
        JOIN batch_row o ON o.batch_id = r.batch_id AND o.row_no = r.same_as_row
        SET r.supporter_id = o.supporter_id
        WHERE ${ROWS} AND r.same_as_row IS NOT NULL`,
      slice,
    );
  }

  /**
   * Of a batch that only fills what is empty, takes away from rows what they would replace: what is empty
   * never replaces. When the batch is checked, for what is told of it, and once more as each row comes in.
   */
  async keepWhatIsThere(tx: Scoped, slice: RowSlice): Promise<void> {
    await this.keepOwn(tx, slice);
    await this.keepValues(tx, slice);
  }

  private async keepOwn(tx: Scoped, slice: RowSlice): Promise<void> {
    const theirs = `batch_row r JOIN supporter s ON s.organization_id = :org AND s.id = r.supporter_id`;
    const updating = `${ROWS} AND r.verdict = 'update'`;
    // The region of another country fills nothing.
    await tx.execute(
      `UPDATE ${theirs}
        SET r.region = NULL
        WHERE ${updating} AND s.country IS NOT NULL AND r.country <> s.country`,
      slice,
    );
    for (const [column] of OWN_COLUMNS) {
      const none = column === 'first_name' || column === 'last_name' ? "''" : 'NULL';
      await tx.execute(
        `UPDATE ${theirs}
          SET r.${column} = ${none}
          WHERE ${updating} AND COALESCE(s.${column}, '') <> '' AND COALESCE(r.${column}, '') <> ''`,
        slice,
      );
    }
  }

  private async keepValues(tx: Scoped, slice: RowSlice): Promise<void> {
    await tx.execute(
      `DELETE v FROM batch_row r JOIN batch_value v ON v.batch_id = r.batch_id AND v.row_no = r.row_no
        JOIN field_value f ON f.supporter_id = r.supporter_id AND f.field_id = v.field_id
        WHERE ${ROWS} AND r.verdict = 'update'`,
      slice,
    );
  }

  /** What is there replaces, the last row of a person last; what stood before is kept. */
  private async updateOwn(tx: Scoped, slice: RowSlice): Promise<void> {
    const [some] = await tx.sql<{ n: number }>(
      `SELECT EXISTS (SELECT 1 FROM batch_row r WHERE ${ROWS} AND r.verdict = 'update') AS n`,
      slice,
    );
    if (some?.n !== 1) return;
    await this.settlePlaces(tx, slice);
    for (const [column, key] of OWN_COLUMNS) {
      const last = `(SELECT r.supporter_id, MAX(r.row_no) AS row_no FROM batch_row r
        WHERE ${ROWS} AND r.verdict = 'update' AND COALESCE(r.${column}, '') <> ''
        GROUP BY r.supporter_id) l`;
      const differs = `${last}
        JOIN batch_row r ON r.batch_id = :batchId AND r.row_no = l.row_no
        JOIN supporter s ON s.id = l.supporter_id AND NOT (BINARY s.${column} <=> BINARY r.${column})`;
      const kept = await tx.execute(
        `INSERT IGNORE INTO batch_before
          (organization_id, batch_id, supporter_id, field_id, existed, text_value)
          SELECT :org, r.batch_id, s.id, ${key}, 1, COALESCE(s.${column}, '') FROM ${differs}`,
        slice,
      );
      if (kept === 0 && !(await this.differsStill(tx, slice, differs))) continue;
      await tx.execute(
        `UPDATE ${differs}
          SET s.${column} = r.${column}, s.updated_at = UTC_TIMESTAMP(3)
          WHERE s.organization_id = :org`,
        slice,
      );
    }
  }

  /**
   * A place that only a telephone number tells fills what is not known. One that the row says itself
   * replaces, and where the person was before is kept: what began there needs the rule of that place too.
   */
  private async settlePlaces(tx: Scoped, slice: RowSlice): Promise<void> {
    const known = `batch_row r
      JOIN supporter s ON s.organization_id = :org AND s.id = r.supporter_id AND s.country IS NOT NULL`;
    await tx.execute(
      `UPDATE ${known}
        SET r.country = NULL, r.region = NULL
        WHERE ${ROWS} AND r.verdict = 'update' AND r.place_said = 0`,
      slice,
    );
    await tx.execute(
      `INSERT INTO place_before (organization_id, supporter_id, country, region)
        SELECT DISTINCT :org, s.id, s.country, s.region
        FROM ${known}
        WHERE ${ROWS} AND r.verdict = 'update' AND r.place_said = 1
          AND (s.country <> r.country OR (s.region IS NOT NULL AND NOT (s.region <=> r.region)))`,
      slice,
    );
    // Of another country, the region of before is none of its.
    await tx.execute(
      `UPDATE ${known}
        SET s.region = NULL
        WHERE ${ROWS} AND r.verdict = 'update' AND r.place_said = 1 AND s.country <> r.country
          AND r.region IS NULL`,
      slice,
    );
  }

  /** A person whose value before is kept from an earlier row may still have to be changed by a later one. */
  private async differsStill(tx: Scoped, slice: RowSlice, differs: string): Promise<boolean> {
    return (
      (await tx.sql(`SELECT 1 FROM ${differs} WHERE s.organization_id = :org LIMIT 1`, slice)).length > 0
    );
  }

  private async values(tx: Scoped, slice: RowSlice): Promise<void> {
    const join = 'FROM batch_row r JOIN batch_value v ON v.batch_id = r.batch_id AND v.row_no = r.row_no';
    await tx.execute(
      `INSERT IGNORE INTO batch_before
        (organization_id, batch_id, supporter_id, field_id, existed, text_value, number_value, date_value,
        month_day)
        SELECT
        STRAIGHT_JOIN :org, r.batch_id, r.supporter_id, v.field_id, f.supporter_id IS NOT NULL, f.text_value,
          f.number_value, f.date_value, f.month_day ${join}
        LEFT JOIN field_value f ON f.supporter_id = r.supporter_id AND f.field_id = v.field_id
        WHERE ${COMES} AND r.verdict = 'update'`,
      slice,
    );
    await tx.execute(
      `INSERT INTO field_value
        (organization_id, supporter_id, field_id, text_value, number_value, date_value, month_day)
        SELECT
        STRAIGHT_JOIN :org, r.supporter_id, v.field_id, v.text_value, v.number_value, v.date_value,
          v.month_day ${join}
        WHERE ${COMES}
        ORDER BY r.row_no
        ON DUPLICATE KEY UPDATE text_value = VALUES(text_value), number_value = VALUES(number_value),
        date_value = VALUES(date_value), month_day = VALUES(month_day)`,
      slice,
    );
  }

  private async groups(
    tx: Scoped,
    slice: RowSlice,
    resolved: ResolvedPlan,
    contents: BatchContents,
  ): Promise<void> {
    for (const kind of ['tag', 'list'] as const) {
      for (const groupId of kind === 'tag' ? resolved.tagIds : resolved.listIds) {
        await tx.execute(
          `INSERT IGNORE INTO supporter_${kind}
            (organization_id, supporter_id, ${kind}_id, batch_id, added_by)
            SELECT :org, r.supporter_id, k.id, r.batch_id, b.created_by
            FROM batch_row r
            JOIN batch b ON b.id = r.batch_id
            JOIN ${kind} k ON k.organization_id = :org AND k.id = :groupId
            WHERE ${COMES}`,
          { ...slice, groupId },
        );
      }
    }
    if (!contents.more.has('tag')) return;
    await tx.execute(
      `INSERT IGNORE INTO tag (organization_id, chapter_id, name, batch_id)
        SELECT DISTINCT :org, :chapter, m.value, r.batch_id
        FROM batch_row r ${MORE} AND m.kind = 'tag'
        WHERE ${COMES}`,
      slice,
    );
    await tx.execute(
      `INSERT IGNORE INTO supporter_tag (organization_id, supporter_id, tag_id, batch_id, added_by)
        SELECT :org, r.supporter_id, t.id, r.batch_id, b.created_by
        FROM batch_row r ${MORE} AND m.kind = 'tag'
        JOIN batch b ON b.id = r.batch_id
        JOIN tag t ON t.organization_id = :org AND t.name = m.value WHERE ${COMES}`,
      slice,
    );
  }

  /**
   * Onto the roster, with the stage of the row's own column or the one for all; where somebody stood before
   * is kept.
   */
  private async roster(
    tx: Scoped,
    slice: RowSlice,
    roster: { campaignId: number; stage: string },
  ): Promise<void> {
    const stage = `COALESCE((SELECT m.value FROM batch_more m
        WHERE m.batch_id = r.batch_id AND m.row_no = r.row_no AND m.kind = 'stage'), :stage)`;
    const bindings = { ...slice, ...roster };
    await tx.execute(
      `INSERT IGNORE INTO batch_roster_before (organization_id, batch_id, supporter_id, stage)
        SELECT :org, r.batch_id, o.supporter_id, o.stage
        FROM batch_row r
        JOIN roster o ON o.campaign_id = :campaignId AND o.supporter_id = r.supporter_id
        WHERE ${COMES} AND NOT (o.batch_id <=> r.batch_id)`,
      bindings,
    );
    await tx.execute(
      `INSERT INTO roster (organization_id, campaign_id, supporter_id, stage, batch_id, put_by)
        SELECT :org, :campaignId, r.supporter_id, ${stage}, r.batch_id, b.created_by
        FROM batch_row r
        JOIN batch b ON b.id = r.batch_id
        WHERE ${COMES}
        ORDER BY r.row_no
        ON DUPLICATE KEY UPDATE stage = VALUES(stage),
        put_at = IF(roster.stage = VALUES(stage), roster.put_at, UTC_TIMESTAMP(3))`,
      bindings,
    );
  }
}
