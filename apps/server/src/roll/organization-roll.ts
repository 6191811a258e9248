import { Bits, dayInZone, type Day } from '@goodword/core/common';
import type { FieldType } from '@goodword/core/fields';
import type { Channel, HouseRules, Scope as PermissionScope } from '@goodword/core/permission';
import {
  columnKey,
  evaluate,
  segmentLines,
  narrow,
  trace,
  type Column,
  type Columns,
  type Line,
  type EvaluationCache,
  type EvaluationContext,
  type Rule,
  type NarrowingStep,
  type Trace,
} from '@goodword/core/segment';
import type { Scoped } from '../platform/database';
import { ChangeLog, type ChangeEntry } from './change-log';
import { folded, type MaterializedColumn, type TextsColumn } from './columns';
import { mendedOrder, orderBy } from './orders';
import { Ordinals } from './ordinals';
import { PeopleRows } from './people-rows';
import { fieldSource, sourceOf, type ColumnSource, type TypeOf } from './sources';
import { ConsentColumns } from './consent-columns';
import { VerdictsColumn, type VerdictQuery, type VerdictsOf } from './verdicts';

/** What people can be put in order by: names, or a field everybody has, or a custom one. */
export type OrderRef = 'name' | string | number;

interface KeptColumn {
  source: ColumnSource;
  column: MaterializedColumn;
  /** When it was last read, in the order of readings. */
  used: number;
}

interface KeptOrder {
  /** The columns it was made of; others in their place make it anew. */
  columns: readonly MaterializedColumn[];
  order: Uint32Array;
  /** Whose values changed since. */
  moved: Set<number>;
}

interface Result {
  bits: Bits;
  version: number;
}

const LONG_AGO_MS = 12 * 3_600_000;
const MOST_RESULTS = 400;
const MOST_ORDERS = 6;
/** Beyond so many an order is sooner made anew than mended. */
const MOST_MOVED = 20_000;

/** What changes by itself or is read from other tables, handed in with each question. */
export interface PageAround {
  db: Scoped;
  rules: () => Promise<HouseRules>;
}

/**
 * Columns of one organization, read when a question first needs them and from then on kept as the change log
 * says. It may be thrown away at any moment. One question at a time: whoever asks waits for the one before
 * (see `RollEngine`).
 */
export class OrganizationRoll {
  private readonly people = new Ordinals();
  private readonly log = new ChangeLog();
  private readonly columns = new Map<string, KeptColumn>();
  private readonly verdicts = new Map<string, { column: VerdictsColumn; used: number }>();
  private readonly results = new Map<string, Result>();
  private readonly orders = new Map<string, KeptOrder>();
  private readonly types = new Map<number, FieldType>();
  private dayOf: (seconds: number) => Day = (seconds) => Math.floor(seconds / 86_400);
  private begun = false;
  private caughtAt = 0;
  private readings = 0;

  get bytes(): number {
    const some = [...this.columns.values(), ...this.verdicts.values()].reduce(
      (sum, { column }) => sum + column.bytes,
      0,
    );
    return (
      some +
      this.people.bytes +
      this.results.size * (this.people.size / 8) +
      this.orders.size * this.people.size * 4
    );
  }

  /** Drops what was read longest ago until it all takes no more than so much. */
  shrink(bytes: number): void {
    const oldest = () =>
      [...this.columns.entries()]
        .map(([key, { used }]) => ({ key, used, from: this.columns as Map<string, unknown> }))
        .concat(
          [...this.verdicts.entries()].map(([key, { used }]) => ({
            key,
            used,
            from: this.verdicts as Map<string, unknown>,
          })),
        );
    if (this.bytes > bytes) this.orders.clear();
    if (this.bytes > bytes) this.results.clear();
    for (const { key, from } of oldest().sort((a, b) => a.used - b.used)) {
      if (this.bytes <= bytes) return;
      from.delete(key);
    }
  }

  /**
   * Everybody in the caller's scope who passes, with the narrowing of each line; `beside` is counted within
   * them.
   */
  async count(
    around: PageAround,
    rule: Rule,
    reading: EvaluationContext,
    beside: readonly Rule[],
  ): Promise<CountedTree> {
    await this.ready(around, [rule, ...beside]);
    const within = this.within(around.db);
    const { bits, steps } = narrow(rule, this.view(), reading, { memo: this.memo(reading), within });
    return {
      everybody: within.count(),
      total: bits.count(),
      steps,
      beside: beside.map((one) => evaluate(one, this.view(), reading, this.memo(reading)).and(bits).count()),
    };
  }

