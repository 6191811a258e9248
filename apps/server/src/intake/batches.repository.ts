import { Injectable } from '@nestjs/common';
import type { BatchState, RowVerdict } from '@goodword/core/contract';
import type { Candidate, IntakePlan } from '@goodword/core/intake';
import type { FieldValue } from '@goodword/core/fields';
import type { Scoped } from '../platform/database';
import { valueColumns } from '../supporters/fields.repository';

export interface BatchRow {
  id: number;
  chapter_id: number;
  name: string;
  file_name: string;
  storage_key: string;
  state: BatchState;
  row_count: number;
  plan: IntakePlan | null;
  resolved: Resolved | null;
  next_row: number;
  stay_no: number;
  rate: number | null;
  problem: string | null;
  created_at: Date;
  created_by_name: string | null;
}

/** What the plan's new things became: fields by column, and the ids of all tags and of the list. */
export interface Resolved {
  fields: Record<number, number>;
  tagIds: number[];
  listId: number | null;
}

/** One row as it is staged. */
export interface StagedRow {
  rowNo: number;
  verdict: RowVerdict;
  sameAsRow: number | null;
  supporterId: number | null;
  firstName: string;
  lastName: string;
  email: { normal: string; shown: string } | null;
  mobile: { normal: string; shown: string; country?: string } | null;
  emailSays: boolean | null;
  textSays: boolean | null;
  reason: string;
  /** By field id, or by minus (column + 1) for a field that is yet to be made. */
  values: { fieldId: number; value: FieldValue }[];
}

export interface StagedView {
  row_no: number;
  verdict: RowVerdict;
  first_name: string;
  last_name: string;
  email_shown: string | null;
  mobile_shown: string | null;
  reason: string;
  supporter_id: number | null;
}

@Injectable()
export class BatchesRepository {
  async make(tx: Scoped, batch: { chapterId: number; name: string; fileName: string; storageKey: string; rows: number }): Promise<number> {
    return tx.insert('batch', {
      chapter_id: batch.chapterId,
      name: batch.name,
      file_name: batch.fileName,
      storage_key: batch.storageKey,
      state: 'draft',
      row_count: batch.rows,
      created_by: tx.scope.actorId,
    });
  }

  async find(db: Scoped, id: number): Promise<BatchRow | undefined> {
    const [row] = await this.select(db, 'AND b.id = :id', { id });
    return row;
  }

  async recent(db: Scoped): Promise<BatchRow[]> {
    return this.select(db, 'ORDER BY b.id DESC LIMIT 200', {});
  }

  private async select(db: Scoped, rest: string, bindings: Record<string, number>): Promise<BatchRow[]> {
    return db.sql<BatchRow>(
      `SELECT b.*, t.name AS created_by_name FROM batch b LEFT JOIN teammate t ON t.id = b.created_by
        WHERE b.organization_id = :org AND (:chapter IS NULL OR b.chapter_id = :chapter) ${rest}`,
      bindings,
    );
  }

  async change(
    tx: Scoped,
    id: number,
    values: Partial<Record<'state' | 'plan' | 'resolved' | 'next_row' | 'stay_no' | 'rate' | 'problem', string | number | null>>,
  ): Promise<void> {
    await tx.table('batch').where('batch.id', id).update(values);
  }

  /** Counts of staged rows by verdict, and how many of those that come in lose a cell. */
  async counts(db: Scoped, id: number): Promise<{ counts: Partial<Record<RowVerdict, number>>; withFaults: number }> {
    const rows = await db.sql<{ verdict: RowVerdict; n: number; faults: number }>(
      "SELECT verdict, COUNT(*) AS n, SUM(reason <> '') AS faults FROM batch_row WHERE organization_id = :org AND batch_id = :id GROUP BY verdict",
      { id },
    );
    const coming = rows.filter((row) => row.verdict !== 'failed' && row.verdict !== 'look');
    return {
      counts: Object.fromEntries(rows.map((row) => [row.verdict, row.n])),
      withFaults: coming.reduce((sum, row) => sum + Number(row.faults), 0),
    };
  }

  async countsOfAll(db: Scoped, ids: readonly number[]): Promise<{ batch_id: number; verdict: RowVerdict; n: number }[]> {
    if (ids.length === 0) return [];
    return db.sql(
      'SELECT batch_id, verdict, COUNT(*) AS n FROM batch_row WHERE organization_id = :org AND batch_id IN (:ids) GROUP BY batch_id, verdict',
      { ids },
    );
  }

