import { Inject, Injectable } from '@nestjs/common';
import type { PathStep } from '@goodword/core/contract';
import type { Fall } from '@goodword/core/campaigns';
import { FALL_WORDS, heldBackWords, verdictWords } from '@goodword/core/words';
import { FallingOutRepository } from '../campaigns/falling-out.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { MessagesRepository } from '../messages/messages.repository';
import { Database } from '../platform/database';
import { NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';
import { SegmentsService } from '../segments/segments.service';
import { cameWords, lastVerdict } from '../sending/came';
import { eligibilityQueryOf } from '../sending/last-look.service';
import { RecipientsService } from '../sending/recipients.service';
import { SendingRepository } from '../sending/sending.repository';
import { SupportersRepository } from '../supporters/supporters.repository';
import { PlanRepository, type DeliveryOfPerson } from './plan.repository';
import { PlanService, type PlannedStep } from './plan.service';

/** How a campaign reaches one person: what came of its steps at them, and what would come of the others. */
@Injectable()
export class PathService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PlanService) private readonly plan: PlanService,
    @Inject(PlanRepository) private readonly plans: PlanRepository,
    @Inject(FallingOutRepository) private readonly fallingOut: FallingOutRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(RecipientsService) private readonly recipients: RecipientsService,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
  ) {}

  async of(scope: AccessScope, id: number, supporterId: number): Promise<PathStep[]> {
    const db = this.database.read(scope);
    const { frame } = await this.plan.need(db, id);
    if (!(await this.supporters.find(db, supporterId))) throw new NotFound('supporter');
    const steps = await this.plan.inOrder(scope, frame);
    const came = await this.plans.cameTo(
      db,
      supporterId,
      steps.map((step) => step.id),
    );
    const fall = (await this.fallingOut.of(db, frame, [supporterId])).get(supporterId) ?? null;
    return Promise.all(
      steps.map((step) => {
        const delivery = came.get(step.id);
        return delivery ? cameOf(step, delivery) : this.ahead(scope, step, supporterId, fall);
      }),
    );
  }

  /** What a step would meet at them, were it now. */
  private async ahead(
    scope: AccessScope,
    step: PlannedStep,
    supporterId: number,
    fall: Fall | null,
  ): Promise<PathStep> {
    const path = (verdict: PathStep['verdict'], words: string): PathStep => ({
      ...{ messageId: step.id, at: step.at?.toISOString() ?? null, came: null, verdict, fall, words },
    });
    const db = this.database.read(scope);
    if (!['draft', 'scheduled', 'preparing'].includes(step.state))
      return path('not-meant', sentence('path.was-not-meant'));
    if (fall) return path('fell-out', heldBackWords('fell-out', step.channel, FALL_WORDS[fall]));
    const message = await this.messages.need(db, step.id);
    const rule = await this.recipients.ruleOfMessage(scope, message);
    const [meant] = await this.segments.among(scope, [rule], [supporterId]);
    if (!meant!.has(supporterId) || message.recipients.without.includes(supporterId))
      return path('not-meant', sentence('path.not-meant'));
    const asking = eligibilityQueryOf(message, await this.houseRules.rules(db));
    const { decision } = await this.sending.decisionOf(db, supporterId, asking);
    return path(decision.verdict, verdictWords(decision.verdict, step.channel));
  }
}

function cameOf(step: PlannedStep, delivery: DeliveryOfPerson): PathStep {
  const at = delivery.sent_at ?? delivery.not_before ?? step.at;
  const verdict = lastVerdict(delivery);
  return {
    ...{ messageId: step.id, at: at?.toISOString() ?? null, verdict, fall: null },
    came: delivery.state,
    words: cameWords(delivery, step.channel),
  };
}
