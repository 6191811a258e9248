import { Injectable } from '@nestjs/common';
import type { BatchState, LikelyDouble, RowsOnly } from '@goodword/core/contract';
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
import type { Bound, Scoped } from '../platform/database';
import type { ValueRow } from '../supporters/fields.repository';
import { takes } from '../permission/line.sql';
import type { Tables } from '../platform/tables/generated';

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

/** Stands for a supporter in rows that are about nobody yet. */
export const NO_SUPPORTER = 0;

export interface StagedView extends Pick<
  Tables['batch_row'],
  | 'row_no'
  | 'first_name'
  | 'last_name'
  | 'email_shown'
  | 'mobile_shown'
  | 'reason'
  | 'hint'
  | 'same_as_row'
  | 'external_id'
  | 'chapter_id'
> {
  verdict: RowVerdict;
  why: DoubtKind | null;
  candidates: LikelyDouble[] | null;
  /** Whom the row is about; `NOBODY` as long as nobody is. */
  supporter_id: number;
  /** What settled that it is them; null where a person did, or nothing. */
  met_by: MatchKey | null;
}

export interface RowsQuery {
  verdict?: RowVerdict;
  why?: string;
  only?: RowsOnly;
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
    | 'file_gone_at',
    string | number | Date | null
  >
>;

/** Verdicts of rows that bring or change somebody. */
export const COMING: readonly RowVerdict[] = ['new', 'shares', 'update', 'same', 'gift', 'no', 'hold'];

const HALF_DONE = "state NOT IN ('unreadable','done','taken-out','failed')";

/**
 * Batches, their staged rows as they are looked at, and what a person decided of them. Owns `batch`,
 * `batch_decision`.
 */
@Injectable()
export class BatchesRepository {
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
          b.problem, b.created_at, b.created_by, t.name AS created_by_name
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
    await this.clearStaged(tx, id);
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

  async clearStaged(tx: Scoped, id: number): Promise<void> {
    for (const table of ['batch_value', 'batch_more', 'batch_gift', 'batch_row']) {
      await tx.execute(`DELETE FROM ${table} WHERE organization_id = :org AND batch_id = :id`, { id });
    }
  }

