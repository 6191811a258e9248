import { Bits } from '@goodword/core/common';
import type { HouseRules } from '@goodword/core/permission';
import {
  columnKey,
  evaluate,
  segmentLines,
  narrow,
  trace,
  type Column,
  type ColumnKey,
  type Columns,
  type Line,
  type EvaluationCache,
  type EvaluationContext,
  type Rule,
  type NarrowingStep,
  type Trace,
} from '@goodword/core/segment';
import type { Scoped } from '../platform/scoped';
import { ChangeLog, type ChangeEntry } from './change-log';
import type { TextsColumn } from './columns';
import { KeptColumns } from './kept-columns';
import { KeptOrders } from './kept-orders';
import { KeptResults } from './kept-results';
import { KeptVerdicts } from './kept-verdicts';
import { namesBeginning } from './names-beginning';
import { Ordinals } from './ordinals';
import { PeopleRows } from './people-rows';
import { weighed, type MovedQuestion } from './rule-weighing';
import { readsVerdicts, sourceOf } from './sources';
import type { VerdictQuery, VerdictsOf } from './verdicts';

/** What people can be put in order by: names, or a field everybody has, or a custom one. */
export type OrderRef = 'name' | string | number;

const LONG_AGO_MS = 12 * 3_600_000;

/** What changes by itself or is read from other tables, handed in with each question. */
export interface RollContext {
  db: Scoped;
  rules: () => Promise<HouseRules>;
}

/** A rule counted. */
export interface CountedTree {
  everybody: number;
  total: number;
  steps: NarrowingStep[];
  beside: number[];
}

/**
 * Everybody of one organization in columns, read when a question first needs them and from then on kept as
 * the change log says. It may be thrown away at any moment. One question at a time: whoever asks waits for
 * the one before (see `RollEngine`).
 */
export class OrganizationRoll implements Columns {
  private readonly people = new Ordinals();
  private readonly log = new ChangeLog();
  private readonly orders = new KeptOrders(this.people);
  private readonly columns = new KeptColumns(this.people, (column, who) => this.orders.moved(column, who));
  private readonly verdicts = new KeptVerdicts(this.people);
  private readonly results = new KeptResults();
  private begun = false;
  private caughtAt = 0;
  private readings = 0;

  get bytes(): number {
    const results = this.results.size * (this.people.size / 8);
    return this.columns.bytes + this.verdicts.bytes + this.people.bytes + this.orders.bytes + results;
  }

  /** Drops what was read longest ago until it all takes no more than so much. */
  shrink(bytes: number): void {
    if (this.bytes > bytes) this.orders.clear();
    if (this.bytes > bytes) this.results.clear();
    const uses = [...this.columns.uses, ...this.verdicts.uses].sort((a, b) => a.used - b.used);
    for (const { drop } of uses) {
      if (this.bytes <= bytes) return;
      drop();
    }
  }

  /**
   * Everybody in the caller's scope who passes, with the narrowing of each line; `beside` is counted within
   * them.
   */
  async count(
    around: RollContext,
    rule: Rule,
    reading: EvaluationContext,
    beside: readonly Rule[],
  ): Promise<CountedTree> {
    await this.ready(around, [rule, ...beside]);
    const within = this.within(around.db);
    const { bits, steps } = narrow(rule, this, reading, { memo: this.memo(reading), within });
    return {
      everybody: within.count(),
      total: bits.count(),
      steps,
      beside: beside.map((one) => evaluate(one, this, reading, this.memo(reading)).and(bits).count()),
    };
  }

  async members(around: RollContext, rule: Rule, reading: EvaluationContext): Promise<Uint32Array> {
    await this.ready(around, [rule]);
    return Uint32Array.from(
      this.passing(around.db, rule, reading).ordinals(),
      (ordinal) => this.people.ids[ordinal]!,
    );
  }

  /** Which of these people pass each rule; whoever is not in the caller's scope passes none. */
  async among(
    around: RollContext,
    rules: readonly Rule[],
    reading: EvaluationContext,
    ids: Uint32Array,
  ): Promise<Uint8Array[]> {
    await this.ready(around, rules);
    const ordinals = [...ids].map((id) => this.people.ordinalOf(id));
    return rules.map((rule) => {
      const passing = this.passing(around.db, rule, reading);
      return Uint8Array.from(ordinals, (at) => Number(at !== undefined && passing.has(at)));
    });
  }

  /**
   * The verdicts of these people for a question, in their order; of whoever is not in the caller's scope: no
   * address.
   */
  async verdictsOf(around: RollContext, asked: VerdictQuery, ids: Uint32Array): Promise<VerdictsOf> {
    const line: Line = { kind: 'may', may: true, ...asked };
    await this.ready(around, [line]);
    return this.verdicts.get(asked).of(this.people, ids);
  }

  /**
   * How many a change of rules opens and closes, of everybody in the caller's scope or of those who are on a
   * list.
   */
  async moved(around: RollContext, question: MovedQuestion): Promise<{ opens: number; closes: number }> {
    const { listId } = question;
    const onList: Line[] = listId === null ? [] : [{ kind: 'list', listId, on: true }];
    await this.ready(around, onList);
    const of = this.within(around.db);
    const people = onList[0] ? evaluate(onList[0], this, { today: 0 }).and(of) : of;
    return weighed(around.db.ofAll(), this.people, people, question);
  }

