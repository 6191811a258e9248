import { Injectable } from '@nestjs/common';
import type { RunCause } from '@goodword/core/contract';
import type { KnownRecord, RunSize } from '@goodword/core/feeds';
import type { Bound, Scoped } from '../../platform/scoped';
import type { Tables } from '../../platform/tables/generated';

export type RunRow = Omit<Tables['feed_run'], 'organization_id'> & { began_by_name: string | null };

const OPEN = "('reading', 'checking', 'bringing')";

/** Runs of feeds. Owns `feed_run`; what they know of records is kept by `RecordsRepository`. */
@Injectable()
export class RunsRepository {
  async make(
    tx: Scoped,
    run: { feedId: number; cause: RunCause; anyway: boolean; isWhole: boolean },
  ): Promise<number> {
    return tx.insert('feed_run', {
      ...{ feed_id: run.feedId, cause: run.cause, anyway: Number(run.anyway), is_whole: Number(run.isWhole) },
      began_by: tx.scope.actorId,
    });
  }

  async find(db: Scoped, id: number): Promise<RunRow | undefined> {
    const [row] = await this.select(db, 'r.id = :id', { id });
    return row;
  }

  /** The newest runs of a feed. */
  async latest(db: Scoped, feedId: number, limit: number): Promise<RunRow[]> {
    return this.select(db, 'r.feed_id = :feedId', { feedId, limit }, 'ORDER BY r.id DESC LIMIT :limit');
  }

  /** The newest run of each feed. */
  async lastOfEach(db: Scoped): Promise<Map<number, RunRow>> {
    const rows = await this.select(
      db,
      'r.id IN (SELECT MAX(id) FROM feed_run WHERE organization_id = :org GROUP BY feed_id)',
      {},
    );
    return new Map(rows.map((row) => [row.feed_id, row]));
  }

  /** The run of a feed that is under way. */
  async open(db: Scoped, feedId: number): Promise<RunRow | undefined> {
    const [row] = await this.select(db, `r.feed_id = :feedId AND r.state IN ${OPEN}`, { feedId });
    return row;
  }

  /** How large the last runs were that wrote something. */
  async sizes(db: Scoped, feedId: number): Promise<RunSize[]> {
    return db.sql(
      `SELECT fresh + changed AS came, gone
        FROM feed_run
        WHERE organization_id = :org AND feed_id = :feedId AND state IN ('done', 'nothing') AND is_whole = 1
        ORDER BY id DESC
        LIMIT 10`,
      { feedId },
    );
  }

  async change(tx: Scoped, id: number, values: Record<string, Bound>): Promise<void> {
    await tx.table('feed_run').where('feed_run.id', id).update(values);
  }

  async removeAll(tx: Scoped, feedId: number): Promise<void> {
    await tx.execute(
      `UPDATE batch
        SET feed_run_id = NULL
        WHERE organization_id = :org
        AND feed_run_id IN (SELECT id FROM feed_run WHERE organization_id = :org AND feed_id = :feedId)`,
      { feedId },
    );
    await tx.table('feed_run').where('feed_run.feed_id', feedId).delete();
  }

  private async select(
    db: Scoped,
    which: string,
    bindings: Record<string, Bound>,
    rest = '',
  ): Promise<RunRow[]> {
    return db.sql(
      `SELECT r.id, r.feed_id, r.cause, r.state, r.anyway, r.batch_id, r.looks_batch_id, r.is_whole, r.etag,
          r.position, r.fresh, r.changed, r.same, r.gone, r.looks, r.not_taken, r.problem, r.began_by, r.began_at,
          r.ended_at, t.name AS began_by_name
        FROM feed_run r
        LEFT JOIN teammate t ON t.id = r.began_by
        WHERE r.organization_id = :org AND ${which} ${rest}`,
      bindings,
    );
  }
}

/** One record of a run as it is kept until the run is in. */
export interface StagedRecord {
  rowNo: number;
  key: string;
  digest: string;
  says: string;
  firstOn: string;
  isGone: boolean;
}

/** Whom a record is: as it came in, or as somebody settled who looked at it; nobody who was merged away. */
const LOOKED = `LEFT JOIN batch_row b ON b.organization_id = :org AND b.batch_id = r.looks_batch_id
  AND b.row_no = r.looks_row_no AND b.supporter_id > 0
  LEFT JOIN supporter p ON p.organization_id = :org AND p.merged_into IS NULL
  AND p.id = COALESCE(r.supporter_id, b.supporter_id)`;

type KnownColumns = [string, string, string, string, number | null, number, number];

const STAGED = ['run_id', 'row_no', 'record_key', 'digest', 'says', 'first_on', 'is_gone'];

/** What feeds know of the records over there. Owns `feed_record` and `feed_run_row`. */
@Injectable()
export class RecordsRepository {
  /** Everything that a feed knows, by key. */
  async known(db: Scoped, feedId: number): Promise<Map<string, KnownRecord>> {
    const known = new Map<string, KnownRecord>();
    await db.scan(
      `SELECT r.record_key, r.digest, r.says, r.first_on, p.id, r.is_gone, p.erased_at IS NOT NULL
        FROM feed_record r
        ${LOOKED}
        WHERE r.organization_id = :org AND r.feed_id = :feedId`,
      { feedId },
      (row) => {
        const [key, digest, says, firstOn, supporterId, isGone, isErased] = row as KnownColumns;
        known.set(key, {
          ...{ digest, says, firstOn, supporterId, isGone: isGone === 1, isErased: isErased === 1 },
        });
      },
    );
    return known;
  }

