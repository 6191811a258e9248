import { isDeepStrictEqual } from 'node:util';
import { seenAll, visible } from '@goodword/core/common';
import type { Scoped } from './scoped';
import { Newer, NotFound } from './errors';
import type { AccessScope } from './scope';

/** What is saved as a whole by hand, each with the version that it is at and who made it. */
type Saved =
  'segment' | 'campaign' | 'automation' | 'list' | 'layout' | 'people_view' | 'feed' | 'feed_source';

/** What somebody of the team is called by whoever asks; null for the program. */
export function calledBy(scope: AccessScope, id: number | null, name: string | null): string | null {
  return id !== null && id === scope.actorId ? 'You, in another window,' : name;
}

/**
 * For what is small enough to be its own version: whoever changes it says what it was when they began. `now`
 * is read under the lock that the change is made under; of two who began with the same the second is told,
 * with what is `shown` now if given.
 */
export function stillAs<T>(was: T, now: T, what: string, shown?: string): void {
  if (!isDeepStrictEqual(asItComes(was), asItComes(now))) throw new Newer(what, null, shown);
}

/**
 * As a value comes over the wire: one that was written by another way (a file, an earlier day) may hold more
 * than is seen.
 */
function asItComes(value: unknown): unknown {
  return JSON.parse(
    JSON.stringify(seenAll(value) ?? null, (_key, one: unknown) =>
      typeof one === 'string' ? visible(one).trim() : one,
    ),
  );
}

/**
 * Takes the next version for a save that was begun from `basedOn`, under the lock of the row: of two who save
 * from one version the second is told, and overwrites nothing. Returns the new version.
 */
export async function nextVersion(
  tx: Scoped,
  table: Saved,
  id: number,
  basedOn: number,
  what: string,
): Promise<number> {
  const [row] = await tx.sql<{ version: number; changed_by: number | null; name: string | null }>(
    `SELECT x.version, x.changed_by, t.name
      FROM \`${table}\` x
      LEFT JOIN teammate t ON t.id = x.changed_by
      WHERE x.organization_id = :org AND x.id = :id FOR UPDATE`,
    { id },
  );
  if (!row) throw new NotFound(what);
  if (row.version !== basedOn) throw new Newer(`the ${what}`, calledBy(tx.scope, row.changed_by, row.name));
  await tx.execute(
    `UPDATE \`${table}\`
      SET version = version + 1, changed_by = :actor
      WHERE organization_id = :org AND id = :id`,
    {
      id,
      actor: tx.scope.actorId,
    },
  );
  return row.version + 1;
}
