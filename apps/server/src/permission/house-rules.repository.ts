import { Injectable } from '@nestjs/common';
import type { RuleEffect } from '@goodword/core/contract';
import { startingRules, type HouseRules } from '@goodword/core/permission';
import type { Scoped } from '../platform/database';

export interface RulesRow {
  id: number;
  rules: HouseRules;
  words: string;
  effects: RuleEffect[];
  made_by: number | null;
  made_name: string | null;
  made_at: Date;
}

/** The rules of the house, each version kept. */
@Injectable()
export class HouseRulesRepository {
  /** The rules that hold now; those that a new organization starts with where none were set. */
  async rules(db: Scoped): Promise<HouseRules> {
    const [row] = await db.sql<{ rules: HouseRules }>('SELECT rules FROM house_rules WHERE organization_id = :org ORDER BY id DESC LIMIT 1');
    if (row) return row.rules;
    const [organization] = await db.sql<{ country: string }>('SELECT country FROM organization WHERE id = :org');
    return startingRules(organization?.country ?? '*');
  }

  async newest(db: Scoped): Promise<number> {
    const [row] = await db.sql<{ id: number | null }>('SELECT MAX(id) AS id FROM house_rules WHERE organization_id = :org');
    return row?.id ?? 0;
  }

  async keep(tx: Scoped, change: { rules: HouseRules; words: string; effects: readonly RuleEffect[] }): Promise<number> {
    return tx.insert('house_rules', {
      rules: JSON.stringify(change.rules),
      words: change.words.slice(0, 600),
      effects: JSON.stringify(change.effects),
      made_by: tx.scope.actorId,
    });
  }

  /** How many supporters are where. */
  async places(db: Scoped): Promise<{ country: string | null; region: string | null; n: number }[]> {
    return db.sql('SELECT country, region, COUNT(*) AS n FROM supporter WHERE organization_id = :org AND erased_at IS NULL GROUP BY country, region');
  }

  async history(db: Scoped, limit: number): Promise<RulesRow[]> {
    return db.sql<RulesRow>(
      'SELECT h.*, t.name AS made_name FROM house_rules h LEFT JOIN teammate t ON t.id = h.made_by WHERE h.organization_id = :org ORDER BY h.id DESC LIMIT :limit',
      { limit },
    );
  }
}
