import { Inject, Injectable } from '@nestjs/common';
import { dayInZone, isoDay } from '@goodword/core/common';
import { FIRST_CAME, intakePlanOf } from '@goodword/core/feeds';
import { FedBatchesService } from '../../intake/fed-batches.service';
import { Database } from '../../platform/database';
import type { AccessScope } from '../../platform/scope';
import type { Scoped } from '../../platform/scoped';
import { STORAGE, type Storage } from '../../platform/storage';
import { GroupsRepository } from '../../supporters/groups.repository';
import { TeamRepository } from '../../team/team.repository';
import { FeedsRepository, type FeedRow } from '../feeds.repository';
import { TellingService } from '../telling/telling.service';
import { FeedTable, rowsOfTable } from './feed-table';
import { RecordsRepository, RunsRepository, type RunRow } from './runs.repository';

/** Rows that wait for a look, as a table of ours. */
interface LookedTable {
  storageKey: string;
  header: string[];
  rows: number;
  today: string;
}

/** The end of a run: what it brought is known from now on, and who is gone over there is acted upon. */
@Injectable()
export class SettlingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(FeedsRepository) private readonly feeds: FeedsRepository,
    @Inject(RunsRepository) private readonly runs: RunsRepository,
    @Inject(RecordsRepository) private readonly records: RecordsRepository,
    @Inject(FedBatchesService) private readonly batches: FedBatchesService,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(TellingService) private readonly telling: TellingService,
  ) {}

  /**
   * Ends a run whose batch is in, or was stopped on the way. Everything in one transaction with what the feed
   * remembers: a record is known when its person is here, and not before.
   */
  async settle(scope: AccessScope, feed: FeedRow, run: RunRow): Promise<void> {
    const db = this.database.read(scope);
    const stands = run.batch_id === null ? null : await this.batches.stands(db, run.batch_id);
    // Another process has the batch, and ends the run with it.
    if (stands?.state === 'bringing') return;
    const isWhole = stands === null || stands.state === 'done';
    const counts = run.batch_id === null ? {} : await this.batches.counts(db, run.batch_id);
    const looked = run.batch_id === null ? null : await this.lookedTable(db, feed, run.batch_id);
    await this.database.write(scope, async (tx) => {
      tx.unchanged();
      const known = { id: run.id, feedId: feed.id, isWhole: run.is_whole === 1 };
      if (run.batch_id !== null && stands)
        await this.records.settle(tx, { ...known, batchId: run.batch_id, upTo: stands.upTo });
      if (isWhole) await this.actOnGone(tx, feed, known);
      await this.telling.sweep(tx, feed, await this.records.peopleOf(tx, known));
      const looksBatchId = looked && isWhole ? await this.makeLooks(tx, feed, looked) : null;
      if (run.batch_id !== null && looksBatchId !== null)
        await this.records.waitAt(tx, { ...known, batchId: run.batch_id, looksBatchId });
      await this.records.clearStaged(tx, run.id);
      await this.runs.change(tx, run.id, {
        ...{ state: isWhole ? 'done' : 'stopped', ended_at: new Date(), problem: stands?.problem ?? null },
        ...{ looks: counts.look ?? 0, looks_batch_id: looksBatchId },
        not_taken: run.not_taken + (counts.failed ?? 0) + (counts.skipped ?? 0),
      });
      if (!isWhole) return;
      // A reading that was taken as it is settles why the feed stopped: it goes on.
      const goesOn: Record<string, number> = run.anyway === 1 && feed.problem !== null ? { is_on: 1 } : {};
      await this.feeds.change(tx, feed.id, {
        ...{ failures: 0, problem: null, etag: run.is_whole === 1 ? run.etag : feed.etag, ...goesOn },
        ...(run.position === null ? {} : { position: run.position }),
      });
    });
  }

  /** A trial is over: its counts are told, its rows can be looked at, nothing of it is remembered. */
  async tried(tx: Scoped, run: RunRow, batchId: number): Promise<void> {
    const counts = await this.batches.counts(tx, batchId);
    await this.records.clearStaged(tx, run.id);
    await this.runs.change(tx, run.id, {
      ...{ state: 'tried', ended_at: new Date(), looks: counts.look ?? 0 },
      not_taken: run.not_taken + (counts.failed ?? 0) + (counts.skipped ?? 0),
    });
  }

  private async actOnGone(tx: Scoped, feed: FeedRow, run: { id: number; feedId: number }): Promise<void> {
    const { gone, listIds } = feed.plan;
    const people = gone.do === 'stay' ? [] : await this.records.gone(tx, run);
    if (people.length > 0 && gone.do === 'leave')
      for (const listId of listIds) await this.groups.takeOffAll(tx, 'list', people, listId);
    if (people.length > 0 && gone.do === 'tag') await this.groups.putAll(tx, 'tag', people, gone.tagId);
    await this.records.markGone(tx, run);
  }

  /** The rows that wait for a look, as a table of their own; null where none does. */
  private async lookedTable(db: Scoped, feed: FeedRow, batchId: number): Promise<LookedTable | null> {
    const wanted = await this.batches.looked(db, batchId);
    if (wanted.length === 0) return null;
    const table = new FeedTable([...feed.plan.columns.map(({ name }) => name), FIRST_CAME.name]);
    try {
      const key = await this.batches.tableOf(db, batchId);
      await table.write(await rowsOfTable(this.storage.pieces(key), new Set(wanted)));
      await table.end();
      const { time_zone } = await this.team.organization(db.scope);
      const today = isoDay(dayInZone(Date.now(), time_zone));
      return {
        storageKey: await this.storage.adopt(table.path),
        header: table.header,
        rows: table.rows,
        today,
      };
    } finally {
      await table.remove();
    }
  }

  /** Whoever has to be looked at waits in a batch of their own, to be settled and brought in by a person. */
  private async makeLooks(tx: Scoped, feed: FeedRow, looked: LookedTable): Promise<number> {
    const { storageKey, header, rows, today } = looked;
    const plan = intakePlanOf(feed.plan, today);
    const id = await this.batches.make(tx, {
      ...{
        runId: null,
        chapterId: feed.chapter_id,
        across: feed.across === 1,
        name: `${feed.name}: to look at`,
      },
      ...{ storageKey, header, rows, plan, known: [] },
    });
    await this.batches.check(tx, id);
    return id;
  }
}
