import { Inject, Injectable } from '@nestjs/common';
import type { FeedNotice } from '@goodword/core/contract';
import { scopeWords } from '@goodword/core/words';
import { RefusalsRepository } from '../../permission/ledger/refusals.repository';
import { Database } from '../../platform/database';
import { NotFound } from '../../platform/errors';
import { FetchFault } from '../../platform/fetch-out';
import { programScope, type AccessScope } from '../../platform/scope';
import type { Scoped } from '../../platform/scoped';
import { sentence } from '../../platform/words';
import { GroupsRepository } from '../../supporters/groups.repository';
import { FeedsRepository, type FeedRow } from '../feeds.repository';
import { FeedSourcesService } from '../sources/feed-sources.service';
import { NoticesRepository, type NoticeRow } from './notices.repository';

/**
 * Entries that are looked at once more: a transaction that is long under way commits entries whose numbers
 * are lower than those of others. What even that misses, the sweep of the next whole run finds.
 */
const OVERLAP = 20_000;
/** Told at a time; the next round goes on. */
const AT_A_TIME = 50;
/** Minutes after which a telling that failed is tried again, by how many failed before it. */
const AGAIN_MINUTES = [1, 5, 15, 60, 240] as const;

/** A no here is a no over there: whoever says one is told to the source that they came from. */
@Injectable()
export class TellingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FeedsRepository) private readonly feeds: FeedsRepository,
    @Inject(NoticesRepository) private readonly notices: NoticesRepository,
    @Inject(RefusalsRepository) private readonly refusals: RefusalsRepository,
    @Inject(FeedSourcesService) private readonly sources: FeedSourcesService,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
  ) {}

  /** One look at what is new, and some that are told; false when there was nothing. */
  async round(now = new Date()): Promise<boolean> {
    for (const { id, organization_id } of await this.feeds.telling(this.database.unscoped()))
      await this.look(programScope(organization_id), id);
    let told = 0;
    for (const { feed_id, organization_id } of await this.notices.due(this.database.unscoped(), now))
      told += await this.tellSome(programScope(organization_id), feed_id, now);
    return told > 0;
  }

  /** Puts what was said since the last look on the queue. */
  private async look(scope: AccessScope, id: number): Promise<void> {
    const db = this.database.read(scope);
    const feed = await this.feeds.find(db, id);
    const newest = await this.refusals.newest(db);
    if (!feed || feed.told_up_to >= newest) return;
    const noes = await this.refusals.after(db, Math.max(0, feed.told_up_to - OVERLAP));
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.notices.put(tx, id, noes);
      await this.feeds.change(tx, id, { told_up_to: newest });
    });
  }

  /** The noes of everybody of a run, also those of before they came: within the transaction that ends it. */
  async sweep(tx: Scoped, feed: FeedRow, people: readonly number[]): Promise<void> {
    if (!feed.plan.tell) return;
    for (let at = 0; at < people.length; at += 5000)
      await this.notices.put(tx, feed.id, await this.refusals.ofPeople(tx, people.slice(at, at + 5000)));
  }

  /** Those that are still to go, oldest first. */
  async waiting(scope: AccessScope, id: number): Promise<FeedNotice[]> {
    const db = this.database.read(scope);
    if (!(await this.feeds.find(db, id))) throw new NotFound('feed');
    const [rows, aboutOf] = [await this.notices.waiting(db, id), await this.abouts(db)];
    return rows.map((row) => ({
      ...{ id: row.id, supporterId: row.supporter_id, name: row.name, record: row.record_key },
      words: sentence('feed.notice', { channel: row.channel, about: aboutOf(row) }),
      ...{ at: row.said_at.toISOString(), attempts: row.attempts, problem: row.problem },
    }));
  }

  private async tellSome(scope: AccessScope, feedId: number, now: Date): Promise<number> {
    const db = this.database.read(scope);
    const feed = await this.feeds.find(db, feedId);
    if (!feed?.plan.take) return 0;
    const { source, at } = await this.sources.connection(db, feed.source_id);
    const aboutOf = await this.abouts(db);
    let told = 0;
    while (told < AT_A_TIME) {
      const notice = await this.database.writeUnlogged(scope, (tx) => this.notices.claim(tx, feedId, now));
      if (!notice) break;
      // Undone in the meantime, as by “Back” on the page of leaving: there is nothing to tell any more.
      if (await this.refusals.isTakenBack(db, notice.entry_id)) {
        await this.database.writeUnlogged(scope, (tx) => this.notices.end(tx, notice.id, 'dropped'));
        continue;
      }
      try {
        const { type } = feed.plan.take;
        const key = `${feedId}-${notice.entry_id}-${notice.id}`;
        const { record_key: record, channel, said_at: saidAt } = notice;
        await source.tell?.(at, { key, type: type.key, record, channel, about: aboutOf(notice), at: saidAt });
      } catch (error) {
        if (!(error instanceof FetchFault)) throw error;
        await this.putOff(scope, notice, error.message, now);
        break;
      }
      await this.database.writeUnlogged(scope, (tx) => this.notices.end(tx, notice.id, 'told'));
      told += 1;
    }
    return told;
  }

  private async putOff(scope: AccessScope, notice: NoticeRow, why: string, now: Date): Promise<void> {
    const minutes = AGAIN_MINUTES[notice.attempts] ?? AGAIN_MINUTES.at(-1)!;
    const next = new Date(now.getTime() + minutes * 60_000);
    await this.database.writeUnlogged(scope, (tx) => this.notices.later(tx, notice.id, why, next));
  }

  /** What a no is about, in words. */
  private async abouts(db: Scoped): Promise<(notice: NoticeRow) => string> {
    const names = new Map((await this.groups.lists(db)).map(({ id, name }) => [id, name]));
    return ({ scope }) => scopeWords(scope, (id) => names.get(id));
  }
}
