import {
  SUPPRESSION_REASONS,
  STATES,
  type Decision,
  type HouseRules,
  type Scope as PermissionScope,
  type Channel,
  type Verdict,
} from '@goodword/core/permission';
import type { Column } from '@goodword/core/segment';
import { FactsRepository } from '../permission/ledger/facts.repository';
import type { Scoped } from '../platform/scoped';
import { BitsColumn, DaysColumn, StatesColumn, newVersion } from './columns';
import type { Ordinals } from './ordinals';
import { ConsentColumns } from './consent-columns';

/** What permission columns are asked for. */
export interface VerdictQuery {
  channel: Channel;
  scope: PermissionScope;
}

/** Verdicts as they are kept, by their place in this list. */
export const VERDICTS: readonly Verdict[] = ['send', ...SUPPRESSION_REASONS];

/** Verdicts of some people, in the order in which they were asked for. */
export interface VerdictsOf {
  /** Places in VERDICTS. */
  verdicts: Uint8Array;
  /** The address that was chosen, 0 where there is none. */
  points: Uint32Array;
}

/** Verdicts that the clock changes by itself are asked for again after this long. */
const FRESH_MS = 10_000;
/** Beyond so many people everybody is sooner read anew. */
const MOST_ANEW = 20_000;
const SLACK = 1 << 12;
const NO_ADDRESS = VERDICTS.indexOf('no-address');

/**
 * What the verdict is of everybody for a channel and a scope: verdict and address, state, whether they may be
 * written to, and the last day of what lapses. Decided by the core, for all from columns and for some from
 * their facts; for those whose verdict the clock changes (implied, paused, had enough) again in its time.
 */
export class VerdictsColumn {
  version = newVersion();
  private readonly states = new StatesColumn(0);
  private readonly may = new BitsColumn(0);
  private readonly lapses = new DaysColumn(0);
  private verdicts = new Uint8Array(0);
  private points = new Uint32Array(0);
  /**
   * When the verdict of somebody may change by the clock alone; 0 for those who are asked again and again.
   */
  private readonly moving = new Map<number, number>();
  private readonly facts = new FactsRepository();
  private askedAt = 0;

  constructor(readonly asked: VerdictQuery) {}

  get bytes(): number {
    const own = this.verdicts.byteLength + this.points.byteLength;
    return own + this.states.bytes + this.may.bytes + this.lapses.bytes;
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

  /** The verdicts of some people; somebody who is not here has no address. */
  of(people: Ordinals, ids: Uint32Array): VerdictsOf {
    const out = {
      verdicts: new Uint8Array(ids.length).fill(NO_ADDRESS),
      points: new Uint32Array(ids.length),
    };
    ids.forEach((id, i) => {
      const ordinal = people.ordinalOf(id);
      if (ordinal === undefined || !people.alive.has(ordinal)) return;
      out.verdicts[i] = this.verdicts[ordinal]!;
      out.points[i] = this.points[ordinal]!;
    });
    return out;
  }

  grow(size: number): void {
    for (const column of [this.states, this.may, this.lapses]) column.grow(size);
    if (size <= this.verdicts.length) return;
    const [verdicts, points] = [this.verdicts, this.points];
    this.verdicts = new Uint8Array(Math.ceil(size * 1.05) + SLACK).fill(NO_ADDRESS);
    this.points = new Uint32Array(this.verdicts.length);
    this.verdicts.set(verdicts);
    this.points.set(points);
  }

  /** Decides for everybody; who that is may still be read, until `here`. */
  async readAll(db: Scoped, people: Ordinals, rules: HouseRules, here: Promise<void>): Promise<void> {
    const consent = new ConsentColumns(people, { ...this.asked, rules, now: new Date() });
    await consent.read(db, here);
    this.grow(people.size);
    consent.decide((ordinal, decided, point) => this.put(people.ids[ordinal]!, ordinal, decided, point));
    this.askedAt = Date.now();
    this.finish();
  }

  /** Asks for some anew. Returns false where they are so many that everybody is sooner read anew. */
  async readSome(db: Scoped, people: Ordinals, rules: HouseRules, ids: readonly number[]): Promise<boolean> {
    if (ids.length > MOST_ANEW) return false;
    const ordinals = ids.flatMap((id) => people.ordinalOf(id) ?? []);
    for (const column of [this.states, this.may, this.lapses]) column.reset(ordinals);
    for (const ordinal of ordinals) this.verdicts[ordinal] = NO_ADDRESS;
    for (const ordinal of ordinals) this.points[ordinal] = 0;
    for (const id of ids) this.moving.delete(id);
    const decided = await this.facts.decide(db, ids, { ...this.asked, rules, now: new Date() });
    for (const [id, decision] of decided) {
      const ordinal = people.ordinalOf(id);
      if (ordinal !== undefined) this.put(id, ordinal, decision, decision.contactPointId ?? 0);
    }
    this.finish();
    return true;
  }

  private put(id: number, ordinal: number, decided: Decision, point: number): void {
    const { verdict, state, until } = decided;
    this.verdicts[ordinal] = VERDICTS.indexOf(verdict);
    this.points[ordinal] = point;
    this.states.put(ordinal, [id, STATES.indexOf(state)]);
    if (verdict === 'paused' || verdict === 'had-enough') this.moving.set(id, 0);
    else if (state === 'implied') this.moving.set(id, until ?? 0);
    if (verdict !== 'send') return;
    this.may.put(ordinal);
    if (state === 'implied' && until !== null) this.lapses.put(ordinal, [id, Math.floor(until / 86_400_000)]);
  }

  private finish(): void {
    for (const column of [this.states, this.may, this.lapses]) column.finish();
    this.version = newVersion();
  }

  /** Those whose verdict may have changed by the clock alone since it was last asked for. */
  due(now: number): number[] {
    if (now - this.askedAt < FRESH_MS) return [];
    this.askedAt = now;
    const ids: number[] = [];
    for (const [id, until] of this.moving) if (until < now) ids.push(id);
    return ids;
  }
}
