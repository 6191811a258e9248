import { NotFound } from '../platform/errors';
import { Injectable } from '@nestjs/common';
import type { BatchState, LikelyDouble } from '@goodword/core/contract';
import type {
  RowVerdict,
  BatchKind,
  CleanRow,
  Guess,
  DoubtKind,
  MatchKey,
  RowPlace,
} from '@goodword/core/intake';
import type { FieldValue } from '@goodword/core/fields';
import type { Bound, Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';
import { StagedRowsRepository } from './staged-rows.repository';
import { Inject } from '@nestjs/common';
import { COMING } from './staged-rows.repository';

export interface BatchRow extends Pick<
  Tables['batch'],
  | 'id'
  | 'name'
  | 'file_name'
  | 'storage_key'
  | 'file_gone_at'
  | 'reading'
  | 'found'
  | 'draft'
  | 'draft_version'
  | 'draft_by'
  | 'will'
  | 'row_count'
  | 'plan'
  | 'next_row'
  | 'stay_no'
  | 'stayed'
  | 'rate'
  | 'problem'
  | 'created_at'
  | 'created_by'
  | 'feed_run_id'
> {
  /** Where new people go. */
  chapter_id: number;
  /** Its people are looked for in all chapters. */
  across: number;
  /** People of other chapters are among those that its rows are, or may be. */
  mixed: number;
  /** The file as text: itself, or what a workbook or cards were turned into. */
  text_key: string | null;
  state: BatchState;
  what: BatchKind;
  guesses: Guess[] | null;
  resolved: ResolvedPlan | null;
  created_by_name: string | null;
}

/** What the plan's new things became: fields by column, and the ids of all tags and lists. */
export interface ResolvedPlan {
  fields: Record<number, number>;
  tagIds: number[];
  listIds: number[];
}

/** One row as it is staged. */
export interface StagedRow {
  rowNo: number;
  verdict: RowVerdict;
  reason: string;
  hint: string;
  why: DoubtKind | null;
  candidates: LikelyDouble[];
  sameAsRow: number | null;
  supporterId: number | null;
  /** What settled that it is them. */
  metBy: MatchKey | null;
  /** The chapter that it says somebody new joins; null for that of the batch. */
  chapterId: number | null;
  /** Of a file of gifts: not here, so brought in as never asked or left. */
  stranger: boolean;
  clean: CleanRow | null;
  place: RowPlace | null;
  /** By field id, or by minus (column + 1) for a field that is yet to be made. */
  values: { fieldId: number; value: FieldValue }[];
}

/** What the rows of a mixed batch say of other chapters' people is not for who is bound to some chapters. */
export const isSeenBy = ({ scope }: Scoped, batch: string): string =>
  scope.boundTo === null ? 'TRUE' : `COALESCE(${batch}.mixed, 0) = 0`;

type BatchValues = Partial<
  Record<
    | 'name'
    | 'chapter_id'
    | 'across'
    | 'mixed'
    | 'state'
    | 'what'
    | 'plan'
    | 'resolved'
    | 'reading'
    | 'found'
    | 'guesses'
    | 'draft'
    | 'draft_version'
    | 'draft_by'
    | 'will'
    | 'text_key'
    | 'row_count'
    | 'next_row'
    | 'stay_no'
    | 'stayed'
    | 'rate'
    | 'problem'
    | 'ended_at'
    | 'seen_at'
    | 'file_gone_at'
    | 'feed_run_id',
    string | number | Date | null
  >
>;

const HALF_DONE = "state NOT IN ('unreadable','done','taken-out','failed')";

/** Batches, and how far each is. Owns `batch`. */
@Injectable()
export class BatchesRepository {
  constructor(@Inject(StagedRowsRepository) private readonly staged: StagedRowsRepository) {}

  async make(
    tx: Scoped,
    batch: { chapterId: number; name: string; fileName: string; storageKey: string },
  ): Promise<number> {
    return tx.insert('batch', {
      chapter_id: batch.chapterId,
      name: batch.name,
      file_name: batch.fileName,
      storage_key: batch.storageKey,
      state: 'reading',
      created_by: tx.scope.actorId,
    });
  }

  /** How far taking a batch out is; no step of any where it has not begun. */
  async stepsOfTakingOut(db: Scoped, id: number): Promise<{ done: number; total: number }> {
    const [row] = await db.sql<{ done: number | null; total: number | null }>(
      `SELECT done, total
        FROM job
        WHERE organization_id = :org AND kind = 'batch-take-out' AND ref_id = :id
        ORDER BY id DESC
        LIMIT 1`,
      { id },
    );
    return { done: row?.done ?? 0, total: row?.total ?? 0 };
  }

  /** How many half-done batches are a teammate's. */
  async waitingFor(db: Scoped, id: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n FROM batch WHERE organization_id = :org AND created_by = :id AND ${HALF_DONE}`,
      {
        id,
      },
    );
    return row?.n ?? 0;
  }

  async handOn(tx: Scoped, from: number, to: number): Promise<void> {
    await tx.execute(
      `UPDATE batch
        SET created_by = :to
        WHERE organization_id = :org AND created_by = :from AND ${HALF_DONE}`,
      { from, to },
    );
  }

  async find(db: Scoped, id: number): Promise<BatchRow | undefined> {
    const [row] = await this.select(db, 'AND b.id = :id', { id });
    return row;
  }

  /** The batch as it stands, held until the transaction ends: whoever else would move it on waits. */
  /** The batch; throws for one that is not there. */
  async need(db: Scoped, id: number): Promise<BatchRow> {
    const batch = await this.find(db, id);
    if (!batch) throw new NotFound('batch');
    return batch;
  }

  async lockForUpdate(tx: Scoped, id: number): Promise<BatchRow | undefined> {
    await tx.sql('SELECT id FROM batch WHERE organization_id = :org AND id = :id FOR UPDATE', { id });
    return this.find(tx, id);
  }

  async page(
    db: Scoped,
    query: { state?: 'open' | 'done' | 'all'; by?: number; from?: string; to?: string; source?: string },
  ): Promise<BatchRow[]> {
    const open = "'done', 'taken-out'";
    const parts = [
      query.state === 'open'
        ? `AND b.state NOT IN (${open})`
        : query.state === 'done'
          ? `AND b.state IN (${open})`
          : '',
      query.by ? 'AND b.created_by = :by' : '',
      query.from ? 'AND b.created_at >= :from' : '',
      query.to ? 'AND b.created_at < :to + INTERVAL 1 DAY' : '',
      query.source ? 'AND (b.name LIKE :source OR b.file_name LIKE :source)' : '',
    ];
    const like = `%${(query.source ?? '').replace(/[\\%_]/g, '\\$&')}%`;
    return this.select(db, `${parts.join(' ')} ORDER BY b.id DESC LIMIT 500`, {
      by: query.by ?? null,
      from: query.from ?? null,
      to: query.to ?? null,
      source: like,
    });
  }

  private async select(db: Scoped, rest: string, bindings: Record<string, Bound>): Promise<BatchRow[]> {
    return db.sql<BatchRow>(
      `SELECT b.id, b.chapter_id, b.across, b.mixed, b.name, b.file_name, b.storage_key, b.text_key,
          b.file_gone_at, b.state, b.what, b.reading, b.found, b.guesses, b.draft, b.draft_version,
          b.draft_by, b.will, b.row_count, b.plan, b.resolved, b.next_row, b.stay_no, b.stayed, b.rate,
          b.problem, b.created_at, b.created_by, b.feed_run_id, t.name AS created_by_name
        FROM batch b
        LEFT JOIN teammate t ON t.id = b.created_by
        WHERE b.organization_id = :org AND (:chapter IS NULL OR b.chapter_id = :chapter)
        AND ${isSeenBy(db, 'b')} ${rest}`,
      bindings,
    );
  }

  async change(tx: Scoped, id: number, values: BatchValues): Promise<void> {
    await tx.table('batch').where('batch.id', id).update(values);
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    await this.staged.clearStaged(tx, id);
    await tx.execute('DELETE FROM batch_decision WHERE organization_id = :org AND batch_id = :id', { id });
    await tx.execute('DELETE FROM batch WHERE organization_id = :org AND id = :id', { id });
  }

  /**
   * Counts of staged rows by verdict and by why they want a look, and of those that lose a cell or have
   * something to tell.
   */
  async counts(
    db: Scoped,
    id: number,
  ): Promise<{
    counts: Partial<Record<RowVerdict, number>>;
    looks: Partial<Record<DoubtKind, number>>;
    withFaults: number;
    withHints: number;
  }> {
    const rows = await db.sql<{
      verdict: RowVerdict;
      why: DoubtKind | null;
      n: number;
      faults: number;
      hints: number;
    }>(
      `SELECT verdict, IF(verdict = 'look', why, NULL) AS why, COUNT(*) AS n, SUM(reason <> '') AS faults,
        SUM(hint <> '') AS hints
        FROM batch_row WHERE organization_id = :org AND batch_id = :id GROUP BY 1, 2`,
      { id },
    );
    const counts: Partial<Record<RowVerdict, number>> = {};
    for (const row of rows) counts[row.verdict] = (counts[row.verdict] ?? 0) + row.n;
    const coming = rows.filter((row) => COMING.includes(row.verdict));
    return {
      counts,
      looks: Object.fromEntries(rows.flatMap((row) => (row.why ? [[row.why, row.n]] : []))),
      withFaults: coming.reduce((sum, row) => sum + Number(row.faults), 0),
      withHints: coming.reduce((sum, row) => sum + Number(row.hints), 0),
    };
  }

  async countsOfAll(
    db: Scoped,
    ids: readonly number[],
  ): Promise<{ batch_id: number; verdict: RowVerdict; n: number }[]> {
    if (ids.length === 0) return [];
    return db.sql(
      `SELECT batch_id, verdict, COUNT(*) AS n
        FROM batch_row
        WHERE organization_id = :org AND batch_id IN (:ids)
        GROUP BY batch_id, verdict`,
      { ids },
    );
  }

  /** Rows that came in, with whom each of them is. */
  async came(
    db: Scoped,
    id: number,
  ): Promise<{ row_no: number; supporter_id: number; verdict: RowVerdict }[]> {
    return db.sql(
      `SELECT row_no, supporter_id, verdict
        FROM batch_row
        WHERE organization_id = :org AND batch_id = :id AND supporter_id > 0
        ORDER BY row_no`,
      { id },
    );
  }

  /** Days that files of batches are kept. */
  async fileDays(db: Scoped): Promise<number> {
    const [row] = await db.sql<{ file_days: number }>('SELECT file_days FROM organization WHERE id = :org');
    return row!.file_days;
  }

  /** Batches whose file has been kept for as long as the house rule says. */
  async stale(db: Scoped): Promise<{ id: number; storage_key: string; text_key: string | null }[]> {
    return db.sql(
      `SELECT b.id, b.storage_key, b.text_key FROM batch b JOIN organization o ON o.id = b.organization_id
        WHERE b.organization_id = :org AND b.file_gone_at IS NULL
          AND b.state IN ('done', 'taken-out', 'unreadable')
          AND b.created_at < UTC_TIMESTAMP(3) - INTERVAL o.file_days DAY
        LIMIT 100`,
    );
  }
}

/** How a batch's text is read when it is read again: as was found, but where a person chose. */
export function readingOf(batch: BatchRow) {
  const found = batch.found;
  const chosen = { ...batch.reading, ...batch.plan?.reading };
  if (!found) return chosen;
  const { encoding, delimiter, headerLine, unscramble } = found;
  return {
    encoding,
    delimiter,
    headerLine,
    unscramble,
    ...chosen,
    ...(found.kind === 'text' ? {} : { encoding, delimiter }),
  };
}

/** Why a batch can't be taken back out; null where it can. */
export function whyNotTakeOut(batch: BatchRow): string | null {
  return ['done', 'stopped'].includes(batch.state) ? null : 'It has not been brought in.';
}
