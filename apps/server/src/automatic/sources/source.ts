import type { CauseKind, CauseOf, Occurrence } from '@goodword/core/automations';
import type { Day } from '@goodword/core/common';
import type { Bound, Scoped } from '../../platform/scoped';

/** In what happened is looked for. */
export interface LookWindow {
  /** What was written down at or after this moment, and before the other. */
  from: Date;
  to: Date;
  /** Of what happens on a day: these days, both of them. */
  days: { from: Day; to: Day };
  /** What happened before this day is not taken up, whenever it was written down. */
  since: Day;
  /** The house's zone. */
  zone: string;
}

/** Where the occurrences of a kind of cause are found, and whether one still stands. */
export interface CauseSource<K extends CauseKind> {
  found(db: Scoped, cause: CauseOf<K>, window: LookWindow): Promise<Occurrence[]>;
  /** Which of these are still so; without it, what happened stays so. */
  standing?(db: Scoped, cause: CauseOf<K>, some: readonly Standing[]): Promise<Set<number>>;
}

/** An occurrence that was taken up, by its visit. */
export interface Standing {
  id: number;
  supporterId: number;
  causeKey: string;
}

interface FoundRow {
  supporterId: number;
  key: string;
  at: Date;
}

/** Occurrences by a statement that gives `supporterId`, `key` and `at`, of people whom the caller may see. */
export async function foundBy(
  db: Scoped,
  statement: string,
  bindings: Record<string, Bound>,
): Promise<Occurrence[]> {
  const rows = await db.sql<FoundRow>(
    `SELECT f.*
      FROM (${statement}) f
      JOIN supporter s ON s.id = f.supporterId AND s.organization_id = :org AND s.erased_at IS NULL
        AND (:chapter IS NULL OR s.chapter_id = :chapter)`,
    bindings,
  );
  return rows.map(({ supporterId, key, at }) => ({ supporterId, key, at: at.getTime() }));
}

/** The ids of visits that a statement gives. */
export async function standingBy(
  db: Scoped,
  statement: string,
  bindings: Record<string, Bound>,
): Promise<Set<number>> {
  return new Set((await db.sql<{ id: number }>(statement, bindings)).map(({ id }) => id));
}
