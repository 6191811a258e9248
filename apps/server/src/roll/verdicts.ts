import { STATES, type HouseRules, type Scope as PermissionScope, type SendingChannel } from '@goodword/core/permission';
import type { Column } from '@goodword/core/segment';
import { bindingsOf, personVerdictSql } from '../permission/verdict.sql';
import type { Bound, Scoped } from '../platform/database';
import { HeldBits, HeldDays, HeldStates, newVersion } from './held';
import type { Ordinals } from './ordinals';

/** What permission columns are asked for. */
export interface Asked {
  channel: SendingChannel;
  scope: PermissionScope;
}

/** Verdicts that the clock changes by itself are asked for again after this long. */
const FRESH_MS = 10_000;

const MINE = 'SELECT id AS supporter_id FROM supporter WHERE organization_id = :org AND erased_at IS NULL';
/**
 * What the set-based verdict says of everybody for a channel and a scope: their state, whether they may be written to, and
 * the last day of what lapses. Kept like any column, and for those whose verdict the clock changes (implied, paused, had
 * enough) asked again.
 */
export class HeldVerdicts {
  version = newVersion();
  private readonly states: HeldStates;
  private readonly may: HeldBits;
  private readonly lapses: HeldDays;
  private readonly moving = new Set<number>();
  private askedAt = 0;

  constructor(
    readonly asked: Asked,
    size: number,
  ) {
    this.states = new HeldStates(size);
    this.may = new HeldBits(size);
    this.lapses = new HeldDays(size);
  }

  get bytes(): number {
    return this.states.bytes + this.may.bytes + this.lapses.bytes;
  }

  columnOf(kind: 'permission' | 'may' | 'lapses'): Column {
    switch (kind) {
      case 'permission':
        return this.states.column;
      case 'may':
        return this.may.column;
      case 'lapses':
        return this.lapses.column;
    }
  }

  grow(size: number): void {
    this.states.grow(size);
    this.may.grow(size);
    this.lapses.grow(size);
  }

  /** Asks for everybody, or for some anew. */
  async read(db: Scoped, people: Ordinals, rules: HouseRules, ids: readonly number[] | 'everybody'): Promise<void> {
    const asking = { ...this.asked, rules, now: new Date() };
    const some = ids === 'everybody' ? '' : ' AND id IN (:someIds)';
    const bindings: Record<string, Bound> = { ...bindingsOf(asking), ...(ids === 'everybody' ? {} : { someIds: ids }) };
    const ordinals = ids === 'everybody' ? [] : ids.flatMap((id) => people.ordinalOf(id) ?? []);
    for (const held of [this.states, this.may, this.lapses]) held.reset(ordinals);
    for (const id of ids === 'everybody' ? [] : ids) this.moving.delete(id);
    await db.scan(
      `SELECT supporter_id, state, verdict, IF(verdict = 'send', TO_DAYS(implied_until) - 719528, NULL) FROM (${personVerdictSql(MINE + some, asking)}) v`,
      bindings,
      (row) => this.put(people, row as [number, string, string, number | null]),
    );
    for (const held of [this.states, this.may, this.lapses]) held.finish();
    if (ids === 'everybody') this.askedAt = Date.now();
    this.version = newVersion();
  }

  private put(people: Ordinals, [id, state, verdict, until]: [number, string, string, number | null]): void {
    const ordinal = people.ordinalOf(Number(id));
    if (ordinal === undefined) return;
    this.states.put(ordinal, [id, STATES.indexOf(state as (typeof STATES)[number])]);
    if (verdict === 'paused' || verdict === 'had-enough' || state === 'implied') this.moving.add(Number(id));
    if (verdict !== 'send') return;
    this.may.put(ordinal);
    if (until !== null) this.lapses.put(ordinal, [id, until]);
  }

  /** Those whose verdict may have changed by the clock alone since it was last asked for. */
  due(now: number): number[] {
    if (now - this.askedAt < FRESH_MS) return [];
    this.askedAt = now;
    return [...this.moving];
  }
}
