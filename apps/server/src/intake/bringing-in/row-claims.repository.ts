import { Inject, Injectable } from '@nestjs/common';
import { type IntakePlan } from '@goodword/core/intake';
import {
  ADDRESS_KIND,
  rulesFor,
  type Cell,
  type Channel,
  type SendingChannel,
  type HouseRules,
} from '@goodword/core/permission';
import { PersonCellsRepository } from '../../permission/ledger/facts.repository';
import type { Bound, Scoped } from '../../platform/scoped';
import { ANYTHING, type BatchContents } from '../checking/batch-contents';
import type { BatchRow } from '../batches.repository';
import { entryKey, onceEach, rowEntries, severalOf, type ClaimRow, type RowEntry } from './row-permission';
import { takes } from '../../permission/line.sql';
import { EntriesRepository } from '../../permission/ledger/entries.repository';
import { ROWS } from './row-addresses.repository';

type ClaimSql = Omit<ClaimRow, 'place' | 'isNew' | 'refused' | 'onHold' | 'doNotContact'> & {
  isNew: number;
  refused: number;
  onHold: number | null;
  doNotContact: number | null;
  country: string | null;
  region: string | null;
};

/** Rows `from` to `to`, both included. */
export interface Within {
  from: number;
  to: number;
}

export interface PermissionFacts {
  rules: HouseRules;
  now: number;
  /** What the rows hold; anything, where it is not worth asking for a few of them. */
  contents?: BatchContents;
}

const COMES = "r.verdict IN ('new', 'shares', 'update', 'same', 'gift')";

export const PERSON =
  'COALESCE(NULLIF(r.supporter_id, 0), -CAST(COALESCE(r.same_as_row, r.row_no) AS SIGNED))';

/** A no is written down also of those who are here and stay otherwise as they are. */
export const SPEAKS = "r.verdict IN ('new', 'shares', 'update', 'same', 'gift', 'here')";

/**
 * What rows say about permission, with what is known of their people and addresses. Reads `batch_row`,
 * `batch_more`.
 */
@Injectable()
export class RowClaimsRepository {
  constructor(
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
  ) {}

  /** Entries of a slice that are not there yet. */
  async fresh(
    db: Scoped,
    batch: BatchRow,
    plan: IntakePlan,
    channel: Channel,
    within: Within,
    { rules, now, contents = ANYTHING }: PermissionFacts,
    seen: Set<string>,
    several?: ReadonlySet<number>,
    which?: string,
  ): Promise<RowEntry[]> {
    const rows = await this.speaking(db, batch.id, plan, channel, within, contents, which);
    if (rows.length === 0) return [];
    const asks = channel === 'email' && plan.confirm !== null;
    const cells = asks ? await this.cellsOf(db, rows, channel) : [];
    const entries = rowEntries(rows, {
      plan,
      channel,
      now,
      cells,
      madeAt: batch.created_at.getTime(),
      confirmDays: (place) => rulesFor(rules, place).confirm.withinDays,
    });
    const known = await this.knownKeys(db, rows, channel);
    const twice = severalOf(rows);
    const once = onceEach(entries, new Set(known), (row) => row.isNew && !twice.has(row.person));
    // Whoever stands in several rows may have said the same in one before; nobody else can have.
    return several
      ? once.filter((entry) => !several.has(entry.row.person) || onceEach([entry], seen).length > 0)
      : once;
  }

  /** The rows that may say something on a channel, by the plan and by what stands in them. */
  private async speaking(
    db: Scoped,
    batchId: number,
    plan: IntakePlan,
    channel: Channel,
    within: Within,
    contents: BatchContents,
    which?: string,
  ): Promise<ClaimRow[]> {
    if (channel !== 'email' && channel !== 'text')
      return contents.more.has('refused') ? this.refused(db, batchId, channel, within, which) : [];
    const agrees = plan.permission[channel].said === 'yes';
    if (!agrees && !contents.refuses.has(channel)) return [];
    return this.claims(db, batchId, channel, within, {
      contents,
      which,
      only: agrees ? undefined : 'refusals',
    });
  }

  /**
   * What these people have in the ledger already, of those who were here before: whom a row makes has nothing
   * there.
   */
  private async knownKeys(db: Scoped, rows: readonly ClaimRow[], channel: Channel): Promise<string[]> {
    const normals = new Map(
      rows.flatMap((row) => (row.contactPointId === null ? [] : [[row.contactPointId, row.normal] as const])),
    );
    const here = [
      ...new Set(rows.filter((row) => row.supporterId > 0 && !row.isNew).map((row) => row.supporterId)),
    ];
    const entries = await this.entries.saidBy(db, here, channel);
    return entries.map((entry) =>
      entryKey({
        ...entry,
        person: entry.supporterId,
        at:
          entry.contactPointId === null ? null : (normals.get(entry.contactPointId) ?? entry.contactPointId),
      }),
    );
  }

  async cellsOf(db: Scoped, rows: readonly ClaimRow[], channel: SendingChannel): Promise<Cell[]> {
    const points = rows.flatMap((row) => row.contactPointId ?? []);
    const people = rows.flatMap((row) => (row.supporterId > 0 ? [row.supporterId] : []));
    return this.cells.around(db, points, people, channel);
  }

  /** People who stand in more than one row. */
  async severalRows(db: Scoped, batchId: number): Promise<Set<number>> {
    const rows = await db.sql<{ person: number }>(
      `SELECT ${PERSON} AS person
        FROM batch_row r
        WHERE r.organization_id = :org AND r.batch_id = :batchId AND ${COMES}
        GROUP BY person HAVING COUNT(*) > 1`,
      { batchId },
    );
    return new Set(rows.map(({ person }) => Number(person)));
  }

