import { Injectable } from '@nestjs/common';
import { Bits } from '@goodword/core/common';
import type { FieldType } from '@goodword/core/fields';
import {
  STATES,
  type HouseRules,
  type PermissionState,
  type Scope as PermissionScope,
  type SendingChannel,
  type Verdict,
} from '@goodword/core/permission';
import { NO_DAY, type Column, type Line } from '@goodword/core/segment';
import { bindingsOf, personVerdictSql } from '../permission/verdict.sql';
import type { Bound, Scoped } from '../platform/database';

/** Everybody in a scope in the order of their names, and the way from an id to its ordinal. */
export interface People {
  ids: Uint32Array;
  ordinalOf(id: number): number | undefined;
}

/** Three columns of one reading, by the kind of line that asks for each. */
export type Verdicts = Record<'permission' | 'may' | 'lapses', Column>;

const MINE =
  'SELECT id AS supporter_id FROM supporter WHERE organization_id = :org AND erased_at IS NULL AND (:chapter IS NULL OR chapter_id = :chapter)';

/** Reads columns from the database: one covering index range each. */
@Injectable()
export class RollRepository {
  async version(db: Scoped): Promise<string> {
    const [row] = await db.sql<{ n: number; last: number | null }>(
      'SELECT COUNT(*) AS n, MAX(id) AS last FROM change_log WHERE organization_id = :org',
    );
    return `${row?.n ?? 0}:${row?.last ?? 0}`;
  }

  async people(db: Scoped): Promise<People> {
    const rows = await db.sql<{ id: number }>(
      'SELECT id FROM supporter WHERE organization_id = :org AND erased_at IS NULL AND (:chapter IS NULL OR chapter_id = :chapter) ORDER BY last_name, first_name, id',
    );
    const ids = Uint32Array.from(rows, (row) => row.id);
    const ordinals = new Map<number, number>();
    ids.forEach((id, ordinal) => ordinals.set(id, ordinal));
    return { ids, ordinalOf: (id) => ordinals.get(id) };
  }

  async column(db: Scoped, people: People, line: Line, around: { rules: HouseRules; now: Date }): Promise<Column> {
    switch (line.kind) {
      case 'tag':
        return this.members(db, people, 'SELECT supporter_id AS id FROM supporter_tag WHERE organization_id = :org AND tag_id = :of', line.tagId);
      case 'list':
        return this.members(db, people, 'SELECT supporter_id AS id FROM supporter_list WHERE organization_id = :org AND list_id = :of', line.listId);
      case 'batch':
        return this.members(
          db,
          people,
          'SELECT DISTINCT supporter_id AS id FROM batch_row WHERE organization_id = :org AND batch_id = :of AND supporter_id IS NOT NULL',
          line.batchId,
        );
      case 'permission':
      case 'may':
      case 'lapses':
        return (await this.verdicts(db, people, line, around))[line.kind];
      case 'gave':
        return this.gifts(db, people);
      case 'field':
        return this.field(db, people, line.field);
    }
  }

  private async members(db: Scoped, people: People, sql: string, of: number): Promise<Column> {
    const bits = new Bits(people.ids.length);
    for (const row of await db.sql<{ id: number }>(sql, { of })) {
      const ordinal = people.ordinalOf(row.id);
      if (ordinal !== undefined) bits.add(ordinal);
    }
    return { kind: 'bits', bits };
  }

  /** What the set-based verdict says of everybody: their state, whether they may be written to, and the last day of what lapses. */
  async verdicts(
    db: Scoped,
    people: People,
    of: { channel: SendingChannel; scope: PermissionScope },
    around: { rules: HouseRules; now: Date },
  ): Promise<Verdicts> {
    const asking = { ...of, ...around };
    const codes = new Uint8Array(people.ids.length).fill(STATES.indexOf('never'));
    const bits = new Bits(people.ids.length);
    const days = new Int32Array(people.ids.length).fill(NO_DAY);
    const rows = await db.sql<{ supporter_id: number; state: PermissionState; verdict: Verdict; implied_until: Date | null }>(
      `SELECT supporter_id, state, verdict, implied_until FROM (${personVerdictSql(MINE, asking)}) v`,
      bindingsOf(asking),
    );
    for (const row of rows) {
      const ordinal = people.ordinalOf(row.supporter_id);
      if (ordinal === undefined) continue;
      codes[ordinal] = STATES.indexOf(row.state);
      if (row.verdict !== 'send') continue;
      bits.add(ordinal);
      if (row.implied_until) days[ordinal] = Math.floor(row.implied_until.getTime() / 86_400_000);
    }
    return { permission: { kind: 'state', codes }, may: { kind: 'bits', bits }, lapses: { kind: 'day', values: days } };
  }

