import { Injectable } from '@nestjs/common';
import type { JobView } from '@goodword/core/contract';
import { isSeenBy } from '../intake/batches.repository';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

type JobLine = Pick<
  Tables['job'],
  | 'id'
  | 'kind'
  | 'ref_id'
  | 'state'
  | 'done'
  | 'total'
  | 'attempts'
  | 'error'
  | 'created_at'
  | 'began_at'
  | 'ended_at'
> & {
  by_name: string | null;
  batch_name: string | null;
  next_row: number | null;
  row_count: number | null;
  rate: number | null;
  message_name: string | null;
  bulk_words: string | null;
  bulk_done: number | null;
  bulk_people: number | null;
};

/** Work in the background, as its page shows it: what it is about, how far it is, what came of it. */
@Injectable()
export class JobsRepository {
  async recent(db: Scoped): Promise<JobView[]> {
    const rows = await db.sql<JobLine>(
      `SELECT j.id, j.kind, j.ref_id, j.state, j.done, j.total, j.attempts, j.error, j.created_at, j.began_at,
          j.ended_at, t.name AS by_name, b.name AS batch_name, b.next_row, b.row_count, b.rate,
          m.name AS message_name, u.words AS bulk_words, u.done AS bulk_done, u.people AS bulk_people
        FROM job j
        LEFT JOIN teammate t ON t.id = j.created_by
        LEFT JOIN batch b ON j.kind LIKE 'batch-%' AND b.id = j.ref_id AND b.organization_id = :org
        LEFT JOIN bulk u ON j.kind LIKE 'bulk-%' AND u.id = j.ref_id AND u.organization_id = :org
        LEFT JOIN message m ON j.kind LIKE 'message-%' AND m.id = j.ref_id AND m.organization_id = :org
        WHERE j.organization_id = :org
          AND (:chapter IS NULL OR COALESCE(b.chapter_id, m.chapter_id, j.chapter_id) IS NULL
          OR COALESCE(b.chapter_id, m.chapter_id, j.chapter_id) = :chapter) AND ${isSeenBy(db, 'b')}
        ORDER BY j.state IN ('running', 'waiting') DESC, j.id DESC
        LIMIT 200`,
    );
    return rows.map((row) => {
      const batch = row.kind.startsWith('batch-');
      const bulk = row.kind.startsWith('bulk-');
      const counts = batch && row.state === 'running' && row.kind !== 'batch-take-out';
      return {
        id: row.id,
        kind: row.kind,
        state: row.state,
        subject: (batch ? row.batch_name : bulk ? row.bulk_words : row.message_name) ?? 'no longer there',
        link: batch
          ? row.batch_name
            ? `/gather/${row.ref_id}`
            : null
          : row.message_name
            ? `/send/${row.ref_id}`
            : null,
        ...(counts
          ? { done: Number(row.next_row), total: Number(row.row_count), unit: 'rows' as const }
          : bulk
            ? { done: Number(row.bulk_done), total: Number(row.bulk_people), unit: 'people' as const }
            : { done: row.done, total: row.total, unit: 'steps' as const }),
        rate: counts ? row.rate : null,
        by: row.by_name ?? '',
        createdAt: row.created_at.toISOString(),
        beganAt: row.began_at?.toISOString() ?? null,
        endedAt: row.ended_at?.toISOString() ?? null,
        attempts: row.attempts,
        error: row.error,
      };
    });
  }
}
