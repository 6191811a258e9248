import { AsyncLocalStorage } from 'node:async_hooks';
import { Readable } from 'node:stream';
import knex, { type Knex } from 'knex';
import { Unavailable } from './errors';
import { untold, type ChangedWhat } from './telling';
import type { AccessScope } from './scope';
import type { Tables } from './tables/generated';

/** A value that may be bound to SQL. */
export type Bound = string | number | boolean | Date | Buffer | null | readonly (string | number)[];

const LOST = new Set([
  'ECONNREFUSED',
  'PROTOCOL_CONNECTION_LOST',
  'ECONNRESET',
  'ER_SERVER_SHUTDOWN',
  'EPIPE',
  'ETIMEDOUT',
]);
/**
 * Deadlock, lock wait, and a certification failure of a cluster: the transaction may be tried again as a
 * whole.
 */
const AGAIN = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);

export function codeOf(error: unknown): string {
  return typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
}

/** Whether the database did not answer, so that the same may be asked again when it does. */
export function isLostConnection(error: unknown): boolean {
  if (error instanceof Unavailable || LOST.has(codeOf(error))) return true;
  if (typeof error !== 'object' || error === null) return false;
  // A command given to a connection that has just been lost fails without a code, and is marked as fatal by
  // the driver.
  return (
    ('fatal' in error && error.fatal === true && codeOf(error) === '') ||
    (error as Error).name === 'KnexTimeoutError'
  );
}

/**
 * Whether the server ended a statement that ran for too long: MariaDB's 1969, which the driver has no name
 * for.
 */
export function tookTooLong(error: unknown): boolean {
  return typeof error === 'object' && error !== null && 'errno' in error && error.errno === 1969;
}

export function isDuplicate(error: unknown): boolean {
  return codeOf(error) === 'ER_DUP_ENTRY';
}

export interface Changed {
  what: ChangedWhat;
  /** Which field, tag, list, batch or campaign; 0 where there is but one. */
  ref: number;
  ids: readonly number[] | 'everybody';
}

/** Beyond so many people a column is sooner read as a whole. */
const MOST_NAMED = 5000;

/**
 * Queries of one organization, and of one chapter where the caller is bound to one. A table is reached only
 * through here: `table` adds the organization by itself, and `sql` refuses a text that does not name `:org`.
 */
export class Scoped {
  /** What this transaction said that it changed; read by `Database.write`. */
  readonly changes: Changed[] = [];

  constructor(
    readonly knex: Knex | Knex.Transaction,
    readonly scope: AccessScope,
  ) {}

  /** Whether what was said is written into the change log at the end. */
  isLogged = false;
  /** Another transaction tells of what this one writes, when all of it is there. */
  isToldElsewhere = false;

  /**
   * Says that what is written here is told by a later transaction of the same work, before anybody can need
   * it.
   */
  toldLater(): void {
    this.isToldElsewhere = true;
  }

  /**
   * Addresses whose permission or health this transaction changes; whom that concerns is asked at its end.
   */
  readonly reached = new Set<number>();

  /**
   * One after the other within an organization, until the transaction ends: for what must hold of all that it
   * has, such as names of fields that read differently. To come before anything is read.
   */
  async lockOrganization(): Promise<void> {
    await this.sql('SELECT id FROM organization WHERE id = :org FOR UPDATE');
  }

  /**
   * Says that this transaction changes nothing that columns are made of. What others say beside it still
   * counts.
   */
  unchanged(): void {
    this.changed('nothing', 0, []);
  }

  /**
   * Says what this transaction changes that columns are made of, so that those who keep columns read anew
   * only these people's values. A transaction that says nothing counts as having changed everything.
   */
  changed(what: ChangedWhat, ref: number, ids: readonly number[] | 'everybody'): void {
    this.changes.push({ what, ref, ids: ids === 'everybody' || ids.length > MOST_NAMED ? 'everybody' : ids });
  }

  /** The same without the bound of a chapter, for what is read of everybody and narrowed afterwards. */
  ofAll(): Scoped {
    return new Scoped(this.knex, { ...this.scope, chapterId: null });
  }

  table<N extends keyof Tables>(name: N): Rows<N> {
    return rowsOf<N>(this.knex, name).where(`${name}.organization_id`, this.scope.organizationId);
  }

  /** Supporters that the caller may see, as `supporter`. */
  supporters(): Rows<'supporter'> {
    const query = this.table('supporter').whereNull('supporter.erased_at');
    return this.scope.chapterId === null ? query : query.where('supporter.chapter_id', this.scope.chapterId);
  }

  /** Rows of a table that belong to the whole organization or to the caller's chapter. */
  ofChapter<N extends keyof Tables>(name: N): Rows<N> {
    const query = this.table(name);
    const { chapterId } = this.scope;
    if (chapterId === null) return query;
    return query.where(
      (q) => void q.whereNull(`${name}.chapter_id`).orWhere(`${name}.chapter_id`, chapterId),
    );
  }

  /** Inserts one row with the organization filled in, and returns its id. */
  async insert(name: string, row: Record<string, Bound>): Promise<number> {
    const [id] = await this.knex(name).insert({ ...row, organization_id: this.scope.organizationId });
    return id!;
  }

  /**
   * Inserts many rows in statements of some thousand values, ignoring those that are there already if asked.
   */
  async insertAll(
    name: string,
    columns: readonly string[],
    rows: readonly (readonly Bound[])[],
    ignore = false,
  ): Promise<void> {
    const perStatement = Math.max(1, Math.floor(20_000 / (columns.length + 1)));
    for (let at = 0; at < rows.length; at += perStatement) {
      const slice = rows.slice(at, at + perStatement).map((row) => [this.scope.organizationId, ...row]);
      const names = ['organization_id', ...columns].map((column) => `\`${column}\``).join(',');
      await this.knex.raw(`INSERT ${ignore ? 'IGNORE ' : ''}INTO \`${name}\` (${names}) VALUES ?`, [
        slice as never,
      ]);
    }
  }

