import { Inject, Injectable } from '@nestjs/common';
import type { RuleEffect, RulesView, RulesWeighed } from '@goodword/core/contract';
import { changedQuestions, placeKeyOf, ruleChangeWords, ruleFaults, type HouseRules, type Scope as PermissionScope } from '@goodword/core/permission';
import { audit } from '../platform/audit';
import { Database, type Scoped } from '../platform/database';
import { Conflict, Invalid } from '../platform/errors';
import type { Scope } from '../platform/scope';
import { HouseRulesRepository } from './house-rules.repository';
import { RollService } from '../roll/roll.service';

/** The rules of the house: reading them, weighing a change before it is made, and making it. */
@Injectable()
export class HouseRulesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(RollService) private readonly roll: RollService,
  ) {}

  async view(scope: Scope): Promise<RulesView> {
    const db = this.database.read(scope);
    const [rules, version, history, places] = await Promise.all([
      this.houseRules.rules(db),
      this.houseRules.newest(db),
      this.houseRules.history(db, 50),
      this.houseRules.places(db),
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
    };
  }

  /** What a change says and whom it opens and closes, without making it. */
  async weigh(scope: Scope, after: HouseRules): Promise<RulesWeighed> {
    return this.weighed(this.database.read(scope), after);
  }

  /** Makes the change and keeps it with its effects, who and when. */
  async save(scope: Scope, after: HouseRules, basedOn: number): Promise<RulesWeighed> {
    return this.database.write(scope, async (tx) => {
      tx.changed('reach', 0, 'everybody');
      await tx.alone();
      if ((await this.houseRules.newest(tx)) !== basedOn)
        throw new Conflict('Somebody else has changed the house rules meanwhile. Load the page again, and make your change to theirs.');
      const weighed = await this.weighed(tx, after);
      if (weighed.words.length === 0) throw new Conflict('Nothing differs from the rules that hold already.');
      const id = await this.houseRules.keep(tx, { rules: after, words: weighed.words.join(' '), effects: weighed.effects });
      await audit(tx, { act: 'rules', subject: 'house-rules', subjectId: id, words: weighed.words.join(' ') });
      return weighed;
    });
  }

  private async weighed(db: Scoped, after: HouseRules): Promise<RulesWeighed> {
    const faults = ruleFaults(after);
    if (faults.length > 0) throw new Invalid(faults.map((message) => ({ field: 'rules', code: 'rules', message })));
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
    return { words: ruleChangeWords(before, after), effects: effects.filter((effect) => effect.opens + effect.closes > 0) };
  }

  /** Purposes concern everybody; a public list only those who are on it. */
  private async questions(db: Scoped, askedFor: RuleEffect['askedFor']): Promise<{ scope: PermissionScope; listId: number | null }[]> {
    if (askedFor !== 'lists') return [{ scope: askedFor, listId: null }];
    const lists = await db.sql<{ id: number }>('SELECT id FROM list WHERE organization_id = :org AND is_public = 1');
    return lists.map(({ id }) => ({ scope: `list:${id}`, listId: id }));
  }
}
