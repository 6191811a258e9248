import { bearingScopes, MARK_KINDS, type Channel, type Marks, type Scope } from '@goodword/core/permission';
import type { Bound, Scoped } from '../../platform/scoped';
import { COLUMN_OF } from './state.sql';

/**
 * Receives what was said, row by row. 0 stands for everybody at the address, and for every address of the
 * person.
 */
export interface SaidReader {
  /**
   * A plain agreement of one person at one address, nothing else; `own` is the moment of the person's own, 0
   * where there is none.
   */
  yes(contactPointId: number, supporterId: number, own: number): void;
  marks(contactPointId: number, supporterId: number, marks: Marks): void;
}

const COLUMNS = MARK_KINDS.map((kind) => `${COLUMN_OF[kind]}_at`);
const FIRST = 3;

/**
 * Everything that bears on one question for everybody, from one covering reading each: most rows are a plain
 * yes, which needs no object. Entries are not read; whoever needs to name one asks for that person's facts.
 */
export async function scanSaid(
  db: Scoped,
  channel: Channel,
  scope: Scope,
  reader: SaidReader,
): Promise<void> {
  const of: Record<string, Bound> = { channel, scopes: bearingScopes(scope) };
  const said =
    'FROM permission_state WHERE organization_id = :org AND channel = :channel AND scope IN (:scopes)';
  const plain = 'supporter_id > 0 AND contact_point_id > 0 AND yes_at IS NOT NULL';
  await Promise.all([
    db.scan(
      `SELECT contact_point_id, supporter_id, pause_until, ${COLUMNS.join(', ')} ${said} AND NOT (${plain})`,
      of,
      (row) => reader.marks(Number(row[0]), Number(row[1]), marksIn(row)),
    ),
    db.scan(
      `SELECT contact_point_id, supporter_id, CAST(UNIX_TIMESTAMP(own_yes_at) * 1000 AS UNSIGNED) ${said}
        AND ${plain}`,
      of,
      ([point, person, own]) => reader.yes(Number(point), Number(person), Number(own ?? 0)),
    ),
  ]);
}

function marksIn(row: unknown[]): Marks {
  const marks: Marks = {};
  for (let i = 0; i < MARK_KINDS.length; i++) {
    const at = row[FIRST + i] as Date | null;
    if (at === null) continue;
    const mark = { at: at.getTime(), entryId: 0 };
    marks[MARK_KINDS[i]!] =
      MARK_KINDS[i] === 'pause' ? { ...mark, until: ((row[2] as Date | null) ?? at).getTime() } : mark;
  }
  return marks;
}
