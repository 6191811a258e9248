import { Inject, Injectable } from '@nestjs/common';
import { coerce, type FieldValue } from '@goodword/core/fields';
import { isBirth } from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { isLostConnection } from '../platform/database-errors';
import { NotFound } from '../platform/errors';
import { HandlesJob, type Running } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { PrintService } from '../print/print.service';
import { ErasureService } from '../supporters/erasure.service';
import { FieldsRepository } from '../supporters/fields.repository';
import { TeamRepository, typedIn } from '../team/team.repository';
import { setActOf, tellChanged, type SetAct } from './acts';
import { BulkRepository, type BulkRow } from './bulk.repository';
import { ExportService } from './export.service';

/** People whom one transaction changes. */
const SLICE = 20_000;
/** People who are erased before it is said how far it is. */
const ERASED_AT_ONCE = 100;

/**
 * Does an act to its people, slice by slice; each commits with how far it is, so it goes on where it was cut
 * off.
 */
@Injectable()
export class BulkJobs {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(BulkRepository) private readonly bulks: BulkRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(ErasureService) private readonly erasure: ErasureService,
    @Inject(ExportService) private readonly exports: ExportService,
    @Inject(PrintService) private readonly prints: PrintService,
  ) {}

  @HandlesJob('bulk-act')
  async act(job: Running): Promise<void> {
    await this.guarded(job, ['waiting', 'running'], async (scope, bulk) => {
      await this.database.writeUnlogged(scope, (tx) => this.bulks.change(tx, bulk.id, { state: 'running' }));
      if (bulk.act.do === 'export') return this.export(scope, bulk, bulk.act);
      if (bulk.act.do === 'print') return this.print(scope, bulk, bulk.act);
      const set = await this.setAct(scope, bulk);
      const ended = set
        ? await this.slices(job, scope, bulk, async (tx, from, to) => {
            await this.bulks.holdPeople(tx, bulk.id, from, to);
            await set.apply(tx, { bulkId: bulk.id, from, to });
          })
        : await this.eraseAll(job, scope, bulk);
      await this.end(scope, bulk.id, ended ? 'done' : 'stopped');
    });
  }

  @HandlesJob('bulk-undo')
  async undo(job: Running): Promise<void> {
    await this.guarded(job, ['undoing'], async (scope, bulk) => {
      const undo = (await this.setAct(scope, bulk))?.undo;
      if (!undo) throw new Error('it is of a kind that is not taken back');
      const ended = await this.slices(job, scope, bulk, (tx, from, to) =>
        undo(tx, { bulkId: bulk.id, from, to }),
      );
      if (ended) await this.end(scope, bulk.id, 'undone');
    });
  }

  /** Goes through the people after one; false when somebody stopped it. */
  private async slices(
    job: Running,
    scope: AccessScope,
    bulk: BulkRow,
    work: (tx: Scoped, from: number, to: number) => Promise<void>,
    {
      size = SLICE,
      before = async () => {},
    }: { size?: number; before?: (from: number, to: number) => Promise<void> } = {},
  ): Promise<boolean> {
    for (let [from, done] = [bulk.next_id, bulk.done]; ;) {
      if (await job.stopped()) return false;
      const slice = await this.bulks.sliceEnd(this.database.read(scope), bulk.id, from, size);
      if (!slice) return true;
      done += slice.people;
      const [begin, end] = [from, slice.last];
      await before(begin, end);
      await this.database.write(
        scope,
        async (tx) => {
          await work(tx, begin, end);
          tellChanged(tx, bulk.act, await this.bulks.ids(tx, bulk.id, begin, end, true));
          await this.bulks.change(tx, bulk.id, { next_id: end, done });
        },
        'read committed',
      );
      from = slice.last;
    }
  }

  private async setAct(scope: AccessScope, bulk: BulkRow): Promise<SetAct | null> {
    return setActOf(bulk.act, await this.valueOf(scope, bulk), this.ledger);
  }

  private async valueOf(scope: AccessScope, { act }: BulkRow): Promise<FieldValue | null> {
    if (act.do !== 'field' || act.text.trim() === '') return null;
    const field = (await this.fields.all(this.database.read(scope))).find((one) => one.id === act.fieldId);
    if (!field) throw new Error('the field is no longer there');
    const coerced = coerce(field.type, act.text, {
      ...typedIn(await this.team.organization(scope)),
      born: isBirth(field),
    });
    if (!coerced.ok) throw new Error(`${field.name}: ${speak(coerced.reason)}`);
    return coerced.value;
  }

  /**
   * One person at a time, each in a transaction of its own: what has to be blanked differs from one to the
   * next.
   */
  private eraseAll(job: Running, scope: AccessScope, bulk: BulkRow): Promise<boolean> {
    const before = async (from: number, to: number) => {
      const ids = await this.bulks.ids(this.database.read(scope), bulk.id, from, to);
      for (const id of ids) await this.erasure.erase(scope, id).catch(ifGone);
    };
    return this.slices(job, scope, bulk, (tx, from, to) => this.bulks.markAll(tx, bulk.id, from, to), {
      size: ERASED_AT_ONCE,
      before,
    });
  }

  private async export(
    scope: AccessScope,
    bulk: BulkRow,
    act: Extract<BulkRow['act'], { do: 'export' }>,
  ): Promise<void> {
    const ids = await this.bulks.ids(this.database.read(scope), bulk.id, 0, Number.MAX_SAFE_INTEGER);
    const file = await this.exports.make(scope, act, ids, (done) =>
      this.database.writeUnlogged(scope, (tx) => this.bulks.change(tx, bulk.id, { done })),
    );
    const key = await this.storage.put(file.bytes);
    await this.database.writeUnlogged(scope, (tx) =>
      this.bulks.change(tx, bulk.id, { file_key: key, file_name: file.name, done: ids.length }),
    );
    await this.end(scope, bulk.id, 'done');
  }

  /** Who is on the paper counts as changed; the others are held back. */
  private async print(
    scope: AccessScope,
    bulk: BulkRow,
    act: Extract<BulkRow['act'], { do: 'print' }>,
  ): Promise<void> {
    const ids = await this.bulks.ids(this.database.read(scope), bulk.id, 0, Number.MAX_SAFE_INTEGER);
    const file = await this.prints.make(scope, act, ids);
    const key = await this.storage.put(file.bytes);
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.bulks.mark(tx, bulk.id, file.on);
      await this.bulks.change(tx, bulk.id, {
        file_key: key,
        file_name: file.name.slice(-140),
        told: file.told.slice(0, 500),
        done: ids.length,
      });
    });
    await this.end(scope, bulk.id, 'done');
  }

  private async end(scope: AccessScope, id: number, state: 'done' | 'stopped' | 'undone'): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const changed = await this.bulks.countChanged(tx, id);
      await this.bulks.change(tx, id, {
        state,
        ended_at: new Date(),
        ...(state === 'undone' ? {} : { changed }),
      });
    });
  }

  private async guarded(
    job: Running,
    states: string[],
    work: (scope: AccessScope, bulk: BulkRow) => Promise<void>,
  ): Promise<void> {
    const bulk = await this.bulks.find(this.database.read(job.scope), job.refId);
    if (!bulk || !states.includes(bulk.state)) return;
    const scope: AccessScope = { ...job.scope, actorId: bulk.made_by };
    try {
      await work(scope, bulk);
    } catch (error) {
      if (isLostConnection(error)) throw error;
      const problem = `It could not go on: ${(error as Error).message}`.slice(0, 500);
      await this.database.writeUnlogged(scope, (tx) =>
        this.bulks.change(tx, bulk.id, { state: 'failed', problem, ended_at: new Date() }),
      );
    }
  }
}

/** Somebody erased meanwhile is what was wanted. */
function ifGone(error: unknown): void {
  if (!(error instanceof NotFound)) throw error;
}
