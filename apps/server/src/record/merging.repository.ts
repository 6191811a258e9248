import { Inject, Injectable } from '@nestjs/common';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import type { Bound, Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';
import { EntriesRepository } from '../permission/ledger/entries.repository';

/**
 * Things that happened to one person, each with an id of its own: they come over whole, and go back by their
 * ids.
 */
const FACTS = [
  'gift',
  'delivery',
  'delivery_event',
  'automation_visit',
  'reply',
  'evidence',
  'confirmation',
  'task',
  'note',
  'field_file',
] as const;

/** What a person is in or has, one row for each: they come over where the other record has no such row. */
const SETS = {
  supporter_contact: 'contact_point_id',
  supporter_tag: 'tag_id',
  supporter_list: 'list_id',
  roster: 'campaign_id',
  field_value: 'field_id',
} as const;
type SetTable = keyof typeof SETS;

type Row = Record<string, Bound>;

/** What both records were before, so that they can be parted again. */
export interface MergedWas {
  facts: Record<string, number[]>;
  /** Entries of the ledger that came over, and those that were written because one of the two was closed. */
  entries?: number[];
  closed?: number[];
  /** Where the one kept was before, as the merging wrote it down. */
  placeBefore?: number | null;
  batchRows: [batchId: number, rowNo: number][];
  /** Rows of the record that went. */
  rows: Record<SetTable, Row[]>;
  /** Keys that the one kept did not have before. */
  gained: Record<SetTable, number[]>;
  /** Values of the one kept that gave way, and what of its own row did. */
  gaveWay: Row[];
  own: { before: Row; after: Row };
  /** What the other row gave up: its own id is unique, and nobody lives with somebody who is not there. */
  gone: { externalId: Bound; householdId: number | null };
}

export interface MergingRow extends Pick<
  Tables['merging'],
  'id' | 'kept_id' | 'gone_id' | 'made_at' | 'undone_at'
> {
  was: MergedWas;
  name: string;
}

const OWN = ['first_name', 'last_name', 'country', 'region', 'language', 'external_id', 'postcode'] as const;
const MOMENTS = ['added_at', 'put_at'];
const VALUES = ['text_value', 'number_value', 'date_value', 'month_day'] as const;
const tables = Object.entries(SETS) as [SetTable, string][];

/** Bringing two records of one person together, and parting them again. Owns `merging`. */
@Injectable()
export class MergingRepository {
  constructor(
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
  ) {}

  async own(db: Scoped, id: number): Promise<Row & { created_at: Date; household_id: number | null }> {
    const [row] = await db.sql<Row & { created_at: Date; household_id: number | null }>(
      `SELECT ${OWN.join(', ')}, created_at, household_id
        FROM supporter
        WHERE organization_id = :org AND id = :id`,
      { id },
    );
    return row!;
  }

  /** Whole, as they are put back when the records are parted. */
  async rowsOf(db: Scoped, table: SetTable, id: number): Promise<Row[]> {
    return db.sql<Row>(`SELECT * FROM ${table} WHERE organization_id = :org AND supporter_id = :id`, { id });
  }

  /** Counts of what would come over. */
  async counts(db: Scoped, id: number): Promise<Record<string, number>> {
    const of = (table: string) =>
      `SELECT '${table}' AS what, COUNT(*) AS n
        FROM ${table}
        WHERE organization_id = :org AND supporter_id = :id`;
    const rows = await db.sql<{ what: string; n: number }>(
      [...FACTS, ...Object.keys(SETS)].map(of).join(' UNION ALL '),
      { id },
    );
    return {
      ...Object.fromEntries(rows.map(({ what, n }) => [what, n])),
      entries: await this.entries.countOf(db, id),
    };
  }

  /**
   * Moves everything of `gone` to `kept`. `fields` are those whose value gives way to the other record's,
   * `own` what the kept row becomes.
   */
  async bringTogether(
    tx: Scoped,
    kept: number,
    gone: number,
    fields: readonly number[],
    own: Row,
  ): Promise<MergedWas> {
    tx.changed('people', 0, [kept, gone]);
    const [before, other] = [await this.own(tx, kept), await this.own(tx, gone)];
    const was: MergedWas = {
      facts: {},
      batchRows: await this.moveBatchRows(tx, kept, gone),
      rows: {} as MergedWas['rows'],
      gained: {} as MergedWas['gained'],
      gaveWay: (await this.rowsOf(tx, 'field_value', kept)).filter((row) =>
        fields.includes(Number(row.field_id)),
      ),
      own: { before: pick(before, OWN), after: own },
      gone: { externalId: other.external_id ?? null, householdId: other.household_id },
    };
    if (was.gaveWay.length > 0)
      await tx.execute(
        `DELETE
          FROM field_value
          WHERE organization_id = :org AND supporter_id = :kept AND field_id IN (:fields)`,
        { kept, fields },
      );
    for (const table of FACTS) was.facts[table] = await this.moveFacts(tx, table, kept, gone);
    was.entries = await this.ledger.moveAll(tx, gone, kept);
    for (const [table, key] of tables) {
      was.rows[table] = await this.rowsOf(tx, table, gone);
      const known = new Set((await this.rowsOf(tx, table, kept)).map((row) => Number(row[key])));
      was.gained[table] = was.rows[table].map((row) => Number(row[key])).filter((one) => !known.has(one));
      if (table === 'supporter_contact')
        await tx.execute(
          `UPDATE supporter_contact
            SET position = position + :behind
            WHERE organization_id = :org AND supporter_id = :gone`,
          {
            gone,
            behind: known.size,
          },
        );
      await tx.execute(
        `UPDATE IGNORE ${table}
          SET supporter_id = :kept
          WHERE organization_id = :org AND supporter_id = :gone`,
        { kept, gone },
      );
      await tx.execute(`DELETE FROM ${table} WHERE organization_id = :org AND supporter_id = :gone`, {
        gone,
      });
    }
    for (const table of ['message_group', 'call_list_member', 'campaign_off'])
      await tx.execute(
        `UPDATE IGNORE ${table}
          SET supporter_id = :kept
          WHERE organization_id = :org AND supporter_id = :gone`,
        { kept, gone },
      );
    // Of what comes once to each, whoever had it, or waits for it, gets it no second time.
    await tx.execute(
      `UPDATE automation_visit v
        JOIN automation a ON a.id = v.automation_id AND a.again = 0
        JOIN automation_visit k ON k.automation_id = v.automation_id AND k.supporter_id = :kept
          AND k.id < v.id
        SET v.state = 'ended', v.why = 'taken-out', v.due_at = NULL
        WHERE v.organization_id = :org AND v.supporter_id = :kept AND v.state IN ('waiting', 'held')`,
      { kept },
    );
    // Both were to get the same message: the one kept gets it, once.
    await tx.execute(
      `UPDATE delivery
        SET state = 'stopped'
        WHERE organization_id = :org AND supporter_id = :gone AND state IN ('ready', 'undecided')`,
      { gone },
    );
    await tx.execute(
      `UPDATE supporter
        SET erased_at = UTC_TIMESTAMP(3), merged_into = :kept, external_id = NULL
        WHERE organization_id = :org AND id = :gone`,
      { kept, gone },
    );
    await this.setOwn(tx, kept, own);
    return was;
  }

  /** Gives back what came over. What was changed since on the record that was kept stays as it is now. */
  async part(tx: Scoped, { kept_id: kept, gone_id: gone, was }: MergingRow): Promise<void> {
    tx.changed('people', 0, [kept, gone]);
    await tx.execute(
      `UPDATE supporter
        SET erased_at = NULL, merged_into = NULL, external_id = :externalId
        WHERE organization_id = :org AND id = :gone`,
      {
        gone,
        externalId: was.gone.externalId,
      },
    );
    await this.ledger.moveBack(tx, was.entries ?? [], kept, gone);
    for (const [table, ids] of Object.entries(was.facts))
      if (ids.length > 0)
        await tx.execute(
          `UPDATE IGNORE ${factTable(table)}
            SET supporter_id = :gone
            WHERE organization_id = :org AND supporter_id = :kept AND id IN (:ids)`,
          {
            kept,
            gone,
            ids,
          },
        );
    for (const [batchId, rowNo] of was.batchRows)
      await tx.execute(
        `UPDATE batch_row
          SET supporter_id = :gone
          WHERE organization_id = :org AND batch_id = :batchId AND row_no = :rowNo`,
        {
          gone,
          batchId,
          rowNo,
        },
      );
    for (const [table, key] of tables) {
      const removable =
        table === 'field_value' ? await this.unchangedValues(tx, kept, was) : was.gained[table];
      if (removable.length > 0)
        await tx.execute(
          `DELETE
            FROM ${table}
            WHERE organization_id = :org AND supporter_id = :kept AND ${key} IN (:removable)`,
          {
            kept,
            removable,
          },
        );
      await putBack(
        tx,
        table,
        was.rows[table].map((row) => ({ ...row, supporter_id: gone })),
      );
    }
    await putBack(tx, 'field_value', was.gaveWay);
    await this.setOwn(tx, kept, await this.ownBack(tx, kept, was));
  }

  /**
   * Records that were brought into this one and not parted again since; `hold`: as of this moment, until the
   * transaction ends.
   */
  async into(db: Scoped, keptId: number, hold = false): Promise<MergingRow[]> {
    return db.sql<MergingRow>(
      `SELECT g.id, g.kept_id, g.gone_id, g.was, g.made_at, g.undone_at, TRIM(CONCAT(s.first_name, ' ',
          s.last_name)) AS name
        FROM merging g
        JOIN supporter s ON s.id = g.gone_id
        WHERE g.organization_id = :org AND g.kept_id = :keptId AND g.undone_at IS NULL
        ORDER BY g.id DESC ${hold ? 'FOR UPDATE' : ''}`,
      { keptId },
    );
  }

  async keep(tx: Scoped, keptId: number, goneId: number, was: MergedWas): Promise<number> {
    return tx.insert('merging', {
      kept_id: keptId,
      gone_id: goneId,
      was: JSON.stringify(was),
      made_by: tx.scope.actorId,
    });
  }

  async undone(tx: Scoped, id: number): Promise<void> {
    await tx.execute(
      'UPDATE merging SET undone_at = UTC_TIMESTAMP(3) WHERE organization_id = :org AND id = :id',
      { id },
    );
  }

  /** The record that one was brought into, and all that were brought into one, however many times over. */
  async idsIn(db: Scoped, id: number): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `WITH RECURSIVE own AS (SELECT id FROM supporter WHERE organization_id = :org AND id = :id
        UNION
        SELECT s.id
        FROM supporter s
        JOIN merging g ON g.organization_id = :org AND g.gone_id = s.id AND g.undone_at IS NULL
        JOIN own ON g.kept_id = own.id) SELECT id FROM own`,
      { id },
    );
    return rows.map((row) => row.id);
  }

  private async moveFacts(
    tx: Scoped,
    table: (typeof FACTS)[number],
    kept: number,
    gone: number,
  ): Promise<number[]> {
    const mine = `FROM ${table} WHERE organization_id = :org AND supporter_id = :gone`;
    const ids = (await tx.sql<{ id: number }>(`SELECT id ${mine}`, { gone })).map(({ id }) => id);
    if (ids.length === 0) return [];
    await tx.execute(
      `UPDATE IGNORE ${table} SET supporter_id = :kept WHERE organization_id = :org AND supporter_id = :gone`,
      { kept, gone },
    );
    const stayed = new Set((await tx.sql<{ id: number }>(`SELECT id ${mine}`, { gone })).map(({ id }) => id));
    return ids.filter((id) => !stayed.has(id));
  }

  private async moveBatchRows(tx: Scoped, kept: number, gone: number): Promise<[number, number][]> {
    const rows = await tx.sql<{ batch_id: number; row_no: number }>(
      'SELECT batch_id, row_no FROM batch_row WHERE organization_id = :org AND supporter_id = :gone',
      { gone },
    );
    await tx.execute(
      'UPDATE batch_row SET supporter_id = :kept WHERE organization_id = :org AND supporter_id = :gone',
      { kept, gone },
    );
    return rows.map((row) => [row.batch_id, row.row_no]);
  }

  private async setOwn(tx: Scoped, id: number, own: Row): Promise<void> {
    await tx
      .supporters()
      .where('supporter.id', id)
      .update({ ...own, updated_at: new Date() });
  }

  /** What of its own row the kept record had before, where it is still as the merging left it. */
  private async ownBack(tx: Scoped, kept: number, was: MergedWas): Promise<Row> {
    const now = await this.own(tx, kept);
    return Object.fromEntries(
      OWN.filter((column) => now[column] === was.own.after[column]).map((column) => [
        column,
        was.own.before[column] ?? null,
      ]),
    );
  }

  private async unchangedValues(tx: Scoped, kept: number, was: MergedWas): Promise<number[]> {
    const came = new Map(was.rows.field_value.map((row) => [Number(row.field_id), row]));
    const touched = new Set([...was.gained.field_value, ...was.gaveWay.map((row) => Number(row.field_id))]);
    return (await this.rowsOf(tx, 'field_value', kept))
      .filter(
        (row) =>
          touched.has(Number(row.field_id)) &&
          VALUES.every((column) => row[column] === came.get(Number(row.field_id))?.[column]),
      )
      .map((row) => Number(row.field_id));
  }
}

function factTable(name: string): string {
  if (!(FACTS as readonly string[]).includes(name))
    throw new Error(`expected one of ${FACTS.join(', ')}, got ${name}`);
  return name;
}

function pick(row: Row, columns: readonly string[]): Row {
  return Object.fromEntries(columns.map((column) => [column, row[column] ?? null]));
}

/** Inserts rows as they were kept as JSON, where moments have become text. */
async function putBack(tx: Scoped, table: SetTable, rows: readonly Row[]): Promise<void> {
  for (const row of rows) {
    const columns = Object.keys(row).filter((column) => column !== 'organization_id');
    const values = columns.map((column) =>
      MOMENTS.includes(column) && row[column] !== null ? new Date(String(row[column])) : row[column]!,
    );
    await tx.insertAll(table, columns, [values], true);
  }
}
