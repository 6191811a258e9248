import { Inject, Injectable } from '@nestjs/common';
import { MOST_FAILURES, TRY_AGAIN_MINUTES } from '@goodword/core/feeds';
import { BringInJob } from '../../intake/bringing-in/bring-in.job';
import { CheckBatchJob } from '../../intake/checking/check-batch.job';
import { FedBatchesService } from '../../intake/fed-batches.service';
import { Database } from '../../platform/database';
import { isLostConnection } from '../../platform/database-errors';
import { DomainError } from '../../platform/errors';
import { FetchFault } from '../../platform/fetch-out';
import { HandlesJob, workOn, type Running } from '../../platform/jobs';
import type { AccessScope } from '../../platform/scope';
import { FeedsRepository, type FeedRow } from '../feeds.repository';
import { FeedReadingService, Stopped } from './feed-reading.service';
import { FeedNotices } from './feed-notices';
import { SettlingService } from './settling.service';
import { RunsRepository, type RunRow } from './runs.repository';

/**
 * `feed-run`: a run of a feed from its first page to its last person. It goes on from the state that is
 * committed, however it was interrupted; checking and bringing in are those of any batch.
 */
@Injectable()
export class FeedRunJob {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FeedsRepository) private readonly feeds: FeedsRepository,
    @Inject(RunsRepository) private readonly runs: RunsRepository,
    @Inject(FeedReadingService) private readonly reading: FeedReadingService,
    @Inject(SettlingService) private readonly settling: SettlingService,
    @Inject(FeedNotices) private readonly notices: FeedNotices,
    @Inject(FedBatchesService) private readonly batches: FedBatchesService,
    @Inject(CheckBatchJob) private readonly checking: CheckBatchJob,
    @Inject(BringInJob) private readonly bringing: BringInJob,
  ) {}

  @HandlesJob('feed-run')
  async run(job: Running): Promise<void> {
    const all = this.database.read({ ...job.scope, chapterId: null });
    const first = await this.runs.find(all, job.refId);
    const feed = first && (await this.feeds.find(all, first.feed_id));
    if (!first || !feed) return;
    const scope = { ...job.scope, chapterId: feed.chapter_id };
    try {
      for (let run = first, before = ''; isOpen(run) && run.state !== before;) {
        before = run.state;
        await this.step(job, scope, feed, run);
        run = (await this.runs.find(all, run.id)) ?? run;
      }
    } catch (error) {
      // A lost connection leaves the job to be taken up again where it is.
      if (isLostConnection(error)) throw error;
      if (error instanceof Stopped) return this.stopped(scope, first);
      const isKnown = error instanceof FetchFault || error instanceof DomainError;
      await this.failed(scope, feed, first, isKnown ? error.message : `It could not go on: ${String(error)}`);
    }
    await this.notices.tell(scope, feed.id, first.id);
  }

  private async step(job: Running, scope: AccessScope, feed: FeedRow, run: RunRow): Promise<void> {
    if (run.state === 'reading') return this.reading.read(job, scope, feed, run);
    const of = (batchId: number): Running => ({ ...job, refId: batchId });
    if (run.batch_id !== null && run.state === 'checking') {
      await this.checking.run(of(run.batch_id));
      return this.checked(job, scope, run, run.batch_id);
    }
    if (run.batch_id !== null) await this.bringing.run(of(run.batch_id));
    await this.settling.settle(scope, feed, run);
  }

  /** A trial ends here: every row has its outcome, and nobody was written. */
  private async checked(job: Running, scope: AccessScope, run: RunRow, batchId: number): Promise<void> {
    const { state, problem } = await this.batches.stands(this.database.read(scope), batchId);
    if (state === 'checking' && (await job.stopped())) throw new Stopped();
    if (state !== 'checked') throw new FetchFault('feed.unchecked', { why: problem ?? state });
    await this.database.writeUnlogged(scope, async (tx) => {
      if (run.cause === 'trial') return this.settling.tried(tx, run, batchId);
      await this.batches.bring(tx, batchId);
      await this.runs.change(tx, run.id, { state: 'bringing' });
    });
  }

  /** Where nobody asked for it, another process has the work, and goes on with the run. */
  private async stopped(scope: AccessScope, run: RunRow): Promise<void> {
    if (!(await workOn(this.database.read(scope).knex, 'feed-run', run.id)).isToStop) return;
    await this.database.writeUnlogged(scope, (tx) =>
      this.runs.change(tx, run.id, { state: 'stopped', ended_at: new Date() }),
    );
  }

  /** What fails is tried again soon; the third time in a row it stops by itself. */
  private async failed(scope: AccessScope, feed: FeedRow, run: RunRow, why: string): Promise<void> {
    const problem = why.slice(0, 500);
    await this.database.writeUnlogged(scope, async (tx) => {
      const now = await this.feeds.find(tx, feed.id, 'FOR UPDATE');
      await this.runs.change(tx, run.id, { state: 'failed', problem, ended_at: new Date() });
      if (!now || run.cause === 'trial') return;
      const failures = now.failures + 1;
      const isOver = failures >= MOST_FAILURES || run.cause === 'hand';
      const again = TRY_AGAIN_MINUTES[failures - 1] ?? TRY_AGAIN_MINUTES.at(-1)!;
      await this.feeds.change(tx, feed.id, {
        failures,
        ...(failures >= MOST_FAILURES && now.is_on === 1 ? { is_on: 0, problem } : {}),
        ...(isOver || now.is_on === 0 ? {} : { next_run_at: new Date(Date.now() + again * 60_000) }),
      });
    });
  }
}

const isOpen = ({ state }: RunRow): boolean => ['reading', 'checking', 'bringing'].includes(state);
