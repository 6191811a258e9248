import { isDeepStrictEqual } from 'node:util';
import { Inject, Injectable } from '@nestjs/common';
import { dayInZone, said } from '@goodword/core/common';
import type { BatchState, BatchWill } from '@goodword/core/contract';
import {
  ChapterFinder,
  readsRefusals,
  allColumns,
  birthColumns,
  fileFaults,
  layoutKey,
  Unreadable,
  withDomains,
  type Candidate,
  type IntakePlan,
  type TextLine,
} from '@goodword/core/intake';
import { nameKey } from '@goodword/core/merge';
import type { HouseRules } from '@goodword/core/permission';
import { speak } from '@goodword/core/words';
import { CampaignsRepository } from '../campaigns/campaigns.repository';
import { Database, isLostConnection, type Scoped } from '../platform/database';
import { enqueue, type Running } from '../platform/jobs';
import { DOMAINS, LINES, type Domains, type Lines, type LineType } from '../platform/lookups';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { DoNotContactService } from '../permission/do-not-contact.service';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { TeamRepository, type OrganizationRow } from '../team/team.repository';
import { FieldsRepository } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { AddressFacts } from './checking/address-facts';
import { BatchNotices } from './bringing-in/batch-notices';
import { BatchesRepository, type BatchRow, type ResolvedPlan, type StagedRow } from './batches.repository';
import { contentsBefore, contentsOf, type BatchContents } from './checking/batch-contents';
import { BringInRepository } from './bringing-in/bring-in.repository';
import { ForecastRepository, type ForecastFacts } from './checking/forecast.repository';
import { RowPermissionRepository } from './bringing-in/row-permission.repository';
import { LayoutsRepository } from './layouts/layouts.repository';
import { OtherFilesRepository } from './other-files/other-files.repository';
import { textLines, openingOf, readThrough } from './reading/text-reading';
import { Stager, type SettledRow, type FileRow } from './checking/stager';
import { candidatesAt, StagingRepository } from './checking/staging.repository';
import { TakeOutRepository } from './taking-out/take-out.repository';

const SLICE = 2000;
/** Slices of staged rows that are on their way to the database at once. */
const WRITES_AT_ONCE = 2;
/** Rows that are worked through before what the database has answered is heard: its work goes on beside ours. */
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

/** Where a batch stands after work on it failed: the step before, from which a person can go on. */
/** From so many rows on, what the database knew of the staging tables is too old to plan by. */
const MANY_ROWS = 5000;
const STAGING_TABLES = ['batch_row', 'batch_value', 'batch_more', 'batch_gift'];

const BACK_TO: Partial<Record<BatchState, BatchState>> = {
  reading: 'unreadable',
  checking: 'draft',
  bringing: 'stopped',
  'taking-out': 'done',
  checked: 'checked',
};

