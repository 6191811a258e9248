import { Injectable } from '@nestjs/common';
import { cellsOf, foldEntries, joinMarks, MARK_KINDS, type Cell } from '@goodword/core/permission';
import type { Bound, Scoped } from '../../platform/scoped';
import { cellValues, columnsOf, newerMarks } from './state.sql';

import {
  asCore,
  asNew,
  ENTRY_COLUMNS,
  kindOf,
  valuesOf,
  type EntryRow,
  type NewEntry,
  type SaidAlike,
  type SaidWhere,
  type Written,
} from './entries';
import { FoldingRepository } from './folding.repository';
import { Inject } from '@nestjs/common';

const ROWS_A_STATEMENT = 1000;

/**
 * The permission ledger: entries, which are only added, and the state derived from them in the same
 * transaction. Whatever it writes it tells to those who keep columns. Owns `permission_entry`,
 * `permission_state`.
 */
@Injectable()
export class LedgerRepository {
  constructor(@Inject(FoldingRepository) private readonly folding: FoldingRepository) {}

  async record(tx: Scoped, entry: NewEntry): Promise<number> {
    return (await this.recordAll(tx, [entry]))[0]!;
  }

  /** Writes entries and what they come to; returns their ids in the same order. */
  async recordAll(tx: Scoped, entries: readonly NewEntry[]): Promise<number[]> {
    const ids: number[] = [];
    for (let at = 0; at < entries.length; at += ROWS_A_STATEMENT) {
      const some = entries.slice(at, at + ROWS_A_STATEMENT);
      const written = await this.insert(tx, some);
      await this.upsert(
        tx,
        some.flatMap((entry, i) => cellsOf(asCore(entry, written[i]!))),
      );
      ids.push(...written);
    }
    this.tell(tx, entries);
    return ids;
  }

  /**
   * Writes what is said alike of many, each at their own address, by the same words on the same day: as a
   * file says it of thousands. One statement writes the entries and one what they come to, so that only
   * numbers go over. `source` gets the row behind it.
   */
  async recordAlike(tx: Scoped, word: SaidAlike, said: readonly SaidWhere[]): Promise<void> {
    for (let at = 0; at < said.length; at += ROWS_A_STATEMENT) {
      const some = said.slice(at, at + ROWS_A_STATEMENT);
      const written = await this.insertAlike(tx, word, some);
      // Who speaks for nobody, or nowhere, makes other cells than who speaks at an address for a person.
      for (const kind of ['at', 'person', 'address'] as const) {
        const those = written.filter((one) => kindOf(one) === kind);
        if (those.length > 0) await this.upsertAlike(tx, word, those);
      }
    }
    this.tell(tx, said);
  }

  private async insertAlike(
    tx: Scoped,
    { source = '', batchId, ...word }: SaidAlike,
    some: readonly SaidWhere[],
  ): Promise<Written[]> {
    const fixed = valuesOf(
      { ...word, contactPointId: null, supporterId: null, batch: { id: batchId, row: 0 } },
      tx.scope.actorId,
    );
    const own: Partial<Record<(typeof ENTRY_COLUMNS)[number], string>> = {
      ...{ contact_point_id: 'v.point', supporter_id: 'v.person', batch_row: 'v.row_no' },
      source: "LEFT(CONCAT(?, ', row ', v.row_no), 300)",
    };
    const columns = ENTRY_COLUMNS.filter((column, i) => own[column] !== undefined || fixed[i] !== null);
    const bound = columns.flatMap((column) =>
      column === 'source' ? [source] : own[column] ? [] : [fixed[ENTRY_COLUMNS.indexOf(column)]!],
    );
    const values = some.map(
      ({ contactPointId, supporterId, row }) =>
        `(${contactPointId ?? 'NULL'},${supporterId ?? 'NULL'},${row})`,
    );
    const [made] = (await tx.knex.raw(
      `INSERT INTO permission_entry (organization_id, ${columns.join(', ')})
        WITH v (point, person, row_no) AS (VALUES ${values.join(',')})
        SELECT ?, ${columns.map((column) => own[column] ?? '?').join(', ')} FROM v
        RETURNING id, contact_point_id AS contactPointId, supporter_id AS supporterId`,
      [tx.scope.organizationId, ...bound] as never,
    )) as [Written[]];
    return made;
  }

