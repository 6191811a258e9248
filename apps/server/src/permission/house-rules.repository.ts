import { Injectable } from '@nestjs/common';
import type { RuleEffect } from '@goodword/core/contract';
import { startingRules, type HouseRules } from '@goodword/core/permission';
import type { Scoped } from '../platform/scoped';
import { calledBy } from '../platform/versions';
import type { Tables } from '../platform/tables/generated';

export interface RulesRow extends Pick<
  Tables['house_rules'],
  'id' | 'rules' | 'words' | 'made_by' | 'made_at'
> {
  effects: RuleEffect[];
  made_name: string | null;
}

export interface WaitingRow extends Pick<
  Tables['rules_waiting'],
  'rules' | 'based_on' | 'words' | 'made_by' | 'made_at'
> {
  loosens: string[];
  made_name: string;
}

/** The rules of the house, each version kept. Owns `house_rules`, `rules_waiting`. */
@Injectable()
export class HouseRulesRepository {
  /** The rules that hold now; those that a new organization starts with where none were set. */
  async rules(db: Scoped): Promise<HouseRules> {
    const [row] = await db.sql<{ rules: HouseRules | null; country: string }>(
      `SELECT r.rules, o.country
        FROM organization o
        LEFT JOIN house_rules r
          ON r.id = (SELECT MAX(id) FROM house_rules WHERE organization_id = :org)
        WHERE o.id = :org`,
    );
    return row?.rules ?? startingRules(row?.country ?? '*');
  }

  async newest(db: Scoped): Promise<number> {
    const [row] = await db.sql<{ id: number | null }>(
      'SELECT MAX(id) AS id FROM house_rules WHERE organization_id = :org',
    );
    return row?.id ?? 0;
  }

  /** Who made the newest version, as whoever asks calls them; null where it was the program. */
  async newestBy(db: Scoped): Promise<string | null> {
    const [row] = await db.sql<{ id: number | null; name: string | null }>(
      `SELECT t.id, t.name
        FROM house_rules r
        LEFT JOIN teammate t ON t.id = r.made_by
        WHERE r.organization_id = :org
        ORDER BY r.id DESC
        LIMIT 1`,
    );
    return row ? calledBy(db.scope, row.id, row.name) : null;
  }

  async keep(
    tx: Scoped,
    change: { rules: HouseRules; words: string; effects: readonly RuleEffect[] },
  ): Promise<number> {
    return tx.insert('house_rules', {
      rules: JSON.stringify(change.rules),
      words: change.words.slice(0, 600),
      effects: JSON.stringify(change.effects),
      made_by: tx.scope.actorId,
    });
  }

  async wait(
    tx: Scoped,
    change: { rules: HouseRules; basedOn: number; words: string; loosens: readonly string[] },
  ): Promise<void> {
    await tx.execute('DELETE FROM rules_waiting WHERE organization_id = :org');
    await tx.execute(
      `INSERT INTO rules_waiting (organization_id, rules, based_on, words, loosens, made_by)
        VALUES (:org, :rules, :basedOn, :words, :loosens, :by)`,
      {
        rules: JSON.stringify(change.rules),
        basedOn: change.basedOn,
        words: change.words.slice(0, 600),
        loosens: JSON.stringify(change.loosens),
        by: tx.scope.actorId,
      },
    );
  }

  async waiting(db: Scoped): Promise<WaitingRow | null> {
    const [row] = await db.sql<WaitingRow>(
      `SELECT w.rules, w.based_on, w.words, w.loosens, w.made_by, w.made_at, t.name AS made_name
        FROM rules_waiting w
        JOIN teammate t ON t.id = w.made_by
        WHERE w.organization_id = :org`,
    );
    return row ?? null;
  }

  async noneWaits(tx: Scoped): Promise<void> {
    await tx.execute('DELETE FROM rules_waiting WHERE organization_id = :org');
  }

  async owners(db: Scoped): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      "SELECT COUNT(*) AS n FROM teammate WHERE organization_id = :org AND role = 'owner'",
    );
    return row?.n ?? 0;
  }

  /** How many supporters are where. */
  async places(db: Scoped): Promise<{ country: string | null; region: string | null; n: number }[]> {
    return db.sql(
      `SELECT country, region, COUNT(*) AS n
        FROM supporter
        WHERE organization_id = :org AND erased_at IS NULL
        GROUP BY country, region`,
    );
  }

  async history(db: Scoped, limit: number): Promise<RulesRow[]> {
    return db.sql<RulesRow>(
      `SELECT h.id, h.rules, h.words, h.effects, h.made_by, h.made_at, t.name AS made_name
        FROM house_rules h
        LEFT JOIN teammate t ON t.id = h.made_by
        WHERE h.organization_id = :org
        ORDER BY h.id DESC
        LIMIT :limit`,
      { limit },
    );
  }
}
