import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../../platform/database';
import { HandlesJob, type Running } from '../../platform/jobs';
import { BatchGuard } from '../batch-guard';
import { BatchesRepository } from '../batches.repository';
import { TakeOutRepository } from './take-out.repository';

/** `batch-take-out`: what a batch brought in goes again, person by person. */
@Injectable()
export class TakeOutJob {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(BatchGuard) private readonly guard: BatchGuard,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(TakeOutRepository) private readonly taker: TakeOutRepository,
  ) {}

  @HandlesJob('batch-take-out')
  async run(job: Running): Promise<void> {
    await this.guard.run(job, 'taking-out', async (scope, batch) => {
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
}
