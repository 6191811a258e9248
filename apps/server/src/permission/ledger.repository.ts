import { Injectable } from '@nestjs/common';
import {
  MARK_KINDS,
  RELATIONSHIPS,
  type Channel,
  type MarkKind,
  type Marks,
  type RecordedState,
  type Road,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import type { Bound, Scoped } from '../platform/database';

/** An entry to be written. */
export interface NewEntry {
  contactPointId: number;
  supporterId: number | null;
  channel: Channel;
  scope: PermissionScope;
  state: RecordedState;
  saidAt: Date;
  untilAt?: Date | null;
  byPerson: boolean;
  how: Road;
  words?: string;
  source?: string;
  origin?: string | null;
  evidenceId?: number | null;
}

export interface EntryRow {
  id: number;
  contact_point_id: number;
  supporter_id: number | null;
  channel: Channel;
  scope: PermissionScope;
  state: RecordedState;
  said_at: Date;
  until_at: Date | null;
  by_person: number;
  how: Road;
  words: string;
  source: string;
  origin: string | null;
  batch_id: number | null;
  evidence_id: number | null;
  recorded_by: number | null;
  recorded_at: Date;
  recorded_name: string | null;
  shown: string;
  taken_back_at: Date | null;
}

/** A row of the derived table: a moment and an entry for each kind of mark, and where a pause ends. */
export type StateRow = {
  contact_point_id: number;
  supporter_id: number;
  channel: Channel;
  scope: PermissionScope;
  pause_until: Date | null;
} & Record<`${ColumnKind}_at`, Date | null> &
  Record<`${ColumnKind}_entry`, number | null>;

const STATED = RELATIONSHIPS.map((how) => `'${how}'`).join(', ');

/** Kinds of marks as columns, with the entries that make them and the moment that they carry. */
const KINDS = [
  ['no', "state = 'no'", 'said_at'],
  ['own_yes', "state = 'yes' AND by_person = 1", 'said_at'],
  ['yes', "state = 'yes'", 'said_at'],
  ['stated', `state = 'implied' AND how NOT IN (${STATED})`, 'COALESCE(until_at, said_at)'],
  ['gift', "state = 'implied' AND how = 'gift'", 'said_at'],
  ['membership', "state = 'implied' AND how = 'membership'", 'said_at'],
  ['volunteering', "state = 'implied' AND how = 'volunteering'", 'said_at'],
  ['inquiry', "state = 'implied' AND how = 'inquiry'", 'said_at'],
  ['asked', "state = 'asked'", 'said_at'],
  ['pause', "state = 'pause'", 'said_at'],
] as const;
type ColumnKind = (typeof KINDS)[number][0];

/** The name of a mark in the core as its columns are named. */
export const COLUMN_OF: Record<MarkKind, ColumnKind> = {
  no: 'no',
  ownYes: 'own_yes',
  yes: 'yes',
  stated: 'stated',
  gift: 'gift',
  membership: 'membership',
  volunteering: 'volunteering',
  inquiry: 'inquiry',
  asked: 'asked',
  pause: 'pause',
};

const MOMENT = '%Y-%m-%d %H:%i:%s.%f';

/**
 * Folds the chosen entries into a state table: the SQL form of `foldEntry`, greatest mark of each kind. `kinds` are those
 * that the entries can make; the others are left alone.
 */
function foldSql(which: string, into: string, kinds: readonly (typeof KINDS)[number][] = KINDS): string {
  const marks = kinds.map(([kind, when, at]) => {
    const tail = kind === 'pause' ? `, DATE_FORMAT(COALESCE(until_at, said_at), '${MOMENT}')` : '';
    return `MAX(IF(${when}, CONCAT(DATE_FORMAT(${at}, '${MOMENT}'), LPAD(id, 20, '0')${tail}), NULL)) AS ${kind}_mark`;
  });
  const read = (kind: string) => [
    `CAST(LEFT(${kind}_mark, 26) AS DATETIME(3)) AS ${kind}_at`,
    `CAST(SUBSTRING(${kind}_mark, 27, 20) AS UNSIGNED) AS ${kind}_entry`,
    ...(kind === 'pause' ? [`CAST(SUBSTRING(pause_mark, 47) AS DATETIME(3)) AS pause_until`] : []),
  ];
  const columns = kinds.flatMap(([kind]) => columnsOf(kind));
  // The moment is set last, because each assignment sees the ones before it.
  const upserts = kinds.flatMap(([kind]) => {
    const [at, entry] = [`${kind}_at`, `${kind}_entry`];
    const newer = `VALUES(${at}) IS NOT NULL AND (${into}.${at} IS NULL OR VALUES(${at}) > ${into}.${at} OR (VALUES(${at}) = ${into}.${at} AND VALUES(${entry}) > ${into}.${entry}))`;
    return [...columnsOf(kind).slice(2), entry, at].map((column) =>
      column === at
        ? `${at} = IF(VALUES(${at}) IS NOT NULL AND (${into}.${at} IS NULL OR VALUES(${at}) > ${into}.${at}), VALUES(${at}), ${into}.${at})`
        : `${column} = IF(${newer}, VALUES(${column}), ${into}.${column})`,
    );
  });
  return `INSERT INTO ${into} (organization_id, contact_point_id, supporter_id, channel, scope, ${columns.join(', ')})
    SELECT * FROM (SELECT organization_id, contact_point_id, person, channel, scope, ${kinds.flatMap(([kind]) => read(kind)).join(', ')} FROM (
      SELECT organization_id, contact_point_id, IF(state = 'no', 0, COALESCE(supporter_id, 0)) AS person, channel, scope, ${marks.join(', ')}
      FROM permission_entry WHERE organization_id = :org AND taken_back_at IS NULL AND state <> 'back' AND ${which}
      GROUP BY organization_id, contact_point_id, person, channel, scope) g) n
    ON DUPLICATE KEY UPDATE ${upserts.join(', ')}`;
}

function columnsOf(kind: ColumnKind): string[] {
  return [`${kind}_at`, `${kind}_entry`, ...(kind === 'pause' ? ['pause_until'] : [])];
}

/** The permission ledger: entries, which are only added, and the state derived from them in the same transaction. */
@Injectable()
export class LedgerRepository {
  async record(tx: Scoped, entry: NewEntry): Promise<number> {
    tx.reached.add(entry.contactPointId);
    const id = await tx.insert('permission_entry', {
      contact_point_id: entry.contactPointId,
      supporter_id: entry.supporterId,
      channel: entry.channel,
      scope: entry.scope,
      state: entry.state,
      said_at: entry.saidAt,
      until_at: entry.untilAt ?? null,
      by_person: entry.byPerson ? 1 : 0,
      how: entry.how,
      words: (entry.words ?? '').slice(0, 2000),
      source: (entry.source ?? '').slice(0, 300),
      origin: entry.origin ?? null,
      evidence_id: entry.evidenceId ?? null,
      recorded_by: tx.scope.actorId,
    });
    await this.fold(tx, 'id = :id', { id });
    return id;
  }

  /**
   * Folds entries that were written by a set-based statement. `which` is a condition over permission_entry; `marks` are
   * those that they make, where the caller knows.
   */
  async fold(tx: Scoped, which: string, bindings: Record<string, Bound>, marks?: ReadonlySet<MarkKind>): Promise<void> {
    const kinds = marks ? KINDS.filter(([kind]) => [...marks].some((mark) => COLUMN_OF[mark] === kind)) : await this.kindsOf(tx, which, bindings);
    if (kinds.length > 0) await tx.execute(foldSql(which, 'permission_state', kinds), bindings);
  }

  private async kindsOf(tx: Scoped, which: string, bindings: Record<string, Bound>): Promise<(typeof KINDS)[number][]> {
    const made = await tx.sql<Record<ColumnKind, number | null>>(
      `SELECT ${KINDS.map(([kind, when]) => `MAX(${when}) AS ${kind}`).join(', ')} FROM permission_entry WHERE organization_id = :org AND taken_back_at IS NULL AND ${which}`,
      bindings,
    );
    return KINDS.filter(([kind]) => Number(made[0]?.[kind] ?? 0) === 1);
  }

  /** Marks a batch's agreements as taken back (its refusals stay) and derives the state of their addresses anew. */
  async takeBackBatch(tx: Scoped, batchId: number): Promise<void> {
    const mine = 'SELECT DISTINCT contact_point_id FROM permission_entry WHERE organization_id = :org AND batch_id = :batchId';
    await tx.execute(
      `INSERT INTO permission_entry (organization_id, contact_point_id, supporter_id, channel, scope, state, said_at, by_person, how, words, source, recorded_by, takes_back)
        SELECT :org, contact_point_id, supporter_id, channel, scope, 'back', UTC_TIMESTAMP(3), 0, how, CONCAT('Entry ', id, ' is taken back with its batch'), source, :actor, id
        FROM permission_entry WHERE organization_id = :org AND batch_id = :batchId AND state <> 'no' AND taken_back_at IS NULL`,
      { batchId, actor: tx.scope.actorId },
    );
    await tx.execute(
      `UPDATE permission_entry SET taken_back_at = UTC_TIMESTAMP(3) WHERE organization_id = :org AND batch_id = :batchId AND state <> 'no' AND taken_back_at IS NULL`,
      { batchId },
    );
    await tx.execute(`DELETE FROM permission_state WHERE organization_id = :org AND contact_point_id IN (${mine})`, { batchId });
    await this.fold(tx, `contact_point_id IN (SELECT contact_point_id FROM (${mine}) affected)`, { batchId });
  }

  /** Derives the states of some addresses anew: after entries have become somebody else's. */
  async refold(tx: Scoped, contactPointIds: readonly number[]): Promise<void> {
    if (contactPointIds.length === 0) return;
    for (const id of contactPointIds) tx.reached.add(id);
    await tx.execute('DELETE FROM permission_state WHERE organization_id = :org AND contact_point_id IN (:contactPointIds)', { contactPointIds });
    await this.fold(tx, 'contact_point_id IN (:contactPointIds)', { contactPointIds });
  }

  /** Derives the whole state table of an organization anew from its entries. */
  async rebuild(tx: Scoped): Promise<void> {
    await tx.execute('DELETE FROM permission_state WHERE organization_id = :org');
    await this.fold(tx, '1 = 1', {});
  }

  /**
   * Derives the states anew beside those that are kept and returns how many rows differ: none, unless something wrote
   * past the ledger.
   */
  async differences(tx: Scoped): Promise<{ kept: number; derived: number; differing: number }> {
    await tx.knex.raw('DROP TEMPORARY TABLE IF EXISTS permission_state_anew');
    await tx.knex.raw('CREATE TEMPORARY TABLE permission_state_anew LIKE permission_state');
    await tx.execute(foldSql('1 = 1', 'permission_state_anew'));
    const columns = `contact_point_id, supporter_id, channel, scope, ${KINDS.flatMap(([kind]) => columnsOf(kind)).join(', ')}`;
    const rows = (table: string) => `SELECT ${columns} FROM ${table} WHERE organization_id = :org`;
    const count = async (from: string) => (await tx.sql<{ n: number }>(`SELECT COUNT(*) AS n FROM (${from}) x`))[0]!.n;
    // A temporary table can be named once in a statement, so the two directions are two statements.
    const lost = await count(`${rows('permission_state')} EXCEPT ${rows('permission_state_anew')}`);
    const extra = await count(`${rows('permission_state_anew')} EXCEPT ${rows('permission_state')}`);
    const out = { kept: await count(rows('permission_state')), derived: await count(rows('permission_state_anew')), differing: lost + extra };
    await tx.knex.raw('DROP TEMPORARY TABLE permission_state_anew');
    return out;
  }

  /** Entries that bear on a person: their own, and every no at an address of theirs. Newest first. */
  async entriesOf(db: Scoped, supporterId: number): Promise<EntryRow[]> {
    return db.sql<EntryRow>(
      `SELECT e.*, t.name AS recorded_name, cp.shown FROM permission_entry e
        JOIN contact_point cp ON cp.id = e.contact_point_id LEFT JOIN teammate t ON t.id = e.recorded_by
        WHERE e.organization_id = :org AND (e.supporter_id = :supporterId OR (e.state = 'no' AND e.contact_point_id IN
          (SELECT contact_point_id FROM supporter_contact WHERE supporter_id = :supporterId)))
        ORDER BY e.said_at DESC, e.id DESC`,
      { supporterId },
    );
  }

  /** State rows that bear on these people: their own at their addresses, and the refusals of those addresses. */
  async statesOf(db: Scoped, supporterIds: readonly number[]): Promise<(StateRow & { for_supporter: number })[]> {
    if (supporterIds.length === 0) return [];
    return db.sql(
      `SELECT sc.supporter_id AS for_supporter, ps.* FROM supporter_contact sc
        JOIN permission_state ps ON ps.organization_id = :org AND ps.contact_point_id = sc.contact_point_id AND ps.supporter_id IN (0, sc.supporter_id)
        WHERE sc.supporter_id IN (:supporterIds)`,
      { supporterIds },
    );
  }
}

/** The marks of one state row, as the core knows them. */
export function marksOf(row: StateRow): Marks {
  const marks: Marks = {};
  for (const kind of MARK_KINDS) {
    const [at, entryId] = [row[`${COLUMN_OF[kind]}_at`], row[`${COLUMN_OF[kind]}_entry`]];
    if (!at || entryId === null) continue;
    marks[kind] = { at: at.getTime(), entryId, ...(kind === 'pause' ? { until: row.pause_until?.getTime() ?? at.getTime() } : {}) };
  }
  return marks;
}