  async members(around: PageAround, rule: Rule, reading: EvaluationContext): Promise<Uint32Array> {
    await this.ready(around, [rule]);
    return Uint32Array.from(
      this.passing(around.db, rule, reading).ordinals(),
      (ordinal) => this.people.ids[ordinal]!,
    );
  }

  /**
   * The verdicts of these people for a question, in their order; of whoever is not in the caller's scope: no
   * address.
   */
  async verdictsOf(around: PageAround, asked: VerdictQuery, ids: Uint32Array): Promise<VerdictsOf> {
    const line: Line = { kind: 'may', may: true, ...asked };
    await this.ready(around, [line]);
    return this.verdicts.get(columnKey(line).split(':').slice(1).join(':'))!.column.of(this.people, ids);
  }

  /**
   * How many a change of rules opens and closes, of everybody in the caller's scope or of those who are on a
   * list. Read for the question and not kept: rules are weighed seldom.
   */
  async moved(
    around: PageAround,
    { channel, scope, listId, before, after }: MovedQuestion,
  ): Promise<{ opens: number; closes: number }> {
    const onList: Line[] = listId === null ? [] : [{ kind: 'list', listId, on: true }];
    await this.ready(around, onList);
    const of = this.within(around.db);
    const people = onList[0] ? evaluate(onList[0], this.view(), { today: 0 }).and(of) : of;
    const rules = withLongestCaps(before, after);
    const consent = new ConsentColumns(this.people, { channel, scope, rules, now: new Date() });
    await consent.read(around.db.ofAll(), Promise.resolve());
    const could = new Bits(this.people.size);
    consent.decide((ordinal, { verdict }) => {
      if (verdict === 'send') could.add(ordinal);
    }, before);
    let [opens, closes] = [0, 0];
    consent.decide((ordinal, { verdict }) => {
      if (!people.has(ordinal) || (verdict === 'send') === could.has(ordinal)) return;
      if (verdict === 'send') opens++;
      else closes++;
    }, after);
    return { opens, closes };
  }

  /** So many of those who pass, in an order, after somebody; with how many there are in all. */
  async page(
    around: PageAround,
    rule: Rule,
    reading: EvaluationContext,
    page: { by: OrderRef; descending: boolean; after: number | null; limit: number },
  ): Promise<{ ids: number[]; total: number }> {
    await this.ready(around, [rule]);
    const order = await this.order(around, page.by, page.descending);
    const bits = this.passing(around.db, rule, reading);
    const from = page.after === null ? undefined : this.people.ordinalOf(page.after);
    const ids: number[] = [];
    for (
      let at = from === undefined ? 0 : order.indexOf(from) + 1;
      at < order.length && ids.length < page.limit;
      at++
    )
      if (bits.has(order[at]!)) ids.push(this.people.ids[order[at]!]!);
    return { ids, total: bits.count() };
  }

  /** Why one person passes each rule or does not; nulls for somebody who is not in the caller's scope. */
  async trace(
    around: PageAround,
    rules: readonly Rule[],
    supporterId: number,
    reading: EvaluationContext,
  ): Promise<(Trace | null)[]> {
    await this.ready(around, rules);
    const ordinal = this.people.ordinalOf(supporterId);
    if (ordinal === undefined || !this.within(around.db).has(ordinal)) return rules.map(() => null);
    return rules.map((rule) => trace(rule, this.view(), ordinal, reading));
  }

  /** People whose first or last name has a part that begins with each of the words, by name. */
  async find(around: PageAround, words: readonly string[], limit: number): Promise<number[]> {
    const order = await this.order(around, 'name', false);
    const names = ['firstName', 'lastName'].map(
      (ref) => this.columns.get(`field:${ref}`)!.column as TextsColumn,
    );
    const [first, last] = [names[0]!, names[1]!];
    const tests = words
      .map(folded)
      .map((word) => ({ first: beginners(first.plain, word), last: beginners(last.plain, word) }));
    const [firstCodes, lastCodes] = [first.codes, last.codes];
    const within = this.within(around.db);
    const ids: number[] = [];
    for (let at = 0; at < order.length && ids.length < limit; at++) {
      const ordinal = order[at]!;
      const [one, other] = [firstCodes[ordinal]!, lastCodes[ordinal]!];
      let passes = true;
      for (let w = 0; passes && w < tests.length; w++)
        passes = (tests[w]!.first[one]! | tests[w]!.last[other]!) === 1;
      if (passes && within.has(ordinal)) ids.push(this.people.ids[ordinal]!);
    }
    return ids;
  }