  /** So many of those who pass, in an order, after somebody; with how many there are in all. */
  async page(
    around: RollContext,
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
    around: RollContext,
    rules: readonly Rule[],
    supporterId: number,
    reading: EvaluationContext,
  ): Promise<(Trace | null)[]> {
    await this.ready(around, rules);
    const ordinal = this.people.ordinalOf(supporterId);
    if (ordinal === undefined || !this.within(around.db).has(ordinal)) return rules.map(() => null);
    return rules.map((rule) => trace(rule, this, ordinal, reading));
  }

  /** People whose first or last name has a part that begins with each of the words, by name. */
  async find(around: RollContext, words: readonly string[], limit: number): Promise<number[]> {
    const order = await this.order(around, 'name', false);
    const [first, last] = ['field:firstName', 'field:lastName'].map((key) => this.columns.get(key));
    const passes = namesBeginning(words, first as TextsColumn, last as TextsColumn);
    const within = this.within(around.db);
    const ids: number[] = [];
    for (let at = 0; at < order.length && ids.length < limit; at++) {
      const ordinal = order[at]!;
      if (passes(ordinal) && within.has(ordinal)) ids.push(this.people.ids[ordinal]!);
    }
    return ids;
  }

  /** Everybody ever seen. */
  get size(): number {
    return this.people.size;
  }

  /** The column of a key; throws for one that was not read. */
  get(key: ColumnKey): Column {
    if (key === 'chapter') return { kind: 'chapter', ids: this.people.chapters };
    return this.verdicts.columnAt(key) ?? this.columns.get(key).column;
  }

  private passing(db: Scoped, rule: Rule, reading: EvaluationContext): Bits {
    return evaluate(rule, this, reading, this.memo(reading)).and(this.within(db));
  }

  /** Everybody here, and of one chapter where the caller is bound to one. */
  private within(db: Scoped): Bits {
    const { chapterId } = db.scope;
    if (chapterId === null) return this.people.alive;
    const { chapters, alive, size } = this.people;
    return Bits.where(size, (i) => chapters[i] === chapterId).and(alive);
  }

  private memo(context: EvaluationContext): EvaluationCache {
    return this.results.cache(context, this.people, (line) => {
      // Chapters have no version of their own.
      if (line.kind === 'chapter') return null;
      const column = readsVerdicts(line) ? this.verdicts.find(line) : this.columns.find(columnKey(line));
      return column?.version ?? -1;
    });
  }

  /** Brings everything up to this moment, and reads what the rules need and is not there yet. */
  private async ready(
    around: RollContext,
    rules: readonly Rule[],
    fields: readonly (string | number)[] = [],
  ): Promise<void> {
    this.readings++;
    // Nothing of the organization's is the caller's chapter's alone: columns are of everybody.
    const everybody: RollContext = { ...around, db: around.db.ofAll() };
    try {
      const { here } = await this.catchUp(everybody);
      // Side by side: while one column's rows are put into their places, the database makes those of another.
      const readings = await Promise.allSettled([
        here,
        ...distinct(rules.flatMap(segmentLines)).map((line) => this.need(everybody, line, here)),
        ...fields.map(async (ref) => {
          await here;
          await this.columns.needField(everybody.db, ref, this.readings);
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
  private async catchUp({ db, rules }: RollContext): Promise<{ here: Promise<void> }> {
    // Entries of the change log are kept for a day.
    const since = Date.now() - this.caughtAt;
    this.caughtAt = Date.now();
    if (!this.begun || since > LONG_AGO_MS) return this.begin(db);
    const changes = await this.log.next(db);
    if (changes.some(({ what }) => what === 'all')) return this.begin(db);
    for (const change of together(changes)) {
      if (change.what === 'people') await this.readPeople(db, change.ids);
      await this.columns.apply(db, change);
      await this.verdicts.apply(db, change, rules);
    }
    await this.verdicts.passTime(db, rules);
    return { here: Promise.resolve() };
  }

  /**
   * Everything is thrown away but the places of those who are known. What changes from here on is in the log.
   */
  private async begin(db: Scoped): Promise<{ here: Promise<void> }> {
    this.begun = false;
    await this.log.begin(db);
    for (const kept of [this.verdicts, this.results, this.orders]) kept.clear();
    const [house] = await db.sql<{ time_zone: string }>('SELECT time_zone FROM organization WHERE id = :org');
    this.columns.begin(house?.time_zone ?? 'UTC');
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
    for (const kept of [this.columns, this.verdicts]) kept.grow(this.people.size);
  }

  private async need({ db, rules }: RollContext, line: Line, here: Promise<void>): Promise<void> {
    if (readsVerdicts(line)) return this.verdicts.need(db, line, rules, here, this.readings);
    const source = sourceOf(line);
    if (source === 'people') return;
    if (typeof source !== 'function')
      throw new Error(`expected a ${line.kind} line to be expanded (see expand)`);
    await here;
    const types = await this.columns.typesWith(db, line.kind === 'field' ? line.field : '');
    await this.columns.need(db, source(line, types), this.readings);
  }

  /** Everybody in an order. */
  private async order(around: RollContext, by: OrderRef, descending: boolean): Promise<Uint32Array> {
    const refs = by === 'name' ? ['lastName', 'firstName'] : [by, 'lastName', 'firstName'];
    await this.ready(around, [], refs);
    const columns = refs.map((ref) => this.columns.get(`field:${ref}`));
    return this.orders.by(`${by}/${descending}`, columns, descending);
  }
}

/** One line for each column, since several lines may read the same. */
function distinct(lines: readonly Line[]): Line[] {
  const keyOf = (line: Line) => (readsVerdicts(line) ? `${line.channel}:${line.scope}` : columnKey(line));
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
