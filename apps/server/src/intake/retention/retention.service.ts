import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../../platform/database';
import { rowsOf } from '../../platform/scoped';
import { programScope } from '../../platform/scope';
import { STORAGE, type Storage } from '../../platform/storage';
import { BatchesRepository } from '../batches.repository';

const EVERY_MS = 3_600_000;

/** Deletes the files of batches after the time set in Setup; what came of them stays. */
@Injectable()
export class RetentionService {
  private next = 0;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
  ) {}

  /** One round an hour over all organizations; false when it was not yet time. */
  async round(now = Date.now()): Promise<boolean> {
    if (now < this.next) return false;
    this.next = now + EVERY_MS;
    const organizations = await rowsOf(this.database.unscoped(), 'organization').select('id');
    for (const { id } of organizations) {
      const scope = programScope(id);
      for (const batch of await this.batches.stale(this.database.read(scope)))
        await this.forget(scope, batch);
      await this.forgetChanges(scope);
    }
    return false;
  }

  /**
   * Whoever keeps columns and has not looked for half a day reads everything anew, so that older entries
   * serve nobody.
   */
  private async forgetChanges(scope: ReturnType<typeof programScope>): Promise<void> {
    const forget = () =>
      this.database.writeUnlogged(scope, (tx) =>
        tx.execute(
          `DELETE
            FROM change_log
            WHERE organization_id = :org AND at < UTC_TIMESTAMP(3) - INTERVAL 1 DAY
            LIMIT 10000`,
        ),
      );
    while ((await forget()) === 10_000);
  }

  /** The mark comes last: after a crash in between the files are removed once more, which does nothing. */
  private async forget(
    scope: ReturnType<typeof programScope>,
    batch: { id: number; storage_key: string; text_key: string | null },
  ): Promise<void> {
    for (const key of new Set([batch.storage_key, batch.text_key])) if (key) await this.storage.remove(key);
    await this.database.writeUnlogged(scope, (tx) =>
      this.batches.change(tx, batch.id, { file_gone_at: new Date() }),
    );
  }
}
