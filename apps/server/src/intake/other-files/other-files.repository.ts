import { Inject, Injectable } from '@nestjs/common';
import { channelsOf, type AddressKind } from '@goodword/core/permission';
import { HoldsRepository } from '../../permission/holds.repository';
import type { NewEntry } from '../../permission/ledger/entries';
import { LedgerRepository } from '../../permission/ledger/ledger.repository';
import type { Bound, Scoped } from '../../platform/scoped';
import type { BatchRow } from '../batches.repository';
import { ROWS, type RowSlice } from '../bringing-in/row-addresses.repository';
import { EntriesRepository } from '../../permission/ledger/entries.repository';

/** An address that refused and is not here. */
export interface UnknownAddress {
  kind: 'email' | 'mobile';
  normal: string;
}

const DAY_MS = 86_400_000;

/**
 * What files of refusals and of gifts write, a slice in one transaction, each step repeatable. Owns
 * `batch_hold`.
 */
@Injectable()
export class OtherFilesRepository {
  constructor(
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(HoldsRepository) private readonly holds: HoldsRepository,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
  ) {}

  /**
   * Every address that is here gets a no (left, complained) or a hold (bounced, complained). Returns those
   * that are not here, which belong on do-not-contact.
   */
  async refuse(
    tx: Scoped,
    batch: BatchRow,
    slice: RowSlice,
    refusal: string | null,
  ): Promise<UnknownAddress[]> {
    const status = `COALESCE((SELECT m.value FROM batch_more m
        WHERE m.batch_id = r.batch_id AND m.row_no = r.row_no AND m.kind = 'status'), :refusal)`;
    const bindings = { ...slice, refusal, source: batch.file_name };
    const unknown: UnknownAddress[] = [];
    for (const kind of ['email', 'mobile'] as const) {
      const rows = `batch_row r WHERE ${ROWS} AND r.verdict IN ('no', 'hold')`;
      const addresses = `SELECT r.batch_id, r.row_no, r.${kind} AS normal, ${status} AS status
        FROM ${rows} AND r.${kind} IS NOT NULL
        UNION ALL
        SELECT r.batch_id, r.row_no, m.normal, ${status}
        FROM batch_more m
        JOIN batch_row r ON r.batch_id = m.batch_id AND r.row_no = m.row_no
        WHERE ${ROWS} AND r.verdict IN ('no', 'hold') AND m.kind = '${kind}'`;
      const points = `(${addresses}) a
        JOIN contact_point cp ON cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = a.normal`;
      await this.close(tx, batch, points, kind, bindings);
      await tx.execute(
        `INSERT IGNORE INTO batch_hold (organization_id, batch_id, contact_point_id)
          SELECT DISTINCT :org, a.batch_id, cp.id
          FROM ${points}
          WHERE a.status IN ('bounced', 'complained')`,
        bindings,
      );
      await this.holds.holdOfBatch(
        tx,
        batch.id,
        kind,
        `Bounced or complained in another system: ${batch.file_name}`,
      );
      const away = await tx.sql<{ normal: string }>(
        `SELECT DISTINCT a.normal FROM (${addresses}) a WHERE a.status IS NOT NULL AND NOT EXISTS
          (SELECT 1 FROM contact_point cp
          WHERE cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = a.normal)`,
        bindings,
      );
      for (const { id } of await tx.sql<{ id: number }>(`SELECT DISTINCT cp.id FROM ${points}`, bindings))
        tx.reached.add(id);
      unknown.push(...away.map(({ normal }) => ({ kind, normal })));
    }
    return unknown;
  }

  /**
   * Said through the address: it is closed for whoever shares it, and each of them wherever they can be
   * reached.
   */
  private async close(
    tx: Scoped,
    batch: BatchRow,
    points: string,
    kind: AddressKind,
    bindings: Record<string, Bound>,
  ): Promise<void> {
    const channel = kind === 'email' ? 'email' : 'text';
    const rows = await tx.sql<{
      rowNo: number;
      contactPointId: number;
      supporterId: number | null;
      status: string;
      signed: string | null;
    }>(
      `SELECT a.row_no AS rowNo, cp.id AS contactPointId, sc.supporter_id AS supporterId, a.status,
          sg.value AS signed
        FROM ${points}
        LEFT JOIN supporter_contact sc ON sc.organization_id = :org AND sc.contact_point_id = cp.id
        LEFT JOIN batch_more sg ON sg.batch_id = a.batch_id AND sg.row_no = a.row_no AND sg.kind = 'signed'
        WHERE a.status IN ('left', 'complained') ORDER BY a.row_no, cp.id, sc.supporter_id`,
      bindings,
    );
    const known = await this.entries.saidAt(
      tx,
      rows.map((row) => row.contactPointId),
      channel,
    );
    const entries = rows.map((row): NewEntry => ({
      contactPointId: row.contactPointId,
      supporterId: row.supporterId,
      channel,
      scope: 'all',
      state: 'no',
      saidAt: row.signed ? new Date(`${row.signed}T12:00:00Z`) : batch.created_at,
      byPerson: false,
      how: row.status === 'complained' ? 'complaint' : 'file',
      words: `Carried over from another system: ${row.status}`,
      source: `${batch.file_name}, row ${row.rowNo}`,
      recordedBy: batch.created_by,
      batch: { id: batch.id, row: row.rowNo },
    }));
    // The same file once more says nothing new.
    const isKnown = (entry: NewEntry) =>
      known.some(
        (one) =>
          one.contactPointId === entry.contactPointId &&
          one.supporterId === entry.supporterId &&
          one.scope === 'all' &&
          one.state === 'no' &&
          one.how === entry.how &&
          one.words === entry.words &&
          one.saidAt === entry.saidAt.getTime(),
      );
    await this.ledger.recordAll(
      tx,
      entries.filter((entry) => !isKnown(entry)),
    );
  }

