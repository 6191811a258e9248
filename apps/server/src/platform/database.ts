import { AsyncLocalStorage } from 'node:async_hooks';
import knex, { type Knex } from 'knex';
import { untold } from './telling';
import type { AccessScope } from './scope';
import { AGAIN, codeOf } from './database-errors';
import { type Bound, Scoped } from './scoped';

/** Where something is read: in a scope of its own, or within the caller's transaction. */
export type ReadAt = AccessScope | Scoped;

/** Reading what is committed locks no rows that a statement only reads: for bulk work side by side. */
export type Isolation = 'read committed';

/** In the suites: the pool whose transaction the caller is within. */
const inTransaction = new AsyncLocalStorage<Knex>();

/**
 * A transaction that asks its pool for a second connection may wait for others that wait for its rows: ten of
 * these at once, and nobody gets on. The suites refuse it, wherever it is asked.
 */
function oneConnectionEach(pool: Knex): void {
  const client = pool.client as { acquireConnection(): Promise<unknown> };
  const acquire = client.acquireConnection.bind(client);
  client.acquireConnection = () =>
    inTransaction.getStore() === pool
      ? Promise.reject(
          new Error('expected one connection for each transaction, and a second one was asked for within it'),
        )
      : acquire();
}

/** The pool, and the two ways to it: reading in a scope, and writing in one transaction in a scope. */
export class Database {
  private readonly pool: Knex;

  /** `statementSeconds`: what one statement may take before the server ends it; 0 for no end. */
  /** What the database is called on its server. */
  readonly name: string;

  constructor(url: string, poolSize = 10, statementSeconds = 0) {
    this.name = decodeURIComponent(new URL(url).pathname.slice(1));
    this.pool = knex({
      client: 'mysql2',
      connection: {
        uri: url,
        timezone: 'Z',
        charset: 'utf8mb4',
        supportBigNumbers: true,
        dateStrings: false,
        flags: ['+LOCAL_FILES'],
      } as never,
      pool: { min: 0, max: poolSize, afterCreate: setUpConnection(statementSeconds) },
      acquireConnectionTimeout: 10_000,
    });
    if (process.env.CHECK_TELLING) oneConnectionEach(this.pool);
  }

  /** For reading in a scope; within a transaction that is handed on, in that. */
  read(at: ReadAt): Scoped {
    return at instanceof Scoped ? at : new Scoped(this.pool, at);
  }

  /**
   * Runs the work in one transaction, again from the start after a deadlock, and leaves a mark in the change
   * log so that whoever keeps columns in memory knows that they are old.
   */
  async write<T>(scope: AccessScope, work: (tx: Scoped) => Promise<T>, isolation?: Isolation): Promise<T> {
    return this.writeUnlogged(
      scope,
      async (tx) => {
        const result = await work(tx);
        await this.log(tx);
        return result;
      },
      isolation,
    );
  }

  /** The last statement of a transaction, so that entries become visible soon after they get their place. */
  private async log(tx: Scoped): Promise<void> {
    tx.isLogged = true;
    if (tx.reached.size > 0) {
      const at = await tx.sql<{ id: number }>(
        // Without saying so, the optimizer goes through all links of the organization while there are few of
        // them.
        `SELECT supporter_id AS id
          FROM supporter_contact FORCE INDEX (by_point)
          WHERE organization_id = :org AND contact_point_id IN (:points)`,
        { points: [...tx.reached] },
      );
      tx.changed('reach', 0, [...new Set(at.map(({ id }) => id))]);
    }
    const said = tx.changes.length > 0 ? tx.changes : [{ what: 'all', ref: 0, ids: 'everybody' } as const];
    const rows = said
      .filter(({ what, ids }) => what !== 'nothing' && ids.length > 0)
      .map(({ what, ref, ids }): Bound[] => [what, ref, ids === 'everybody' ? null : ids.join(',')]);
    await tx.insertAll('change_log', ['what', 'ref', 'ids'], rows);
  }

  /**
   * As `write`, for a transaction that changes nothing that columns are made of: it leaves no mark in the
   * change log.
   */
  async writeUnlogged<T>(
    scope: AccessScope,
    work: (tx: Scoped) => Promise<T>,
    isolation?: Isolation,
  ): Promise<T> {
    for (let attempt = 1; ; attempt++) {
      try {
        return await this.pool.transaction(
          async (trx) => {
            const tx = new Scoped(trx, scope);
            return process.env.CHECK_TELLING
              ? inTransaction.run(this.pool, () => checked(trx, tx, work))
              : work(tx);
          },
          isolation ? { isolationLevel: isolation } : undefined,
        );
      } catch (error) {
        if (!AGAIN.has(codeOf(error)) || attempt >= 8) throw error;
        await new Promise((done) => setTimeout(done, 10 * 2 ** attempt * Math.random()));
      }
    }
  }

  /**
   * Has the server look anew at what tables hold, after many rows came in at once: what it knew of an empty
   * table leads it to join by the wrong key.
   */
  async refreshStatistics(tables: readonly string[]): Promise<void> {
    await this.pool.raw(
      `ANALYZE NO_WRITE_TO_BINLOG TABLE ${tables.map((table) => `\`${table}\``).join(', ')}`,
    );
  }

  /**
   * Queries without a scope: for what belongs to no organization or must find one (sessions, job claims,
   * tokens). Each use is listed in `unscoped.test.ts`.
   */
  unscoped(): Knex {
    return this.pool;
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}

/** As tests run every transaction: what it writes is held against what it says (see telling.ts). */
async function checked<T>(trx: Knex.Transaction, tx: Scoped, work: (tx: Scoped) => Promise<T>): Promise<T> {
  const statements: string[] = [];
  trx.on('query-response', (response: unknown, { sql }: { sql: string }) => {
    // The builder's updates answer with a number, its inserts with ids, raw statements with what the driver
    // says.
    const [first] = Array.isArray(response) ? (response as unknown[]) : [response];
    const rows =
      typeof first === 'object' && first !== null ? (first as { affectedRows?: number }).affectedRows : first;
    if (Number(rows ?? 0) > 0) statements.push(sql);
  });
  const result = await work(tx);
  // What is written to the log tells that the transaction was to tell.
  const isLogged = tx.isLogged;
  const found = untold(
    statements,
    tx.changes.map(({ what }) => what),
    !isLogged,
  );
  if (found.length > 0 && !tx.isToldElsewhere)
    throw new Error(
      `expected to be told of what this changes, got silence about: ${found[0]!.slice(0, 300)}`,
    );
  return result;
}

type Fresh = { query(sql: string, done: (error: unknown) => void): void };

const setUpConnection =
  (statementSeconds: number) => (connection: Fresh, done: (error: unknown, connection: unknown) => void) => {
    // Derived tables of a verdict over a million people fit into memory at this size; at the default of 16 MB
    // they go to disk and take twice as long.
    const settings =
      "time_zone = '+00:00', sql_mode = 'STRICT_TRANS_TABLES,NO_ENGINE_SUBSTITUTION', group_concat_max_len = 1000000";
    const most = `max_statement_time = ${statementSeconds}`;
    connection.query(
      `SET ${settings}, ${most}, tmp_table_size = 268435456, max_heap_table_size = 268435456, sort_buffer_size = 16777216`,
      (error) => done(error, connection),
    );
  };