  async count(db: Scoped, feedId: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n
        FROM feed_record
        WHERE organization_id = :org AND feed_id = :feedId AND is_gone = 0`,
      { feedId },
    );
    return row?.n ?? 0;
  }

  async clearStaged(tx: Scoped, runId: number): Promise<void> {
    await tx.execute('DELETE FROM feed_run_row WHERE organization_id = :org AND run_id = :runId', { runId });
  }

  async stage(tx: Scoped, runId: number, rows: readonly StagedRecord[]): Promise<void> {
    await tx.insertAll(
      'feed_run_row',
      STAGED,
      rows.map((row) => [runId, row.rowNo, row.key, row.digest, row.says, row.firstOn, Number(row.isGone)]),
    );
  }

  /**
   * What came in with a run is known from now on, with whom each record is: up to the row that the batch came
   * to. Somebody who is not taken is known as well, and comes again when something changes over there; what
   * their row said of permission was then said to nobody, and is said with the next.
   */
  async settle(
    tx: Scoped,
    run: { id: number; feedId: number; batchId: number; upTo: number },
  ): Promise<void> {
    await tx.execute(
      `INSERT INTO feed_record (organization_id, feed_id, record_key, digest, says, first_on, supporter_id,
          run_id)
        SELECT :org, :feedId, s.record_key, s.digest, IF(b.supporter_id > 0, s.says, ''), s.first_on,
          NULLIF(b.supporter_id, 0), :id
        FROM feed_run_row s
        JOIN batch_row b ON b.organization_id = :org AND b.batch_id = :batchId AND b.row_no = s.row_no
        WHERE s.organization_id = :org AND s.run_id = :id AND s.is_gone = 0 AND s.row_no <= :upTo
        ON DUPLICATE KEY UPDATE digest = VALUES(digest), run_id = VALUES(run_id), is_gone = 0,
        says = IF(b.supporter_id > 0 OR feed_record.says = s.says, s.says, ''),
        supporter_id = COALESCE(VALUES(supporter_id), feed_record.supporter_id)`,
      { ...run },
    );
  }

  /** Records that wait for a look: where they wait, in the order of the rows that they were. */
  async waitAt(
    tx: Scoped,
    run: { id: number; feedId: number; batchId: number; looksBatchId: number },
  ): Promise<void> {
    await tx.execute(
      `UPDATE feed_record r
        JOIN feed_run_row s ON s.run_id = :id AND s.is_gone = 0 AND s.record_key = r.record_key
        JOIN (SELECT row_no, ROW_NUMBER() OVER (ORDER BY row_no) AS nth
        FROM batch_row
        WHERE organization_id = :org AND batch_id = :batchId AND verdict = 'look') l ON l.row_no = s.row_no
        SET r.looks_batch_id = :looksBatchId, r.looks_row_no = l.nth
        WHERE r.organization_id = :org AND r.feed_id = :feedId`,
      { ...run },
    );
  }

  /** People whose record is gone with a run, as far as it is known whom they are. */
  async gone(db: Scoped, run: { id: number; feedId: number }): Promise<number[]> {
    const rows = await db.sql<{ supporter_id: number }>(
      `SELECT DISTINCT p.id AS supporter_id
        FROM feed_run_row s
        JOIN feed_record r ON r.feed_id = :feedId AND r.record_key = s.record_key
        ${LOOKED}
        WHERE s.organization_id = :org AND s.run_id = :id AND s.is_gone = 1 AND p.id IS NOT NULL
        AND NOT EXISTS (SELECT 1 FROM feed_record o
        WHERE o.organization_id = :org AND o.feed_id = :feedId AND o.supporter_id = p.id AND o.is_gone = 0
        AND o.record_key <> r.record_key
        AND NOT EXISTS (SELECT 1 FROM feed_run_row g
        WHERE g.run_id = :id AND g.is_gone = 1 AND g.record_key = o.record_key))`,
      { ...run },
    );
    return rows.map((row) => row.supporter_id);
  }

  /** Whom a run brought or changed; of a whole one everybody that the feed knows. */
  async peopleOf(db: Scoped, run: { id: number; feedId: number; isWhole: boolean }): Promise<number[]> {
    const rows = await db.sql<{ supporter_id: number }>(
      `SELECT DISTINCT supporter_id
        FROM feed_record
        WHERE organization_id = :org AND feed_id = :feedId AND supporter_id IS NOT NULL AND is_gone = 0
        AND (:isWhole OR run_id = :id)`,
      { ...run },
    );
    return rows.map((row) => row.supporter_id);
  }

  /** Who is gone is remembered as such: coming again they are known again, and bring no standing no anew. */
  async markGone(tx: Scoped, run: { id: number; feedId: number }): Promise<void> {
    await tx.execute(
      `UPDATE feed_record r
        JOIN feed_run_row s ON s.run_id = :id AND s.is_gone = 1 AND s.record_key = r.record_key
        SET r.is_gone = 1
        WHERE r.organization_id = :org AND r.feed_id = :feedId`,
      { ...run },
    );
  }

  /** What came last with a run that is taken back out comes again, as though it had never been there. */
  async forgetRun(tx: Scoped, runId: number): Promise<void> {
    await tx.execute('DELETE FROM feed_record WHERE organization_id = :org AND run_id = :runId', { runId });
  }

  async removeAll(tx: Scoped, feedId: number): Promise<void> {
    await tx.execute(
      `DELETE s
        FROM feed_run_row s
        JOIN feed_run r ON r.id = s.run_id
        WHERE s.organization_id = :org AND r.feed_id = :feedId`,
      { feedId },
    );
    await tx.table('feed_record').where('feed_record.feed_id', feedId).delete();
  }
}
