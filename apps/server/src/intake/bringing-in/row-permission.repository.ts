import { Inject, Injectable } from '@nestjs/common';
import type { ConfirmRequest, IntakePlan } from '@goodword/core/intake';
import { mailboxOf } from '@goodword/core/intake';
import { CHANNELS, SENDING_CHANNELS, isOptedOut, type Cell, type Channel } from '@goodword/core/permission';
import { dayOfMoment, type RowSays } from '../../permission/ledger/batch-entries.repository';
import { LedgerRepository } from '../../permission/ledger/ledger.repository';
import type { Bound, Scoped } from '../../platform/scoped';
import { type BatchContents } from '../checking/batch-contents';
import type { BatchRow } from '../batches.repository';
import { alike, cellsByPoint, type ClaimRow, type RowEntry } from './row-permission';
import { RowClaimsRepository } from './row-claims.repository';
import { type Within, type PermissionFacts, SPEAKS } from './row-claims.repository';

/** How many entries of each state a batch comes to on one channel. */
export type EntryCounts = Record<'yes' | 'no' | 'asked', number>;

const SLICE = 5000;

/** What stands of the addresses of a row before it comes in. */
const STANDS_NO = 1;
const STANDS_YES = 2;

/**
 * Permission of the rows of a batch: facts are read (`RowClaimsRepository`), the core says what becomes of
 * them, for the forecast and for bringing in alike.
 */
@Injectable()
export class RowPermissionRepository {
  constructor(
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(RowClaimsRepository) private readonly claims: RowClaimsRepository,
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
      const entries = await this.claims.fresh(tx, batch, plan, channel, within, facts, new Set());
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
    const several = await this.claims.severalRows(tx, batch.id);
    const seen = new Set<string>();
    for (let from = 1; from <= batch.row_count; from += SLICE) {
      const within = { from, to: Math.min(from + SLICE - 1, batch.row_count) };
      for (const channel of CHANNELS) {
        for (const entry of await this.claims.fresh(tx, batch, plan, channel, within, facts, seen, several))
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
      for (const { row, scope, state, saidAt, words } of await this.claims.fresh(
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
        for (const { row } of await this.claims.fresh(
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
        const rows = await this.claims.claims(tx, batch.id, channel, within, { contents, only: 'on-file' });
        const at = cellsByPoint(await this.claims.cellsOf(tx, rows, channel));
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

function standsAt(cells: readonly Cell[], row: ClaimRow): number {
  let stands = 0;
  for (const cell of cells) {
    if (isOptedOut(cell.marks)) stands |= STANDS_NO;
    if (cell.supporterId === row.supporterId && row.supporterId > 0 && cell.marks.yes) stands |= STANDS_YES;
  }
  return stands;
}
