import { Inject, Injectable } from '@nestjs/common';
import { HoldsRepository } from '../../permission/holds.repository';
import { LedgerRepository } from '../../permission/ledger/ledger.repository';
import { keptAtSql, saidBesidesSql } from '../../permission/ledger/state.sql';
import type { Scoped } from '../../platform/scoped';
import { OWN_COLUMNS } from '../bringing-in/bring-in.repository';

type Of = { batchId: number };

/**
 * How what a batch has in a table is cut: by what key, and the condition of one span as a statement names it.
 */
interface SpanBy {
  table: string;
  key: string;
  within: string;
}

const spanBy = (table: string, key: string, alias: string): SpanBy => ({
  table,
  key,
  within: `${alias}.batch_id = :batchId AND ${alias}.${key} > :from AND ${alias}.${key} <= :to`,
});

const ROWS = spanBy('batch_row', 'row_no', 'r');

const BEFORE = spanBy('batch_before', 'supporter_id', 'b');

const LINKS = spanBy('supporter_contact', 'supporter_id', 't');

const ADDRESSES = spanBy('contact_point', 'id', 'cp');

/** Rows of people whom the batch made, and who may go. */
const GOES = `r.organization_id = :org AND r.batch_id = :batchId AND r.verdict IN ('new', 'shares')
    AND r.stays = 0 AND r.supporter_id > 0`;

/**
 * What hangs on a person, each table with the index that finds it by person: an index that begins with the
 * organization finds everybody.
 */
const OF_PERSON = [
  ['supporter_contact', 'PRIMARY'],
  ['supporter_tag', 'PRIMARY'],
  ['supporter_list', 'PRIMARY'],
  ['roster', 'by_supporter'],
  ['field_value', 'PRIMARY'],
] as const;

/**
 * Rows that one statement goes through: none of them takes long, and whoever waits for one waits for a
 * moment.
 */
const SPAN = 20_000;

/**
 * What can have happened to a person since: a message, a reply, a gift of another source, an edit, an act of
 * their own, another batch.
 */
const HAPPENED = `EXISTS (SELECT 1 FROM delivery d
  WHERE d.organization_id = :org AND d.supporter_id = r.supporter_id
  AND d.state IN ('leased', 'in-flight', 'sent', 'delivered', 'bounced', 'unsure'))
  OR EXISTS (SELECT 1 FROM reply p WHERE p.organization_id = :org AND p.supporter_id = r.supporter_id)
  OR EXISTS (SELECT 1 FROM gift g
  WHERE g.organization_id = :org AND g.supporter_id = r.supporter_id AND NOT (g.batch_id <=> r.batch_id))
  OR EXISTS (SELECT 1 FROM audit a
  WHERE a.organization_id = :org AND a.subject = 'supporter' AND a.subject_id = r.supporter_id)
  OR ${saidBesidesSql('r.supporter_id', 'r.batch_id')}
  OR EXISTS (SELECT 1 FROM batch_row o FORCE INDEX (by_supporter)
  WHERE o.organization_id = :org AND o.supporter_id = r.supporter_id AND o.batch_id <> r.batch_id
  AND o.verdict IN ('update', 'same', 'gift'))`;

/**
 * Takes a whole batch back out in one transaction, which is to read what is committed: reading as of its
 * begin, the server locks what was looked at to find out who may go, and nobody in the house writes an audit,
 * a gift or a reply until the end. Its people are held instead, and nobody else waits.
 */
@Injectable()
export class TakeOutRepository {
  constructor(
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(HoldsRepository) private readonly holds: HoldsRepository,
  ) {}

  /**
   * Returns how many of the people whom the batch made have to stay; `tell` hears of each step before it is
   * done. Joins say their order and their index: from the rows of the batch to what hangs on them. Left to
   * the optimizer, the first large batch of a fresh database is joined by what was known of tables that were
   * empty, and runs for an hour.
   */
  async takeOut(
    tx: Scoped,
    batchId: number,
    tell: (done: number, total: number) => Promise<void>,
  ): Promise<number> {
    const of = { batchId };
    let stayed = 0;
    const ofBatch = (table: string) => async () => {
      while (
        (await tx.execute(
          `DELETE FROM ${table} WHERE organization_id = :org AND batch_id = :batchId LIMIT ${SPAN}`,
          of,
        )) === SPAN
      );
    };
    const steps: (() => Promise<unknown>)[] = [
      () => this.holdPeople(tx, of),
      async () => (stayed = await this.markStaying(tx, of)),
      ofBatch('gift'),
      () => this.restoreValues(tx, of),
      () => this.restoreOwn(tx, of),
      ofBatch('supporter_tag'),
      ofBatch('supporter_list'),
      () => this.restoreRosters(tx, of),
      () => this.holds.releaseOfBatch(tx, of.batchId),
      () =>
        tx.execute(
          `UPDATE confirmation
            SET state = 'dropped', due_at = NULL
            WHERE organization_id = :org AND batch_id = :batchId AND state IN ('waiting', 'sent')`,
          of,
        ),
      () => this.ledger.keepRefusalsOf(tx, batchId, `SELECT r.supporter_id FROM batch_row r WHERE ${GOES}`),
      () => this.ledger.takeBackBatch(tx, batchId),
      () => this.removePeople(tx, of),
      () => this.removeAddresses(tx, of),
      () => this.removeNewThings(tx, of),
      () =>
        this.inSpans(
          tx,
          of,
          ROWS,
          `UPDATE batch_row r
            SET r.supporter_id = 0
            WHERE r.organization_id = :org AND ${ROWS.within} AND r.stays = 0`,
        ),
    ];
    for (const [i, step] of steps.entries()) {
      await tell(i, steps.length);
      await step();
    }
    return stayed;
  }

