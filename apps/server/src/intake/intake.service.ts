import { Inject, Injectable } from '@nestjs/common';
import { open } from 'node:fs/promises';
import { dayInZone, isoDay, said } from '@goodword/core/common';
import type { IntakeDraft } from '@goodword/core/contract';
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
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid, Newer, NotFound } from '../platform/errors';
import { cancel, enqueue } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { TeamRepository } from '../team/team.repository';
import { BatchesRepository, whyNotTakeOut, type BatchRow } from './batches.repository';
import { PlanFaultsService } from './checking/plan-faults.service';
import { FieldsRepository } from '../supporters/fields.repository';
import { TakeOutRepository } from './taking-out/take-out.repository';
import { sentence } from '../platform/words';
import { BatchViewsService } from './batch-views.service';

const MAY_CHANGE = ['draft', 'checked', 'failed', 'checking'];

/** What is done to a batch: taken in, planned, checked, brought in, stopped, taken back out, discarded. */
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
    @Inject(BatchViewsService) private readonly views: BatchViewsService,
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

  /** Marks a batch that came in as looked at, so that Today no longer tells of it. */
  async seen(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.batches.need(tx, id);
      if (batch.state === 'done') await this.batches.change(tx, id, { seen_at: new Date() });
    });
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
      await this.views.fileKey(batch);
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
  async plan(scope: AccessScope, id: number, { feed: _feed, ...asked }: IntakePlan): Promise<void> {
    const [{ time_zone }, chapters] = await Promise.all([
      this.team.organization(scope),
      this.team.chapters(scope),
    ]);
    const known = new Set(chapters.map((chapter) => chapter.id));
    await this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.lockedBatch(tx, id);
      if (![...MAY_CHANGE, 'reading'].includes(batch.state)) throw new Conflict(sentence('batch.in-plan'));
      const plan = {
        ...withKnownFields(asked, await this.fields.all(tx), nameKey),
        ...(batch.plan?.feed ? { feed: batch.plan.feed } : {}),
      };
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
    const batch = await this.batches.need(this.database.read(scope), id);
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
    const why = whyNotTakeOut(await this.batches.need(this.database.read(scope), id));
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
    await this.batches.need(db, id);
    return { staying: await this.taker.countStaying(db, id) };
  }

  /** Throws a batch away that never came in. */
  async discard(scope: AccessScope, id: number): Promise<void> {
    const { storage_key, text_key } = await this.database.writeUnlogged(scope, async (tx) => {
      const batch = await this.lockedBatch(tx, id);
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
      await audit(tx, to, { batch: id }, `${batch.name}: ${to}`);
    });
  }

  private async lockedBatch(tx: Scoped, id: number): Promise<BatchRow> {
    const batch = await this.batches.lockForUpdate(tx, id);
    if (!batch) throw new NotFound('batch');
    if (batch.feed_run_id !== null) throw new Conflict(sentence('batch.of-feed'));
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
