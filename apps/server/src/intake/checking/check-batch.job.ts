import { Inject, Injectable } from '@nestjs/common';
import { dayInZone, said } from '@goodword/core/common';
import {
  allColumns,
  birthColumns,
  ChapterFinder,
  fileFaults,
  Unreadable,
  withDomains,
  type Candidate,
  type IntakePlan,
  type TextLine,
} from '@goodword/core/intake';
import { CampaignsRepository } from '../../campaigns/campaigns.repository';
import { Database } from '../../platform/database';
import { type Scoped } from '../../platform/scoped';
import { HandlesJob, type Running } from '../../platform/jobs';
import { DOMAINS, LINES, type Domains, type Lines, type LineType } from '../../platform/lookups';
import type { AccessScope } from '../../platform/scope';
import { STORAGE, type Storage } from '../../platform/storage';
import { FieldsRepository } from '../../supporters/fields.repository';
import { TeamRepository, type OrganizationRow } from '../../team/team.repository';
import { BatchGuard, stillAsked } from '../batch-guard';
import { BatchesRepository, readingOf, type BatchRow, type StagedRow } from '../batches.repository';
import { openingOf, textLines } from '../reading/text-reading';
import { AddressFacts } from './address-facts';
import { ForecastService } from './forecast.service';
import { Stager, type FileRow, type SettledRow } from './stager';
import { candidatesAt, StagingRepository } from './staging.repository';
import { StagedRowsRepository } from '../staged-rows.repository';

const SLICE = 2000;
/** Slices of staged rows that are on their way to the database at once. */
const WRITES_AT_ONCE = 2;
/**
 * Rows that are worked through before what the database has answered is heard: its work goes on beside ours.
 */
const BREATH = 250;

/** As `map`, with a breath now and then. */
async function eachInBreaths<A, B>(some: readonly A[], each: (one: A) => B): Promise<B[]> {
  const out: B[] = [];
  for (const one of some) {
    if (out.length % BREATH === BREATH - 1) await new Promise<void>((done) => setImmediate(done));
    out.push(each(one));
  }
  return out;
}

/** Rows with the people whom they may be, and the kinds of their phone lines. */
interface Looked {
  rows: FileRow[];
  onFile: Map<string, Candidate[]>;
  kinds: Map<string, LineType>;
}

/** From so many rows on, what the database knew of the staging tables is too old to plan by. */
const MANY_ROWS = 5000;
const STAGING_TABLES = ['batch_row', 'batch_value', 'batch_more', 'batch_gift'];

