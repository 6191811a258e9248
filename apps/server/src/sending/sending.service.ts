import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { MessageState, Recipients } from '@goodword/core/contract';
import { goStanding, hasItsGo, hasSecond, wantsSecond } from '@goodword/core/team';
import { isHandedOver, UNDO_SECONDS } from '@goodword/core/permission';
import { StepsRepository } from '../campaigns/steps.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped, rowsOf } from '../platform/scoped';
import { Conflict, Invalid, Newer } from '../platform/errors';
import { cancel, enqueue } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import { TeamRepository } from '../team/team.repository';
import { ComposingService } from '../messages/composing.service';
import { goOf, MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { DeliveryFaultsRepository } from './delivery-faults.repository';
import { OwnTimeService } from './own-time.service';
import { BesideService } from './beside.service';
import { RecipientsService } from './recipients.service';
import { SendingRepository } from './sending.repository';
import { sentence } from '../platform/words';
import { LastLookService } from './last-look.service';
import { chapterOfMessage, movable } from './movable';
import { digestOf, sameVersion, secondOf } from './last-look.service';

/** When it is to leave, and the look that was seen. */
interface SendWhen {
  at: Date | null;
  ownTime: boolean;
  spreadHours: number | null;
  /** Of a hundred so many are kept without it, by lot. */
  keptShare: number | null;
  digest: string;
}

/** A message on its way: its recipients, sent, planned, paused, gone on with, stopped. */
@Injectable()
export class SendingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(RecipientsService) private readonly recipients: RecipientsService,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(LastLookService) private readonly looking: LastLookService,
    @Inject(OwnTimeService) private readonly ownTimes: OwnTimeService,
    @Inject(DeliveryFaultsRepository) private readonly faults: DeliveryFaultsRepository,
    @Inject(StepsRepository) private readonly steps: StepsRepository,
    @Inject(BesideService) private readonly beside: BesideService,
  ) {}

  /** Returns the version of the group that this made. */
  async saveRecipients(
    scope: AccessScope,
    id: number,
    { basedOn, ...recipients }: Recipients & { basedOn: number },
  ): Promise<{ version: number }> {
    await this.recipients.rule(scope, recipients);
    const step = await this.steps.of(this.database.read(scope), id);
    const isRoster = ({ from, chosen = [] }: Recipients) =>
      chosen.length === 0 &&
      from.length === 1 &&
      from[0]!.kind === 'campaign' &&
      from[0]!.id === step!.campaignId;
    if (step && !isRoster(recipients))
      throw new Conflict(sentence('send.step-group', { campaign: step.name }));
    return this.database.writeUnlogged(scope, async (tx) => {
      const message = await movable(this.messages, tx, scope, id, ['draft']);
      if (message.automation_id !== null) throw new Conflict(sentence('send.automatic'));
      if (message.wording_of !== null) throw new Conflict(sentence('send.wording'));
      if (message.group_version !== basedOn)
        throw new Newer('who gets it', await this.team.nameOf(tx, message.changed_by));
      return {
        version: await this.messages.revise(tx, message, 'group_version', {
          recipients: JSON.stringify(recipients),
        }),
      };
    });
  }

  /**
   * Sends to those who were counted, now (and not before the time of taking it back is over), or to the group
   * as it will be at a time. The look that was seen is named by its digest; where anything of it is different
   * now, nothing leaves.
   */
  async send(scope: AccessScope, id: number, when: SendWhen): Promise<void> {
    const step = await this.steps.of(this.database.read(scope), id);
    if (step) throw new Conflict(sentence('send.step', { campaign: step.name }));
    const leaves = await this.readied(scope, id, when);
    await this.database.writeUnlogged(scope, leaves);
  }

  /**
   * Looks at all that has to hold before a message may leave, and gives what sets it going: several of them
   * go in one transaction, or none.
   */
  async readied(scope: AccessScope, id: number, when: SendWhen): Promise<(tx: Scoped) => Promise<void>> {
    const message = await this.messages.need(this.database.read(scope), id);
    const chapterScope = chapterOfMessage(scope, message);
    if (message.automation_id !== null) throw new Conflict(sentence('send.automatic'));
    if (message.wording_of !== null) throw new Conflict(sentence('send.wording'));
    const others = await this.beside.of(this.database.read(scope), message);
    if (message.state === 'draft') await this.readyToSend(chapterScope, message);
    if (when.at !== null && when.at.getTime() <= Date.now())
      throw new Invalid([{ field: 'at', code: 'past', message: sentence('send.past') }]);
    const { undoSeconds = UNDO_SECONDS, secondAbove = 0 } = await this.houseRules.rules(
      this.database.read(scope),
    );
    const about = await this.looking.aboutOf(chapterScope, message);
    const asks = await this.beside.asks(this.database.read(scope), message);
    // Where it comes to somebody before it comes to the house, it begins then.
    const ownTime = when.ownTime && when.at !== null && isHandedOver(message.channel);
    const first = ownTime ? await this.ownTimes.begins(chapterScope, id, when.at!) : null;
    return async (tx) => {
      const locked = await movable(this.messages, tx, scope, id, ['draft']);
      const look = await this.sending.lookBytes(tx, id);
      if (look.length === 0) throw new Conflict(sentence('send.look-first'));
      if (!sameVersion(locked, message) || digestOf(about, look) !== when.digest)
        throw new Conflict(sentence('send.look-again'));
      await this.beside.lockAs(tx, others, message);
      const reached = (await this.sending.lookCounts(tx, id)).get('send') ?? 0;
      if (reached === 0) throw new Conflict(sentence('send.nobody'));
      this.agreedTo(scope, locked, { reached, asks }, secondAbove);
      const undone = isHandedOver(message.channel) ? undoSeconds : 0;
      // Where it is over already for some, they get it at once: but not before it can be taken back.
      const begins = first ? new Date(Math.max(first.getTime(), Date.now() + undone * 1000)) : when.at;
      const waits = when.at === null && undone > 0 ? new Date(Date.now() + undone * 1000) : null;
      await this.messages.change(tx, id, {
        state: when.at !== null || waits ? 'scheduled' : 'preparing',
        scheduled_at: when.at,
        own_time: Number(ownTime),
        spread_hours: isHandedOver(message.channel) ? when.spreadHours : null,
        ...keeping(isHandedOver(message.channel) ? when.keptShare : null),
        leaves_at: waits,
        sender_id: locked.sender_id ?? scope.actorId,
        prepared_to: 0,
      });
      await this.beside.follow(tx, message, ['draft'], 'scheduled');
      await enqueue(
        tx.knex,
        { ...scope, chapterId: message.chapter_id },
        'message-prepare',
        id,
        begins ?? waits ?? new Date(),
      );
      await audit(
        tx,
        'send',
        { message: id },
        `${message.name} ${when.at ? 'scheduled' : 'sent'} for ${reached}`,
      );
    };
  }

  /** What asks, and what goes to many, leaves only when somebody else agreed to what is still so. */
  private agreedTo(
    scope: AccessScope,
    message: MessageRow,
    found: { reached: number; asks: readonly string[] },
    above: number,
  ): void {
    const { said, asked } = secondOf(scope, message, found);
    if (hasSecond(said, asked, above)) return;
    const { reached, asks } = found;
    if (wantsSecond(found, above) === 'asks')
      throw new Conflict(sentence('send.service-asks', { asks: asks.join('”, “') }));
    throw new Conflict(
      said.by !== null && said.by !== scope.actorId
        ? sentence('send.second-changed', { said: said.reached, reached })
        : sentence('send.second-many', { reached, above }),
    );
  }

  private async readyToSend(scope: AccessScope, message: MessageRow): Promise<void> {
    const faults = [
      ...(await this.composing.faults(scope, message)),
      ...(await this.beside.faults(scope, message)),
    ];
    if (faults.length > 0)
      throw new Conflict(
        sentence('send.not-ready', { faults: faults.map((fault) => fault.message).join(' ') }),
      );
    if (!hasItsGo(goStanding(goOf(message), message.version))) throw new Conflict(sentence('send.no-go'));
    // A letter is read on paper before it is posted, and a script before somebody is called.
    if (!message.tested_at && isHandedOver(message.channel)) throw new Conflict(sentence('send.test-first'));
  }

  async unschedule(scope: AccessScope, id: number): Promise<void> {
    await this.move(scope, id, ['scheduled'], 'draft', async (tx) => {
      await cancel(tx.knex, 'message-prepare', id);
      await rowsOf(tx.knex, 'job').where({ kind: 'message-prepare', ref_id: id, state: 'waiting' }).delete();
      await this.messages.change(tx, id, {
        ...{ scheduled_at: null, leaves_at: null, own_time: 0, spread_hours: null },
        ...keeping(null),
      });
      await this.beside.follow(tx, { id }, ['scheduled'], 'draft');
    });
  }

  async pause(scope: AccessScope, id: number): Promise<void> {
    await this.move(scope, id, ['sending'], 'paused', (tx) =>
      this.beside.follow(tx, { id }, ['sending'], 'paused'),
    );
  }

  async resume(scope: AccessScope, id: number): Promise<void> {
    await this.move(scope, id, ['paused'], 'sending', async (tx) => {
      await this.messages.change(tx, id, { paused_why: null, resumed_at: new Date() });
      await this.faults.forget(tx, id);
      await this.beside.follow(tx, { id }, ['paused'], 'sending');
    });
  }

  async stop(scope: AccessScope, id: number): Promise<void> {
    const from = ['preparing', 'posting', 'calling', 'sending', 'paused'] as const;
    await this.move(scope, id, from, 'stopped', async (tx) => {
      await this.beside.follow(tx, { id }, ['scheduled', ...from], 'stopped');
      for (const one of [{ id }, ...(await this.beside.of(tx, { id }))])
        await this.sending.stopReady(tx, one.id);
    });
  }

  private async move(
    scope: AccessScope,
    id: number,
    from: readonly MessageState[],
    to: MessageState,
    also?: (tx: Scoped) => Promise<unknown>,
  ): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const message = await movable(this.messages, tx, scope, id, from);
      await this.messages.change(tx, id, { state: to });
      await also?.(tx);
      await audit(tx, to, { message: id }, `${message.name}: ${to}`, { before: message.state, after: to });
    });
  }
}

/** What is kept of the choice that some get none: each message has a draw of its own. */
const keeping = (share: number | null) => ({
  kept_share: share,
  kept_seed: share === null ? null : randomBytes(4).readUInt32BE(),
});
