import type { Database } from '../platform/database';

/**
 * The record that somebody is found under now: links and keys outlive the record that they were made for,
 * when it is brought into another one. Asked by tokens, so without a scope.
 */
export async function currentRecord(database: Database, supporterId: number): Promise<number> {
  const [rows] = (await database.unscoped().raw(
    `WITH RECURSIVE way AS (SELECT id, merged_into, 0 AS step FROM supporter WHERE id = ?
      UNION ALL
      SELECT s.id, s.merged_into, way.step + 1
      FROM supporter s
      JOIN way ON s.id = way.merged_into
      WHERE way.step < 100)
      SELECT id FROM way ORDER BY step DESC LIMIT 1`,
    [supporterId],
  )) as [{ id: number }[]];
  return rows[0]?.id ?? supporterId;
}
