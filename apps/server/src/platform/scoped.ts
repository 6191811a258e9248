import { type Knex } from 'knex';
import { Readable } from 'node:stream';
import { type ChangedWhat } from './telling';
import type { AccessScope } from './scope';
import type { Tables } from './tables/generated';

/** A value that may be bound to SQL. */
export type Bound = string | number | boolean | Date | Buffer | null | readonly (string | number)[];

export interface Changed {
  what: ChangedWhat;
  /** Which field, tag, list, batch or campaign; 0 where there is but one. */
  ref: number;
  ids: readonly number[] | 'everybody';
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

type Selected<N extends keyof Tables> =
  ReturnType<typeof _plain<N>> extends Knex.QueryBuilder<infer _T, infer R> ? R : never;

/** Rows of one table, to be narrowed further; what is selected has the columns' own types. */
export type Rows<N extends keyof Tables> = ReturnType<typeof rowsOf<N>>;

/** Beyond so many people a column is sooner read as a whole. */
const MOST_NAMED = 5000;

const _plain = <N extends keyof Tables>(at: Knex, name: N) => at<Tables[N]>(name);

/** Rows of a table whoever they belong to, typed; see `unscoped`. */
export const rowsOf = <N extends keyof Tables>(at: Knex, name: N) => at<Kept<N>, Selected<N>>(name);

const SPECIAL = /[\\\t\n\r\0]/;

const ESCAPES: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r', '\0': '\\0' };

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
