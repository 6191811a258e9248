import { roleReaches } from '@goodword/core/team';
import { Inject, Injectable } from '@nestjs/common';
import { open } from 'node:fs/promises';
import { dayInZone, isoDay, said } from '@goodword/core/common';
import type { BatchPreview, BatchRowView, BatchView, IntakeDraft, Page } from '@goodword/core/contract';
import {
  allColumns,
  columnFaults,
  fileFaults,
  natureOf,
  notASheet,
  permissionFaults,
  withKnownFields,
  type BatchKind,
  type ParseOptions,
  type IntakePlan,
} from '@goodword/core/intake';
import { nameKey } from '@goodword/core/merge';
import { speak } from '@goodword/core/words';
import { audit } from '../platform/audit';
import { Database, type Scoped } from '../platform/database';
import { Conflict, Invalid, Newer, NotFound } from '../platform/errors';
import { cancel, enqueue } from '../platform/jobs';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { TeamRepository } from '../team/team.repository';
import {
  BatchesRepository,
  readingOf,
  NO_SUPPORTER,
  type BatchRow,
  type RowsQuery,
} from './batches.repository';
import { PlanFaultsService } from './checking/plan-faults.service';
import { textLines, openingOf } from './reading/text-reading';
import { FieldsRepository } from '../supporters/fields.repository';
import { RowStoryRepository } from './checking/row-story.repository';
import { TakeOutRepository } from './taking-out/take-out.repository';
import { sentence } from '../platform/words';

const MAY_CHANGE = ['draft', 'checked', 'failed', 'checking'];
const PREVIEW = 50;

