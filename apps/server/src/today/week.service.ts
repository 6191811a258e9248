import { Inject, Injectable } from '@nestjs/common';
import type { WeekView } from '@goodword/core/contract';
import { dayInZone } from '@goodword/core/common';
import { USUAL_WEEKS, usualWeek } from '@goodword/core/today';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { TeamRepository } from '../team/team.repository';
import { WeekRepository, type WeekKind } from './week.repository';

const KINDS: readonly WeekKind[] = ['joined', 'left', 'gave', 'replied'];
/**
 * What was read serves for as many times as long as it took: a small house is told at once, a large one
 * spends little on it.
 */
const TIMES = 20;

/** What the week brought against the usual; half a year is read for it. */
@Injectable()
export class WeekService {
  private readonly kept = new Map<string, { until: number; view: Promise<WeekView> }>();

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(WeekRepository) private readonly weeks: WeekRepository,
  ) {}

  async view(scope: AccessScope): Promise<WeekView> {
    const { time_zone: zone } = await this.team.organization(scope);
    const now = Date.now();
    for (const [old, { until }] of this.kept) if (until < now) this.kept.delete(old);
    const key = `${scope.organizationId}:${scope.chapterId ?? 'all'}`;
    const known = this.kept.get(key);
    if (known) return known.view;
    const reading = { until: Infinity, view: this.read(scope, dayInZone(now, zone), zone) };
    this.kept.set(key, reading);
    // Those who ask while it is being read wait for the same; what failed is not kept.
    reading.view.then(
      () => (reading.until = Date.now() + TIMES * (Date.now() - now)),
      () => this.kept.delete(key),
    );
    return reading.view;
  }

  private async read(scope: AccessScope, today: number, zone: string): Promise<WeekView> {
    const { counts, lived } = await this.weeks.weeks(this.database.read(scope), today, zone);
    const figures = KINDS.map((kind) => ({
      kind,
      now: counts[kind].get(0) ?? 0,
      usual: usualWeek(counts[kind], lived),
    }));
    return { figures, weeks: Math.min(USUAL_WEEKS, Math.max(0, Math.floor(lived))) };
  }
}
