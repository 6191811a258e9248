import { Inject, Injectable } from '@nestjs/common';
import { nextRun } from '@goodword/core/feeds';
import type { RunCause } from '@goodword/core/contract';
import { Database } from '../../platform/database';
import { enqueue, workOn } from '../../platform/jobs';
import { programScope, type AccessScope } from '../../platform/scope';
import type { Scoped } from '../../platform/scoped';
import { sentence } from '../../platform/words';
import { TeamRepository } from '../../team/team.repository';
import { FeedsRepository, type FeedRow } from '../feeds.repository';
import { RunsRepository, type RunRow } from './runs.repository';

/** Sets runs going: by the clock, because a source told of a change, or because somebody asks. */
@Injectable()
export class FeedClock {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FeedsRepository) private readonly feeds: FeedsRepository,
    @Inject(RunsRepository) private readonly runs: RunsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** One look at all feeds; false when none was due. */
  async round(now = new Date()): Promise<boolean> {
    let begun = 0;
    for (const { id, organization_id, told } of await this.feeds.due(this.database.unscoped(), now)) {
      const scope = programScope(organization_id);
      const { time_zone } = await this.team.organization(scope);
      const isBegun = await this.database.writeUnlogged(scope, async (tx) => {
        const feed = await this.feeds.find(tx, id, 'FOR UPDATE');
        if (!feed || feed.is_on === 0) return false;
        // One that is under way is looked after first; what it may have missed is looked at then.
        const open = await this.runs.open(tx, id);
        if (open) await this.giveUp(tx, open);
        if (open) return false;
        const isDue = feed.next_run_at !== null && feed.next_run_at <= now;
        if (!isDue && !Number(told)) return false;
        if (isDue) await this.feeds.change(tx, id, { next_run_at: momentOfNext(feed, time_zone, now) });
        await this.begin(tx, scope, feed, isDue ? 'clock' : 'hook', false);
        return true;
      });
      if (isBegun) begun += 1;
    }
    return begun > 0;
  }

  /** A run that nobody works on any more has failed; the next one begins anew. */
  private async giveUp(tx: Scoped, run: RunRow): Promise<void> {
    if ((await workOn(tx.knex, 'feed-run', run.id)).isToBeDone) return;
    const problem = sentence('feed.given-up');
    await this.runs.change(tx, run.id, { state: 'failed', problem, ended_at: new Date() });
  }

  /** Puts a run on the queue, within the transaction that holds the feed; none may be under way. */
  async begin(
    tx: Scoped,
    scope: AccessScope,
    feed: FeedRow,
    cause: RunCause,
    anyway: boolean,
  ): Promise<number> {
    // What was told of is looked at by this run; a trial looks and does nothing about it.
    if (cause !== 'trial') await this.feeds.takeHooks(tx, feed.id);
    // A run that was told of a change asks for what changed; every other one reads everything.
    const isWhole = cause !== 'hook' || feed.position === null;
    const id = await this.runs.make(tx, { feedId: feed.id, cause, anyway, isWhole });
    await enqueue(tx.knex, scope, 'feed-run', id);
    return id;
  }
}

/** When a feed looks next by its clock; null where it has none. */
export function momentOfNext({ plan }: FeedRow, houseZone: string, now: Date): Date | null {
  const { every, zone } = plan.when;
  return every === null ? null : new Date(nextRun(every, zone ?? houseZone, now.getTime()));
}