@Injectable()
export class IntakeService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(PlanFaultsService) private readonly faults: PlanFaultsService,
    @Inject(TakeOutRepository) private readonly taker: TakeOutRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(RowStoryRepository) private readonly told: RowStoryRepository,
  ) {}

  /** Takes a file, or says in a sentence why it can't be one. It is read by a job. */
  async take(
    scope: AccessScope,
    file: { name: string; fileName: string; path: string; what: BatchKind | null },
  ): Promise<{ id: number }> {
    const refused = notASheet(natureOf(await firstOf(file.path)));
    if (refused) throw new Invalid([{ field: 'file', code: 'unreadable', message: speak(refused) }]);
    const chapterId = scope.chapterId ?? (await this.team.chapters(scope))[0]?.id;
    if (chapterId === undefined) throw new Conflict(sentence('batch.no-chapter'));
    const storageKey = await this.storage.adopt(file.path);
    return this.database.writeUnlogged(scope, async (tx) => {
      const id = await this.batches.make(tx, {
        chapterId,
        name: file.name,
        fileName: file.fileName,
        storageKey,
      });
      if (file.what) {
        const draft: IntakeDraft = { step: 'File', name: file.name, plan: { what: file.what } };
        await this.batches.change(tx, id, { draft: JSON.stringify(draft), what: file.what });
      }
      await enqueue(tx.knex, scope, 'batch-read', id);
      return { id };
    });
  }

  async list(scope: AccessScope, query: Parameters<BatchesRepository['page']>[1]): Promise<BatchView[]> {
    const db = this.database.read(scope);
    const rows = await this.batches.page(db, query);
    const counts = await this.batches.countsOfAll(
      db,
      rows.map((row) => row.id),
    );
    const nothing = { looks: {}, withFaults: 0, withHints: 0 };
    return rows.map((row) =>
      this.seenBy(
        scope,
        view(
          row,
          {
            counts: Object.fromEntries(
              counts.filter((c) => c.batch_id === row.id).map((c) => [c.verdict, c.n]),
            ),
            ...nothing,
          },
          null,
        ),
      ),
    );
  }

  async show(scope: AccessScope, id: number): Promise<BatchView> {
    const db = this.database.read(scope);
    const batch = await this.batch(db, id);
    const shown = view(batch, await this.batches.counts(db, id), this.whyNotTakeOut(batch));
    // Taking out counts in steps, as Work does.
    const steps = batch.state === 'taking-out' ? await this.batches.stepsOfTakingOut(db, id) : null;
    return this.seenBy(scope, steps ? { ...shown, ...steps } : shown);
  }

  /**
   * Counts are for everybody; cells of the file, and what was settled about them, for those who see sensitive
   * fields.
   */
  private seenBy(scope: AccessScope, batch: BatchView): BatchView {
    return roleReaches(scope.role, 'organizer') ? batch : { ...batch, found: null, plan: null, draft: null };
  }

  /** Marks a batch that came in as looked at, so that Today no longer tells of it. */
  async seen(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.batch(tx, id);
      if (batch.state === 'done') await this.batches.change(tx, id, { seen_at: new Date() });
    });
  }

  /** The file as it is read, with what was found, the guesses and the first rows. */
  async preview(scope: AccessScope, id: number): Promise<BatchPreview> {
    const batch = await this.batch(this.database.read(scope), id);
    if (!batch.found)
      throw new Conflict(batch.problem ?? 'The file is still being read. Try again in a moment.');
    const rows: string[][] = [];
    const key = await this.fileKey(batch);
    for await (const lines of textLines(
      this.storage,
      key,
      await openingOf(this.storage, key, readingOf(batch)),
    )) {
      rows.push(...lines.filter((line) => line.aside === null).map((line) => line.cells));
      if (rows.length >= PREVIEW) break;
    }
    const plan = batch.plan ?? batch.draft?.plan;
    const guesses = batch.guesses ?? [];
    return {
      found: batch.found,
      guesses,
      what: plan?.what ?? batch.what,
      rows: rows.slice(0, PREVIEW),
      mends: plan?.mends ?? [],
      columns: plan?.columns ?? guesses.map(({ choice }) => choice),
    };
  }

  /** The file's text, for reading it in the page. */
  async text(scope: AccessScope, id: number): Promise<AsyncIterable<Uint8Array>> {
    return this.storage.pieces(await this.fileKey(await this.batch(this.database.read(scope), id)));
  }

  /** Reads the file anew, as a person says that it is to be read or for what it is. */
  async readAgain(
    scope: AccessScope,
    id: number,
    reading: ParseOptions,
    what: BatchKind | undefined,
  ): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.lockedBatch(tx, id);
      if (![...MAY_CHANGE, 'reading', 'unreadable'].includes(batch.state))
        throw new Conflict(sentence('batch.in-reading'));
      await this.fileKey(batch);
      await cancel(tx.knex, 'batch-check', id);
      const draft: IntakeDraft = {
        step: batch.draft?.step ?? 'File',
        name: batch.name,
        plan: { ...(batch.draft?.plan ?? {}), ...(what ? { what } : {}) },
      };
      delete draft.plan.columns;
      await this.batches.change(tx, id, {
        state: 'reading',
        found: null,
        guesses: null,
        reading: JSON.stringify(reading),
        draft: JSON.stringify(draft),
        plan: null,
        problem: null,
      });
      await enqueue(tx.knex, scope, 'batch-read', id);
    });
  }

  /** Keeps a half-done batch for everyone on the team. */
  async keep(
    scope: AccessScope,
    id: number,
    draft: IntakeDraft,
    basedOn: number,
  ): Promise<{ version: number }> {
    return this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.lockedBatch(tx, id);
      // While the file is still being read on the server, its columns are being matched on the page.
      if (![...MAY_CHANGE, 'reading'].includes(batch.state)) throw new Conflict(sentence('batch.in'));
      if (batch.draft_version !== basedOn)
        throw new Newer('this batch', await this.team.nameOf(tx, batch.draft_by));
      const version = basedOn + 1;
      await this.batches.change(tx, id, {
        draft: JSON.stringify(draft),
        name: draft.name,
        draft_version: version,
        draft_by: scope.actorId,
      });
      return { version };
    });
  }

  /** Fixes what becomes of the file and has it checked. There is no way past the permission step. */
  async plan(scope: AccessScope, id: number, asked: IntakePlan): Promise<void> {
    const [{ time_zone }, chapters] = await Promise.all([
      this.team.organization(scope),
      this.team.chapters(scope),
    ]);
    const known = new Set(chapters.map((chapter) => chapter.id));
    await this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.lockedBatch(tx, id);
      if (![...MAY_CHANGE, 'reading'].includes(batch.state)) throw new Conflict(sentence('batch.in-plan'));
      const plan = withKnownFields(asked, await this.fields.all(tx), nameKey);
      const { found } = batch;
      const faults = [
        ...(found && batch.state !== 'reading'
          ? fileFaults(plan, { columns: found.header.length, rows: found.rows })
          : []),
        ...columnFaults(plan),
        ...(await this.faults.of(tx, plan)),
      ];
      if (plan.what === 'people')
        faults.push(...permissionFaults(plan, isoDay(dayInZone(Date.now(), time_zone))));
      if (
        plan.what === 'refusals' &&
        plan.refusal === null &&
        !plan.columns.some(({ to }) => to === 'status')
      )
        faults.push({ field: 'refusal', said: said('plan.refusal') });
      if (faults.length > 0)
        throw new Invalid(
          faults.map(({ field, said: why }) => ({ field, code: why.code, message: speak(why) })),
        );
      const goesApart = plan.byPlace || allColumns(plan).some(({ to }) => to === 'chapter');
      if (goesApart && scope.boundTo !== null)
        throw new Invalid([
          {
            field: 'byPlace',
            code: 'plan',
            message: sentence('batch.chapters-bound'),
          },
        ]);
      const chapterId = plan.chapterId ?? batch.chapter_id;
      mayBringInto(scope, chapterId, known);
      await cancel(tx.knex, 'batch-check', id);
      // A file that is still being read is checked as soon as it is: by the job that reads it.
      const reading = batch.state === 'reading';
      await this.batches.change(tx, id, {
        plan: JSON.stringify(plan),
        what: plan.what,
        chapter_id: chapterId,
        across: scope.boundTo === null ? 1 : 0,
        resolved: null,
        state: reading ? 'reading' : 'checking',
        next_row: 0,
        problem: null,
        will: null,
      });
      if (!reading) await enqueue(tx.knex, scope, 'batch-check', id);
    });
  }

  async bringIn(scope: AccessScope, id: number): Promise<void> {
    await this.move(
      scope,
      id,
      ['checked', 'stopped'],
      'bringing',
      'batch-bring-in',
      'Check it first; then it can be brought in.',
      async (tx, batch) => {
        // It may have been checked days ago. One that is half in already goes on as it began.
        const faults = batch.state === 'checked' ? await this.faults.of(tx, batch.plan!) : [];
        if (faults.length > 0)
          throw new Conflict(
            sentence('batch.changed', { faults: faults.map((fault) => speak(fault.said)).join(' ') }),
          );
      },
    );
  }

  async stop(scope: AccessScope, id: number): Promise<void> {
    const batch = await this.batch(this.database.read(scope), id);
    if (batch.state === 'checking') return this.stopChecking(scope, id);
    if (batch.state !== 'bringing') throw new Conflict(sentence('work.not-running'));
    await cancel(this.database.read(scope).knex, 'batch-bring-in', id);
  }

  /** Nothing has come in yet, so it is simply a draft again. */
  private async stopChecking(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.lockedBatch(tx, id);
      if (batch.state !== 'checking') throw new Conflict(sentence('batch.checked-meanwhile'));
      await cancel(tx.knex, 'batch-check', id);
      await this.batches.change(tx, id, { state: 'draft' });
    });
  }

  async takeOut(scope: AccessScope, id: number): Promise<void> {
    const why = this.whyNotTakeOut(await this.batch(this.database.read(scope), id));
    if (why) throw new Conflict(why);
    await this.move(
      scope,
      id,
      ['done', 'stopped'],
      'taking-out',
      'batch-take-out',
      'Only a batch that was brought in can be taken back out.',
    );
  }

  /** What taking out would do, said before it is done. */
  async takeOutNotice(scope: AccessScope, id: number): Promise<{ staying: number }> {
    const db = this.database.read(scope);
    await this.batch(db, id);
    return { staying: await this.taker.countStaying(db, id) };
  }

  /** Throws a batch away that never came in. */
  async discard(scope: AccessScope, id: number): Promise<void> {
    const { storage_key, text_key } = await this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.batch(tx, id);
      if (!['reading', 'unreadable', 'draft', 'checked', 'failed'].includes(batch.state))
        throw new Conflict(sentence('batch.in-history'));
      await this.batches.remove(tx, id);
      return batch;
    });
    // Not before it is settled that the batch is gone.
    await this.storage.remove(storage_key);
    if (text_key) await this.storage.remove(text_key);
  }

  private async move(
    scope: AccessScope,
    id: number,
    from: string[],
    to: string,
    job: 'batch-bring-in' | 'batch-take-out',
    otherwise: string,
    before: (tx: Scoped, batch: BatchRow) => Promise<void> = async () => {},
  ): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.lockedBatch(tx, id);
      if (!from.includes(batch.state)) throw new Conflict(otherwise);
      await before(tx, batch);
      await this.batches.change(tx, id, { state: to, problem: null });
      await enqueue(tx.knex, scope, job, id);
      await audit(tx, { act: to, subject: 'batch', subjectId: id, words: `${batch.name}: ${to}` });
    });
  }

  private whyNotTakeOut(batch: BatchRow): string | null {
    return ['done', 'stopped'].includes(batch.state) ? null : 'It has not been brought in.';
  }

  async rows(
    scope: AccessScope,
    id: number,
    query: RowsQuery & { after?: string; limit: number },
  ): Promise<Page<BatchRowView>> {
    const db = this.database.read(scope);
    const batch = await this.batch(db, id);
    const after = Number(decodeCursor(query.after, 1)?.[0] ?? 0);
    const { rows, total } = await this.batches.rows(db, id, query, after, query.limit);
    const last = rows.length === query.limit ? rows.at(-1)! : null;
    const { locale, currency } = await this.team.organization(scope);
    const facts = { rules: await this.houseRules.rules(db), now: Date.now() };
    const [meets, changes, writes] = await Promise.all([
      this.told.met(db, batch, rows),
      this.told.changes(db, batch, rows, { locale, currency }),
      this.told.writes(db, batch, rows, { locale, currency }, facts),
    ]);
    return {
      total,
      next: last ? encodeCursor([last.row_no]) : null,
      rows: rows.map((row) => ({
        row: row.row_no,
        verdict: row.verdict,
        firstName: row.first_name,
        lastName: row.last_name,
        email: row.email_shown,
        mobile: row.mobile_shown,
        reason: row.reason,
        hint: row.hint,
        why: row.why,
        candidates: row.candidates ?? [],
        supporterId: row.supporter_id === NO_SUPPORTER ? null : row.supporter_id,
        meets: meets.get(row.row_no) ?? null,
        changes: changes.get(row.row_no) ?? [],
        writes: writes.get(row.row_no) ?? null,
      })),
    };
  }

  /** The key of the batch's text, unless its file is gone. */
  private async fileKey(batch: BatchRow): Promise<string> {
    if (batch.file_gone_at) throw new Conflict(sentence('batch.file-deleted'));
    return batch.text_key ?? batch.storage_key;
  }

  private async lockedBatch(tx: Scoped, id: number): Promise<BatchRow> {
    const batch = await this.batches.lockForUpdate(tx, id);
    if (!batch) throw new NotFound('batch');
    return batch;
  }

  private async batch(db: Scoped, id: number): Promise<BatchRow> {
    const batch = await this.batches.find(db, id);
    if (!batch) throw new NotFound('batch');
    return batch;
  }
}

