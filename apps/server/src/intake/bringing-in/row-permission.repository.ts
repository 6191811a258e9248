import { Inject, Injectable } from '@nestjs/common';
import type { ConfirmRequest, IntakePlan } from '@goodword/core/intake';
import { mailboxOf } from '@goodword/core/intake';
import {
  ADDRESS_KIND,
  CHANNELS,
  rulesFor,
  SENDING_CHANNELS,
  isOptedOut,
  type Cell,
  type Channel,
  type HouseRules,
  type SendingChannel,
} from '@goodword/core/permission';
import { PersonCellsRepository } from '../../permission/ledger/facts.repository';
import { dayOfMoment, type RowSays } from '../../permission/ledger/batch-entries.repository';
import { LedgerRepository } from '../../permission/ledger/ledger.repository';
import type { Bound, Scoped } from '../../platform/database';
import { ANYTHING, type BatchContents } from '../checking/batch-contents';
import type { BatchRow } from '../batches.repository';
import {
  alike,
  cellsByPoint,
  entryKey,
  onceEach,
  rowEntries,
  severalOf,
  type ClaimRow,
  type RowEntry,
} from './row-permission';
import { takes } from '../../permission/line.sql';

/** Rows `from` to `to`, both included. */
interface Within {
  from: number;
  to: number;
}

export interface PermissionFacts {
  rules: HouseRules;
  now: number;
  /** What the rows hold; anything, where it is not worth asking for a few of them. */
  contents?: BatchContents;
}

/** How many entries of each state a batch comes to on one channel. */
export type EntryCounts = Record<'yes' | 'no' | 'asked', number>;

const SLICE = 5000;
const PERSON = 'COALESCE(NULLIF(r.supporter_id, 0), -CAST(COALESCE(r.same_as_row, r.row_no) AS SIGNED))';
const COMES = "r.verdict IN ('new', 'shares', 'update', 'same', 'gift')";
/** A no is written down also of those who are here and stay otherwise as they are. */
const SPEAKS = "r.verdict IN ('new', 'shares', 'update', 'same', 'gift', 'here')";
const ROWS = 'r.organization_id = :org AND r.batch_id = :batchId AND r.row_no BETWEEN :from AND :to';

/** What stands of the addresses of a row before it comes in. */
const STANDS_NO = 1;
const STANDS_YES = 2;

/**
 * Permission of the rows of a batch: facts are read, the core says what becomes of them, for the forecast and
 * for bringing in alike.
 */
@Injectable()
export class RowPermissionRepository {
  constructor(
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
  ) {}

  /** Writes what the rows say, once each, and the requests to confirm of those who stand as asked. */
  async write(
    tx: Scoped,
    batch: BatchRow,
    plan: IntakePlan,
    within: Within,
    facts: PermissionFacts,
  ): Promise<void> {
    for (const channel of CHANNELS) {
      const entries = await this.fresh(tx, batch, plan, channel, within, facts, new Set());
      for (const [{ scope, state, how, words, saidAt }, some] of alike(entries)) {
        const word = {
          channel,
          scope,
          state,
          how,
          words,
          saidAt: new Date(saidAt),
          byPerson: false,
          source: batch.file_name,
        };
        await this.ledger.recordAlike(
          tx,
          { ...word, recordedBy: batch.created_by, batchId: batch.id },
          some.map(({ row }) => ({
            contactPointId: row.contactPointId,
            supporterId: row.supporterId,
            row: row.rowNo,
          })),
        );
      }
      if (plan.confirm) await this.askToConfirm(tx, batch, entries, plan.confirm);
    }
  }