  /**
   * The rows themselves where they say no, and each of their addresses on the channel; a landline takes no
   * texts, so nobody agreed to any there. `only`: refusals alone, or addresses that are on file alone. What
   * the batch holds nothing of is not joined.
   */
  async claims(
    db: Scoped,
    batchId: number,
    channel: SendingChannel,
    within: Within,
    {
      contents,
      which,
      only,
    }: { contents: BatchContents; which?: string | undefined; only?: 'refusals' | 'on-file' | undefined },
  ): Promise<ClaimRow[]> {
    const kind = ADDRESS_KIND[channel] as 'email' | 'mobile';
    const own = `r.${kind}`;
    const [line, more] = [
      `AND ${takes(channel, 'COALESCE(cp.line, r.line)')}`,
      `AND ${takes(channel, 'cp.line')}`,
    ];
    const point = (normal: string) =>
      `${only === 'on-file' ? '' : 'LEFT '}JOIN contact_point cp FORCE INDEX (by_normal)
        ON cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = ${normal}`;
    const ownOnFile = contents.own.has(kind) && contents.onFile.has(kind);
    // Beside the rows, each under an alias where any row has such.
    const asides = [
      ['signed', 'sg', ''],
      ['words', 'sw', ''],
      ['refused', 'rf', ` AND rf.value = '${channel}'`],
    ].filter(([name]) => contents.more.has(name!));
    const aside = ([name, as, and]: string[]) =>
      `LEFT JOIN batch_more ${as} ON ${as}.batch_id = r.batch_id AND ${as}.row_no = r.row_no
        AND ${as}.kind = '${name}'${and}`;
    const value = (as: string) => (asides.some(([, one]) => one === as) ? `${as}.value` : 'NULL');
    const select = (normal: string, joins: string, address: string, among = which ?? COMES) => `
      SELECT
      STRAIGHT_JOIN r.row_no AS rowNo, ${PERSON} AS person, r.supporter_id AS supporterId,
        r.verdict IN ('new', 'shares') AS isNew,
        r.${channel}_says AS says, ${value('rf')} IS NOT NULL AS refused, ${normal} AS normal, ${address},
        ${value('sg')} AS signed,
        ${value('sw')} AS words, IF(s.id IS NULL, r.country, s.country) AS country,
        IF(s.id IS NULL, r.region, s.region) AS region
      FROM batch_row r ${joins} LEFT JOIN supporter s ON s.organization_id = :org AND s.id = r.supporter_id
        ${asides.map(aside).join(' ')} WHERE ${ROWS} AND ${among}`;
    const here = 'cp.id AS contactPointId, cp.on_hold AS onHold, cp.do_not_contact AS doNotContact';
    const nowhere = 'NULL AS contactPointId, 0 AS onHold, 0 AS doNotContact';
    const further = `JOIN batch_more m ON m.batch_id = r.batch_id AND m.row_no = r.row_no
      AND m.kind = '${kind}' ${point('m.normal')}`;
    const parts = [
      only !== 'on-file' &&
        contents.refuses.has(channel) &&
        `${select('NULL', '', nowhere, which ?? SPEAKS)} AND r.${channel}_says = 0`,
      only !== 'refusals' && ownOnFile && `${select(own, point(own), here)} AND ${own} IS NOT NULL ${line}`,
      only === undefined &&
        contents.own.has(kind) &&
        !ownOnFile &&
        `${select(own, '', nowhere)} AND ${own} IS NOT NULL AND ${takes(channel, 'r.line')}`,
      only !== 'refusals' && contents.more.has(kind) && `${select('m.normal', further, here)} ${more}`,
    ].filter((part) => part !== false);
    if (parts.length === 0) return [];
    const bindings: Record<string, Bound> = { batchId, ...within };
    const rows = await db.sql<ClaimSql>(`${parts.join(' UNION ALL ')} ORDER BY rowNo`, bindings);
    return rows.map(({ country, region, ...row }) => ({
      ...row,
      // Where one half of a union has none, numbers of the other come as text.
      person: Number(row.person),
      contactPointId: row.contactPointId === null ? null : Number(row.contactPointId),
      isNew: Number(row.isNew) === 1,
      refused: Number(row.refused) === 1,
      onHold: Number(row.onHold) === 1,
      doNotContact: Number(row.doNotContact) === 1,
      place: { country, region },
    }));
  }

  /** Rows that say no to a channel on which nobody agrees from a file, for the person. */
  private async refused(
    db: Scoped,
    batchId: number,
    channel: Channel,
    within: Within,
    which = SPEAKS,
  ): Promise<ClaimRow[]> {
    const rows = await db.sql<{ rowNo: number; person: number; supporterId: number }>(
      `SELECT
        STRAIGHT_JOIN r.row_no AS rowNo, ${PERSON} AS person, r.supporter_id AS supporterId
        FROM batch_more re
        JOIN batch_row r ON r.batch_id = re.batch_id AND r.row_no = re.row_no
        WHERE re.batch_id = :batchId AND re.kind = 'refused' AND re.row_no BETWEEN :from AND :to
          AND re.value = :channel AND ${ROWS} AND ${which}
        ORDER BY rowNo`,
      { batchId, channel, ...within },
    );
    const nowhere = { normal: null, contactPointId: null, onHold: false, doNotContact: false };
    return rows.map((row) => ({
      ...row,
      person: Number(row.person),
      isNew: false,
      says: 0,
      refused: true,
      ...nowhere,
      signed: null,
      words: null,
      place: { country: null, region: null },
    }));
  }
}
