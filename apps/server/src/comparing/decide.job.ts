import { Inject, Injectable } from '@nestjs/common';
import { MessagesRepository } from '../messages/messages.repository';
import { Database } from '../platform/database';
import { enqueue, HandlesJob, type Running } from '../platform/jobs';
import { BesideService } from '../sending/beside.service';
import { WordingsRepository } from '../wordings/wordings.repository';
import { decidesAt, TriedService } from './tried.service';

/** Decides which wording the rest gets once it is time, and lets them go with it. */
@Injectable()
export class DecideJob {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(WordingsRepository) private readonly wordings: WordingsRepository,
    @Inject(BesideService) private readonly beside: BesideService,
    @Inject(TriedService) private readonly tried: TriedService,
  ) {}

  @HandlesJob('message-decide')
  async run(job: Running): Promise<void> {
    const { scope, refId } = job;
    const chosen = await this.chosen(job);
    if (chosen === null) return;
    for (let went = 1; went > 0 && !(await job.stopped());)
      went = await this.database.writeUnlogged(scope, async (tx) => {
        const first = await this.messages.lock(tx, refId);
        if (first?.state !== 'sending' && first?.state !== 'paused') return 0;
        const other = chosen === refId ? undefined : await this.messages.lock(tx, chosen);
        // Stopped for good meanwhile, it writes to nobody more: the rest gets the first.
        const released = await this.wordings.release(tx, refId, other?.state === 'stopped' ? refId : chosen);
        // Its own part had left already: it goes out once more, or waits with the first.
        if (released > 0 && other?.state === 'done')
          await this.messages.change(tx, chosen, { state: first.state });
        return released;
      });
  }

  /** Which wording the rest gets; null while it is not time, or where nobody waits. */
  private async chosen({ scope, refId }: Running): Promise<number | null> {
    const db = this.database.read(scope);
    const comparison = await this.wordings.comparison(db, refId);
    if (!comparison) return null;
    if (comparison.chosen_id !== null) return comparison.chosen_id;
    const underway = await this.wordings.underway(db, refId);
    if (underway.rest === 0) return null;
    const at = decidesAt(underway, comparison.hours, Date.now());
    if (at.getTime() > Date.now()) {
      await this.database.writeUnlogged(scope, (tx) => enqueue(tx.knex, scope, 'message-decide', refId, at));
      return null;
    }
    const others = (await this.beside.of(db, { id: refId })).filter(({ state }) => state !== 'stopped');
    const ids = [refId, ...others.map(({ id }) => id)];
    const { found } = await this.tried.of(db, ids, comparison);
    await this.database.writeUnlogged(scope, (tx) =>
      this.wordings.decide(tx, refId, ids[found.chosen]!, null),
    );
    return (await this.wordings.comparison(db, refId))?.chosen_id ?? null;
  }
}