  /**
   * Counts what a batch will write, marks the rows of which nothing new is said, and keeps of each row what
   * stands at its addresses already.
   */
  async forecast(
    tx: Scoped,
    batch: BatchRow,
    plan: IntakePlan,
    facts: PermissionFacts,
  ): Promise<Record<Channel, EntryCounts>> {
    const none = (): EntryCounts => ({ yes: 0, no: 0, asked: 0 });
    const counts = { email: none(), text: none(), call: none(), post: none() };
    const several = await this.severalRows(tx, batch.id);
    const seen = new Set<string>();
    for (let from = 1; from <= batch.row_count; from += SLICE) {
      const within = { from, to: Math.min(from + SLICE - 1, batch.row_count) };
      for (const channel of CHANNELS) {
        for (const entry of await this.fresh(tx, batch, plan, channel, within, facts, seen, several))
          counts[channel][entry.state]++;
      }
    }
    return counts;
  }

  /**
   * What some rows will write, none of which is in yet. What an earlier row of the same person says is said
   * once, so these are looked at as well.
   */
  async ofRows(
    db: Scoped,
    batch: BatchRow,
    plan: IntakePlan,
    rows: readonly number[],
    facts: PermissionFacts,
  ): Promise<RowSays[]> {
    const wanted = new Set(rows);
    const all = await this.withEarlier(db, batch.id, rows);
    const within = { from: Math.min(...all), to: Math.max(...all) };
    const which = `(${SPEAKS}) AND r.row_no IN (${all.join(', ')})`;
    const out: RowSays[] = [];
    for (const channel of CHANNELS) {
      for (const { row, scope, state, saidAt, words } of await this.fresh(
        db,
        batch,
        plan,
        channel,
        within,
        facts,
        new Set(),
        undefined,
        which,
      ))
        if (wanted.has(row.rowNo))
          out.push({ row: row.rowNo, channel, scope, state, at: row.normal, on: dayOfMoment(saidAt), words });
    }
    return out;
  }

  /** The rows, and those before them that are about the same people. */
  private async withEarlier(db: Scoped, batchId: number, rows: readonly number[]): Promise<number[]> {
    const bindings = { batchId, rows, last: Math.max(...rows) };
    const mine = 'organization_id = :org AND batch_id = :batchId';
    const own = await db.sql<{ id: number; first: number | null }>(
      `SELECT supporter_id AS id, same_as_row AS first FROM batch_row WHERE ${mine} AND row_no IN (:rows)`,
      bindings,
    );
    const [people, firsts] = [
      own.flatMap(({ id }) => (id > 0 ? [id] : [])),
      own.flatMap(({ first }) => first ?? []),
    ];
    const earlier = async (which: string, ids: readonly number[]) =>
      ids.length === 0
        ? []
        : db.sql<{ row_no: number }>(
            `SELECT row_no FROM batch_row WHERE ${mine} AND row_no <= :last AND ${which} IN (:ids)`,
            { ...bindings, ids },
          );
    const found = [...(await earlier('supporter_id', people)), ...(await earlier('same_as_row', firsts))];
    return [...new Set([...rows, ...firsts, ...found.map(({ row_no }) => row_no)])].sort((a, b) => a - b);
  }

  /** Rows that would write something. */
  async writing(tx: Scoped, batch: BatchRow, plan: IntakePlan, facts: PermissionFacts): Promise<Set<number>> {
    const rows = new Set<number>();
    if (facts.contents?.updates === false) return rows;
    for (let from = 1; from <= batch.row_count; from += SLICE) {
      const within = { from, to: Math.min(from + SLICE - 1, batch.row_count) };
      for (const channel of CHANNELS)
        for (const { row } of await this.fresh(
          tx,
          batch,
          plan,
          channel,
          within,
          facts,
          new Set(),
          undefined,
          "r.verdict = 'update'",
        ))
          rows.add(row.rowNo);
    }
    return rows;
  }