/** `batch-check`: every row cleaned, matched and staged with its verdict. */
@Injectable()
export class CheckBatchJob {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(DOMAINS) private readonly domains: Domains,
    @Inject(LINES) private readonly lineTypes: Lines,
    @Inject(BatchGuard) private readonly guard: BatchGuard,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(StagingRepository) private readonly staging: StagingRepository,
    @Inject(ForecastService) private readonly forecast: ForecastService,
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(StagedRowsRepository) private readonly staged: StagedRowsRepository,
  ) {}

  @HandlesJob('batch-check')
  async run(job: Running): Promise<void> {
    await this.guard.run(job, 'checking', async (scope, batch) => {
      const plan = batch.plan!;
      // Of a plan that came before the file was read it could not be said then.
      const [unfit] = batch.found
        ? fileFaults(plan, { columns: batch.found.header.length, rows: batch.found.rows })
        : [];
      if (unfit) throw new Unreadable(unfit.said.code, unfit.said.values);
      const organization = await this.team.organization(scope);
      const stager = await this.stagerFor(scope, batch, plan, organization);
      const facts = new AddressFacts(
        { database: this.database, staging: this.staging, domains: this.domains, lines: this.lineTypes },
        scope,
      );
      await this.database.writeUnlogged(scope, async (tx) => {
        await this.batches.lockForUpdate(tx, batch.id);
        await stillAsked(job);
        await this.staged.clearStaged(tx, batch.id);
      });
      let rowNo = 0;
      const chapters = new Set<number>();
      // The next slices are cleaned and looked up while these are written.
      const writing: Promise<void>[] = [];
      try {
        for await (const { rows, onFile, kinds } of this.looked(scope, batch, stager, facts, chapters)) {
          await stillAsked(job);
          const staged = await eachInBreaths(rows, (row) => stager.stage(row, candidatesAt(onFile)));
          for (const { verdict, chapterId } of staged)
            if (chapterId !== null && (verdict === 'new' || verdict === 'shares')) chapters.add(chapterId);
          rowNo += rows.length;
          if (writing.length === WRITES_AT_ONCE) await writing.shift();
          writing.push(this.writeStaged(job, scope, batch.id, staged, kinds, rowNo));
          writing.at(-1)!.catch(() => undefined);
        }
        await Promise.all(writing);
      } finally {
        // Nothing of this check may be written into the next one.
        await Promise.allSettled(writing);
      }
      chapters.delete(batch.chapter_id);
      await this.forecast.settle(job, scope, batch, plan, { rows: rowNo, mixed: chapters.size > 0 });
      if (rowNo >= MANY_ROWS) await this.database.refreshStatistics(STAGING_TABLES);
    });
  }

  private async writeStaged(
    job: Running,
    scope: AccessScope,
    id: number,
    staged: StagedRow[],
    kinds: ReadonlyMap<string, LineType>,
    done: number,
  ): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.staging.stage(tx, id, staged, kinds);
      await this.batches.change(tx, id, { next_row: done });
      // The batch is held from here on: whoever changes its plan has done so before, or waits until these
      // rows are there to be cleared.
      await stillAsked(job);
    });
  }

  private async stagerFor(
    scope: AccessScope,
    batch: BatchRow,
    plan: IntakePlan,
    organization: OrganizationRow,
  ): Promise<Stager> {
    const db = this.database.read(scope);
    const decided = new Map<number, SettledRow>();
    for (const row of await this.staged.decisions(db, batch.id))
      decided.set(row.row_no, { as: row.outcome, withId: row.with_id });
    const stages = plan.roster
      ? ((await this.campaigns.find(db, plan.roster.campaignId))?.stages ?? [])
      : null;
    const about = {
      today: dayInZone(Date.now(), organization.time_zone),
      births: birthColumns(allColumns(plan), await this.fields.all(db)),
    };
    const goesApart = plan.byPlace || allColumns(plan).some(({ to }) => to === 'chapter');
    const chapters = goesApart
      ? new ChapterFinder(await this.team.chapters(scope), organization.country)
      : null;
    return new Stager(plan, organization, about, decided, stages, chapters);
  }

  /** The file's lines, in slices of equal size. */
  private async *slices(batch: BatchRow): AsyncGenerator<TextLine[]> {
    const key = batch.text_key ?? batch.storage_key;
    let pending: TextLine[] = [];
    for await (const lines of textLines(
      this.storage,
      key,
      await openingOf(this.storage, key, readingOf(batch)),
    )) {
      pending = pending.length === 0 ? lines : [...pending, ...lines];
      while (pending.length >= SLICE) {
        yield pending.slice(0, SLICE);
        pending = pending.slice(SLICE);
      }
    }
    if (pending.length > 0) yield pending;
  }

  /**
   * The file's rows cleaned, with whom each may be: a slice is cleaned while the database answers for the one
   * before.
   */
  private async *looked(
    scope: AccessScope,
    batch: BatchRow,
    stager: Stager,
    facts: AddressFacts,
    chapters: Set<number>,
  ): AsyncGenerator<Looked> {
    let rowNo = 0;
    let ahead: Promise<Looked> | null = null;
    for await (const lines of this.slices(batch)) {
      const rows = await eachInBreaths(lines, (line) => stager.clean(line, ++rowNo));
      const next = this.lookUp(scope, batch, stager, facts, rows, chapters);
      next.catch(() => undefined);
      if (ahead) yield await ahead;
      ahead = next;
    }
    if (ahead) yield await ahead;
  }

  private async lookUp(
    scope: AccessScope,
    batch: BatchRow,
    stager: Stager,
    facts: AddressFacts,
    rows: FileRow[],
    chapters: Set<number>,
  ): Promise<Looked> {
    await facts.learn(rows);
    const emailColumn = Math.max(
      0,
      allColumns(batch.plan!).findIndex(({ to }) => to === 'email' || to === 'nameEmail'),
    );
    for (const row of rows) {
      if (!row.clean) continue;
      const kept = withDomains(row.clean, facts, emailColumn);
      if (kept !== row.clean) [row.clean, row.clues] = [kept, stager.clues(kept)];
    }
    const clues = rows.flatMap((row) => row.clues);
    const db = this.database.read(scope);
    const [onFile, kinds] = await Promise.all([
      this.staging.candidates(db, batch.across ? null : batch.chapter_id, clues, chapters),
      facts.lines(rows),
      batch.across ? null : this.tellElsewhere(db, batch, rows),
    ]);
    for (const { clean } of rows)
      if (clean?.mobile && kinds.get(clean.mobile.normal) === 'landline')
        clean.hints.push({ column: 0, reason: said('row.landline', { shown: clean.mobile.shown }) });
    return { rows, onFile, kinds };
  }

  /** Who may not see another chapter's people learns that an address is somebody's there, and not whose. */
  private async tellElsewhere(db: Scoped, batch: BatchRow, rows: readonly FileRow[]): Promise<void> {
    const normals = rows.flatMap(({ clean }) =>
      [clean?.email, clean?.mobile].flatMap((one) => one?.normal ?? []),
    );
    const known = await this.staging.elsewhere(db, batch.chapter_id, [...new Set(normals)]);
    for (const { clean } of known.size > 0 ? rows : [])
      for (const one of [clean?.email, clean?.mobile])
        if (one && known.has(one.normal))
          clean!.hints.push({ column: 0, reason: said('row.elsewhere', { shown: one.shown }) });
  }
}
