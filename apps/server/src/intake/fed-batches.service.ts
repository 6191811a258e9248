import { Inject, Injectable } from '@nestjs/common';
import type { BatchState } from '@goodword/core/contract';
import { withKnownFields, type FileFindings, type IntakePlan, type RowVerdict } from '@goodword/core/intake';
import { nameKey } from '@goodword/core/merge';
import { speak } from '@goodword/core/words';
import { Conflict } from '../platform/errors';
import { enqueue } from '../platform/jobs';
import type { Scoped } from '../platform/scoped';
import { STORAGE, type Storage } from '../platform/storage';
import { FieldsRepository } from '../supporters/fields.repository';
import { BatchesRepository, whyNotTakeOut } from './batches.repository';
import { PlanFaultsService } from './checking/plan-faults.service';
import { StagedRowsRepository } from './staged-rows.repository';

/** A batch that a feed makes: its rows as a table of our own, and what is known of them already. */
export interface FedBatch {
  /** The run that it is; null of one that a person goes on with. */
  runId: number | null;
  chapterId: number;
  /** Its people are looked for in all chapters. */
  across: boolean;
  name: string;
  header: string[];
  rows: number;
  storageKey: string;
  plan: IntakePlan;
  /** Rows of which it is known whom they are, counted from 1. */
  known: readonly { rowNo: number; supporterId: number }[];
}

/** Batches that are made and brought in by feeds, by the same work as those of files. */
@Injectable()
export class FedBatchesService {
  constructor(
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(StagedRowsRepository) private readonly staged: StagedRowsRepository,
    @Inject(PlanFaultsService) private readonly faults: PlanFaultsService,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
  ) {}

  /** What no longer holds of a plan: a list or field that has gone, and the like. */
  async faultsOf(db: Scoped, plan: IntakePlan): Promise<string[]> {
    return (await this.faults.of(db, plan)).map(({ said }) => speak(said));
  }

  /** Makes the batch as one that is being checked. Its file is ours, so nothing is guessed of it. */
  async make(tx: Scoped, batch: FedBatch): Promise<number> {
    const { name, header, rows, storageKey, chapterId } = batch;
    const plan = withKnownFields(batch.plan, await this.fields.all(tx), nameKey);
    const id = await this.batches.make(tx, { chapterId, name, fileName: `${name}.csv`, storageKey });
    const found: FileFindings = {
      ...{ kind: 'text', encoding: 'utf-8', sure: true, delimiter: ',', headerLine: 1, titles: [], header },
      ...{ rows, unscramble: false, asides: { blank: 0, header: 0, total: 0 }, longer: 0, shorter: 0 },
      doubled: [],
    };
    await this.batches.change(tx, id, {
      ...{
        state: 'checking',
        what: 'people',
        text_key: storageKey,
        row_count: rows,
        across: Number(batch.across),
      },
      ...{ plan: JSON.stringify(plan), found: JSON.stringify(found), feed_run_id: batch.runId },
    });
    await this.staged.settleAs(tx, id, batch.known);
    return id;
  }

  /** Lets a checked batch be brought in. */
  async bring(tx: Scoped, id: number): Promise<void> {
    const batch = await this.batches.lockForUpdate(tx, id);
    if (batch?.state !== 'checked') throw new Conflict(batch?.problem ?? '');
    await this.batches.change(tx, id, { state: 'bringing', problem: null });
  }

  /** Takes a run back out as any batch is. */
  async takeOut(tx: Scoped, id: number): Promise<void> {
    const batch = await this.batches.lockForUpdate(tx, id);
    const why = batch ? whyNotTakeOut(batch) : null;
    if (!batch || why) throw new Conflict(why ?? '');
    await this.batches.change(tx, id, { state: 'taking-out', problem: null });
    await enqueue(tx.knex, tx.scope, 'batch-take-out', id);
  }

  async stands(db: Scoped, id: number): Promise<{ state: BatchState; problem: string | null; upTo: number }> {
    const { state, problem, next_row } = await this.batches.need(db, id);
    return { state, problem, upTo: next_row };
  }

  async counts(db: Scoped, id: number): Promise<Partial<Record<RowVerdict, number>>> {
    return (await this.batches.counts(db, id)).counts;
  }

  /** Has a batch checked as one of a file is, for a person to go on with. */
  async check(tx: Scoped, id: number): Promise<void> {
    await enqueue(tx.knex, tx.scope, 'batch-check', id);
  }

  /** Where the table of a batch lies. */
  async tableOf(db: Scoped, id: number): Promise<string> {
    return (await this.batches.need(db, id)).storage_key;
  }

  /** Rows that wait for a look, as they stand in the table of the batch. */
  async looked(db: Scoped, id: number): Promise<number[]> {
    return this.staged.rowNosOf(db, id, 'look');
  }

  /** Throws the batch of a trial away. */
  async discard(tx: Scoped, id: number): Promise<void> {
    const batch = await this.batches.find(tx, id);
    if (!batch || !['checked', 'draft', 'failed', 'checking'].includes(batch.state)) return;
    await this.batches.remove(tx, id);
    await this.storage.remove(batch.storage_key);
  }
}