  private passing(db: Scoped, rule: Rule, reading: EvaluationContext): Bits {
    return evaluate(rule, this.view(), reading, this.memo(reading)).and(this.within(db));
  }

  /** Everybody here, and of one chapter where the caller is bound to one. */
  private within(db: Scoped): Bits {
    const { chapterId } = db.scope;
    if (chapterId === null) return this.people.alive;
    const { chapters, alive, size } = this.people;
    return Bits.where(size, (i) => chapters[i] === chapterId).and(alive);
  }

  private view(): Columns {
    return { size: this.people.size, get: (key) => this.columnAt(key) };
  }

  private columnAt(key: string): Column {
    if (key === 'chapter') return { kind: 'chapter', ids: this.people.chapters };
    const [kind, ...rest] = key.split(':');
    if (kind === 'permission' || kind === 'may' || kind === 'lapses') {
      const verdicts = this.verdicts.get(rest.join(':'));
      if (verdicts) return verdicts.column.columnOf(kind);
    }
    const kept = this.columns.get(key);
    if (!kept)
      throw new Error(
        `expected the column ${key} to be read, got only ${[...this.columns.keys()].join(', ')}`,
      );
    return kept.column.column;
  }

  /** What single lines came to, as long as neither their column nor the day has changed. */
  private memo({ today, fiscalMonth = 1 }: EvaluationContext): EvaluationCache {
    const keyOf = (line: Line) => `${today}/${fiscalMonth}/${JSON.stringify(line)}`;
    const versionOf = (line: Line): number => {
      const key = columnKey(line);
      const [, ...rest] = key.split(':');
      return this.columns.get(key)?.column.version ?? this.verdicts.get(rest.join(':'))?.column.version ?? -1;
    };
    return {
      get: (line) => {
        const known = this.results.get(keyOf(line));
        return known && known.version === versionOf(line) && known.bits.size === this.people.size
          ? known.bits
          : undefined;
      },
      set: (line, bits) => {
        // Chapters have no version of their own.
        if (line.kind === 'chapter') return;
        this.results.delete(keyOf(line));
        this.results.set(keyOf(line), { bits, version: versionOf(line) });
        if (this.results.size > MOST_RESULTS) this.results.delete(this.results.keys().next().value!);
      },
    };
  }

  /** Brings everything up to this moment, and reads what the rules need and is not there yet. */
  private async ready(
    around: PageAround,
    rules: readonly Rule[],
    fields: readonly (string | number)[] = [],
  ): Promise<void> {
    this.readings++;
    // Nothing of the organization's is the caller's chapter's alone: columns are of everybody.
    const everybody: PageAround = { ...around, db: around.db.ofAll() };
    try {
      const { here } = await this.catchUp(everybody);
      // Side by side: while one column's rows are put into their places, the database makes those of another.
      const readings = await Promise.allSettled([
        here,
        ...distinct(rules.flatMap(segmentLines)).map((line) => this.need(everybody, line, here)),
        ...fields.map(async (ref) => {
          await here;
          await this.load(everybody.db, fieldSource(ref, await this.typesWith(everybody.db, ref)));
        }),
      ]);
      // All have ended before one that failed is told: none may write into what is begun anew.
      for (const reading of readings) if (reading.status === 'rejected') throw reading.reason;
      this.begun = true;
    } catch (error) {
      // What was read by half must not be kept: everything is read anew.
      this.begun = false;
      throw error;
    }
  }

  /** Up to this moment; where everything is begun anew, who is here is still being read, until `here`. */
  private async catchUp({ db, rules }: PageAround): Promise<{ here: Promise<void> }> {
    // Entries of the change log are kept for a day.
    const since = Date.now() - this.caughtAt;
    this.caughtAt = Date.now();
    if (!this.begun || since > LONG_AGO_MS) return this.begin(db);
    const changes = await this.log.next(db);
    if (changes.some(({ what }) => what === 'all')) return this.begin(db);
    for (const change of together(changes)) await this.apply(db, change, rules);
    for (const [key, { column }] of this.verdicts) {
      const due = column.due(Date.now());
      if (due.length > 0 && !(await column.readSome(db, this.people, await rules(), due)))
        this.verdicts.delete(key);
    }
    return { here: Promise.resolve() };
  }

  /**
   * Everything is thrown away but the places of those who are known. What changes from here on is in the log.
   */
  private async begin(db: Scoped): Promise<{ here: Promise<void> }> {
    this.begun = false;
    await this.log.begin(db);
    for (const map of [this.columns, this.verdicts, this.results, this.orders]) map.clear();
    this.types.clear();
    const [house] = await db.sql<{ time_zone: string }>('SELECT time_zone FROM organization WHERE id = :org');
    this.dayOf = daysIn(house?.time_zone ?? 'UTC');
    return { here: this.readPeople(db, 'everybody') };
  }

