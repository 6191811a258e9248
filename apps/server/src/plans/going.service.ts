import { Inject, Injectable } from '@nestjs/common';
import { howManyGet } from '@goodword/core/campaigns';
import type { CampaignExpected, CampaignLook, SetGoingBody } from '@goodword/core/contract';
import { MessagesRepository } from '../messages/messages.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';
import { LastLookService, suppressedOf } from '../sending/last-look.service';
import { RosterJoiningService } from '../sending/roster-joining.service';
import { SendingService } from '../sending/sending.service';
import { PlanRepository } from './plan.repository';
import { PlanService, type PlannedStep } from './plan.service';

/** Steps that a person can still get. */
const isAhead = ({ state }: PlannedStep) => state === 'draft' || state === 'scheduled';

/** A campaign as it would go now, looked at over all its steps, and set going. */
@Injectable()
export class GoingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PlanService) private readonly plan: PlanService,
    @Inject(PlanRepository) private readonly plans: PlanRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(LastLookService) private readonly looking: LastLookService,
    @Inject(SendingService) private readonly sending: SendingService,
    @Inject(RosterJoiningService) private readonly joining: RosterJoiningService,
  ) {}

  /** How many each step that has not left would come to now, and how many people get how many of them. */
  async expected(scope: AccessScope, id: number): Promise<CampaignExpected> {
    const { frame } = await this.plan.need(this.database.read(scope), id);
    const everybody = new Set<number>();
    const [steps, sets]: [CampaignExpected['steps'], Uint32Array[]] = [[], []];
    for (const step of (await this.plan.inOrder(scope, frame)).filter(isAhead)) {
      const message = await this.messages.need(this.database.read(scope), step.id);
      // Whoever sees those of one chapter sees how many of them it would come to.
      const own = { ...scope, chapterId: message.chapter_id ?? scope.chapterId };
      const { ids, groups } = await this.looking.narrowed(own, message);
      const send = groups.send ?? new Uint32Array();
      for (const one of ids) everybody.add(one);
      sets.push(send);
      steps.push({
        messageId: step.id,
        group: ids.length,
        reached: send.length,
        suppressed: suppressedOf(groups),
      });
    }
    return { steps, gets: howManyGet(everybody, sets) };
  }

  /** The last look at every step that is not set going. */
  async look(scope: AccessScope, id: number): Promise<CampaignLook> {
    const { frame } = await this.plan.need(this.database.read(scope), id);
    const steps: CampaignLook['steps'] = [];
    for (const step of await this.plan.inOrder(scope, frame))
      if (step.state === 'draft')
        steps.push({ messageId: step.id, look: await this.looking.lastLook(scope, step.id) });
    return { steps, gets: (await this.expected(scope, id)).gets };
  }

  /** Sets the steps going that were looked at, each at its time: all of them, or none. */
  async go(scope: AccessScope, id: number, { looks }: SetGoingBody): Promise<void> {
    const { campaign, frame } = await this.plan.need(this.database.read(scope), id);
    const steps = new Map((await this.plan.inOrder(scope, frame)).map((step) => [step.id, step]));
    if (frame.firstDay === null) throw new Conflict(sentence('plan.no-day'));
    const going: Awaited<ReturnType<SendingService['readied']>>[] = [];
    for (const { messageId, digest } of looks) {
      const step = steps.get(messageId);
      if (!step) throw new NotFound('step');
      if (step.at!.getTime() <= Date.now()) throw new Conflict(sentence('plan.past', { name: step.name }));
      going.push(
        await this.sending.readied(scope, messageId, {
          ...{ at: step.at, ownTime: step.own_time === 1, spreadHours: null, keptShare: null, digest },
        }),
      );
    }
    await this.database.writeUnlogged(scope, async (tx) => {
      // By the day that the steps were given their moments from.
      if ((await this.plans.lock(tx, id)) !== campaign.version)
        throw new Conflict(sentence('send.look-again'));
      for (const leaves of going) await leaves(tx);
      await audit(tx, 'send', { campaign: id }, `${campaign.name}: ${looks.length} steps set going`);
    });
    await this.joining.fillOf(scope, frame);
  }
}
