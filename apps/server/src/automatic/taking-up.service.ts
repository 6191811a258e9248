import { Inject, Injectable } from '@nestjs/common';
import { comesAgain, firstMoment, takeUp, type Occurrence } from '@goodword/core/automations';
import { USUAL_PILE } from '@goodword/core/permission';
import {
  AutomationsRepository,
  type Automation,
  type AutomationStepRow,
} from '../automations/automations.repository';
import { VisitsRepository } from '../automations/visits.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { TeamRepository } from '../team/team.repository';
import { SourcesService } from './sources.service';
import { windowOf } from './window';

const HOUR_MS = 3_600_000;

/** Finds for whom an automatic message is set going, each occasion once. */
@Injectable()
export class TakingUpService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
    @Inject(VisitsRepository) private readonly visits: VisitsRepository,
    @Inject(SourcesService) private readonly sources: SourcesService,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** Looks once for what happened; returns for how many it was set going. */
  async look(scope: AccessScope, id: number, now: Date): Promise<number> {
    const known = await this.automations.find(this.database.read(scope), id);
    if (!known?.on) return 0;
    const { time_zone: zone } = await this.team.organization(scope);
    const window = windowOf(known, now, zone);
    if (!window) return 0;
    const own = { ...scope, chapterId: known.chapterId };
    const found = await this.sources.found(own, known.cause, window);
    const { pile = USUAL_PILE } = await this.houseRules.rules(this.database.read(scope));
    return this.database.writeUnlogged(scope, async (tx) => {
      // Before anything is read, so that what another worker took up is seen.
      const automation = await this.automations.find(tx, id, 'FOR UPDATE');
      if (!automation?.on || automation.version !== known.version) return 0;
      const before = await this.visits.before(tx, id, found);
      const lately = await this.visits.takenSince(tx, id, new Date(now.getTime() - HOUR_MS));
      const { taken, held } = takeUp(
        found,
        { ...before, lately },
        { again: comesAgain(automation.cause, automation.again), pile },
      );
      const steps = await this.automations.steps(tx, id);
      await this.setGoing(tx, automation, steps, taken, { held, looked: false, now, zone });
      await this.automations.change(tx, id, { looked_at: now });
      return taken.length;
    });
  }

  /** Writes down for whom it is set going, and when their first message leaves. */
  async setGoing(
    tx: Scoped,
    { id, cause }: Automation,
    steps: readonly AutomationStepRow[],
    taken: readonly Occurrence[],
    { zone, ...how }: { held: boolean; looked: boolean; now: Date; zone: string },
  ): Promise<void> {
    const first = steps[0]!.wait;
    const visits = taken.map((one) => ({
      ...one,
      dueAt: how.held ? null : new Date(firstMoment(cause.kind, one.at, first, zone)),
    }));
    await this.visits.add(tx, id, visits, how);
  }
}
