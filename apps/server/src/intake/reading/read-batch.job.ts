import { isDeepStrictEqual } from 'node:util';
import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../../platform/database';
import { HandlesJob, enqueue, type Running } from '../../platform/jobs';
import { STORAGE, type Storage } from '../../platform/storage';
import { FieldsRepository } from '../../supporters/fields.repository';
import { TeamRepository } from '../../team/team.repository';
import { BatchGuard } from '../batch-guard';
import { BatchesRepository } from '../batches.repository';
import { readThrough } from './text-reading';

/** `batch-read`: what the file is, how it is read, what its columns are. */
@Injectable()
export class ReadBatchJob {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(BatchGuard) private readonly guard: BatchGuard,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
  ) {}

  /** Reads the file through once: what it is, how it is read, what its columns are. */
  @HandlesJob('batch-read')
  async run(job: Running): Promise<void> {
    await this.guard.run(job, 'reading', async (scope, batch) => {
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
        // A plan may come before the file was read through; it is checked now that there is something to
        // check.
        if (now.plan)
          await enqueue(tx.knex, { ...scope, actorId: batch.created_by }, 'batch-check', batch.id);
        return true;
      });
      if (!kept && textKey !== batch.storage_key) await this.storage.remove(textKey);
    });
  }
}