  /** As `insertAll` for thousands of rows: streamed to the server by LOAD DATA LOCAL. */
  async load(name: string, columns: readonly string[], rows: readonly (readonly Bound[])[]): Promise<void> {
    if (rows.length === 0) return;
    const names = ['organization_id', ...columns].map((column) => `\`${column}\``).join(',');
    const first = `${this.scope.organizationId}`;
    let text = '';
    for (const row of rows) text += `${first}${loadLine(row)}`;
    // Faults of single values are warnings to LOAD DATA LOCAL; every value here has been bounded and typed
    // before.
    const statement = `LOAD DATA LOCAL INFILE 'rows' INTO TABLE \`${name}\` CHARACTER SET utf8mb4 FIELDS TERMINATED BY '\\t' ESCAPED BY '\\\\' LINES TERMINATED BY '\\n' (${names})`;
    const answer = (await this.knex
      .raw(statement.replaceAll('?', '\\?'))
      .options({ infileStreamFactory: () => Readable.from([Buffer.from(text)]) })) as [
      { affectedRows: number },
    ];
    if (answer[0].affectedRows !== rows.length)
      throw new Error(`expected ${rows.length} rows loaded into ${name}, got ${answer[0].affectedRows}`);
  }

  /** SQL with named bindings. `:org` and `:chapter` are bound by themselves; `:org` must occur. */
  async sql<Row>(text: string, bindings: Record<string, Bound> = {}): Promise<Row[]> {
    return (await this.run(text, bindings)) as Row[];
  }

  /** A changing statement; returns how many rows it changed. */
  async execute(text: string, bindings: Record<string, Bound> = {}): Promise<number> {
    return ((await this.run(text, bindings)) as { affectedRows: number }).affectedRows;
  }

  /** Reads rows one by one, as arrays, without ever holding them all: for columns of a million values. */
  async scan(text: string, bindings: Record<string, Bound>, each: (row: unknown[]) => void): Promise<void> {
    const { sql, bindings: values } = this.knex
      .raw(...this.bound(text, bindings))
      .toSQL()
      .toNative();
    const client = this.knex.client as {
      acquireConnection(): Promise<Streaming>;
      releaseConnection(one: Streaming): Promise<void>;
    };
    const connection = await client.acquireConnection();
    try {
      await new Promise<void>((done, fail) => {
        connection
          .query({ sql, values, rowsAsArray: true })
          .on('result', (row) => each(row as unknown[]))
          .on('error', fail)
          .on('end', () => done());
      });
    } finally {
      await client.releaseConnection(connection);
    }
  }

  private bound(text: string, bindings: Record<string, Bound>): [string, never] {
    if (!/:org\b/.test(text)) throw new Error(`expected a query that names :org, got: ${text.slice(0, 80)}`);
    return [text, { ...bindings, org: this.scope.organizationId, chapter: this.scope.chapterId } as never];
  }

  private async run(text: string, bindings: Record<string, Bound>): Promise<unknown> {
    const [sql, all] = this.bound(text, bindings);
    const [result] = (await this.knex.raw(sql, all)) as [unknown];
    return result;
  }
}

/** What of a connection is used to read row by row. */
interface Streaming {
  query(options: object): {
    on(event: string, heard: (value: unknown) => void): ReturnType<Streaming['query']>;
  };
}

/** What may be written into a column: JSON as its text, yes and no as they are. */
type Written<N extends keyof Tables> = {
  [C in keyof Tables[N]]?: Tables[N][C] | Bound | boolean | Knex.Raw | Knex.QueryBuilder;
};
type Kept<N extends keyof Tables> = Knex.CompositeTableType<Tables[N], Written<N>, Written<N>, Written<N>>;
const _plain = <N extends keyof Tables>(at: Knex, name: N) => at<Tables[N]>(name);
type Selected<N extends keyof Tables> =
  ReturnType<typeof _plain<N>> extends Knex.QueryBuilder<infer _T, infer R> ? R : never;
/** Rows of a table whoever they belong to, typed; see `unscoped`. */
export const rowsOf = <N extends keyof Tables>(at: Knex, name: N) => at<Kept<N>, Selected<N>>(name);
/** Rows of one table, to be narrowed further; what is selected has the columns' own types. */
export type Rows<N extends keyof Tables> = ReturnType<typeof rowsOf<N>>;

/** Where something is read: in a scope of its own, or within the caller's transaction. */
export type ReadAt = AccessScope | Scoped;

/** Reading what is committed locks no rows that a statement only reads: for bulk work side by side. */
export type Isolation = 'read committed';

/** The values of a row behind its first. */
function loadLine(row: readonly Bound[]): string {
  let line = '';
  for (const value of row) line += `\t${loadValue(value)}`;
  return `${line}\n`;
}

function loadValue(value: Bound): string {
  if (value === null) return '\\N';
  if (typeof value === 'number') return String(value);
  const text = String(value);
  return SPECIAL.test(text) ? text.replace(new RegExp(SPECIAL, 'g'), (char) => ESCAPES[char]!) : text;
}
const SPECIAL = /[\\\t\n\r\0]/;
const ESCAPES: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r', '\0': '\\0' };

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
  constructor(url: string, poolSize = 10, statementSeconds = 0) {
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
