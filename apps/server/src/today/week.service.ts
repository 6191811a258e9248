import { Inject, Injectable } from '@nestjs/common';
import type { WeekView } from '@goodword/core/contract';
import { dayInZone } from '@goodword/core/common';
import { USUAL_WEEKS, usualWeek } from '@goodword/core/today';
import { Database } from '../platform/database';
import type { Scope } from '../platform/scope';
import { TeamRepository } from '../team/team.repository';
import { WeekRepository, type WeekKind } from './week.repository';

const KINDS: readonly WeekKind[] = ['joined', 'left', 'gave', 'replied'];
const KEPT_MS = 10 * 60_000;

/** What the week brought against the usual: half a year is read for it, so what was read serves for ten minutes. */
@Injectable()
export class WeekService {
  private readonly kept = new Map<string, { at: number; view: Promise<WeekView> }>();

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(WeekRepository) private readonly weeks: WeekRepository,
  ) {}

  async view(scope: Scope): Promise<WeekView> {
    const { time_zone: zone } = await this.team.organization(scope);
    const today = dayInZone(Date.now(), zone);
    const key = `${scope.organizationId}:${scope.chapterId ?? 'all'}:${today}`;
    const known = this.kept.get(key);
    if (known && Date.now() - known.at < KEPT_MS) return known.view;
    const view = this.read(scope, today, zone);
    // What failed is not kept, and yesterday's is not needed.
    for (const [old, { at }] of this.kept) if (Date.now() - at > KEPT_MS) this.kept.delete(old);
    this.kept.set(key, { at: Date.now(), view });
    view.catch(() => this.kept.delete(key));
    return view;
  }

  private async read(scope: Scope, today: number, zone: string): Promise<WeekView> {
    const { counts, lived } = await this.weeks.weeks(this.database.read(scope), today, zone);
    const figures = KINDS.map((kind) => ({ kind, now: counts[kind].get(0) ?? 0, usual: usualWeek(counts[kind], lived) }));
    return { figures, weeks: Math.min(USUAL_WEEKS, Math.max(0, Math.floor(lived))) };
  }
}
