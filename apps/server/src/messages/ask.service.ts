import { Inject, Injectable } from '@nestjs/common';
import type { AskedPerson } from '@goodword/core/contract';
import { dayInZone, type Day } from '@goodword/core/common';
import { askAmounts, type AskRule } from '@goodword/core/letter';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { MergeValuesRepository } from './merge-values.repository';

/** Of so many who gave last, those shown are spread from the smallest to the largest gift. */
const LOOKED_AT = 400;
const SHOWN = 5;

/** What a rule for amounts comes to for a few people who are on file. */
@Injectable()
export class AskService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MergeValuesRepository) private readonly values: MergeValuesRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** Five people with gifts, from the smallest last gift to the largest; fewer where there are fewer. */
  async shown(scope: AccessScope, ask: AskRule): Promise<AskedPerson[]> {
    const db = this.database.read(scope);
    const rows = await db.sql<{ supporter_id: number }>(
      `SELECT g.supporter_id
        FROM gift g
        JOIN supporter s ON s.id = g.supporter_id AND s.erased_at IS NULL
          AND (:chapter IS NULL OR s.chapter_id = :chapter)
        WHERE g.organization_id = :org AND g.amount > 0
        GROUP BY g.supporter_id
        ORDER BY MAX(g.given_on) DESC, g.supporter_id
        LIMIT ${LOOKED_AT}`,
    );
    const gifts = await this.values.giftsOf(
      db,
      rows.map((row) => row.supporter_id),
    );
    const byAmount = [...gifts].map(([id, own]) => ({ id, own, last: own.at(-1)!.amount }));
    byAmount.sort((a, b) => a.last - b.last || a.id - b.id);
    const steps = Math.min(SHOWN, byAmount.length);
    const chosen = Array.from(
      { length: steps },
      (_none, at) => byAmount[steps === 1 ? 0 : Math.round((at * (byAmount.length - 1)) / (steps - 1))]!,
    );
    const people = await this.supporters.byIds(
      db,
      chosen.map(({ id }) => id),
    );
    const names = new Map(people.map((one) => [one.id, `${one.first_name} ${one.last_name}`.trim()]));
    const today = dayInZone(Date.now(), (await this.team.organization(scope)).time_zone) as Day;
    return chosen.map(({ id, own, last }) => ({
      id,
      name: names.get(id) ?? '',
      last,
      amounts: askAmounts(ask, own, today),
    }));
  }
}
