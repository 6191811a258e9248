import { Injectable } from '@nestjs/common';
import type { Channel, Marks, RecordedState, Road, Scope as PermissionScope } from '@goodword/core/permission';
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
  recorded_by: number | null;
  recorded_name: string | null;
  shown: string;
  taken_back_at: Date | null;
}

export interface StateRow {
  contact_point_id: number;
  supporter_id: number;
  channel: Channel;
  scope: PermissionScope;
  no_at: Date | null;
  no_entry: number | null;
  own_yes_at: Date | null;
  own_yes_entry: number | null;
  yes_at: Date | null;
  yes_entry: number | null;
  implied_until: Date | null;
  implied_entry: number | null;
  asked_at: Date | null;
  asked_entry: number | null;
}

const KINDS = [
  ['no', "state = 'no'", 'said_at'],
  ['own_yes', "state = 'yes' AND by_person = 1", 'said_at'],
  ['yes', "state = 'yes'", 'said_at'],
  ['implied', "state = 'implied'", 'COALESCE(until_at, said_at)'],
  ['asked', "state = 'asked'", 'said_at'],
] as const;

function atColumn(kind: string): string {
  return kind === 'implied' ? 'implied_until' : `${kind}_at`;
}

/** Folds the chosen entries into the state table: the SQL form of `foldEntry`, greatest mark of each kind. */
function foldSql(which: string): string {
  const greatest = KINDS.map(
    ([kind, when, at]) => `MAX(IF(${when}, CONCAT(DATE_FORMAT(${at}, '%Y-%m-%d %H:%i:%s.%f'), LPAD(id, 20, '0')), NULL)) AS ${kind}_mark`,
  );
  const parts = KINDS.map(
    ([kind]) => `CAST(LEFT(${kind}_mark, 26) AS DATETIME(3)) AS ${atColumn(kind)}, CAST(SUBSTRING(${kind}_mark, 27) AS UNSIGNED) AS ${kind}_entry`,
  );
  const columns = KINDS.flatMap(([kind]) => [atColumn(kind), `${kind}_entry`]);
  // The entry is set before the moment, because each assignment sees the ones before it.
  const upserts = KINDS.flatMap(([kind]) => {
    const at = atColumn(kind);
    const newer = `VALUES(${at}) IS NOT NULL AND (s.${at} IS NULL OR VALUES(${at}) > s.${at} OR (VALUES(${at}) = s.${at} AND VALUES(${kind}_entry) > s.${kind}_entry))`;
    return [
      `${kind}_entry = IF(${newer}, VALUES(${kind}_entry), s.${kind}_entry)`,
      `${at} = IF(VALUES(${at}) IS NOT NULL AND (s.${at} IS NULL OR VALUES(${at}) > s.${at}), VALUES(${at}), s.${at})`,
    ];
  });
  return `INSERT INTO permission_state (organization_id, contact_point_id, supporter_id, channel, scope, ${columns.join(', ')})
    SELECT * FROM (SELECT organization_id, contact_point_id, person, channel, scope, ${parts.join(', ')} FROM (
      SELECT organization_id, contact_point_id, IF(state = 'no', 0, COALESCE(supporter_id, 0)) AS person, channel, scope, ${greatest.join(', ')}
      FROM permission_entry WHERE organization_id = :org AND taken_back_at IS NULL AND ${which}
      GROUP BY organization_id, contact_point_id, person, channel, scope) g) n
    ON DUPLICATE KEY UPDATE ${upserts.join(', ').replaceAll(' s.', ' permission_state.').replaceAll('(s.', '(permission_state.')}`;
}

/** The permission ledger: entries, which are only added, and the state derived from them in the same transaction. */
@Injectable()
export class LedgerRepository {
  async record(tx: Scoped, entry: NewEntry): Promise<number> {
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
      words: entry.words ?? '',
      source: (entry.source ?? '').slice(0, 300),
      origin: entry.origin ?? null,
      recorded_by: tx.scope.actorId,
    });
    await this.fold(tx, 'id = :id', { id });
    return id;
  }

  /** Folds entries that were written by a set-based statement. `which` is a condition over permission_entry. */
  async fold(tx: Scoped, which: string, bindings: Record<string, Bound>): Promise<void> {
    await tx.execute(foldSql(which), bindings);
  }

  /** Marks a batch's agreements as taken back (its refusals stay) and derives the state of their addresses anew. */
  async takeBackBatch(tx: Scoped, batchId: number): Promise<void> {
    const mine = 'SELECT DISTINCT contact_point_id FROM permission_entry WHERE organization_id = :org AND batch_id = :batchId';
    await tx.execute(
      `UPDATE permission_entry SET taken_back_at = UTC_TIMESTAMP(3) WHERE organization_id = :org AND batch_id = :batchId AND state <> 'no' AND taken_back_at IS NULL`,
      { batchId },
    );
    await tx.execute(`DELETE FROM permission_state WHERE organization_id = :org AND contact_point_id IN (${mine})`, { batchId });
    await this.fold(tx, `contact_point_id IN (SELECT contact_point_id FROM (${mine}) affected)`, { batchId });
  }

  /** Derives the whole state table of an organization anew from its entries. */
  async rebuild(tx: Scoped): Promise<void> {
    await tx.execute('DELETE FROM permission_state WHERE organization_id = :org');
    await this.fold(tx, '1 = 1', {});
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
  const mark = (at: Date | null, entryId: number | null) => (at && entryId !== null ? { at: at.getTime(), entryId } : undefined);
  const marks: Marks = {
    no: mark(row.no_at, row.no_entry),
    ownYes: mark(row.own_yes_at, row.own_yes_entry),
    yes: mark(row.yes_at, row.yes_entry),
    implied: mark(row.implied_until, row.implied_entry),
    asked: mark(row.asked_at, row.asked_entry),
  };
  return Object.fromEntries(Object.entries(marks).filter(([, value]) => value !== undefined)) as Marks;
}
