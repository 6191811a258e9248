import {
  STATES,
  type HouseRules,
  type PermissionState,
  type Scope as PermissionScope,
  type SendingChannel,
  type Verdict,
} from '@goodword/core/permission';
import type { Column } from '@goodword/core/segment';
import { bindingsOf, personVerdictSql } from '../permission/verdict.sql';
import type { Scoped } from '../platform/database';
import { HeldBits, HeldDays, HeldStates, newVersion } from './held';
import type { Ordinals } from './ordinals';
import { Standings } from './standings';

/** What permission columns are asked for. */
export interface Asked {
  channel: SendingChannel;
  scope: PermissionScope;
}

/** Verdicts that the clock changes by itself are asked for again after this long. */
const FRESH_MS = 10_000;

const SOME = 'SELECT id AS supporter_id FROM supporter WHERE organization_id = :org AND erased_at IS NULL AND id IN (:someIds)';
const SLICE = 5000;
/**
 * What the verdict is of everybody for a channel and a scope: their state, whether they may be written to, and
 * the last day of what lapses. Read for all by the deciding function and for some by its set-based twin; for those whose
 * verdict the clock changes (implied, paused, had enough) asked again.
 */
export class HeldVerdicts {
  version = newVersion();
  private readonly states = new HeldStates(0);
  private readonly may = new HeldBits(0);
  private readonly lapses = new HeldDays(0);
  private readonly moving = new Set<number>();
  private askedAt = 0;

  constructor(readonly asked: Asked) {}

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

  /** Decides for everybody; who that is may still be read, until `here`. */
  async readAll(db: Scoped, people: Ordinals, rules: HouseRules, here: Promise<void>): Promise<void> {
    const asking = { ...this.asked, rules, now: new Date() };
    const standings = new Standings(people, asking);
    await standings.read(db, here);
    this.grow(people.size);
    standings.decide((ordinal, { state, verdict, until }) => this.put(people.ids[ordinal]!, ordinal, state, verdict, until));
    this.askedAt = Date.now();
    this.finish();
  }

  /** Asks for some anew. */
  async readSome(db: Scoped, people: Ordinals, rules: HouseRules, ids: readonly number[]): Promise<void> {
    const asking = { ...this.asked, rules, now: new Date() };
    const ordinals = ids.flatMap((id) => people.ordinalOf(id) ?? []);
    for (const held of [this.states, this.may, this.lapses]) held.reset(ordinals);
    for (const id of ids) this.moving.delete(id);
    for (let at = 0; at < ids.length; at += SLICE) {
      await db.scan(
        `SELECT supporter_id, state, verdict, implied_until FROM (${personVerdictSql(SOME, asking)}) v`,
        { ...bindingsOf(asking), someIds: ids.slice(at, at + SLICE) },
        ([id, state, verdict, until]) => {
          const ordinal = people.ordinalOf(Number(id));
          if (ordinal !== undefined)
            this.put(Number(id), ordinal, state as PermissionState, verdict as Verdict, (until as Date | null)?.getTime() ?? null);
        },
      );
    }
    this.finish();
  }

  private put(id: number, ordinal: number, state: PermissionState, verdict: Verdict, until: number | null): void {
    this.states.put(ordinal, [id, STATES.indexOf(state)]);
    if (verdict === 'paused' || verdict === 'had-enough' || state === 'implied') this.moving.add(id);
    if (verdict !== 'send') return;
    this.may.put(ordinal);
    if (state === 'implied' && until !== null) this.lapses.put(ordinal, [id, Math.floor(until / 86_400_000)]);
  }

  private finish(): void {
    for (const held of [this.states, this.may, this.lapses]) held.finish();
    this.version = newVersion();
  }

  /** Those whose verdict may have changed by the clock alone since it was last asked for. */
  due(now: number): number[] {
    if (now - this.askedAt < FRESH_MS) return [];
    this.askedAt = now;
    return [...this.moving];
  }
}