  /** Keeps of each row whether a no or a yes stands at an address of it, as the core reads it. */
  async markStanding(tx: Scoped, batch: BatchRow, contents: BatchContents): Promise<void> {
    for (let from = 1; from <= batch.row_count; from += SLICE) {
      const within = { from, to: Math.min(from + SLICE - 1, batch.row_count) };
      const marks = new Map<number, number>();
      for (const channel of SENDING_CHANNELS) {
        const rows = await this.claims(tx, batch.id, channel, within, { contents, only: 'on-file' });
        const at = cellsByPoint(await this.cellsOf(tx, rows, channel));
        for (const row of rows) marks.set(row.rowNo, (marks.get(row.rowNo) ?? 0) | standsAt(at(row), row));
      }
      for (const value of [STANDS_NO, STANDS_YES, STANDS_NO | STANDS_YES]) {
        const numbers = [...marks].filter(([, mark]) => mark === value).map(([rowNo]) => rowNo);
        if (numbers.length > 0)
          await tx.execute(
            `UPDATE batch_row
              SET stands = :value
              WHERE organization_id = :org AND batch_id = :batchId AND row_no IN (:numbers)`,
            {
              batchId: batch.id,
              value,
              numbers,
            },
          );
      }
    }
  }

  /** Entries of a slice that are not there yet. */
  private async fresh(
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
    const entries = await this.ledger.saidBy(db, here, channel);
    return entries.map((entry) =>
      entryKey({
        ...entry,
        person: entry.supporterId,
        at:
          entry.contactPointId === null ? null : (normals.get(entry.contactPointId) ?? entry.contactPointId),
      }),
    );
  }

  private async cellsOf(db: Scoped, rows: readonly ClaimRow[], channel: SendingChannel): Promise<Cell[]> {
    const points = rows.flatMap((row) => row.contactPointId ?? []);
    const people = rows.flatMap((row) => (row.supporterId > 0 ? [row.supporterId] : []));
    return this.cells.around(db, points, people, channel);
  }

  /** People who stand in more than one row. */
  private async severalRows(db: Scoped, batchId: number): Promise<Set<number>> {
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
  private async claims(
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

  /** One request for each who stands as asked by this batch. */
  private async askToConfirm(
    tx: Scoped,
    batch: BatchRow,
    entries: readonly RowEntry[],
    request: ConfirmRequest,
  ): Promise<void> {
    const asked = new Map<string, RowEntry[]>();
    for (const entry of entries.filter(({ state }) => state === 'asked')) {
      const key = `${entry.row.supporterId}:${entry.row.contactPointId}`;
      asked.set(key, [...(asked.get(key) ?? []), entry]);
    }
    const due = new Date();
    await tx.insertAll(
      'confirmation',
      [
        'kind',
        'batch_id',
        'supporter_id',
        'contact_point_id',
        'mailbox',
        'channel',
        'asks',
        'request',
        'due_at',
        'expires_at',
      ],
      [...asked.values()].map((some): Bound[] => [
        ...[
          'join',
          batch.id,
          some[0]!.row.supporterId,
          some[0]!.row.contactPointId,
          mailboxOf(some[0]!.row.normal!),
          'email',
        ],
        JSON.stringify(
          some.map(({ scope, words }) => ({ scope, words: words.replace(/ \(vouched for by .*\)$/, '') })),
        ),
        ...[JSON.stringify(request), due, new Date(due.getTime() + 30 * 86_400_000)],
      ]),
    );
  }
}

type ClaimSql = Omit<ClaimRow, 'place' | 'isNew' | 'refused' | 'onHold' | 'doNotContact'> & {
  isNew: number;
  refused: number;
  onHold: number | null;
  doNotContact: number | null;
  country: string | null;
  region: string | null;
};

function standsAt(cells: readonly Cell[], row: ClaimRow): number {
  let stands = 0;
  for (const cell of cells) {
    if (isOptedOut(cell.marks)) stands |= STANDS_NO;
    if (cell.supporterId === row.supporterId && row.supporterId > 0 && cell.marks.yes) stands |= STANDS_YES;
  }
  return stands;
}
