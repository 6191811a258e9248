import { Inject, Injectable } from '@nestjs/common';
import { dayInZone, isoDay } from '@goodword/core/common';
import {
  RecordComparison,
  FIRST_CAME,
  intakePlanOf,
  permissionColumns,
  unusual,
  type ChangedRecord,
  type SeenCounts,
} from '@goodword/core/feeds';
import { FILE_LIMITS } from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { FedBatchesService } from '../../intake/fed-batches.service';
import { Database } from '../../platform/database';
import { FetchFault } from '../../platform/fetch-out';
import type { Running } from '../../platform/jobs';
import type { AccessScope } from '../../platform/scope';
import { STORAGE, type Storage } from '../../platform/storage';
import { TeamRepository } from '../../team/team.repository';
import { FeedsRepository, type FeedRow } from '../feeds.repository';
import { FeedSourcesService } from '../sources/feed-sources.service';
import type { Answer } from '../sources/source';
import { cellsDigest, FeedTable } from './feed-table';
import { RecordsRepository, RunsRepository, type RunRow, type StagedRecord } from './runs.repository';

/** Records that are compared and written down at a time. */
const SLICE = 2000;

type Read = Extract<Answer, { unchanged: false }>;

/** What a run read: what is new or changed lies in its table and beside it, nothing else was written. */
interface Found {
  counts: SeenCounts;
  gone: number;
  knownSize: number;
  known: { rowNo: number; supporterId: number }[];
}

/**
 * The first half of a run: reads the source through, works out what is new, changed and gone, and makes a
 * batch of it, unless nothing is or so much is that somebody has to look first.
 */