async function firstOf(path: string): Promise<Uint8Array> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(64 * 1024), 0, 64 * 1024, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

/**
 * New people go to a chapter of the organization, and to the one in which somebody works who works in one.
 */
function mayBringInto(scope: AccessScope, chapterId: number, known: ReadonlySet<number>): void {
  if (known.has(chapterId) && (scope.chapterId === null || scope.chapterId === chapterId)) return;
  throw new Invalid([{ field: 'chapterId', code: 'chapter', message: sentence('batch.chapter') }]);
}

function view(
  batch: BatchRow,
  counted: Pick<BatchView, 'counts' | 'looks' | 'withFaults' | 'withHints'>,
  canTakeOut: string | null,
): BatchView {
  return {
    id: batch.id,
    name: batch.name,
    fileName: batch.file_name,
    state: batch.state,
    what: batch.what,
    chapterId: batch.chapter_id,
    rows: batch.row_count,
    createdAt: batch.created_at.toISOString(),
    createdBy: batch.created_by_name ?? '',
    found: batch.found,
    plan: batch.plan,
    draft: batch.draft,
    draftVersion: batch.draft_version,
    ...counted,
    will: batch.will,
    stayNo: batch.stay_no,
    done: batch.next_row,
    total: batch.row_count,
    rate: batch.rate,
    problem: batch.problem,
    canTakeOut,
    fileKept: batch.file_gone_at === null,
    stayed: batch.stayed,
  };
}