  /** What entries of one kind come to: the cells of one of them, in the place of each. */
  private async upsertAlike(tx: Scoped, word: SaidAlike, those: readonly Written[]): Promise<void> {
    const [first] = those;
    for (const cell of foldEntries([
      asCore({ ...word, contactPointId: first!.contactPointId, supporterId: first!.supporterId }, first!.id),
    ])) {
      const kinds = MARK_KINDS.filter((kind) => cell.marks[kind]);
      const columns = kinds.flatMap(columnsOf);
      const fixed = cellValues(cell, kinds);
      const values = those.map(
        ({ contactPointId, supporterId, id }) =>
          `(${cell.contactPointId === 0 ? 0 : contactPointId},${cell.supporterId === 0 ? 0 : supporterId},${id})`,
      );
      await tx.knex.raw(
        `INSERT INTO permission_state
          (organization_id, contact_point_id, supporter_id, channel, scope, ${columns.join(', ')})
          WITH v (point, person, id) AS (VALUES ${values.join(',')})
          SELECT ?, v.point, v.person, ?, ?,
            ${columns.map((column) => (column.endsWith('_entry') ? 'v.id' : '?')).join(', ')}
          FROM v
          ON DUPLICATE KEY UPDATE ${newerMarks(kinds, 'permission_state')}`,
        [
          tx.scope.organizationId,
          cell.channel,
          cell.scope,
          ...fixed.filter((_value, i) => !columns[i]!.endsWith('_entry')),
        ] as never,
      );
    }
  }

  private async insert(tx: Scoped, entries: readonly NewEntry[]): Promise<number[]> {
    const rows = entries.map((entry) => [tx.scope.organizationId, ...valuesOf(entry, tx.scope.actorId)]);
    const [made] = (await tx.knex.raw(
      `INSERT INTO permission_entry (organization_id, ${ENTRY_COLUMNS.join(', ')}) VALUES ? RETURNING id`,
      [rows as never],
    )) as [{ id: number }[]];
    return made.map(({ id }) => id);
  }

  /** Joins cells to those that are kept. */
  private async upsert(tx: Scoped, cells: readonly Cell[]): Promise<void> {
    const joined = new Map<string, Cell>();
    for (const cell of cells) {
      const key = `${cell.contactPointId}:${cell.supporterId}:${cell.channel}:${cell.scope}`;
      const known = joined.get(key);
      joined.set(key, known ? { ...known, marks: joinMarks(known.marks, cell.marks) } : cell);
    }
    if (joined.size === 0) return;
    const all = [...joined.values()].sort(
      (a, b) => a.contactPointId - b.contactPointId || a.supporterId - b.supporterId,
    );
    const kinds = MARK_KINDS.filter((kind) => all.some(({ marks }) => marks[kind]));
    await tx.knex.raw(
      `INSERT INTO permission_state
        (organization_id, contact_point_id, supporter_id, channel, scope,
        ${kinds.flatMap(columnsOf).join(', ')})
        VALUES ? ON DUPLICATE KEY UPDATE ${newerMarks(kinds, 'permission_state')}`,
      [
        all.map((cell) => [
          ...[tx.scope.organizationId, cell.contactPointId, cell.supporterId, cell.channel, cell.scope],
          ...cellValues(cell, kinds),
        ]) as never,
      ],
    );
  }

  private tell(tx: Scoped, entries: readonly Pick<NewEntry, 'contactPointId' | 'supporterId'>[]): void {
    for (const { contactPointId } of entries) if (contactPointId !== null) tx.reached.add(contactPointId);
    const people = [...new Set(entries.flatMap(({ supporterId }) => supporterId ?? []))];
    if (people.length > 0) tx.changed('reach', 0, people);
  }

  /**
   * Marks a batch's agreements as taken back (its refusals stay) and derives the state of their addresses
   * anew.
   */
  async takeBackBatch(tx: Scoped, batchId: number): Promise<void> {
    const mine = `SELECT DISTINCT contact_point_id FROM permission_entry
      WHERE organization_id = :org AND batch_id = :batchId AND contact_point_id IS NOT NULL`;
    await this.markBack(tx, "batch_id = :batchId AND state <> 'no'", { batchId }, 'with its batch');
    await tx.execute(
      `DELETE FROM permission_state WHERE organization_id = :org AND contact_point_id IN (${mine})`,
      { batchId },
    );
    await this.folding.fold(
      tx,
      ['address', 'both'],
      `contact_point_id IN (SELECT contact_point_id FROM (${mine}) affected)`,
      { batchId },
    );
  }