  async clearStaged(tx: Scoped, id: number): Promise<void> {
    await tx.execute('DELETE FROM batch_value WHERE organization_id = :org AND batch_id = :id', { id });
    await tx.execute('DELETE FROM batch_row WHERE organization_id = :org AND batch_id = :id', { id });
  }

  async stage(tx: Scoped, id: number, rows: readonly StagedRow[]): Promise<void> {
    const flag = (says: boolean | null) => (says === null ? null : says ? 1 : 0);
    await tx.insertAll(
      'batch_row',
      [
        'batch_id',
        'row_no',
        'verdict',
        'same_as_row',
        'supporter_id',
        'first_name',
        'last_name',
        'email',
        'email_shown',
        'mobile',
        'mobile_shown',
        'country',
        'email_says',
        'text_says',
        'reason',
      ],
      rows.map((r) => [
        id,
        r.rowNo,
        r.verdict,
        r.sameAsRow,
        r.supporterId,
        r.firstName,
        r.lastName,
        r.email?.normal ?? null,
        r.email?.shown ?? null,
        r.mobile?.normal ?? null,
        r.mobile?.shown ?? null,
        r.mobile?.country?.slice(0, 2) ?? null,
        flag(r.emailSays),
        flag(r.textSays),
        r.reason.slice(0, 500),
      ]),
    );
    await tx.insertAll(
      'batch_value',
      ['batch_id', 'row_no', 'field_id', 'text_value', 'number_value', 'date_value', 'month_day'],
      rows.flatMap((r) => r.values.map(({ fieldId, value }) => [id, r.rowNo, fieldId, ...valueColumns(value)])),
    );
  }

  /** Everybody in the batch's chapter at any of these addresses. */
  async candidates(db: Scoped, chapterId: number, kind: 'email' | 'mobile', normals: readonly string[]): Promise<(Candidate & { normal: string })[]> {
    if (normals.length === 0) return [];
    const rows = await db.sql<{ normal: string; id: number; first_name: string; last_name: string }>(
      `SELECT cp.normal, s.id, s.first_name, s.last_name FROM contact_point cp JOIN supporter_contact sc ON sc.contact_point_id = cp.id
        JOIN supporter s ON s.id = sc.supporter_id AND s.chapter_id = :chapterId WHERE cp.organization_id = :org AND cp.kind = :kind AND cp.normal IN (:normals)`,
      { chapterId, kind, normals },
    );
    return rows.map((row) => ({ normal: row.normal, id: row.id, firstName: row.first_name, lastName: row.last_name, by: kind }));
  }

  /** How many staged rows stand at an address that has said no to what the batch would say yes to. */
  async countStayNo(db: Scoped, id: number, channel: 'email' | 'text', scopes: readonly string[]): Promise<number> {
    const column = channel === 'email' ? 'email' : 'mobile';
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(DISTINCT r.row_no) AS n FROM batch_row r JOIN contact_point cp ON cp.organization_id = :org AND cp.kind = '${column}' AND cp.normal = r.${column}
        JOIN permission_state ps ON ps.organization_id = :org AND ps.contact_point_id = cp.id AND ps.supporter_id = 0 AND ps.channel = :channel AND ps.no_at IS NOT NULL AND ps.scope IN (:scopes)
        WHERE r.organization_id = :org AND r.batch_id = :id AND r.verdict NOT IN ('failed', 'look')`,
      { id, channel, scopes: [...scopes, 'all'] },
    );
    return row?.n ?? 0;
  }

  async rows(db: Scoped, id: number, verdict: RowVerdict | undefined, after: number, limit: number): Promise<{ rows: StagedView[]; total: number }> {
    const which = `organization_id = :org AND batch_id = :id ${verdict ? 'AND verdict = :verdict' : ''}`;
    const bindings = { id, verdict: verdict ?? null, after, limit };
    const [count] = await db.sql<{ n: number }>(`SELECT COUNT(*) AS n FROM batch_row WHERE ${which}`, bindings);
    const rows = await db.sql<StagedView>(`SELECT * FROM batch_row WHERE ${which} AND row_no > :after ORDER BY row_no LIMIT :limit`, bindings);
    return { rows, total: count?.n ?? 0 };
  }

  /** Rows to be mended: those that did not come in, and those that came in without a cell. */
  async faulty(db: Scoped, id: number): Promise<{ row_no: number; reason: string }[]> {
    return db.sql("SELECT row_no, reason FROM batch_row WHERE organization_id = :org AND batch_id = :id AND reason <> '' ORDER BY row_no", { id });
  }
}