@Injectable()
export class FeedReadingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(FeedsRepository) private readonly feeds: FeedsRepository,
    @Inject(RunsRepository) private readonly runs: RunsRepository,
    @Inject(RecordsRepository) private readonly records: RecordsRepository,
    @Inject(FeedSourcesService) private readonly sources: FeedSourcesService,
    @Inject(FedBatchesService) private readonly batches: FedBatchesService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /**
   * Reads for a run that is at reading, and takes it one step on.
   * @throws FetchFault with why it can't be read
   */
  async read(job: Running, scope: AccessScope, feed: FeedRow, run: RunRow): Promise<void> {
    const { source, at } = await this.sources.connection(this.database.read(scope), feed.source_id);
    const { type, filter } = feed.plan.take!;
    const take = { type: type.key, filter: filter?.key ?? null };
    const since = run.is_whole === 1 ? null : feed.position;
    // What is still the same needs no second look, but where somebody asked for one or wants to see each row.
    const etag = since === null && run.cause === 'clock' ? feed.etag : null;
    const answer = await source.read(at, { ...take, since, etag });
    if (answer.unchanged) return this.nothing(scope, feed, run);
    const places = placesOf(feed, answer.header);
    const organization = await this.team.organization(scope);
    const today = isoDay(dayInZone(Date.now(), organization.time_zone));
    const plan = intakePlanOf(feed.plan, today);
    const faults = await this.batches.faultsOf(this.database.read(scope), plan);
    if (faults.length > 0) throw new FetchFault('feed.no-longer', { faults: faults.join(' ') });
    const table = new FeedTable([...feed.plan.columns.map(({ name }) => name), FIRST_CAME.name]);
    try {
      const found = await this.compare(job, scope, { feed, run, answer, places, table, today });
      await table.end();
      await this.decide(scope, { feed, run, answer, found, table, plan });
    } finally {
      await table.remove();
    }
  }

  private async compare(
    job: Running,
    scope: AccessScope,
    about: { feed: FeedRow; run: RunRow; answer: Read; places: Places; table: FeedTable; today: string },
  ): Promise<Found> {
    const { feed, run, answer, places, table } = about;
    // A trial of what was never run compares with what is known as well: it shows what a run would do.
    const known = await this.records.known(this.database.read(scope), feed.id);
    const comparison = new RecordComparison(known, permissionColumns(feed.plan), cellsDigest, about.today);
    await this.database.writeUnlogged(scope, (tx) => this.records.clearStaged(tx, run.id));
    const whose: Found['known'] = [];
    const gone: string[] = [];
    let pending: ChangedRecord[] = [];
    let seen = 0;
    const flush = async () => {
      const first = table.rows + 1;
      const rows = pending.map((one, i): StagedRecord => ({
        ...{ rowNo: first + i, key: one.key, digest: one.digest, says: one.says, isGone: false },
        firstOn: one.known?.firstOn ?? about.today,
      }));
      pending.forEach(({ known: before }, i) => {
        if (before?.supporterId) whose.push({ rowNo: first + i, supporterId: before.supporterId });
      });
      await table.write(pending.map(({ cells }) => cells));
      await this.database.writeUnlogged(scope, (tx) => this.records.stage(tx, run.id, rows));
      pending = [];
    };
    for await (const page of answer.pages) {
      if (await job.stopped()) throw new Stopped();
      for (const row of page) {
        if (++seen > FILE_LIMITS.rows) throw new FetchFault('feed.too-many', { rows: FILE_LIMITS.rows });
        const key = row.cells[places.key] ?? '';
        if (row.gone) {
          if (known.get(key.trim())?.isGone === false) gone.push(key.trim());
          continue;
        }
        const changed = comparison.take(
          key,
          places.columns.map((place) => row.cells[place] ?? ''),
        );
        if (changed) pending.push(changed);
        if (pending.length >= SLICE) await flush();
      }
    }
    await flush();
    if (answer.whole) gone.push(...comparison.gone());
    const goneRows = gone.map((key, i) => ({
      ...{ rowNo: i + 1, key, digest: '', says: '', firstOn: '', isGone: true },
    }));
    await this.database.writeUnlogged(scope, (tx) => this.records.stage(tx, run.id, goneRows));
    return {
      counts: comparison.counts,
      gone: gone.length,
      knownSize: [...known.values()].filter(({ isGone }) => !isGone).length,
      known: whose,
    };
  }

  private async decide(
    scope: AccessScope,
    about: {
      feed: FeedRow;
      run: RunRow;
      answer: Read;
      found: Found;
      table: FeedTable;
      plan: ReturnType<typeof intakePlanOf>;
    },
  ): Promise<void> {
    const { feed, run, answer, found, table, plan } = about;
    const { counts, gone } = found;
    const size = { came: counts.fresh + counts.changed, gone };
    const values = {
      ...{ fresh: counts.fresh, changed: counts.changed, same: counts.same, gone },
      ...{
        not_taken: counts.unkeyed + counts.repeated,
        etag: answer.mark.etag,
        position: answer.mark.position,
      },
    };
    if (run.anyway === 0 && run.cause !== 'trial') {
      const why = unusual(size, await this.runs.sizes(this.database.read(scope), feed.id), found.knownSize);
      if (why) return this.hold(scope, feed, run, values, speak(why));
    }
    if (size.came === 0 && gone === 0) return this.nothing(scope, feed, { ...run, ...values });
    const storageKey = size.came === 0 ? null : await this.storage.adopt(table.path);
    try {
      await this.database.writeUnlogged(scope, async (tx) => {
        const batchId =
          storageKey === null
            ? null
            : await this.batches.make(tx, {
                ...{ runId: run.id, chapterId: feed.chapter_id, across: feed.across === 1, name: feed.name },
                ...{ header: table.header, rows: table.rows, storageKey, plan, known: found.known },
              });
        const state = batchId === null ? (run.cause === 'trial' ? 'tried' : 'bringing') : 'checking';
        await this.runs.change(tx, run.id, {
          ...{ ...values, batch_id: batchId, state },
          ended_at: state === 'tried' ? new Date() : null,
        });
        if (state === 'tried') await this.records.clearStaged(tx, run.id);
      });
    } catch (error) {
      if (storageKey) await this.storage.remove(storageKey);
      throw error;
    }
  }

  /** Nothing is new over there: nothing is written but that somebody looked. */
  private async nothing(scope: AccessScope, feed: FeedRow, run: RunRow): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const { etag, position, not_taken } = run;
      const same = run.same || (await this.records.count(tx, feed.id));
      await this.runs.change(tx, run.id, {
        ...{ state: run.cause === 'trial' ? 'tried' : 'nothing', ended_at: new Date(), same, not_taken },
      });
      await this.feeds.change(tx, feed.id, {
        ...{ failures: 0, problem: null },
        // A tag is of the whole; what changed since has another.
        ...(run.cause === 'trial' || etag === null || run.is_whole === 0 ? {} : { etag }),
        ...(run.cause === 'trial' || position === null ? {} : { position }),
      });
    });
  }

  /** So much at once is looked at by somebody before any of it is written. */
  private async hold(
    scope: AccessScope,
    feed: FeedRow,
    run: RunRow,
    values: Record<string, string | number | null>,
    why: string,
  ): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.runs.change(tx, run.id, { ...values, state: 'held', problem: why, ended_at: new Date() });
      await this.feeds.change(tx, feed.id, { is_on: 0, problem: why });
      await this.records.clearStaged(tx, run.id);
    });
  }
}

/** Somebody asked the run to stop while it read. */
export class Stopped extends Error {}

interface Places {
  columns: number[];
  key: number;
}

/** Where the columns that are taken stand over there today. */
function placesOf({ plan }: FeedRow, header: readonly string[]): Places {
  const missing = [...plan.columns.map(({ name }) => name), plan.key!].filter(
    (name) => !header.includes(name),
  );
  if (missing.length > 0)
    throw new FetchFault('feed.columns-gone', { n: missing.length, names: [...new Set(missing)].join(', ') });
  return { columns: plan.columns.map(({ name }) => header.indexOf(name)), key: header.indexOf(plan.key!) };
}