  /** Takes some entries back, each with an entry that says so, and derives anew what they had come to. */
  async takeBack(tx: Scoped, ids: readonly number[], why: string): Promise<void> {
    if (ids.length === 0) return;
    const rows = await tx.sql<{ contact_point_id: number | null; supporter_id: number | null }>(
      `SELECT contact_point_id, supporter_id
        FROM permission_entry
        WHERE organization_id = :org AND id IN (:ids)`,
      { ids },
    );
    await this.markBack(tx, 'id IN (:ids)', { ids }, why);
    await this.folding.refold(
      tx,
      rows.flatMap((row) => row.contact_point_id ?? []),
      rows.flatMap((row) => row.supporter_id ?? []),
    );
  }

  private async markBack(
    tx: Scoped,
    which: string,
    bindings: Record<string, Bound>,
    why: string,
  ): Promise<void> {
    const still = `organization_id = :org AND ${which} AND state <> 'back' AND taken_back_at IS NULL`;
    await tx.execute(
      `INSERT INTO permission_entry
        (organization_id, contact_point_id, supporter_id, channel, scope, state, said_at,
          by_person, how, words, source, recorded_by, takes_back)
        SELECT :org, contact_point_id, supporter_id, channel, scope, 'back', UTC_TIMESTAMP(3),
          0, how, CONCAT('Entry ', id, ' is taken back ', :why), source, :actor, id
        FROM permission_entry WHERE ${still}`,
      { ...bindings, why, actor: tx.scope.actorId },
    );
    await tx.execute(`UPDATE permission_entry SET taken_back_at = UTC_TIMESTAMP(3) WHERE ${still}`, bindings);
  }

  /**
   * Refusals of a batch by people who are about to go with it, each for every address of theirs that serves
   * the channel:
   * the person will be no more, and the no must stay. `whose` is a query of their ids.
   */
  async keepRefusalsOf(tx: Scoped, batchId: number, whose: string): Promise<void> {
    const rows = await tx.sql<EntryRow & { point: number }>(
      `SELECT e.id, e.contact_point_id, e.supporter_id, e.channel, e.scope, e.state, e.said_at, e.until_at,
          e.by_person, e.how, e.words, e.source, e.origin, e.batch_id, e.evidence_id, e.delivery_id,
          e.recorded_by, e.recorded_at, e.form_id, e.form_version, e.page, e.reply_id, e.taken_back_at,
          sc.contact_point_id AS point
        FROM permission_entry e
        JOIN supporter_contact sc ON sc.supporter_id = e.supporter_id
          AND sc.kind = CASE e.channel WHEN 'email' THEN 'email' WHEN 'post' THEN 'post' ELSE 'mobile' END
        WHERE e.organization_id = :org AND e.batch_id = :batchId AND e.state = 'no'
        AND e.contact_point_id IS NULL AND e.taken_back_at IS NULL
          AND e.supporter_id IN (${whose})`,
      { batchId },
    );
    await this.recordAll(
      tx,
      rows.map((row) => ({
        ...asNew(row),
        contactPointId: row.point,
        supporterId: null,
        source: `${row.source}; the batch was taken back out`,
      })),
    );
  }

  /**
   * Entries of one person become another's; returns their ids. Whoever calls derives the states anew
   * (`refold`).
   */
  async moveAll(tx: Scoped, fromId: number, toId: number): Promise<number[]> {
    const mine = 'FROM permission_entry WHERE organization_id = :org AND supporter_id = :fromId';
    const ids = (await tx.sql<{ id: number }>(`SELECT id ${mine} FOR UPDATE`, { fromId })).map(
      ({ id }) => id,
    );
    await tx.execute(
      `UPDATE permission_entry
        SET supporter_id = :toId
        WHERE organization_id = :org AND supporter_id = :fromId`,
      { fromId, toId },
    );
    return ids;
  }

  /** The entries that came over go back to whose they were. */
  async moveBack(tx: Scoped, ids: readonly number[], fromId: number, toId: number): Promise<void> {
    if (ids.length === 0) return;
    await tx.execute(
      `UPDATE permission_entry
        SET supporter_id = :toId
        WHERE organization_id = :org AND supporter_id = :fromId AND id IN (:ids)`,
      {
        ids,
        fromId,
        toId,
      },
    );
  }

  /** Words, sources and addresses of origin go; dates and states stay. */
  async blank(tx: Scoped, supporterId: number): Promise<void> {
    await tx.execute(
      `UPDATE permission_entry
        SET words = IF(words = '', '', '(erased)'), source = IF(source = '', '', '(erased)'), origin = NULL
        WHERE organization_id = :org AND supporter_id = :supporterId`,
      { supporterId },
    );
  }
}
