import type { HouseRules } from '@goodword/core/permission';
import type { EvaluationContext, Rule, Trace } from '@goodword/core/segment';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { Database } from '../platform/database';
import { traced } from '../platform/tracing';
import type { AccessScope } from '../platform/scope';
import { OrganizationRoll, type RollContext, type CountedTree, type OrderRef } from './organization-roll';
import type { MovedQuestion } from './rule-weighing';
import { groupReaders, type GroupReaders } from './group-readers';
import type { VerdictQuery } from './verdicts';

/** Questions about sets of people. Segments inside a rule are expanded before it is asked. */
export interface RollQuestions {
  count: { rule: Rule; reading: EvaluationContext; beside: Rule[] };
  members: { rule: Rule; reading: EvaluationContext };
  /** Which of some people pass each of some rules. */
  among: { rules: Rule[]; reading: EvaluationContext; ids: Uint32Array };
  page: {
    rule: Rule;
    reading: EvaluationContext;
    by: OrderRef;
    descending: boolean;
    after: number | null;
    limit: number;
  };
  trace: { rules: Rule[]; reading: EvaluationContext; supporterId: number };
  find: { words: string[]; limit: number };
  /** Ids in rising order. */
  /** `households`: of a letter that is for a whole one, that of each, 0 for none. */
  look: { asked: VerdictQuery; ids: Uint32Array; households?: Uint32Array };
  moved: MovedQuestion;
}

export interface RollAnswers {
  count: CountedTree;
  members: Uint32Array;
  /** For each rule a byte for each person, in their order: 1 for who passes. */
  among: Uint8Array[];
  page: { ids: number[]; total: number };
  /** One for each rule; null where the person is not in the caller's scope. */
  trace: (Trace | null)[];
  find: number[];
  look: GroupReaders;
  moved: { opens: number; closes: number };
}

/** Who answers: in this thread, or by way of another. */
export interface Roll {
  ask<Q extends keyof RollQuestions>(
    scope: AccessScope,
    what: Q,
    question: RollQuestions[Q],
  ): Promise<RollAnswers[Q]>;
  close(): Promise<void>;
}

/** A column that is read holds one for as long as it is read; several are read side by side. */
export const ROLL_CONNECTIONS = 6;

/** Keeps the rolls of the organizations that are asked about, within a budget of memory. */
export class RollEngine implements Roll {
  private readonly rolls = new Map<number, OrganizationRoll>();
  private readonly lines = new Map<number, Promise<unknown>>();
  private readonly houseRules = new HouseRulesRepository();

  constructor(
    private readonly database: Database,
    private readonly megabytes = 512,
  ) {}

  ask<Q extends keyof RollQuestions>(
    scope: AccessScope,
    what: Q,
    question: RollQuestions[Q],
  ): Promise<RollAnswers[Q]> {
    const id = scope.organizationId;
    const before = this.lines.get(id) ?? Promise.resolve();
    const answer = before.catch(() => undefined).then(() => this.answer(scope, what, question));
    this.lines.set(id, answer);
    return answer;
  }

  async close(): Promise<void> {
    await Promise.allSettled(this.lines.values());
  }

  private async answer<Q extends keyof RollQuestions>(
    scope: AccessScope,
    what: Q,
    question: RollQuestions[Q],
  ): Promise<RollAnswers[Q]> {
    const roll = this.rollOf(scope.organizationId);
    const db = this.database.read(scope);
    let rules: Promise<HouseRules> | undefined;
    const around: RollContext = { db, rules: () => (rules ??= this.houseRules.rules(db)) };
    try {
      const { organizationId } = scope;
      const answer = () => ANSWER[what](roll, around, question);
      return (await traced(`roll ${what}`, { organizationId }, answer)) as RollAnswers[Q];
    } finally {
      this.shrink(scope.organizationId);
    }
  }

  private rollOf(organizationId: number): OrganizationRoll {
    const roll = this.rolls.get(organizationId) ?? new OrganizationRoll();
    // The newest last: the first is the one that was asked about longest ago.
    this.rolls.delete(organizationId);
    this.rolls.set(organizationId, roll);
    return roll;
  }

  private shrink(asked: number): void {
    const most = this.megabytes * 1024 * 1024;
    const all = () => [...this.rolls.values()].reduce((sum, roll) => sum + roll.bytes, 0);
    for (const id of [...this.rolls.keys()]) {
      if (all() <= most) return;
      if (id !== asked) this.rolls.delete(id);
    }
    this.rolls.get(asked)?.shrink(most);
  }
}

const ANSWER: {
  [Q in keyof RollQuestions]: (
    roll: OrganizationRoll,
    around: RollContext,
    question: RollQuestions[Q],
  ) => Promise<RollAnswers[Q]>;
} = {
  count: (roll, around, { rule, reading, beside }) => roll.count(around, rule, reading, beside),
  members: (roll, around, { rule, reading }) => roll.members(around, rule, reading),
  among: (roll, around, { rules, reading, ids }) => roll.among(around, rules, reading, ids),
  page: (roll, around, { rule, reading, ...page }) => roll.page(around, rule, reading, page),
  find: (roll, around, { words, limit }) => roll.find(around, words, limit),
  look: async (roll, around, { asked, ids, households }) =>
    groupReaders(ids, await roll.verdictsOf(around, asked, ids), asked.channel, households),
  moved: (roll, around, question) => roll.moved(around, question),
  trace: (roll, around, { rules, reading, supporterId }) => roll.trace(around, rules, supporterId, reading),
};
