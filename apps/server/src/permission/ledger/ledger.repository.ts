import { Injectable } from '@nestjs/common';
import {
  cellsOf,
  foldEntries,
  joinMarks,
  MARK_KINDS,
  type Cell,
  type Channel,
  type MarkKind,
  type CollectionMethod,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import type { Bound, Scoped } from '../../platform/database';
import {
  cellValues,
  COLUMN_OF,
  columnsOf,
  foldSql,
  HOLDERS,
  kindsMadeSql,
  kindsOf,
  MARK_COLUMNS,
  newerMarks,
} from './state.sql';

import {
  asCore,
  asNew,
  ENTRY_COLUMNS,
  kindOf,
  valuesOf,
  type EntryRow,
  type NewEntry,
  type Revocation,
  type SaidAlike,
  type SaidWhere,
  type Written,
} from './entries';

const ROWS_A_STATEMENT = 1000;

/**
 * The permission ledger: entries, which are only added, and the state derived from them in the same
 * transaction. Whatever it writes it tells to those who keep columns. Owns `permission_entry`,
 * `permission_state`.
 */
@Injectable()
export class LedgerRepository {
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
    await this.fold(
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
    await this.refold(
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
   * Leavings of one message's link that are not taken back, since a moment; what was answered to it is none.
   */
  async leavingsOf(db: Scoped, deliveryId: number, since: Date): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT id
        FROM permission_entry
        WHERE organization_id = :org AND delivery_id = :deliveryId AND state = 'no'
        AND how IN ('one-click', 'reply') AND reply_id IS NULL AND said_at >= :since AND taken_back_at IS NULL`,
      { deliveryId, since },
    );
    return rows.map(({ id }) => id);
  }

  /**
   * Whether the same was said through the same message since a moment, and nothing of the channel by anybody
   * there after it.
   */
  async hasJustLeft(
    db: Scoped,
    deliveryId: number,
    said: { scope: PermissionScope; how: CollectionMethod },
    since: Date,
  ): Promise<boolean> {
    const rows = await db.sql(
      `SELECT 1
        FROM permission_entry e
        WHERE e.organization_id = :org AND e.delivery_id = :deliveryId AND e.state = 'no'
        AND e.scope = :scope AND e.how = :how AND e.reply_id IS NULL AND e.recorded_at >= :since
        AND e.taken_back_at IS NULL
        AND NOT EXISTS (SELECT 1 FROM permission_entry n
        WHERE n.organization_id = :org AND n.supporter_id = e.supporter_id
          AND n.channel = e.channel AND n.id > e.id) LIMIT 1`,
      { deliveryId, ...said, since },
    );
    return rows.length > 0;
  }

  /** What these people have in the ledger on a channel, bare. */
  async saidBy(
    db: Scoped,
    supporterIds: readonly number[],
    channel: Channel,
  ): Promise<
    {
      supporterId: number;
      contactPointId: number | null;
      scope: string;
      state: string;
      how: string;
      saidAt: number;
      words: string;
    }[]
  > {
    if (supporterIds.length === 0) return [];
    const rows = await db.sql<EntryRow>(
      `SELECT supporter_id, contact_point_id, scope, state, how, said_at, words FROM permission_entry
        WHERE organization_id = :org AND supporter_id IN (:supporterIds) AND channel = :channel
        AND state <> 'back' AND taken_back_at IS NULL`,
      { supporterIds, channel },
    );
    return rows.map((row) => ({
      supporterId: row.supporter_id!,
      contactPointId: row.contact_point_id,
      scope: row.scope,
      state: row.state,
      how: row.how,
      saidAt: row.said_at.getTime(),
      words: row.words,
    }));
  }

  /** As `saidBy`, of some addresses. */
  async saidAt(db: Scoped, contactPointIds: readonly number[], channel: Channel): Promise<SaidAt[]> {
    if (contactPointIds.length === 0) return [];
    const rows = await db.sql<EntryRow>(
      `SELECT id, supporter_id, contact_point_id, scope, state, how, said_at, words FROM permission_entry
        WHERE organization_id = :org AND contact_point_id IN (:points) AND channel = :channel
        AND state <> 'back' AND taken_back_at IS NULL`,
      { points: [...new Set(contactPointIds)], channel },
    );
    return rows.map((row) => ({
      id: row.id,
      supporterId: row.supporter_id,
      contactPointId: row.contact_point_id!,
      scope: row.scope,
      state: row.state,
      how: row.how,
      saidAt: row.said_at.getTime(),
      words: row.words,
    }));
  }

  /** What rows of a batch have written already: "row:address:channel". */
  async rowsOf(db: Scoped, slice: { batchId: Bound; from: Bound; to: Bound }): Promise<Set<string>> {
    const rows = await db.sql<{ batch_row: number; contact_point_id: number | null; channel: Channel }>(
      `SELECT batch_row, contact_point_id, channel FROM permission_entry
        WHERE organization_id = :org AND batch_id = :batchId AND batch_row BETWEEN :from AND :to
        AND state <> 'back'`,
      { batchId: slice.batchId, from: slice.from, to: slice.to },
    );
    return new Set(rows.map((row) => `${row.batch_row}:${row.contact_point_id ?? 0}:${row.channel}`));
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

  /** The newest entries of some people, and refusals of others at their addresses. */
  async newestAbout(db: Scoped, ids: readonly number[], limit: number): Promise<EntryRow[]> {
    return db.sql(
      // Two ways to an entry, each by its own index: one condition for both goes through everybody's.
      `SELECT recorded_at, state, channel, scope, how, source
        FROM permission_entry
        WHERE organization_id = :org AND supporter_id IN (:ids)
        UNION ALL SELECT e.recorded_at, e.state, e.channel, e.scope, e.how, e.source FROM supporter_contact sc
          JOIN permission_entry e ON e.organization_id = :org AND e.contact_point_id = sc.contact_point_id
          WHERE sc.supporter_id IN (:ids) AND e.state = 'no' AND NOT (e.supporter_id <=> sc.supporter_id)
            AND COALESCE(e.supporter_id, 0) NOT IN (:ids) ORDER BY recorded_at DESC LIMIT :limit`,
      { ids, limit },
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

  async countOf(db: Scoped, supporterId: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n
        FROM permission_entry
        WHERE organization_id = :org AND supporter_id = :supporterId`,
      { supporterId },
    );
    return row?.n ?? 0;
  }

  /** Refusals of one person that were written down since a moment and not taken back. */
  async refusalsSince(db: Scoped, supporterId: number, since: Date): Promise<NewEntry[]> {
    const rows = await db.sql<EntryRow>(
      `SELECT id, contact_point_id, supporter_id, channel, scope, state, said_at, until_at, by_person, how,
          words, source, origin, batch_id, evidence_id, delivery_id, recorded_by, recorded_at, form_id,
          form_version, page, reply_id, taken_back_at
        FROM permission_entry
        WHERE organization_id = :org AND supporter_id = :supporterId AND state = 'no'
        AND recorded_at >= :since AND taken_back_at IS NULL`,
      { supporterId, since },
    );
    return rows.map(asNew);
  }

  /** Addresses that anything was ever said of by a person. */
  async pointsOf(db: Scoped, supporterId: number): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT DISTINCT contact_point_id AS id
        FROM permission_entry
        WHERE organization_id = :org AND supporter_id = :supporterId
        AND contact_point_id IS NOT NULL`,
      { supporterId },
    );
    return rows.map(({ id }) => id);
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

  /**
   * Derives the states of some addresses and people anew: after entries were taken back or have become
   * somebody else's.
   */
  async refold(
    tx: Scoped,
    contactPointIds: readonly number[],
    supporterIds: readonly number[],
  ): Promise<void> {
    const [points, people] = [[...new Set(contactPointIds)], [...new Set(supporterIds)]];
    if (points.length > 0) {
      await tx.execute(
        'DELETE FROM permission_state WHERE organization_id = :org AND contact_point_id IN (:points)',
        { points },
      );
      await this.fold(tx, ['address', 'both'], 'contact_point_id IN (:points)', { points });
    }
    if (people.length > 0) {
      await tx.execute(
        `DELETE
          FROM permission_state
          WHERE organization_id = :org AND contact_point_id = 0 AND supporter_id IN (:people)`,
        {
          people,
        },
      );
      await this.fold(tx, ['person'], 'supporter_id IN (:people)', { people });
      tx.changed('reach', 0, people);
    }
    for (const id of points) tx.reached.add(id);
  }

  /** Derives the whole state table of an organization anew from its entries. */
  async rebuild(tx: Scoped): Promise<void> {
    tx.changed('reach', 0, 'everybody');
    await tx.execute('DELETE FROM permission_state WHERE organization_id = :org');
    await this.fold(tx, HOLDERS, '1 = 1', {});
  }

  private async fold(
    tx: Scoped,
    holders: readonly (typeof HOLDERS)[number][],
    which: string,
    bindings: Record<string, Bound>,
    into = 'permission_state',
  ): Promise<void> {
    const made = (await tx.sql<Record<string, number | null>>(kindsMadeSql(which), bindings))[0];
    const there: MarkKind[] = MARK_KINDS.filter((kind) => Number(made?.[COLUMN_OF[kind]] ?? 0) === 1);
    for (const holder of holders) {
      const kinds = kindsOf(holder, there);
      if (kinds.length > 0) await tx.execute(foldSql(holder, kinds, which, into), bindings);
    }
  }

  /**
   * Derives the states anew beside those that are kept and returns how many rows differ: none, unless
   * something wrote past the ledger.
   */
  async differences(tx: Scoped): Promise<{ kept: number; derived: number; differing: number }> {
    await tx.knex.raw('DROP TEMPORARY TABLE IF EXISTS permission_state_anew');
    await tx.knex.raw('CREATE TEMPORARY TABLE permission_state_anew LIKE permission_state');
    await this.fold(tx, HOLDERS, '1 = 1', {}, 'permission_state_anew');
    const columns = `contact_point_id, supporter_id, channel, scope, ${MARK_COLUMNS.join(', ')}`;
    const rows = (table: string) => `SELECT ${columns} FROM ${table} WHERE organization_id = :org`;
    const count = async (from: string) =>
      (await tx.sql<{ n: number }>(`SELECT COUNT(*) AS n FROM (${from}) x`))[0]!.n;
    // A temporary table can be named once in a statement, so the two directions are two statements.
    const lost = await count(`${rows('permission_state')} EXCEPT ${rows('permission_state_anew')}`);
    const extra = await count(`${rows('permission_state_anew')} EXCEPT ${rows('permission_state')}`);
    const out = {
      kept: await count(rows('permission_state')),
      derived: await count(rows('permission_state_anew')),
      differing: lost + extra,
    };
    await tx.knex.raw('DROP TEMPORARY TABLE permission_state_anew');
    return out;
  }

  /** Every no, newest first, before an entry; of one chapter where the caller has one. */
  async revocations(db: Scoped, before: number, limit: number): Promise<Revocation[]> {
    return db.sql<Revocation>(
      `SELECT e.id, e.contact_point_id, e.supporter_id, e.channel, e.scope, e.state, e.said_at, e.until_at,
          e.by_person, e.how, e.words, e.source, e.origin, e.batch_id, e.evidence_id, e.delivery_id,
          e.recorded_by, e.recorded_at, e.form_id, e.form_version, e.page, e.reply_id, e.taken_back_at,
          t.name AS recorded_name, cp.shown, r.received_at, k.done_at AS read_at,
        k.asked_at AS held_at
        FROM permission_entry e
        LEFT JOIN contact_point cp ON cp.id = e.contact_point_id
        LEFT JOIN teammate t ON t.id = e.recorded_by
        LEFT JOIN supporter s ON s.id = e.supporter_id LEFT JOIN reply r ON r.id = e.reply_id
        LEFT JOIN task k ON k.organization_id = :org AND k.kind = 'stop' AND k.reply_id = e.reply_id
        WHERE e.organization_id = :org AND e.state = 'no' AND e.id < :before
        AND (:chapter IS NULL OR s.chapter_id = :chapter)
        ORDER BY e.id DESC LIMIT :limit`,
      { before, limit },
    );
  }

  /** Who said anything at some addresses. */
  async peopleAt(db: Scoped, points: readonly number[]): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT DISTINCT supporter_id AS id FROM permission_entry
        WHERE organization_id = :org AND contact_point_id IN (:points) AND supporter_id IS NOT NULL`,
      { points: [...points, 0] },
    );
    return rows.map(({ id }) => id);
  }

  /**
   * Entries that bear on a person: their own, and every no and START at an address of theirs, or at others
   * that were theirs. Newest first.
   */
  async entriesOf(db: Scoped, supporterId: number, others: readonly number[] = []): Promise<EntryRow[]> {
    // Each way by its own index: one condition for both would go through everybody's entries.
    return db.sql<EntryRow>(
      `WITH mine AS (
        SELECT id FROM permission_entry WHERE organization_id = :org AND supporter_id = :supporterId
        UNION SELECT e.id FROM supporter_contact sc STRAIGHT_JOIN permission_entry e
          ON e.organization_id = :org AND e.contact_point_id = sc.contact_point_id
          AND e.state IN ('no', 'start')
          WHERE sc.organization_id = :org AND sc.supporter_id = :supporterId
        UNION
        SELECT id
        FROM permission_entry
        WHERE organization_id = :org AND contact_point_id IN (:others) AND state IN ('no', 'start'))
        SELECT e.id, e.contact_point_id, e.supporter_id, e.channel, e.scope, e.state, e.said_at, e.until_at,
          e.by_person, e.how, e.words, e.source, e.origin, e.batch_id, e.evidence_id, e.delivery_id,
          e.recorded_by, e.recorded_at, e.form_id, e.form_version, e.page, e.reply_id, e.taken_back_at,
          t.name AS recorded_name, cp.shown
        FROM mine
        STRAIGHT_JOIN permission_entry e ON e.id = mine.id
        LEFT JOIN contact_point cp ON cp.id = e.contact_point_id LEFT JOIN teammate t ON t.id = e.recorded_by
        ORDER BY e.said_at DESC, e.id DESC`,
      { supporterId, others: [...others, 0] },
    );
  }
}

/** An entry at an address, in short. */
interface SaidAt {
  id: number;
  supporterId: number | null;
  contactPointId: number;
  scope: string;
  state: string;
  how: string;
  /** Milliseconds. */
  saidAt: number;
  words: string;
}