  /**
   * Gifts of the rows, and the relationship that each gift makes; one with an own id that is here already is
   * left.
   */
  async give(tx: Scoped, batch: BatchRow, slice: RowSlice, currency: string): Promise<void> {
    const bindings = { ...slice, currency, source: batch.file_name };
    await tx.execute(
      `INSERT IGNORE INTO gift
        (organization_id, supporter_id, amount, currency, given_on, own_id, appeal, recurring, recorded_by,
        batch_id, batch_row)
        SELECT :org, r.supporter_id, g.amount, COALESCE(NULLIF(g.currency, ''), :currency), g.given_on,
        g.own_id, g.appeal, g.recurring, b.created_by, r.batch_id, r.row_no
        FROM batch_row r
        JOIN batch_gift g ON g.batch_id = r.batch_id AND g.row_no = r.row_no
        JOIN batch b ON b.id = r.batch_id
        WHERE ${ROWS} AND r.supporter_id > 0 AND r.verdict IN ('gift', 'new', 'shares')
          AND NOT EXISTS (SELECT 1 FROM gift o
          WHERE o.organization_id = :org AND o.batch_id = r.batch_id AND o.batch_row = r.row_no)`,
      bindings,
    );
    await this.relate(tx, batch, slice);
  }

  /** The relationship that each gift makes, at every address that it can count for. */
  private async relate(tx: Scoped, batch: BatchRow, slice: RowSlice): Promise<void> {
    const rows = await tx.sql<{
      row: number;
      supporterId: number;
      day: number;
      recordedBy: number | null;
      id: number;
      kind: AddressKind;
    }>(
      `SELECT g.batch_row AS row, g.supporter_id AS supporterId, g.given_on AS day,
        g.recorded_by AS recordedBy, sc.contact_point_id AS id, sc.kind
        FROM gift g JOIN supporter_contact sc ON sc.supporter_id = g.supporter_id
        WHERE g.organization_id = :org AND g.batch_id = :batchId AND g.batch_row BETWEEN :from AND :to
        AND g.amount > 0
        ORDER BY g.batch_row, sc.contact_point_id`,
      slice,
    );
    const there = await this.entries.rowsOf(tx, slice);
    const entries = rows.flatMap(({ row, supporterId, day, recordedBy, id, kind }) =>
      channelsOf(kind)
        .filter((channel) => channel !== 'text' && !there.has(`${row}:${id}:${channel}`))
        .map((channel): NewEntry => ({
          contactPointId: id,
          supporterId,
          channel,
          scope: 'marketing',
          state: 'implied',
          saidAt: new Date(day * DAY_MS + DAY_MS / 2),
          byPerson: false,
          how: 'gift',
          words: 'A gift',
          source: `${batch.file_name}, row ${row}`,
          recordedBy,
          batch: { id: batch.id, row },
        })),
    );
    await this.ledger.recordAll(tx, entries);
  }

  /**
   * Rows whose gift is here already: the same own id, here or earlier in the file; without one, the same
   * person, day and amount.
   */
  async markDoubled(tx: Scoped, batchId: number, currency: string): Promise<void> {
    const set = (reason: string) => `SET r.verdict = 'doubled', r.reason = ${reason}`;
    const mine =
      "r.organization_id = :org AND r.batch_id = :batchId AND r.verdict IN ('gift', 'new', 'shares')";
    const join = 'batch_row r JOIN batch_gift g ON g.batch_id = r.batch_id AND g.row_no = r.row_no';
    await tx.execute(
      `UPDATE ${join}
        JOIN gift o ON o.organization_id = :org
          AND o.own_id = g.own_id ${set("CONCAT('a gift with the own id ', g.own_id, ' is here already')")}
        WHERE ${mine}`,
      { batchId },
    );
    await tx.execute(
      `UPDATE ${join}
        JOIN (SELECT own_id, MIN(row_no) AS first FROM batch_gift
          WHERE organization_id = :org AND batch_id = :batchId AND own_id IS NOT NULL GROUP BY own_id
          HAVING COUNT(*) > 1) f
        ON f.own_id = g.own_id
          AND f.first < g.row_no ${set("CONCAT('row ', f.first, ' has the same own id ', g.own_id)")}
        WHERE ${mine}`,
      { batchId },
    );
    await tx.execute(
      `UPDATE ${join}
        JOIN gift o ON o.organization_id = :org AND o.supporter_id = r.supporter_id
          AND o.given_on = g.given_on AND o.amount = g.amount
          AND COALESCE(o.currency, :currency) = COALESCE(NULLIF(g.currency, ''), :currency)
        ${set("'the same person gave the same amount on the same day already; an own id would tell the two apart'")}
        WHERE ${mine} AND r.supporter_id > 0 AND g.own_id IS NULL`,
      { batchId, currency },
    );
  }
}
