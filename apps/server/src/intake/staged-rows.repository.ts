import { Injectable } from '@nestjs/common';
import type { RowsOnly, LikelyDouble } from '@goodword/core/contract';
import type { RowVerdict, DoubtKind, MatchKey } from '@goodword/core/intake';
import type { Scoped } from '../platform/scoped';
import type { ValueRow } from '../supporters/fields.repository';
import { takes } from '../permission/line.sql';
import type { Tables } from '../platform/tables/generated';

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

/** Stands for a supporter in rows that are about nobody yet. */
export const NO_SUPPORTER = 0;

/** Verdicts of rows that bring or change somebody. */
export const COMING: readonly RowVerdict[] = ['new', 'shares', 'update', 'same', 'gift', 'no', 'hold'];

/**
 * Rows of a batch as they were staged: shown, counted by what they ask for, and decided. Owns
 * `batch_decision`; what is staged is written by `StagingRepository`.
 */
@Injectable()
export class StagedRowsRepository {
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
  async possibleDuplicates(tx: Scoped, id: number, rows: readonly number[]): Promise<StagedView[]> {
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

  /** Settles rows of which it is known beforehand whom they are. */
  async settleAs(
    tx: Scoped,
    id: number,
    rows: readonly { rowNo: number; supporterId: number }[],
  ): Promise<void> {
    await tx.insertAll(
      'batch_decision',
      ['batch_id', 'row_no', 'outcome', 'with_id', 'keep'],
      rows.map(({ rowNo, supporterId }) => [id, rowNo, 'merge', supporterId, '[]']),
    );
  }

  /** The rows of a verdict, by their numbers. */
  async rowNosOf(db: Scoped, id: number, verdict: RowVerdict): Promise<number[]> {
    const rows = await db.sql<{ row_no: number }>(
      `SELECT row_no
        FROM batch_row
        WHERE organization_id = :org AND batch_id = :id AND verdict = :verdict
        ORDER BY row_no`,
      { id, verdict },
    );
    return rows.map((row) => row.row_no);
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
}
