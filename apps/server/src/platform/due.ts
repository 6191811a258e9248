import type { Database } from './database';

/**
 * What is due, in a word each: asked once for everything that a worker does, so that one with nothing to do
 * asks little. Each room says by its own statement, which gives one column of words, when there is something
 * for it.
 */
export async function due(database: Database, statements: readonly string[]): Promise<Set<string>> {
  const [rows] = (await database.unscoped().raw(statements.map((one) => `(${one})`).join(' UNION ALL '))) as [
    { due: string }[],
  ];
  return new Set(rows.map((row) => row.due));
}
