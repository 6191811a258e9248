import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { FeedView, FeedWhole, MakeFeedBody, RunFeedBody, SaveFeedBody } from '@goodword/core/contract';
import { EMPTY_FEED, feedFaults, intakePlanOf, type FeedPlan } from '@goodword/core/feeds';
import { feedWords, speak } from '@goodword/core/words';
import { FedBatchesService } from '../intake/fed-batches.service';
import { audit } from '../platform/audit';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { isDuplicate } from '../platform/database-errors';
import { Conflict, NotFound } from '../platform/errors';
import { FetchFault } from '../platform/fetch-out';
import { cancel, workOn } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { nextVersion } from '../platform/versions';
import { sentence } from '../platform/words';
import { wrap } from '../platform/wrapping';
import { TeamRepository } from '../team/team.repository';
import { FeedsRepository, type FeedRow } from './feeds.repository';
import { FeedClock, momentOfNext } from './running/feed-clock.service';
import { RecordsRepository, RunsRepository } from './running/runs.repository';
import { runView } from './running/run-view';
import { NoticesRepository } from './telling/notices.repository';
import { FeedSourcesService } from './sources/feed-sources.service';

const MOST_RUNS = 50;

/** Feeds as they are said, turned on and off, and run. */
@Injectable()
export class FeedsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(FeedsRepository) private readonly feeds: FeedsRepository,
    @Inject(RunsRepository) private readonly runs: RunsRepository,
    @Inject(RecordsRepository) private readonly records: RecordsRepository,
    @Inject(FeedSourcesService) private readonly sources: FeedSourcesService,
    @Inject(FeedClock) private readonly clock: FeedClock,
    @Inject(FedBatchesService) private readonly batches: FedBatchesService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(NoticesRepository) private readonly notices: NoticesRepository,
  ) {}

  async all(scope: AccessScope): Promise<FeedView[]> {
    const db = this.database.read(scope);
    const [feeds, sources] = [await this.feeds.all(db), await this.sources.all(scope)];
    const last = await this.runs.lastOfEach(db);
    const names = new Map(sources.map(({ id, name }) => [id, name]));
    return Promise.all(
      feeds.map(async (feed) => {
        const run = last.get(feed.id);
        return {
          ...{ id: feed.id, name: feed.name, source: names.get(feed.source_id) ?? '', on: feed.is_on === 1 },
          ...{ words: feedWords(feed.plan), lacks: (await this.lacks(db, feed.plan)).length },
          ...{ problem: feed.problem, nextRunAt: nextOf(feed), last: run ? runView(run) : null },
        };
      }),
    );
  }

  async show(scope: AccessScope, id: number): Promise<FeedWhole> {
    const db = this.database.read(scope);
    const feed = await this.need(db, id);
    const runs = await this.runs.latest(db, id, MOST_RUNS);
    return {
      ...{ id, version: feed.version, name: feed.name, plan: feed.plan, on: feed.is_on === 1 },
      source: await this.sources.view(db, feed.source_id),
      ...{ onSince: feed.on_since?.toISOString() ?? null, nextRunAt: nextOf(feed), problem: feed.problem },
      lacks: await this.lacks(db, feed.plan),
      records: await this.records.count(db, id),
      runs: runs.map(runView),
      telling: await this.notices.counts(db, id),
    };
  }

  async make(scope: AccessScope, { name, sourceId }: MakeFeedBody): Promise<{ id: number }> {
    const chapterId = scope.chapterId ?? (await this.team.chapters(scope))[0]?.id;
    if (chapterId === undefined) throw new Conflict(sentence('batch.no-chapter'));
    return this.named(name, () =>
      this.database.writeUnlogged(scope, async (tx) => {
        await this.sources.view(tx, sourceId);
        const id = await this.feeds.make(tx, {
          ...{ name, source_id: sourceId, chapter_id: chapterId, across: Number(scope.boundTo === null) },
          plan: JSON.stringify(EMPTY_FEED),
        });
        await audit(tx, 'make', { feed: id }, `Feed ${name} begun`);
        return { id };
      }),
    );
  }

  /** What a feed says can be changed while it is off; what it knows of records stays. */
  async save(
    scope: AccessScope,
    id: number,
    { name, plan, basedOn }: SaveFeedBody,
  ): Promise<{ version: number }> {
    return this.named(name, () =>
      this.database.writeUnlogged(scope, async (tx) => {
        const feed = await this.locked(tx, id);
        if (feed.is_on === 1) throw new Conflict(sentence('feed.is-on'));
        const version = await nextVersion(tx, 'feed', id, basedOn, 'feed');
        // Read as a whole the next time: what was left out before may be taken now.
        await this.feeds.change(tx, id, { name, plan: JSON.stringify(plan), etag: null, position: null });
        if (feed.plan.take && JSON.stringify(feed.plan.take) !== JSON.stringify(plan.take))
          await this.checkUnrun(tx, id);
        await audit(tx, 'change', { feed: id }, `Feed ${name} changed`);
        return { version };
      }),
    );
  }

  /** What it knows is of other records then: as many as there are would be gone at once. */
  private async checkUnrun(tx: Scoped, id: number): Promise<void> {
    if ((await this.records.count(tx, id)) > 0) throw new Conflict(sentence('feed.other-records'));
  }

  async remove(scope: AccessScope, id: number): Promise<void> {
    const feed = await this.need(this.database.read(scope), id);
    await this.stopListening(scope, feed);
    await this.database.writeUnlogged(scope, async (tx) => {
      const { name } = await this.locked(tx, id);
      if (await this.runs.open(tx, id)) throw new Conflict(sentence('feed.runs'));
      await this.records.removeAll(tx, id);
      await this.runs.removeAll(tx, id);
      await this.feeds.remove(tx, id);
      await audit(tx, 'delete', { feed: id }, `Feed ${name} deleted; whom it brought in stays`);
    });
  }

  /** Turns it on: from now on it looks by its clock, and at once where the source tells of changes. */
  async on(scope: AccessScope, id: number, basedOn: number): Promise<void> {
    const feed = await this.need(this.database.read(scope), id);
    await this.refuseLacking(scope, feed);
    const { source } = await this.sources.connection(this.database.read(scope), feed.source_id);
    if (feed.plan.when.atOnce && !source.listen) throw new Conflict(sentence('feed.tells-nothing'));
    if (feed.plan.tell && !source.tell) throw new Conflict(sentence('feed.takes-nothing'));
    const { time_zone } = await this.team.organization(scope);
    const hook = {
      key: randomBytes(16).toString('hex'),
      secret: `whsec_${randomBytes(24).toString('base64')}`,
    };
    const isTurned = await this.database.writeUnlogged(scope, async (tx) => {
      const now = await this.locked(tx, id);
      if (now.is_on === 1) return false;
      await nextVersion(tx, 'feed', id, basedOn, 'feed');
      // It looks once as soon as it is on.
      const isByClock = momentOfNext(now, time_zone, new Date()) !== null;
      await this.feeds.change(tx, id, {
        ...{ is_on: 1, on_since: new Date(), problem: null, failures: 0 },
        ...{ hook_key: hook.key, hook_secret: wrap(hook.secret, this.config.SECRET, 'feed tokens') },
        next_run_at: isByClock || now.position === null ? new Date() : null,
      });
      await audit(tx, 'on', { feed: id }, `Feed ${now.name} turned on`);
      return true;
    });
    // Whoever came second has made no other address: the source tells at the one that is kept.
    if (isTurned && feed.plan.when.atOnce) await this.listen(scope, feed, hook);
  }

  async off(scope: AccessScope, id: number, basedOn: number): Promise<void> {
    const feed = await this.need(this.database.read(scope), id);
    await this.database.writeUnlogged(scope, async (tx) => {
      const now = await this.locked(tx, id);
      if (now.is_on === 0) return;
      await nextVersion(tx, 'feed', id, basedOn, 'feed');
      await this.feeds.change(tx, id, { is_on: 0, next_run_at: null, hook_key: null, hook_secret: null });
      await audit(tx, 'off', { feed: id }, `Feed ${now.name} turned off`);
    });
    await this.stopListening(scope, feed);
  }

  /** One run now. */
  async run(scope: AccessScope, id: number, { trial, anyway }: RunFeedBody): Promise<{ id: number }> {
    const feed = await this.need(this.database.read(scope), id);
    await this.refuseLacking(scope, feed);
    return this.database.writeUnlogged(scope, async (tx) => {
      const now = await this.locked(tx, id);
      if (await this.runs.open(tx, id)) throw new Conflict(sentence('feed.runs'));
      // What a trial showed is of yesterday as soon as something else is asked for.
      for (const { id: runId, batch_id, cause } of await this.runs.latest(tx, id, MOST_RUNS)) {
        if (cause !== 'trial' || batch_id === null) continue;
        await this.batches.discard(tx, batch_id);
        await this.runs.change(tx, runId, { batch_id: null });
      }
      return { id: await this.clock.begin(tx, scope, now, trial ? 'trial' : 'hand', anyway ?? false) };
    });
  }

  async stop(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.locked(tx, id);
      const run = await this.runs.open(tx, id);
      if (!run) throw new Conflict(sentence('work.not-running'));
      await cancel(tx.knex, 'feed-run', run.id);
      if (!(await workOn(tx.knex, 'feed-run', run.id)).isToBeDone)
        await this.runs.change(tx, run.id, { state: 'stopped', ended_at: new Date() });
    });
  }

  /**
   * Takes a run back out as any batch is, and turns the feed off: it would bring the same people again. They
   * come anew when it is on.
   */
  async takeBack(scope: AccessScope, id: number, runId: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const feed = await this.locked(tx, id);
      const run = await this.runs.find(tx, runId);
      if (run?.feed_id !== id) throw new NotFound('run');
      if (await this.runs.open(tx, id)) throw new Conflict(sentence('feed.runs'));
      if (run.batch_id === null || !['done', 'stopped'].includes(run.state))
        throw new Conflict(sentence('feed.nothing-to-take-back'));
      await this.batches.takeOut(tx, run.batch_id);
      await this.records.forgetRun(tx, runId);
      await this.runs.change(tx, runId, { state: 'taken-out' });
      await this.feeds.change(tx, id, { is_on: 0, next_run_at: null, etag: null, position: null });
      await audit(tx, 'take-out', { feed: id }, `A run of the feed ${feed.name} taken back out`);
    });
  }

  /** What keeps it from being turned on, by sentence. */
  private async lacks(db: Scoped, plan: FeedPlan): Promise<{ sentence: string; words: string }[]> {
    const faults = feedFaults(plan).map((fault) => ({ sentence: fault.sentence, words: speak(fault.said) }));
    if (faults.length > 0) return faults;
    const further = await this.batches.faultsOf(db, intakePlanOf(plan, '2000-01-01'));
    return further.map((words) => ({ sentence: 'columns', words }));
  }

  private async refuseLacking(scope: AccessScope, { plan }: FeedRow): Promise<void> {
    const lacks = await this.lacks(this.database.read(scope), plan);
    if (lacks.length > 0)
      throw new Conflict(sentence('feed.lacks', { lacks: lacks.map(({ words }) => words).join(' ') }));
  }

  /** Asks the source to tell of changes, at an address that nobody guesses and with a secret of its own. */
  private async listen(
    scope: AccessScope,
    { id, plan, source_id }: FeedRow,
    { key, secret }: { key: string; secret: string },
  ): Promise<void> {
    const { source, at } = await this.sources.connection(this.database.read(scope), source_id);
    try {
      await source.listen?.(at, plan.take!.type.key, {
        url: `${this.config.PUBLIC_URL}/hooks/feeds/${key}`,
        secret,
      });
    } catch (error) {
      if (!(error instanceof FetchFault)) throw error;
      await this.database.writeUnlogged(scope, (tx) =>
        this.feeds.change(tx, id, { is_on: 0, next_run_at: null }),
      );
      throw new Conflict(error.message);
    }
  }

  /** Best effort: what still tells afterwards is not known here, and is answered so. */
  private async stopListening(scope: AccessScope, { plan, source_id, hook_key }: FeedRow): Promise<void> {
    if (hook_key === null || plan.take === null) return;
    const { source, at } = await this.sources.connection(this.database.read(scope), source_id);
    await source.listen?.(at, plan.take.type.key, null).catch(() => undefined);
  }

  async need(db: Scoped, id: number): Promise<FeedRow> {
    const found = await this.feeds.find(db, id);
    if (!found) throw new NotFound('feed');
    return found;
  }

  private async locked(tx: Scoped, id: number): Promise<FeedRow> {
    const found = await this.feeds.find(tx, id, 'FOR UPDATE');
    if (!found) throw new NotFound('feed');
    return found;
  }

  private async named<T>(name: string, act: () => Promise<T>): Promise<T> {
    try {
      return await act();
    } catch (error) {
      if (isDuplicate(error)) throw new Conflict(sentence('feed.name', { name }));
      throw error;
    }
  }
}

const nextOf = (feed: FeedRow): string | null =>
  feed.is_on === 1 ? (feed.next_run_at?.toISOString() ?? null) : null;