  private async readPeople(db: Scoped, ids: readonly number[] | 'everybody'): Promise<void> {
    const some = ids === 'everybody' ? '' : ' AND id IN (:ids)';
    const named =
      ids === 'everybody'
        ? Array.from({ length: this.people.size }, (_none, i) => i)
        : ids.flatMap((id) => this.people.ordinalOf(id) ?? []);
    const rows = new PeopleRows();
    await db.scan(
      `SELECT id, chapter_id FROM supporter WHERE organization_id = :org AND erased_at IS NULL${some}`,
      ids === 'everybody' ? {} : { ids },
      ([id, chapter]) => rows.push(Number(id), Number(chapter)),
    );
    rows.byId((id, chapterId) => this.people.put(id, chapterId));
    this.people.settle(named);
    for (const { column } of [...this.columns.values(), ...this.verdicts.values()])
      column.grow(this.people.size);
  }

  private async apply(db: Scoped, change: ChangeEntry, rules: PageAround['rules']): Promise<void> {
    const { what, ids } = change;
    if (what === 'people') await this.readPeople(db, ids);
    for (const [key, kept] of this.columns) {
      if (
        what !== 'people' &&
        (kept.source.what !== what || (kept.source.ref !== change.ref && change.ref !== 0))
      )
        continue;
      if (ids === 'everybody') this.columns.delete(key);
      else await this.fill(db, kept, ids);
    }
    if (what !== 'people' && what !== 'reach') return;
    for (const [key, { column }] of this.verdicts) {
      if (ids === 'everybody' || !(await column.readSome(db, this.people, await rules(), ids)))
        this.verdicts.delete(key);
    }
  }

  private async need(around: PageAround, line: Line, here: Promise<void>): Promise<void> {
    switch (line.kind) {
      case 'chapter':
        return;
      case 'segment':
        throw new Error('expected segments inside a segment to be expanded (see expand)');
      case 'permission':
      case 'may':
      case 'lapses': {
        const key = `${line.channel}:${line.scope}`;
        const known = this.verdicts.get(key);
        if (known) known.used = this.readings;
        else {
          const column = new VerdictsColumn(line);
          await column.readAll(around.db, this.people, await around.rules(), here);
          this.verdicts.set(key, { column, used: this.readings });
        }
        return;
      }
      default:
        await here;
        return this.load(
          around.db,
          sourceOf(line, await this.typesWith(around.db, line.kind === 'field' ? line.field : '')),
        );
    }
  }

  /**
   * Types of fields, that of the one in question among them. Fields are made at any time; a change of type
   * logs that all has changed.
   */
  private async typesWith(db: Scoped, ref: string | number): Promise<TypeOf> {
    if (typeof ref === 'number' && !this.types.has(ref)) {
      const [row] = await db.sql<{ type: FieldType }>(
        'SELECT type FROM field WHERE organization_id = :org AND id = :ref',
        { ref },
      );
      this.types.set(ref, row?.type ?? 'text');
    }
    return (id) => this.types.get(id) ?? 'text';
  }

  private async load(db: Scoped, source: ColumnSource): Promise<void> {
    const known = this.columns.get(source.key);
    if (known) {
      known.used = this.readings;
      return;
    }
    const kept: KeptColumn = { source, column: source.makeColumn(this.people.size), used: this.readings };
    await this.fill(db, kept, 'everybody');
    this.columns.set(source.key, kept);
  }

  private async fill(
    db: Scoped,
    { source, column }: KeptColumn,
    ids: readonly number[] | 'everybody',
  ): Promise<void> {
    if (ids !== 'everybody') {
      const ordinals = ids.flatMap((id) => this.people.ordinalOf(id) ?? []);
      column.reset(ordinals);
      this.moveIn(column, ordinals);
    }
    const some = ids === 'everybody' ? '' : ` AND ${source.by} IN (:someIds)`;
    await db.scan(
      `${source.sql}${some} ${source.tail ?? ''}`,
      ids === 'everybody' ? source.bindings : { ...source.bindings, someIds: ids },
      (row) => {
        const ordinal = this.people.ordinalOf(Number(row[0]));
        if (ordinal !== undefined)
          column.put(ordinal, source.moments ? [row[0], this.dayOf(Number(row[1])), ...row.slice(2)] : row);
      },
    );
    column.finish();
  }