  private async gifts(db: Scoped, people: People): Promise<Column> {
    const rows = await db.sql<{ supporter_id: number; given_on: number; amount: number }>(
      'SELECT supporter_id, given_on, amount FROM gift WHERE organization_id = :org',
    );
    const mine = rows.map((row) => ({ ...row, ordinal: people.ordinalOf(row.supporter_id) })).filter((row) => row.ordinal !== undefined);
    mine.sort((a, b) => a.ordinal! - b.ordinal!);
    const starts = new Uint32Array(people.ids.length + 1);
    for (const gift of mine) starts[gift.ordinal! + 1]! += 1;
    for (let i = 0; i < people.ids.length; i++) starts[i + 1]! += starts[i]!;
    return { kind: 'gifts', starts, days: Int32Array.from(mine, (g) => g.given_on), amounts: Float64Array.from(mine, (g) => Number(g.amount)) };
  }

  private async field(db: Scoped, people: People, ref: number | string): Promise<Column> {
    if (ref === 'created')
      return this.days(db, people, 'SELECT id AS supporter_id, TO_DAYS(created_at) - 719528 AS v FROM supporter WHERE organization_id = :org', {});
    if (ref === 'firstName')
      return this.texts(db, people, 'SELECT id AS supporter_id, first_name AS v FROM supporter WHERE organization_id = :org', {});
    if (ref === 'lastName')
      return this.texts(db, people, 'SELECT id AS supporter_id, last_name AS v FROM supporter WHERE organization_id = :org', {});
    const [field] = await db.sql<{ type: FieldType }>('SELECT type FROM field WHERE organization_id = :org AND id = :ref', { ref });
    const values = (column: string) => `SELECT supporter_id, ${column} AS v FROM field_value WHERE organization_id = :org AND field_id = :ref`;
    switch (field?.type ?? 'text') {
      case 'text':
      case 'choice':
        return this.texts(db, people, values('text_value'), { ref });
      case 'number':
      case 'money':
      case 'yesno':
        return this.numbers(db, people, values('number_value'), { ref });
      case 'date':
        return this.days(db, people, values('date_value'), { ref });
      case 'birthday':
        return this.monthDays(db, people, values('month_day'), { ref });
    }
  }

  private async fill<V>(
    db: Scoped,
    people: People,
    sql: string,
    bindings: Record<string, Bound>,
    put: (ordinal: number, value: V) => void,
  ): Promise<void> {
    for (const row of await db.sql<{ supporter_id: number; v: V | null }>(sql, bindings)) {
      const ordinal = people.ordinalOf(row.supporter_id);
      if (ordinal !== undefined && row.v !== null) put(ordinal, row.v);
    }
  }

  private async texts(db: Scoped, people: People, sql: string, bindings: Record<string, Bound>): Promise<Column> {
    const codes = new Uint32Array(people.ids.length);
    const codeOf = new Map<string, number>([['', 0]]);
    await this.fill<string>(db, people, sql, bindings, (ordinal, value) => {
      const word = value.trim().toLowerCase();
      const code = codeOf.get(word) ?? codeOf.size;
      codeOf.set(word, code);
      codes[ordinal] = code;
    });
    return { kind: 'text', codes, dictionary: [...codeOf.keys()] };
  }

  private async numbers(db: Scoped, people: People, sql: string, bindings: Record<string, Bound>): Promise<Column> {
    const values = new Float64Array(people.ids.length).fill(NaN);
    await this.fill<number>(db, people, sql, bindings, (ordinal, value) => (values[ordinal] = value));
    return { kind: 'number', values };
  }

  private async days(db: Scoped, people: People, sql: string, bindings: Record<string, Bound>): Promise<Column> {
    const values = new Int32Array(people.ids.length).fill(NO_DAY);
    await this.fill<number>(db, people, sql, bindings, (ordinal, value) => (values[ordinal] = value));
    return { kind: 'day', values };
  }

  private async monthDays(db: Scoped, people: People, sql: string, bindings: Record<string, Bound>): Promise<Column> {
    const values = new Uint16Array(people.ids.length);
    await this.fill<number>(db, people, sql, bindings, (ordinal, value) => (values[ordinal] = value));
    return { kind: 'monthDay', values };
  }
}