  /** How many would have to stay, without taking anything out. */
  async countStaying(db: Scoped, batchId: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n FROM batch_row r WHERE ${GOES.replace('r.stays = 0 AND ', '')} AND (${HAPPENED})`,
      { batchId },
    );
    return row?.n ?? 0;
  }

  /**
   * Whoever edits one of these people, or puts something on them, waits until it is known whether they stay.
   */
  private async holdPeople(tx: Scoped, of: Of): Promise<void> {
    for await (const span of this.spans(tx, of, ROWS))
      await tx.sql(
        `SELECT COUNT(*) AS n
          FROM batch_row r
          STRAIGHT_JOIN supporter s FORCE INDEX (PRIMARY) ON s.id = r.supporter_id AND s.batch_id = r.batch_id
          WHERE ${GOES.replace('r.stays = 0 AND ', '')} AND ${ROWS.within} FOR UPDATE`,
        { ...of, ...span },
      );
  }

  private async markStaying(tx: Scoped, of: Of): Promise<number> {
    await tx.execute(
      'UPDATE batch_row SET stays = 0 WHERE organization_id = :org AND batch_id = :batchId AND stays = 1',
      of,
    );
    return this.where(
      tx,
      of,
      ROWS,
      `SELECT r.row_no AS k FROM batch_row r WHERE ${GOES} AND ${ROWS.within} AND (${HAPPENED})`,
      `UPDATE batch_row
        SET stays = 1
        WHERE organization_id = :org AND batch_id = :batchId AND row_no IN (:keys)`,
    );
  }

  /** Runs a statement over one span after the other; returns how many rows it changed in all. */
  private async inSpans(tx: Scoped, of: Of, by: SpanBy, statement: string): Promise<number> {
    let changed = 0;
    for await (const span of this.spans(tx, of, by))
      changed += await tx.execute(statement, { ...of, ...span });
    return changed;
  }

  /**
   * Changes what a question found, span by span; returns how many. Asked in the statement itself, a condition
   * on other tables locks in them whatever it looked at, and whoever sends or edits waits for the end of all
   * this.
   */
  private async where(tx: Scoped, of: Of, by: SpanBy, question: string, statement: string): Promise<number> {
    let changed = 0;
    for await (const span of this.spans(tx, of, by)) {
      const keys = (await tx.sql<{ k: number }>(question, { ...of, ...span })).map(({ k }) => k);
      if (keys.length > 0) changed += await tx.execute(statement, { ...of, keys });
    }
    return changed;
  }

  /** What a batch has in a table, by its key, so many rows at a time: those after `from` up to `to`. */
  private async *spans(
    tx: Scoped,
    of: Of,
    { table, key }: SpanBy,
  ): AsyncGenerator<{ from: number; to: number }> {
    for (let from = -1; ;) {
      const [row] = await tx.sql<{ last: number | null }>(
        `SELECT MAX(x.k) AS last
          FROM (SELECT ${key} AS k FROM ${table}
            WHERE organization_id = :org AND batch_id = :batchId AND ${key} > :from
          ORDER BY ${key} LIMIT ${SPAN}) x`,
        { ...of, from },
      );
      const to = row?.last ?? null;
      if (to === null) return;
      yield { from, to };
      from = to;
    }
  }

  /** Only a value that is still as the batch left it goes back to what it was: a later edit stays. */
  private async restoreValues(tx: Scoped, of: Of): Promise<void> {
    const still = `FROM batch_before b
      STRAIGHT_JOIN batch_row r FORCE INDEX (by_supporter) ON r.organization_id = b.organization_id
        AND r.batch_id = b.batch_id AND r.supporter_id = b.supporter_id
      STRAIGHT_JOIN batch_value v FORCE INDEX (PRIMARY) ON v.organization_id = b.organization_id
      AND v.batch_id = b.batch_id AND v.row_no = r.row_no AND v.field_id = b.field_id
      STRAIGHT_JOIN field_value f FORCE INDEX (PRIMARY) ON f.organization_id = b.organization_id
      AND f.supporter_id = b.supporter_id AND f.field_id = b.field_id
        AND f.text_value <=> v.text_value AND f.number_value <=> v.number_value
        AND f.date_value <=> v.date_value AND f.month_day <=> v.month_day
      WHERE b.organization_id = :org AND ${BEFORE.within}`;
    const restore = still.replace('FROM ', 'UPDATE ').replace(
      'WHERE',
      `SET f.text_value = b.text_value, f.number_value = b.number_value, f.date_value = b.date_value,
            f.month_day = b.month_day
          WHERE`,
    );
    await this.inSpans(tx, of, BEFORE, `${restore} AND b.existed = 1`);
    await this.inSpans(tx, of, BEFORE, `DELETE f ${still} AND b.existed = 0`);
  }

  private async restoreOwn(tx: Scoped, of: Of): Promise<void> {
    for (const [column, key] of OWN_COLUMNS) {
      const before = key < -2 ? "NULLIF(b.text_value, '')" : 'b.text_value';
      await this.inSpans(
        tx,
        of,
        BEFORE,
        `UPDATE batch_before b
          STRAIGHT_JOIN batch_row r FORCE INDEX (by_supporter) ON r.organization_id = b.organization_id
            AND r.batch_id = b.batch_id AND r.supporter_id = b.supporter_id
          STRAIGHT_JOIN supporter s FORCE INDEX (PRIMARY) ON s.id = b.supporter_id
            AND BINARY s.${column} = BINARY r.${column}
          SET s.${column} = ${before}
          WHERE b.organization_id = :org AND ${BEFORE.within} AND b.field_id = ${key}`,
      );
    }
  }

  private async restoreRosters(tx: Scoped, of: Of): Promise<void> {
    await tx.execute('DELETE FROM roster WHERE organization_id = :org AND batch_id = :batchId', of);
    await tx.execute(
      `UPDATE roster o
        JOIN batch_roster_before b ON b.supporter_id = o.supporter_id AND b.batch_id = :batchId
        JOIN batch t ON t.id = b.batch_id
        AND o.campaign_id = CAST(JSON_VALUE(t.plan, '$.roster.campaignId') AS UNSIGNED)
        SET o.stage = b.stage
        WHERE o.organization_id = :org`,
      of,
    );
  }

  /**
   * Joins, not IN: the delete of a subquery would read the whole table once for each person. And joins that
   * name the organization, since rows are found by person through an index that begins with it.
   */
  private async removePeople(tx: Scoped, of: Of): Promise<void> {
    await this.inSpans(
      tx,
      of,
      LINKS,
      `DELETE t
        FROM supporter_contact t FORCE INDEX (PRIMARY)
        LEFT JOIN batch_row r FORCE INDEX (by_supporter) ON r.organization_id = t.organization_id
          AND r.batch_id = t.batch_id AND r.supporter_id = t.supporter_id AND r.stays = 1
        WHERE t.organization_id = :org AND ${LINKS.within} AND r.row_no IS NULL`,
    );
    for (const [table, byPerson] of OF_PERSON)
      await this.inSpans(
        tx,
        of,
        ROWS,
        `DELETE t
          FROM batch_row r
          STRAIGHT_JOIN ${table} t FORCE INDEX (${byPerson}) ON t.organization_id = r.organization_id
            AND t.supporter_id = r.supporter_id
          WHERE ${GOES} AND ${ROWS.within}`,
      );
    await this.inSpans(
      tx,
      of,
      ROWS,
      `DELETE s
        FROM batch_row r
        STRAIGHT_JOIN supporter s FORCE INDEX (PRIMARY) ON s.id = r.supporter_id AND s.batch_id = r.batch_id
        WHERE ${GOES} AND ${ROWS.within}`,
    );
  }

  /** Addresses that only this batch knew go, unless somebody said no there: a no is never forgotten. */
  private async removeAddresses(tx: Scoped, of: Of): Promise<void> {
    await this.where(
      tx,
      of,
      ADDRESSES,
      `SELECT cp.id AS k FROM contact_point cp WHERE cp.organization_id = :org AND ${ADDRESSES.within}
        AND NOT EXISTS (SELECT 1 FROM supporter_contact sc WHERE sc.contact_point_id = cp.id)
        AND NOT EXISTS (SELECT 1 FROM delivery d
        WHERE d.organization_id = :org AND d.contact_point_id = cp.id)
        AND NOT ${keptAtSql('cp.id', ':batchId')}`,
      'DELETE FROM contact_point WHERE organization_id = :org AND batch_id = :batchId AND id IN (:keys)',
    );
  }

  private async removeNewThings(tx: Scoped, of: Of): Promise<void> {
    const unused: [string, string][] = [
      ['tag', 'supporter_tag'],
      ['list', 'supporter_list'],
      ['field', 'field_value'],
    ];
    for (const [table, members] of unused) {
      const rows = await tx.sql<{ id: number }>(
        `SELECT g.id FROM \`${table}\` g WHERE g.organization_id = :org AND g.batch_id = :batchId
          AND NOT EXISTS (SELECT 1 FROM ${members} m WHERE m.organization_id = :org AND m.${table}_id = g.id)
          ${table === 'list' ? 'AND NOT EXISTS (SELECT 1 FROM message m WHERE m.list_id = g.id)' : ''}`,
        of,
      );
      const ids = rows.map(({ id }) => id);
      if (ids.length > 0)
        await tx.execute(
          `DELETE FROM \`${table}\` WHERE organization_id = :org AND batch_id = :batchId AND id IN (:ids)`,
          { ...of, ids },
        );
    }
  }
}
