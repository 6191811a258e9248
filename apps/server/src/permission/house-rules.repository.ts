import { Injectable } from '@nestjs/common';
import { DEFAULT_RULES, type HouseRules } from '@goodword/core/permission';
import type { Scoped } from '../platform/database';

@Injectable()
export class HouseRulesRepository {
  /** The organization's rules; those it starts with where it has set none. */
  async rules(db: Scoped): Promise<HouseRules> {
    const [row] = await db.sql<{ rules: HouseRules | null }>('SELECT rules FROM organization WHERE id = :org');
    return row?.rules ?? DEFAULT_RULES;
  }
}
