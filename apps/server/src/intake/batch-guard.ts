import { Inject, Injectable } from '@nestjs/common';
import type { BatchState } from '@goodword/core/contract';
import { Unreadable } from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { Database } from '../platform/database';
import { isLostConnection } from '../platform/database-errors';
import type { Running } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import { BatchesRepository, type BatchRow } from './batches.repository';

/** Where a batch stands after work on it failed: the step before, from which a person can go on. */
const BACK_TO: Partial<Record<BatchState, BatchState>> = {
  reading: 'unreadable',
  checking: 'draft',
  bringing: 'stopped',
  'taking-out': 'done',
  checked: 'checked',
};

/**
 * What every piece of work on a batch begins and ends with. Each goes on from what is committed, however it
 * was interrupted.
 */
@Injectable()
export class BatchGuard {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
  ) {}

  /**
   * Runs the work when the batch still waits for it; a fault of the file ends the batch with its sentence.
   */
  async run(
    job: Running,
    state: string,
    work: (scope: AccessScope, batch: BatchRow) => Promise<void>,
  ): Promise<void> {
    const batch = await this.batches.find(this.database.read({ ...job.scope, chapterId: null }), job.refId);
    if (batch?.state !== state || (state !== 'reading' && !batch.plan)) return;
    const scope = { ...job.scope, chapterId: batch.chapter_id };
    try {
      await work(scope, batch);
    } catch (error) {
      if (
        error instanceof Superseded ||
        (state === 'checking' && !isLostConnection(error) && (await job.stopped()))
      )
        return;
      // A lost connection leaves the job to be taken up again; anything else would only fail again.
      if (isLostConnection(error)) throw error;
      const words =
        error instanceof Unreadable
          ? speak(error.said)
          : `It could not go on: ${(error as { sqlMessage?: string }).sqlMessage ?? (error as Error).message}`;
      await this.database.writeUnlogged(scope, (tx) =>
        this.batches.change(tx, batch.id, {
          problem: words.slice(0, 500),
          state: BACK_TO[batch.state] ?? 'draft',
        }),
      );
    }
  }
}

/** A newer job has taken the place of this one. */
class Superseded extends Error {}

/**
 * Throws, and so rolls back, where somebody asked for something else meanwhile or this process holds the job
 * no longer.
 */
export async function stillAsked(job: Running): Promise<void> {
  if (await job.stopped()) throw new Superseded();
}