/** The pieces of work on a batch. Each goes on from what is committed, however it was interrupted. */
@Injectable()
export class IntakeJobs {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(DOMAINS) private readonly domains: Domains,
    @Inject(LINES) private readonly lineTypes: Lines,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(StagingRepository) private readonly staging: StagingRepository,
    @Inject(ForecastRepository) private readonly checker: ForecastRepository,
    @Inject(RowPermissionRepository) private readonly permission: RowPermissionRepository,
    @Inject(BringInRepository) private readonly bringer: BringInRepository,
    @Inject(OtherFilesRepository) private readonly others: OtherFilesRepository,
    @Inject(TakeOutRepository) private readonly taker: TakeOutRepository,
    @Inject(LayoutsRepository) private readonly layouts: LayoutsRepository,
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
    @Inject(BatchNotices) private readonly notices: BatchNotices,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
  ) {}

  /** Reads the file through once: what it is, how it is read, what its columns are. */
  async read(job: Running): Promise<void> {
    await this.guarded(job, 'reading', async (scope, batch) => {
      const organization = await this.team.organization(scope);
      const fields = await this.fields.all(this.database.read(scope));
      const asked = batch.draft?.plan.what ?? null;
      const known = { fields, country: organization.country, what: asked };
      const { textKey, found, guesses, what } = await readThrough(
        this.storage,
        { storageKey: batch.storage_key, reading: batch.reading ?? {} },
        known,
      );
      if (batch.text_key && batch.text_key !== batch.storage_key) await this.storage.remove(batch.text_key);
      const kept = await this.database.writeUnlogged(scope, async (tx) => {
        const now = await this.batches.lockForUpdate(tx, batch.id);
        // Somebody chose another reading meanwhile: the job that it set going finds it out anew.
        if (now?.state !== 'reading' || !isDeepStrictEqual(now.reading, batch.reading)) return false;
        await this.batches.change(tx, batch.id, {
          text_key: textKey,
          found: JSON.stringify(found),
          guesses: JSON.stringify(guesses),
          what: now.plan?.what ?? what,
          row_count: found.rows,
          state: now.plan ? 'checking' : 'draft',
        });
        // A plan may come before the file was read through; it is checked now that there is something to check.
        if (now.plan) await enqueue(tx.knex, { ...scope, actorId: batch.created_by }, 'batch-check', batch.id);
        return true;
      });
      if (!kept && textKey !== batch.storage_key) await this.storage.remove(textKey);
    });
  }

  /**
   * Cleans and matches every row and stages it with its verdict. Begins anew when interrupted, and leaves everything to
   * the next check when a person has changed the plan or the reading meanwhile: that one has been set going already.
   */
  async check(job: Running): Promise<void> {
    await this.guarded(job, 'checking', async (scope, batch) => {
      const plan = batch.plan!;
      // Of a plan that came before the file was read it could not be said then.
      const [unfit] = batch.found ? fileFaults(plan, { columns: batch.found.header.length, rows: batch.found.rows }) : [];
      if (unfit) throw new Unreadable(unfit.said.code, unfit.said.values);
      const organization = await this.team.organization(scope);
      const stager = await this.stagerFor(scope, batch, plan, organization);
      const facts = new AddressFacts({ database: this.database, staging: this.staging, domains: this.domains, lines: this.lineTypes }, scope);
      await this.database.writeUnlogged(scope, async (tx) => {
        await this.batches.lockForUpdate(tx, batch.id);
        await stillAsked(job);
        await this.batches.clearStaged(tx, batch.id);
      });
      let rowNo = 0;
      const chapters = new Set<number>();
      // The next slices are cleaned and looked up while these are written.
      const writing: Promise<void>[] = [];
      try {
        for await (const { rows, onFile, kinds } of this.looked(scope, batch, stager, facts, chapters)) {
          await stillAsked(job);
          const staged = await eachInBreaths(rows, (row) => stager.stage(row, candidatesAt(onFile)));
          for (const { verdict, chapterId } of staged) if (chapterId !== null && (verdict === 'new' || verdict === 'shares')) chapters.add(chapterId);
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
      await this.settle(job, scope, batch, plan, { rows: rowNo, mixed: chapters.size > 0 });
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
      // The batch is held from here on: whoever changes its plan has done so before, or waits until these rows are there to be
      // cleared.
      await stillAsked(job);
    });
  }

  private async stagerFor(scope: AccessScope, batch: BatchRow, plan: IntakePlan, organization: OrganizationRow): Promise<Stager> {
    const db = this.database.read(scope);
    const decided = new Map<number, SettledRow>();
    for (const row of await this.batches.decisions(db, batch.id)) decided.set(row.row_no, { as: row.outcome, withId: row.with_id });
    const standings = plan.roster ? ((await this.campaigns.find(db, plan.roster.campaignId))?.standings ?? []) : null;
    const about = {
      today: dayInZone(Date.now(), organization.time_zone),
      births: birthColumns(allColumns(plan), await this.fields.all(db)),
    };
    const goesApart = plan.byPlace || allColumns(plan).some(({ to }) => to === 'chapter');
    const chapters = goesApart ? new ChapterFinder(await this.team.chapters(scope), organization.country) : null;
    return new Stager(plan, organization, about, decided, standings, chapters);
  }

  /** The file's lines, in slices of equal size. */
  private async *slices(batch: BatchRow): AsyncGenerator<TextLine[]> {
    const key = batch.text_key ?? batch.storage_key;
    let pending: TextLine[] = [];
    for await (const lines of textLines(this.storage, key, await openingOf(this.storage, key, readingOf(batch)))) {
      pending = pending.length === 0 ? lines : [...pending, ...lines];
      while (pending.length >= SLICE) {
        yield pending.slice(0, SLICE);
        pending = pending.slice(SLICE);
      }
    }
    if (pending.length > 0) yield pending;
  }

  /** The file's rows cleaned, with whom each may be: a slice is cleaned while the database answers for the one before. */
  private async *looked(scope: AccessScope, batch: BatchRow, stager: Stager, facts: AddressFacts, chapters: Set<number>): AsyncGenerator<Looked> {
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
    const normals = rows.flatMap(({ clean }) => [clean?.email, clean?.mobile].flatMap((one) => one?.normal ?? []));
    const known = await this.staging.elsewhere(db, batch.chapter_id, [...new Set(normals)]);
    for (const { clean } of known.size > 0 ? rows : [])
      for (const one of [clean?.email, clean?.mobile])
        if (one && known.has(one.normal)) clean!.hints.push({ column: 0, reason: said('row.elsewhere', { shown: one.shown }) });
  }

  /** What can only be told of the whole file: who stays as they are, which gifts are here, what will be written. */
  private async settle(
    job: Running,
    scope: AccessScope,
    batch: BatchRow,
    plan: IntakePlan,
    { rows, mixed }: { rows: number; mixed: boolean },
  ): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const facts = await this.facts(tx);
      const [staged, permissionFacts] = [
        { ...batch, row_count: rows },
        { rules: facts.rules, now: Date.now(), contents: await contentsBefore(tx, batch.id) },
      ];
      if (plan.existing === 'fill') await this.bringer.keepWhatIsThere(tx, { batchId: batch.id, from: 1, to: rows });
      if (plan.what === 'gifts') await this.others.markDoubled(tx, batch.id, facts.currency);
      else if (plan.what !== 'refusals') {
        const writing = await this.permission.writing(tx, staged, plan, permissionFacts);
        await this.checker.markSame(tx, batch.id, plan, await this.knownGroups(tx, plan), writing);
      }
      await this.applyKept(tx, batch.id);
      await this.permission.markStanding(tx, staged, permissionFacts.contents);
      const will = await this.will(tx, staged, plan, facts, permissionFacts.contents);
      await this.batches.change(tx, batch.id, {
        state: 'checked',
        next_row: 0,
        row_count: rows,
        mixed: mixed ? 1 : 0,
        stay_no: will.saidNo,
        will: JSON.stringify(will),
      });
      await stillAsked(job);
    });
  }

  /** What will be written, by the rows as they stand. */
  private async will(db: Scoped, batch: BatchRow, plan: IntakePlan, facts: ForecastFacts, contents: BatchContents): Promise<BatchWill> {
    const now = Date.now();
    const entries = readsRefusals(plan.what) ? await this.permission.forecast(db, batch, plan, { rules: facts.rules, now, contents }) : {};
    return this.checker.will(db, batch.id, plan, { ...facts, contents }, entries);
  }

  /** Counts once more what will be written, after somebody has settled rows. One that is brought in meanwhile is left alone. */
  async count(job: Running): Promise<void> {
    await this.guarded(job, 'checked', (scope, batch) => this.recount(scope, batch));
  }

  private async recount(scope: AccessScope, batch: BatchRow): Promise<void> {
    const db = this.database.read(scope);
    if (batch.plan!.existing === 'fill') await this.bringer.keepWhatIsThere(db, { batchId: batch.id, from: 1, to: batch.row_count });
    const will = await this.will(db, batch, batch.plan!, await this.facts(db), await contentsBefore(db, batch.id));
    await db.execute('UPDATE batch SET will = :will, stay_no = :stay WHERE organization_id = :org AND id = :id AND state = :state', {
      id: batch.id,
      will: JSON.stringify(will),
      stay: will.saidNo,
      // Whoever has moved it on meanwhile counts for themselves.
      state: batch.state,
    });
  }

  /** Fields that a person chose to leave as they are, of rows that were merged by hand. */
  private async applyKept(tx: Scoped, batchId: number): Promise<void> {
    for (const { row_no, outcome, keep } of await this.batches.decisions(tx, batchId)) {
      if (outcome === 'merge' && keep.length > 0) await this.batches.keepTheirs(tx, batchId, row_no, keep);
    }
  }

  private async facts(db: Scoped): Promise<ForecastFacts> {
    const [organization, rules] = await Promise.all([this.team.organization(db), this.houseRules.rules(db)]);
    return { currency: organization.currency, rules };
  }

  private async knownGroups(db: Scoped, plan: IntakePlan): Promise<{ tagIds: number[]; listIds: number[]; allKnown: boolean }> {
    const tags = await Promise.all(plan.newTags.map((name) => this.groups.byName(db, 'tag', name)));
    const lists = await Promise.all(plan.newLists.map(({ name }) => this.groups.byName(db, 'list', name)));
    const ids = (some: (number | null)[]) => some.filter((id) => id !== null);
    return { tagIds: [...plan.tagIds, ...ids(tags)], listIds: [...plan.listIds, ...ids(lists)], allKnown: ![...tags, ...lists].includes(null) };
  }

  /** Brings staged rows in, slice by slice; each slice commits together with how far it is. */
  async bringIn(job: Running): Promise<void> {
    await this.guarded(job, 'bringing', async (scope, batch) => {
      const plan = batch.plan!;
      // Brought in before it was counted anew.
      if (!batch.will && batch.next_row === 0) await this.recount(scope, batch);
      const resolved = await this.resolve(scope, batch, plan);
      const { currency, rules } = await this.facts(this.database.read(scope));
      let next = (await this.batches.find(this.database.read(scope), batch.id))?.next_row ?? 0;
      const [began, first] = [Date.now(), next];
      const contents = await contentsOf(this.database.read(scope), batch.id);
      const people = (from: number) => this.people(scope, batch, plan, contents, from);
      // The people of the next rows are made while what hangs on these is written: two statements at a time.
      let ahead = people(next);
      while (next < batch.row_count) {
        const to = await ahead;
        const stopping = await job.stopped();
        ahead = stopping ? Promise.resolve(to) : people(to);
        ahead.catch(() => undefined);
        await this.database.write(
          scope,
          async (tx) => {
            tx.changed('people', 0, await this.bringer.peopleOf(tx, { batchId: batch.id, from: next + 1, to }));
            await this.bringSlice(tx, batch, plan, resolved, contents, { from: next + 1, to, rules, currency });
            await this.batches.change(tx, batch.id, { next_row: to, rate: ((to - first) / (Date.now() - began + 1)) * 1000 });
          },
          'read committed',
        );
        next = to;
        if (stopping && next < batch.row_count) return this.leave(scope, batch.id, 'stopped');
      }
      await this.flagDoNotContact(scope, batch.id);
      await this.database.writeUnlogged(scope, (tx) => this.batches.change(tx, batch.id, { state: 'done', ended_at: new Date(), seen_at: null }));
      await this.rememberLayout(scope, batch, resolved);
      await this.notices.tell(scope, batch.id);
    });
  }

  /** Makes the people of the rows after `done`, and their addresses; returns the last of these rows. */
  private async people(scope: AccessScope, batch: BatchRow, plan: IntakePlan, contents: BatchContents, done: number): Promise<number> {
    const to = Math.min(done + SLICE, batch.row_count);
    if (to > done && plan.what !== 'here' && plan.what !== 'refusals')
      await this.database.writeUnlogged(
        scope,
        (tx) => {
          // The second half of these rows tells of their people.
          tx.toldLater();
          return this.bringer.bringPeople(tx, batch, contents, { from: done + 1, to });
        },
        'read committed',
      );
    return to;
  }

  private async bringSlice(
    tx: Scoped,
    batch: BatchRow,
    plan: IntakePlan,
    resolved: ResolvedPlan,
    contents: BatchContents,
    within: { from: number; to: number; rules: HouseRules; currency: string },
  ): Promise<void> {
    const slice = { batchId: batch.id, from: within.from, to: within.to };
    if (plan.what !== 'refusals') await this.bringer.bringIn(tx, batch, plan, resolved, contents, within);
    if (plan.what === 'gifts') await this.others.give(tx, batch, slice, within.currency);
    if (plan.what !== 'refusals') return;
    for (const { kind, normal } of await this.others.refuse(tx, batch, slice, plan.refusal)) {
      await this.doNotContact.close(tx, kind, normal, 'file', `Refused in another system: ${batch.file_name}`);
    }
  }

  /** Makes the plan's new fields, tags and lists, once. */
  private async resolve(scope: AccessScope, batch: BatchRow, plan: IntakePlan): Promise<ResolvedPlan> {
    if (batch.resolved) return batch.resolved;
    return this.database.writeUnlogged(scope, async (tx) => {
      const resolved: ResolvedPlan = { fields: {}, tagIds: [...plan.tagIds], listIds: [...plan.listIds] };
      for (const [column, choice] of allColumns(plan).entries()) {
        if (choice.to !== 'newField') continue;
        const known = (await this.fields.all(tx)).find((field) => nameKey(field.name) === nameKey(choice.name));
        resolved.fields[column] = known?.id ?? (await this.fields.make(tx, { ...choice, batchId: batch.id }));
      }
      for (const name of plan.newTags)
        resolved.tagIds.push((await this.groups.byName(tx, 'tag', name)) ?? (await this.groups.makeTag(tx, name, batch.id)));
      for (const { name, folder } of plan.newLists)
        resolved.listIds.push((await this.groups.byName(tx, 'list', name)) ?? (await this.groups.makeList(tx, { name, folder }, batch.id)));
      await this.bringer.resolveValues(tx, batch.id, resolved.fields);
      await this.batches.change(tx, batch.id, { resolved: JSON.stringify(resolved) });
      return resolved;
    });
  }

  /** The same headers next time get the same columns, without anybody asking for it. */
  private async rememberLayout(scope: AccessScope, batch: BatchRow, resolved: ResolvedPlan): Promise<void> {
    const header = batch.found?.header ?? [];
    if (header.length === 0 || layoutKey(header) === '' || batch.found?.headerLine === null) return;
    const columns = batch.plan!.columns.map((choice, i) => {
      const fieldId = resolved.fields[i];
      return choice.to === 'newField' && fieldId
        ? { to: 'field' as const, fieldId, type: choice.type, ...(choice.order ? { order: choice.order } : {}) }
        : choice;
    });
    await this.database.writeUnlogged({ ...scope, actorId: batch.created_by }, (tx) =>
      this.layouts.remember(tx, { name: batch.name, what: batch.what, header, columns }),
    );
  }

  /** New addresses that are on do-not-contact, themselves or by their domain or range, are marked as such. */
  private async flagDoNotContact(scope: AccessScope, batchId: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      if (await this.doNotContact.isEmpty(tx)) return;
      const points = await tx.sql<{ id: number; kind: string; normal: string }>(
        `SELECT DISTINCT cp.id, cp.kind, cp.normal FROM batch_row r JOIN supporter_contact sc ON sc.supporter_id = r.supporter_id JOIN contact_point cp ON cp.id = sc.contact_point_id
          WHERE r.organization_id = :org AND r.batch_id = :batchId AND cp.batch_id = :batchId AND cp.do_not_contact = 0`,
        { batchId },
      );
      await this.doNotContact.closeNew(tx, points);
    });
  }

  async takeOut(job: Running): Promise<void> {
    await this.guarded(job, 'taking-out', async (scope, batch) => {
      await this.database.write(
        { ...scope, actorId: batch.created_by },
        async (tx) => {
          // It reaches tags, lists, values and gifts of whoever was on it.
          tx.changed('all', 0, 'everybody');
          const stayed = await this.taker.takeOut(tx, batch.id, (done, total) => job.progress(done, total));
          await this.batches.change(tx, batch.id, { state: 'taken-out', stayed, ended_at: new Date() });
        },
        'read committed',
      );
    });
  }

  private async leave(scope: AccessScope, id: number, state: string): Promise<void> {
    await this.database.writeUnlogged(scope, (tx) => this.batches.change(tx, id, { state }));
  }

  /** Runs the work when the batch still waits for it; a fault of the file ends the batch with its sentence. */
  private async guarded(job: Running, state: string, work: (scope: AccessScope, batch: BatchRow) => Promise<void>): Promise<void> {
    const batch = await this.batches.find(this.database.read({ ...job.scope, chapterId: null }), job.refId);
    if (batch?.state !== state || (state !== 'reading' && !batch.plan)) return;
    const scope = { ...job.scope, chapterId: batch.chapter_id };
    try {
      await work(scope, batch);
    } catch (error) {
      if (error instanceof Superseded || (state === 'checking' && !isLostConnection(error) && (await job.stopped()))) return;
      // A lost connection leaves the job to be taken up again; anything else would only fail again.
      if (isLostConnection(error)) throw error;
      const words =
        error instanceof Unreadable
          ? speak(error.said)
          : `It could not go on: ${(error as { sqlMessage?: string }).sqlMessage ?? (error as Error).message}`;
      await this.database.writeUnlogged(scope, (tx) =>
        this.batches.change(tx, batch.id, { problem: words.slice(0, 500), state: BACK_TO[batch.state] ?? 'draft' }),
      );
    }
  }
}

/** A newer job has taken the place of this one. */
class Superseded extends Error {}

/** Throws, and so rolls back, where somebody asked for something else meanwhile or this process holds the job no longer. */
async function stillAsked(job: Running): Promise<void> {
  if (await job.stopped()) throw new Superseded();
}

/** How a batch's text is read when it is read again: as was found, but where a person chose. */
export function readingOf(batch: BatchRow) {
  const found = batch.found;
  const chosen = { ...batch.reading, ...batch.plan?.reading };
  if (!found) return chosen;
  const { encoding, delimiter, headerLine, unscramble } = found;
  return { encoding, delimiter, headerLine, unscramble, ...chosen, ...(found.kind === 'text' ? {} : { encoding, delimiter }) };
}