  async rows(
    db: Scoped,
    id: number,
    query: RowsQuery,
    after: number,
    limit: number,
  ): Promise<{ rows: StagedView[]; total: number }> {
    const which = `organization_id = :org AND batch_id = :id ${query.verdict ? 'AND verdict = :verdict' : ''} ${query.why ? "AND verdict = 'look' AND why = :why" : ''} ${query.only ? `AND ${ONLY[query.only]}` : ''}`;
    const bindings = {
      id,
      verdict: query.verdict ?? null,
      why: query.why ?? null,
      after,
      limit,
      coming: COMING,
    };
    const [count] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n
        FROM batch_row
        WHERE ${which}`,
      bindings,
    );
    const rows = await db.sql<StagedView>(
      `SELECT row_no, verdict, first_name, last_name, email_shown, mobile_shown, reason, hint, why, candidates,
          supporter_id, same_as_row, met_by, external_id, chapter_id
        FROM batch_row
        WHERE ${which} AND row_no > :after ORDER BY row_no LIMIT :limit`,
      bindings,
    );
    return { rows, total: count?.n ?? 0 };
  }

  async row(db: Scoped, id: number, rowNo: number): Promise<StagedView | undefined> {
    const [row] = await db.sql<StagedView>(
      `SELECT row_no, verdict, first_name, last_name, email_shown, mobile_shown, reason, hint, why, candidates,
          supporter_id, same_as_row, met_by, external_id, chapter_id
        FROM batch_row
        WHERE organization_id = :org AND batch_id = :id AND row_no = :rowNo`,
      {
        id,
        rowNo,
      },
    );
    return row;
  }

  /** Rows to be mended: those that did not come in, and those that came in without a cell. */
  async faulty(db: Scoped, id: number): Promise<{ row_no: number; reason: string }[]> {
    return db.sql(
      `SELECT row_no, reason
        FROM batch_row
        WHERE organization_id = :org AND batch_id = :id AND reason <> ''
          AND verdict NOT IN ('aside', 'doubled')
        ORDER BY row_no`,
      { id },
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

  async decisions(
    db: Scoped,
    id: number,
  ): Promise<
    { row_no: number; outcome: 'merge' | 'new' | 'skip'; with_id: number | null; keep: string[] }[]
  > {
    return db.sql(
      `SELECT row_no, outcome, with_id, keep
        FROM batch_decision
        WHERE organization_id = :org AND batch_id = :id`,
      { id },
    );
  }

  /** Rows that may be somebody who is here, settled or not. */
  async looks(tx: Scoped, id: number, rows: readonly number[]): Promise<StagedView[]> {
    if (rows.length === 0) return [];
    return tx.sql<StagedView>(
      `SELECT row_no, verdict, first_name, last_name, email_shown, mobile_shown, reason, hint, why, candidates,
          supporter_id, same_as_row, met_by, external_id, chapter_id
        FROM batch_row
        WHERE organization_id = :org AND batch_id = :id AND candidates IS NOT NULL AND row_no IN (:rows)
        ORDER BY row_no`,
      { id, rows },
    );
  }

  /** Settles all rows of a kind in one stroke, each with the most likely of its people. Returns how many. */
  async decideKind(
    tx: Scoped,
    id: number,
    why: string,
    as: 'merge' | 'new' | 'skip',
    verdict: RowVerdict,
  ): Promise<number> {
    const best = "CAST(JSON_VALUE(candidates, '$[0].id') AS SIGNED)";
    const merge = as === 'merge';
    const bindings = { id, why, outcome: as, verdict, actor: tx.scope.actorId };
    const mine = "organization_id = :org AND batch_id = :id AND verdict = 'look' AND why = :why";
    await tx.execute(
      `INSERT INTO batch_decision (organization_id, batch_id, row_no, outcome, with_id, keep, made_by)
        SELECT :org, batch_id, row_no, :outcome, ${merge ? best : 'NULL'}, '[]', :actor
        FROM batch_row
        WHERE ${mine}
        ON DUPLICATE KEY UPDATE outcome = VALUES(outcome), with_id = VALUES(with_id), keep = VALUES(keep),
        made_by = VALUES(made_by), made_at = UTC_TIMESTAMP(3)`,
      bindings,
    );
    return tx.execute(
      `UPDATE batch_row
        SET verdict = :verdict, supporter_id = ${merge ? `IF(${best} > 0, ${best}, 0)` : '0'},
          same_as_row = ${merge ? `IF(${best} < 0, -${best}, NULL)` : 'NULL'}
        WHERE ${mine}`,
      bindings,
    );
  }

  async decide(
    tx: Scoped,
    id: number,
    rowNo: number,
    decision: {
      as: 'merge' | 'new' | 'skip';
      verdict: RowVerdict;
      withId: number | null;
      keep: string[];
      actorId: number | null;
    },
  ): Promise<void> {
    await tx.execute(
      `INSERT INTO batch_decision (organization_id, batch_id, row_no, outcome, with_id, keep, made_by)
        VALUES (:org, :id, :rowNo, :outcome, :withId, :keep, :actorId)
        ON DUPLICATE KEY UPDATE outcome = VALUES(outcome), with_id = VALUES(with_id), keep = VALUES(keep),
        made_by = VALUES(made_by), made_at = UTC_TIMESTAMP(3)`,
      {
        id,
        rowNo,
        outcome: decision.as,
        withId: decision.withId,
        keep: JSON.stringify(decision.keep),
        actorId: decision.actorId,
      },
    );
    const [supporterId, sameAsRow] =
      decision.withId === null
        ? [NO_SUPPORTER, null]
        : decision.withId > 0
          ? [decision.withId, null]
          : [NO_SUPPORTER, -decision.withId];
    await tx.execute(
      `UPDATE batch_row
        SET verdict = :verdict, supporter_id = :supporterId, same_as_row = :sameAsRow
        WHERE organization_id = :org AND batch_id = :id AND row_no = :rowNo`,
      { id, rowNo, verdict: decision.verdict, supporterId, sameAsRow },
    );
  }

  async undecide(tx: Scoped, id: number, rowNo: number): Promise<void> {
    await tx.execute(
      'DELETE FROM batch_decision WHERE organization_id = :org AND batch_id = :id AND row_no = :rowNo',
      { id, rowNo },
    );
    await tx.execute(
      `UPDATE batch_row
        SET verdict = 'look', supporter_id = 0, same_as_row = NULL
        WHERE organization_id = :org AND batch_id = :id AND row_no = :rowNo AND candidates IS NOT NULL`,
      { id, rowNo },
    );
  }

  /** Takes the row's own value away where the person keeps theirs: what is empty never replaces. */
  async keepTheirs(tx: Scoped, id: number, rowNo: number, keep: readonly string[]): Promise<void> {
    for (const key of keep) {
      const fieldId = Number(/^field:(\d+)$/.exec(key)?.[1] ?? 0);
      if (fieldId > 0)
        await tx.execute(
          `DELETE
            FROM batch_value
            WHERE organization_id = :org AND batch_id = :id AND row_no = :rowNo AND field_id = :fieldId`,
          {
            id,
            rowNo,
            fieldId,
          },
        );
      const column = ({ firstName: 'first_name', lastName: 'last_name' } as Record<string, string>)[key];
      if (column)
        await tx.execute(
          `UPDATE batch_row
            SET ${column} = ''
            WHERE organization_id = :org AND batch_id = :id AND row_no = :rowNo`,
          { id, rowNo },
        );
      const [kind] = /^(?:email|mobile)$/.exec(key) ?? [];
      if (!kind) continue;
      await tx.execute(
        `UPDATE batch_row
          SET ${kind} = NULL
          WHERE organization_id = :org AND batch_id = :id AND row_no = :rowNo`,
        { id, rowNo },
      );
      await tx.execute(
        `DELETE
          FROM batch_more
          WHERE organization_id = :org AND batch_id = :id AND row_no = :rowNo AND kind = :kind`,
        {
          id,
          rowNo,
          kind,
        },
      );
    }
  }

  /** Staged values of some rows. */
  async valuesOf(
    db: Scoped,
    id: number,
    rows: readonly number[],
  ): Promise<(ValueRow & { row_no: number })[]> {
    if (rows.length === 0) return [];
    return db.sql(
      `SELECT row_no, field_id, text_value, number_value, date_value, month_day
        FROM batch_value
        WHERE organization_id = :org AND batch_id = :id AND row_no IN (:rows)`,
      { id, rows },
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

const COMES = "verdict IN ('new', 'shares', 'update', 'same', 'gift')";
/** Whether an address of the row is here, and something is so about it. */
const at = (what: string) =>
  `${COMES} AND EXISTS (SELECT 1 FROM contact_point cp
    WHERE cp.organization_id = :org
    AND ((cp.kind = 'email' AND cp.normal = batch_row.email)
    OR (cp.kind = 'mobile' AND cp.normal = batch_row.mobile)) AND ${what})`;

const ONLY: Record<RowsOnly, string> = {
  faults: "reason <> '' AND verdict IN (:coming)",
  hints: "hint <> ''",
  strangers: 'stranger = 1',
  email: `${COMES} AND email IS NOT NULL AND COALESCE(email_says, 1) = 1`,
  text: `${COMES} AND mobile IS NOT NULL AND COALESCE(text_says, 1) = 1 AND ${takes('text', 'line')}`,
  refusing: `${COMES} AND (email_says = 0 OR text_says = 0
    OR EXISTS (SELECT 1 FROM batch_more re
    WHERE re.batch_id = batch_row.batch_id AND re.row_no = batch_row.row_no AND re.kind = 'refused'))`,
  groups: "verdict IN ('new', 'shares', 'update')",
  changes: "verdict = 'update'",
  saidNo: `${COMES} AND (stands & 1) <> 0`,
  doNotContact: at('cp.do_not_contact = 1'),
  onHold: at('cp.on_hold = 1'),
  alreadyYes: `${COMES} AND (stands & 2) <> 0`,
};

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