  /** Tells the orders that are kept whose values in a column are others now. */
  private moveIn(column: MaterializedColumn, ordinals: readonly number[]): void {
    for (const [name, { columns, moved }] of this.orders) {
      if (!columns.includes(column)) continue;
      for (const ordinal of ordinals) moved.add(ordinal);
      if (moved.size > MOST_MOVED) this.orders.delete(name);
    }
  }

  /** Everybody in an order: made once, then kept, and mended where people change. */
  private async order(around: PageAround, by: OrderRef, descending: boolean): Promise<Uint32Array> {
    const refs = by === 'name' ? ['lastName', 'firstName'] : [by, 'lastName', 'firstName'];
    await this.ready(around, [], refs);
    const keys = refs.map((ref) => this.columns.get(`field:${ref}`)!.column);
    const name = `${by}/${descending}`;
    const { ids, size } = this.people;
    const known = this.orders.get(name);
    const same = known && keys.every((column, i) => column === known.columns[i]);
    const moves = same ? known.moved.size + size - known.order.length : 0;
    if (same && moves === 0) return known.order;
    const order =
      same && moves <= MOST_MOVED
        ? mendedOrder(known.order, keys, ids, size, descending, known.moved)
        : orderBy(keys, ids, size, descending);
    this.orders.delete(name);
    this.orders.set(name, { columns: keys, order, moved: new Set() });
    if (this.orders.size > MOST_ORDERS) this.orders.delete(this.orders.keys().next().value!);
    return order;
  }
}

/**
 * The day that a moment is in a time zone. Zones lie whole quarters of an hour from UTC, so one answer serves
 * a quarter of an hour: Intl is asked for each quarter and not for each of a million moments.
 */
function daysIn(zone: string): (seconds: number) => Day {
  const known = new Map<number, Day>();
  return (seconds) => {
    const quarter = Math.floor(seconds / 900);
    let day = known.get(quarter);
    if (day === undefined) known.set(quarter, (day = dayInZone(quarter * 900_000, zone)));
    return day;
  };
}

/** One line for each column, since several lines may read the same. */
function distinct(lines: readonly Line[]): Line[] {
  const keyOf = (line: Line) => ('scope' in line ? `${line.channel}:${line.scope}` : columnKey(line));
  return [...new Map(lines.map((line) => [keyOf(line), line])).values()];
}

/**
 * One change for all that was changed of the same: a column is mended once, however many transactions wrote
 * to it.
 */
function together(changes: readonly ChangeEntry[]): ChangeEntry[] {
  const out = new Map<string, ChangeEntry>();
  for (const change of changes) {
    const key = `${change.what}:${change.ref}`;
    const known = out.get(key);
    if (!known) out.set(key, change);
    else if (known.ids === 'everybody' || change.ids === 'everybody')
      out.set(key, { ...known, ids: 'everybody' });
    else out.set(key, { ...known, ids: [...new Set([...known.ids, ...change.ids])] });
  }
  // Who there is comes first: what is known of somebody new needs their place.
  return [...out.values()].sort((a, b) => Number(b.what === 'people') - Number(a.what === 'people'));
}

/** Which words of a dictionary have a part that begins with a word. */
function beginners(dictionary: readonly string[], word: string): Uint8Array {
  const out = new Uint8Array(dictionary.length);
  for (let code = 0; code < dictionary.length; code++) if (beginsIn(dictionary[code]!, word)) out[code] = 1;
  return out;
}

/** Whether a part of a name begins with a word; both folded. */
function beginsIn(plain: string, word: string): boolean {
  for (let at = plain.indexOf(word); at >= 0; at = plain.indexOf(word, at + 1))
    if (at === 0 || " -\u2019'".includes(plain[at - 1]!)) return true;
  return false;
}

/** A change of rules, weighed for one question. */
export interface MovedQuestion {
  channel: Channel;
  scope: PermissionScope;
  /** Only those on this list; null for everybody. */
  listId: number | null;
  before: HouseRules;
  after: HouseRules;
}

/**
 * Rules by which everything is read that either of two sets needs: as many messages back as the longer cap
 * looks.
 */
function withLongestCaps(before: HouseRules, after: HouseRules): HouseRules {
  return {
    ...after,
    places: {
      ...after.places,
      ...Object.fromEntries(Object.entries(before.places).map(([key, place]) => [`${key} before`, place])),
    },
  };
}

/** A rule counted. */
export interface CountedTree {
  everybody: number;
  total: number;
  steps: NarrowingStep[];
  beside: number[];
}
