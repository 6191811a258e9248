import type { Scoped } from '../platform/scoped';
import type { ChangedWhat } from '../platform/telling';
import type { Tables } from '../platform/tables/generated';

/** One entry: what changed, and for whom. */
export interface ChangeEntry {
  what: ChangedWhat;
  ref: number;
  ids: number[] | 'everybody';
}

/**
 * Entries get their place when they are written and are seen when they are committed, so a later one may be
 * seen first. The entry is a transaction's last statement; whatever was written so many seconds ago is either
 * here or never will be.
 */
const SETTLED_SECONDS = 60;

/** Follows the change log of an organization: each entry is handed out once, however late it commits. */
export class ChangeLog {
  private settled = 0;
  private seen = new Set<number>();

  /** Takes everything that can be seen as known. What is read after this is at least as new. */
  async begin(db: Scoped): Promise<void> {
    this.settled = 0;
    this.seen.clear();
    const [row] = await db.sql<{ last: number | null }>(
      `SELECT MAX(id) AS last
        FROM change_log
        WHERE organization_id = :org AND at < UTC_TIMESTAMP(3) - INTERVAL :seconds SECOND`,
      { seconds: SETTLED_SECONDS },
    );
    this.settled = row?.last ?? 0;
    await this.next(db);
  }

  /** What was committed since the last time. */
  async next(db: Scoped): Promise<ChangeEntry[]> {
    const rows = await db.sql<
      Pick<Tables['change_log'], 'id' | 'ref' | 'ids'> & {
        what: ChangedWhat;
        settled: number;
      }
    >(
      `SELECT id, what, ref, ids, at < UTC_TIMESTAMP(3) - INTERVAL :seconds SECOND AS settled
        FROM change_log
        WHERE organization_id = :org AND id > :from
        ORDER BY id`,
      { from: this.settled, seconds: SETTLED_SECONDS },
    );
    const fresh = rows.filter(({ id }) => !this.seen.has(id));
    this.seen = new Set(rows.filter((row) => row.settled === 0).map(({ id }) => id));
    this.settled = rows.reduce(
      (last, row) => (row.settled === 1 ? Math.max(last, row.id) : last),
      this.settled,
    );
    return fresh.map(({ what, ref, ids }) => ({
      what,
      ref,
      ids: ids === null ? 'everybody' : ids.split(',').map(Number),
    }));
  }
}
