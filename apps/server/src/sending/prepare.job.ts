import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../platform/database';
import type { MessageState } from '@goodword/core/contract';
import { enqueue, HandlesJob, type JobKind, type Running } from '../platform/jobs';
import { ComposingService } from '../messages/composing.service';
import { isForHouseholds, MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { FallingOutRepository } from '../campaigns/falling-out.repository';
import { BesideService } from './beside.service';
import { RecipientsService } from './recipients.service';
import type { Scoped } from '../platform/scoped';
import { TeamRepository } from '../team/team.repository';
import { OwnTimeService } from './own-time.service';
import { RosterJoiningService } from './roster-joining.service';
import { SendingRepository, type NewDelivery } from './sending.repository';
import { LastLookService } from './last-look.service';
import { WordingsRepository } from '../wordings/wordings.repository';

const SLICE = 5000;
const HOUR_MS = 3_600_000;

/** What has its outbox is handed over; letters are laid out and posted by somebody, and calls made. */
const onceWritten = ({ channel }: MessageRow): { state: MessageState; then?: JobKind } => {
  if (channel === 'post') return { state: 'posting', then: 'message-letters' };
  return channel === 'call' ? { state: 'calling', then: 'message-calls' } : { state: 'sending' };
};

/** Whether some are kept without it. */
const isKeeping = ({ kept_share: share }: MessageRow) => share !== null;

/**
 * Freezes the group and writes the outbox slice by slice; after an interruption it goes on behind the last
 * slice.
 */
@Injectable()
export class PrepareJob {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(RecipientsService) private readonly recipients: RecipientsService,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(OwnTimeService) private readonly ownTimes: OwnTimeService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(LastLookService) private readonly looking: LastLookService,
    @Inject(RosterJoiningService) private readonly joining: RosterJoiningService,
    @Inject(FallingOutRepository) private readonly fallingOut: FallingOutRepository,
    @Inject(BesideService) private readonly beside: BesideService,
    @Inject(WordingsRepository) private readonly wordings: WordingsRepository,
  ) {}

  @HandlesJob('message-personal', 'message-prepare')
  async run(job: Running): Promise<void> {
    const { scope, refId } = job;
    const message = await this.messages.find(this.database.read(scope), refId);
    if (!message || !['scheduled', 'preparing'].includes(message.state)) return;
    if (message.prepared_to === 0) await this.freeze(job);
    const { time_zone: home } = await this.team.organization(scope);
    for (let after = message.prepared_to; ;) {
      if (await job.stopped()) return;
      const last = await this.database.writeUnlogged(scope, async (tx) => {
        const current = await this.messages.lock(tx, refId);
        if (current?.state !== 'preparing' || (await job.stopped())) return null;
        const written = await this.sending.prepareSlice(tx, refId, after, SLICE, {
          ...(await this.looking.asking(tx, current)),
          together: isForHouseholds(current),
          fellOf: (db: Scoped, ids: readonly number[]) => this.fallingOut.ofMessage(db, refId, ids),
          momentsOf: (db: Scoped, people: readonly NewDelivery[]) =>
            this.ownTimes.momentsOf(db, current, people, home),
        });
        if (written === null) return null;
        await this.messages.change(tx, refId, { prepared_to: written });
        return written;
      });
      if (last === null) return this.written(job);
      after = last;
    }
  }

  /**
   * What each has been written down for leaves. Some may be kept without it, by lot; where there are several
   * wordings, each is drawn for one.
   */
  private async written(job: Running): Promise<void> {
    const { scope, refId } = job;
    const message = await this.messages.need(this.database.read(scope), refId);
    const comparison = await this.wordings.comparison(this.database.read(scope), refId);
    const others = await this.wordings.beside(this.database.read(scope), refId);
    const underLock = <T>(act: (tx: Scoped, message: MessageRow) => Promise<T>): Promise<T | null> =>
      this.database.writeUnlogged(scope, async (tx) => {
        const current = await this.messages.lock(tx, refId);
        return current?.state !== 'preparing' || (await job.stopped()) ? null : act(tx, current);
      });
    for (let after: number | null = isKeeping(message) ? 0 : null; after !== null;) {
      const from: number = after;
      after = await underLock((tx, current) => this.sending.keepSlice(tx, current, from));
    }
    if (comparison && others.length > 0)
      for (let after: number | null = 0; after !== null;) {
        const from: number = after;
        after = await underLock((tx) => this.wordings.drawSlice(tx, refId, comparison, others, from));
      }
    await underLock(async (tx, message) => {
      const { state, then } = onceWritten(message);
      await this.messages.change(tx, refId, { state });
      await this.beside.follow(tx, message, ['preparing'], 'sending');
      if (then) await enqueue(tx.knex, scope, then, refId);
      if (comparison && others.length > 0)
        await enqueue(
          tx.knex,
          scope,
          'message-decide',
          refId,
          new Date(Date.now() + comparison.hours * HOUR_MS),
        );
    });
  }

  private async freeze(job: Running): Promise<void> {
    const message = (await this.messages.find(this.database.read(job.scope), job.refId))!;
    await this.joining.fill(job.scope, job.refId);
    // Sent "now": those who were looked at, and nobody who came into the group since. At a time: the group as
    // it is then.
    const counted = message.scheduled_at === null && message.personal_to === null;
    const ids = counted
      ? await this.sending.lookedAt(this.database.read(job.scope), job.refId)
      : (await this.recipients.parted(job.scope, message)).ids;
    const { composed } = await this.composing.compose(job.scope, message);
    const linksOf = new Map<number, readonly string[]>();
    for (const other of await this.beside.of(this.database.read(job.scope), message))
      linksOf.set(other.id, (await this.composing.compose(job.scope, other)).composed.links);
    await this.database.writeUnlogged(job.scope, async (tx) => {
      const current = await this.messages.lock(tx, job.refId);
      if (!current || !['scheduled', 'preparing'].includes(current.state)) return;
      // Taken back and scheduled anew meanwhile, perhaps for others: that is for the job that was set going
      // then.
      if (await job.stopped()) return;
      await this.sending.freezeGroup(tx, job.refId, ids);
      await this.messages.keepLinks(tx, job.refId, composed.links);
      for (const [other, links] of linksOf) await this.messages.keepLinks(tx, other, links);
      await this.messages.change(tx, job.refId, { state: 'preparing', started_at: new Date() });
      await this.beside.follow(tx, { id: job.refId }, ['scheduled'], 'preparing');
    });
  }
}
