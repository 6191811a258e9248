import { Injectable } from '@nestjs/common';
import type { JobView } from '@goodword/core/contract';
import { isSeenBy } from '../intake/batches.repository';
import type { Scoped } from '../platform/database';

/** Work in the background, as its page shows it: what it is about, how far it is, what came of it. */
@Injectable()
export class JobsRepository {
  async recent(db: Scoped): Promise<JobView[]> {
    const rows = await db.sql<
      Record<string, unknown> & { kind: string; ref_id: number; state: JobView['state'] }
    >(
      `SELECT j.*, t.name AS by_name, b.name AS batch_name, b.next_row, b.row_count, b.rate,
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
    const numberOf = (value: unknown) => (value === null || value === undefined ? null : Number(value));
    const moment = (at: unknown) => (at instanceof Date ? at.toISOString() : null);
    return rows.map((row) => {
      const batch = row.kind.startsWith('batch-');
      const bulk = row.kind.startsWith('bulk-');
      const counts = batch && row.state === 'running' && row.kind !== 'batch-take-out';
      return {
        id: Number(row.id),
        kind: row.kind,
        state: row.state,
        subject:
          ((batch ? row.batch_name : bulk ? row.bulk_words : row.message_name) as string | null) ??
          'no longer there',
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
            : { done: numberOf(row.done), total: numberOf(row.total), unit: 'steps' as const }),
        rate: counts && row.rate !== null ? Number(row.rate) : null,
        by: (row.by_name as string | null) ?? '',
        createdAt: moment(row.created_at)!,
        beganAt: moment(row.began_at),
        endedAt: moment(row.ended_at),
        attempts: Number(row.attempts),
        error: (row.error as string | null) ?? null,
      };
    });
  }
}
