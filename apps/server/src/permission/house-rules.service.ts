import { Inject, Injectable } from '@nestjs/common';
import type { RuleEffect, RulesView, RulesWeighed } from '@goodword/core/contract';
import {
  changedQuestions,
  loosenings,
  placeKeyOf,
  ruleChanges,
  ruleFaults,
  type HouseRules,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import { speak } from '@goodword/core/words';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid, Newer, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { HouseRulesRepository } from './house-rules.repository';
import { RollService } from '../roll/roll.service';
import { sentence } from '../platform/words';

/** The rules of the house: reading them, weighing a change before it is made, and making it. */
@Injectable()
export class HouseRulesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(RollService) private readonly roll: RollService,
  ) {}

  async view(scope: AccessScope): Promise<RulesView> {
    const db = this.database.read(scope);
    const [rules, version, history, places, waiting] = await Promise.all([
      this.houseRules.rules(db),
      this.houseRules.newest(db),
      this.houseRules.history(db, 50),
      this.houseRules.places(db),
      this.houseRules.waiting(db),
    ]);
    const people: Record<string, number> = {};
    for (const { n, ...place } of places) {
      const key = placeKeyOf(rules, place);
      people[key] = (people[key] ?? 0) + n;
    }
    return {
      version,
      rules,
      people,
      history: history.map((row) => ({
        id: row.id,
        words: row.words,
        effects: row.effects,
        by: row.made_name,
        at: row.made_at.toISOString(),
      })),
      waiting: waiting && {
        words: waiting.words,
        loosens: waiting.loosens,
        by: waiting.made_name,
        mine: waiting.made_by === scope.actorId,
        at: waiting.made_at.toISOString(),
      },
    };
  }

  /** What a change says and whom it opens and closes, without making it. */
  async weigh(scope: AccessScope, after: HouseRules): Promise<RulesWeighed> {
    return this.weighed(this.database.read(scope), after);
  }

  /**
   * Makes the change and keeps it with its effects, who and when; where it needs a second owner, it waits for
   * one.
   */
  async save(scope: AccessScope, after: HouseRules, basedOn: number): Promise<RulesWeighed> {
    return this.database.write(scope, async (tx) => {
      tx.changed('reach', 0, 'everybody');
      await tx.lockOrganization();
      await this.stillBasedOn(tx, basedOn);
      const weighed = await this.weighed(tx, after);
      if (weighed.words.length === 0) throw new Conflict(sentence('rules.same'));
      const words = weighed.words.join(' ');
      if (!weighed.waits) return this.make(tx, after, weighed);
      await this.houseRules.wait(tx, { rules: after, basedOn, words, loosens: weighed.loosens });
      await audit(tx, 'rules-asked', { 'house-rules': basedOn }, words);
      return weighed;
    });
  }

  /** What an owner says to the change that waits. Nobody agrees to their own. */
  async settle(scope: AccessScope, agrees: boolean): Promise<void> {
    await this.database.write(scope, async (tx) => {
      tx.changed('reach', 0, 'everybody');
      await tx.lockOrganization();
      const waiting = await this.houseRules.waiting(tx);
      if (!waiting) throw new NotFound('change that waits');
      if (agrees && waiting.made_by === scope.actorId) throw new Conflict(sentence('rules.own-change'));
      await this.houseRules.noneWaits(tx);
      if (!agrees)
        return void (await audit(tx, 'rules-declined', { 'house-rules': waiting.based_on }, waiting.words));
      await this.stillBasedOn(tx, waiting.based_on);
      const weighed = await this.weighed(tx, waiting.rules);
      await this.make(tx, waiting.rules, {
        ...weighed,
        words: [...weighed.words, `Asked for by ${waiting.made_name}.`],
      });
    });
  }

  private async make(tx: Scoped, rules: HouseRules, weighed: RulesWeighed): Promise<RulesWeighed> {
    const words = weighed.words.join(' ');
    const id = await this.houseRules.keep(tx, { rules, words, effects: weighed.effects });
    await audit(tx, 'rules', { 'house-rules': id }, words);
    return weighed;
  }

  private async stillBasedOn(tx: Scoped, basedOn: number): Promise<void> {
    if ((await this.houseRules.newest(tx)) !== basedOn)
      throw new Newer('the house rules', await this.houseRules.newestBy(tx));
  }

  private async weighed(db: Scoped, after: HouseRules): Promise<RulesWeighed> {
    const faults = ruleFaults(after);
    if (faults.length > 0)
      throw new Invalid(faults.map((why) => ({ field: 'rules', code: why.code, message: speak(why) })));
    const before = await this.houseRules.rules(db);
    const effects: RuleEffect[] = [];
    for (const { channel, askedFor } of changedQuestions(before, after)) {
      const effect: RuleEffect = { channel, askedFor, opens: 0, closes: 0 };
      for (const asked of await this.questions(db, askedFor)) {
        const question = { channel, scope: asked.scope, listId: asked.listId, before, after };
        const moved = await this.roll.ask(db.scope, 'moved', question);
        effect.opens += moved.opens;
        effect.closes += moved.closes;
      }
      effects.push(effect);
    }
    const moving = effects.filter((effect) => effect.opens + effect.closes > 0);
    const loosens = loosenings(before, after).map(speak);
    const waits =
      Boolean(before.secondPair) && (loosens.length > 0 || moving.some((effect) => effect.opens > 0));
    if (after.secondPair && !before.secondPair && (await this.houseRules.owners(db)) < 2)
      throw new Invalid([{ field: 'secondPair', code: 'alone', message: sentence('rules.one-owner') }]);
    return { words: ruleChanges(before, after).map(speak), loosens, effects: moving, waits };
  }

  /** Purposes concern everybody; a public list only those who are on it. */
  private async questions(
    db: Scoped,
    askedFor: RuleEffect['askedFor'],
  ): Promise<{ scope: PermissionScope; listId: number | null }[]> {
    if (askedFor !== 'lists') return [{ scope: askedFor, listId: null }];
    const lists = await db.sql<{ id: number }>(
      'SELECT id FROM list WHERE organization_id = :org AND is_public = 1',
    );
    return lists.map(({ id }) => ({ scope: `list:${id}`, listId: id }));
  }
}
