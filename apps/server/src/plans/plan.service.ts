import { Inject, Injectable } from '@nestjs/common';
import { momentOfStep, STEP_LIMITS, stepsInOrder } from '@goodword/core/campaigns';
import { isoDay, parseIsoDay } from '@goodword/core/common';
import type {
  AddStepBody,
  CampaignPlan,
  CampaignView,
  ChangeStepBody,
  SavePlanBody,
  StepView,
} from '@goodword/core/contract';
import { isHandedOver, type Purpose } from '@goodword/core/permission';
import { CampaignsRepository } from '../campaigns/campaigns.repository';
import { StepsRepository, type CampaignFrame, type StepRow } from '../campaigns/steps.repository';
import { ComposingService } from '../messages/composing.service';
import { MessagesRepository } from '../messages/messages.repository';
import { MessagesService } from '../messages/messages.service';
import { audit } from '../platform/audit';
import { nextVersion } from '../platform/versions';
import { Database } from '../platform/database';
import { Conflict, Invalid, Newer, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { sentence } from '../platform/words';
import { SegmentsService } from '../segments/segments.service';
import { TeamRepository } from '../team/team.repository';
import { PlanRepository } from './plan.repository';

/** What the messages of a campaign are about. */
const PURPOSE_OF: Record<CampaignView['kind'], Purpose> = {
  appeal: 'appeals',
  'thank-you': 'news',
  update: 'news',
};

/** A step with its moment by the house's clock. */
export type PlannedStep = StepRow & { id: number; at: Date | null };

/** How a campaign is to go: its first day, its goal, for whom it is over when, and its steps. */
@Injectable()
export class PlanService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
    @Inject(StepsRepository) private readonly steps: StepsRepository,
    @Inject(PlanRepository) private readonly plans: PlanRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(MessagesService) private readonly drafts: MessagesService,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  async show(scope: AccessScope, id: number): Promise<CampaignPlan> {
    const db = this.database.read(scope);
    const { campaign, frame } = await this.need(db, id);
    const goal = await this.plans.goal(db, id);
    const given = await this.plans.given(db, frame);
    return {
      version: campaign.version,
      firstDay: frame.firstDay === null ? null : isoDay(frame.firstDay),
      goal,
      reached: given[goal?.kind ?? 'money'],
      endsFor: [...frame.ends.causes],
      endsAt: [...frame.ends.stages],
      joinsFrom: frame.joinsFrom,
      steps: await this.views(scope, await this.inOrder(scope, frame)),
    };
  }

  /** The steps of a campaign in the order in which they leave, each with its moment. */
  async inOrder(scope: AccessScope, frame: CampaignFrame): Promise<PlannedStep[]> {
    const { time_zone: zone } = await this.team.organization(scope);
    const rows = await this.steps.all(this.database.read(scope), frame.campaignId);
    return stepsInOrder(rows.map((row) => ({ ...row, id: row.message_id }))).map((row) => ({
      ...row,
      at: frame.firstDay === null ? null : new Date(momentOfStep(frame.firstDay, row, zone)),
    }));
  }

  /** The campaign with what it says for its steps; throws for one that is not there. */
  async need(db: Scoped, id: number): Promise<{ campaign: CampaignView; frame: CampaignFrame }> {
    const [campaign, frame] = [await this.campaigns.find(db, id), await this.steps.frame(db, id)];
    if (!campaign || !frame) throw new NotFound('campaign');
    return { campaign, frame };
  }

  private async views(scope: AccessScope, steps: readonly PlannedStep[]): Promise<StepView[]> {
    const db = this.database.read(scope);
    const went = await this.steps.went(
      db,
      steps.map(({ id }) => id),
    );
    const words = await this.segments.wordsOf(
      scope,
      steps.map(({ rule }) => rule),
    );
    return Promise.all(
      steps.map(async (step, i) => ({
        messageId: step.id,
        version: step.group_version,
        name: step.name,
        channel: step.channel,
        state: step.state,
        day: step.day,
        minutes: step.minutes,
        ownTime: step.own_time === 1,
        at: step.at?.toISOString() ?? null,
        rule: step.rule,
        words: words[i]!,
        isReady: step.state !== 'draft' || (await this.isReady(scope, step)),
        went: went.get(step.id) ?? 0,
      })),
    );
  }

  private async isReady(scope: AccessScope, { id, channel }: PlannedStep): Promise<boolean> {
    const message = await this.messages.need(this.database.read(scope), id);
    if (message.tested_at === null && isHandedOver(channel)) return false;
    return (await this.composing.faults(scope, message)).length === 0;
  }

  /** What the campaign says for its steps. Its first day stays while a step is set going by it. */
  async save(scope: AccessScope, id: number, body: SavePlanBody): Promise<{ version: number }> {
    if (body.joinsFrom !== null) await this.segments.segment(scope, body.joinsFrom);
    return this.database.write(scope, async (tx) => {
      tx.unchanged();
      await this.plans.lock(tx, id);
      const { campaign, frame } = await this.need(tx, id);
      const firstDay = body.firstDay === null ? null : parseIsoDay(body.firstDay);
      const going = (await this.steps.all(tx, id)).filter(({ state }) => state === 'scheduled');
      if (firstDay !== frame.firstDay && going.length > 0)
        throw new Conflict(sentence('plan.day-stands', { name: going[0]!.name }));
      const unknown = body.endsAt.find((stage) => !campaign.stages.includes(stage));
      if (unknown !== undefined)
        throw new Invalid([
          {
            field: 'endsAt',
            code: 'stage',
            message: sentence('stage.expected', { stages: campaign.stages.join(', '), stage: unknown }),
          },
        ]);
      const version = await nextVersion(tx, 'campaign', id, body.basedOn, 'campaign');
      await this.plans.save(tx, id, {
        first_day: firstDay,
        goal_kind: body.goal?.kind ?? null,
        goal_amount: body.goal?.amount ?? null,
        goal_by: body.goal?.by ? parseIsoDay(body.goal.by) : null,
        ends_for: JSON.stringify(body.endsFor),
        ends_at: JSON.stringify(body.endsAt),
        joins_from: body.joinsFrom,
      });
      await audit(tx, 'change', { campaign: id }, `Plan of ${campaign.name} changed`);
      return { version };
    });
  }

  /** A step begins as a draft to the campaign's roster. */
  async add(
    scope: AccessScope,
    id: number,
    { name, channel, from, ...time }: AddStepBody,
  ): Promise<{ id: number }> {
    return this.database.write(scope, async (tx) => {
      tx.unchanged();
      const { campaign } = await this.need(tx, id);
      if ((await this.steps.all(tx, id)).length >= STEP_LIMITS.steps)
        throw new Conflict(sentence('plan.full', { most: STEP_LIMITS.steps }));
      const made = await this.drafts.begin(tx, { name, channel, purpose: PURPOSE_OF[campaign.kind], from });
      const recipients = { from: [{ kind: 'campaign', id }], minus: [], without: [] };
      await this.messages.change(tx, made, { recipients: JSON.stringify(recipients) });
      await this.steps.add(tx, id, made, time);
      await audit(tx, 'change', { campaign: id }, `Step ${name} added to ${campaign.name}`);
      return { id: made };
    });
  }

  async change(
    scope: AccessScope,
    id: number,
    stepId: number,
    step: ChangeStepBody,
  ): Promise<{ version: number }> {
    if (step.rule) await this.segments.count(scope, step.rule, false);
    return this.database.write(scope, async (tx) => {
      tx.unchanged();
      const { name } = await this.movable(tx, id, stepId);
      const message = (await this.messages.lock(tx, stepId))!;
      if (message.group_version !== step.basedOn)
        throw new Newer('the step', await this.team.nameOf(tx, message.changed_by));
      await this.steps.change(tx, stepId, step);
      // Another group than was looked at, and perhaps agreed to.
      const version = await this.messages.revise(tx, message, 'group_version', {});
      await audit(tx, 'change', { campaign: id }, `Step ${name} changed`);
      return { version };
    });
  }

  /** Takes a step out; its words stay as a draft to nobody. */
  async remove(scope: AccessScope, id: number, stepId: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      tx.unchanged();
      const { name } = await this.movable(tx, id, stepId);
      await this.steps.remove(tx, stepId);
      const message = (await this.messages.lock(tx, stepId))!;
      await this.messages.revise(tx, message, 'group_version', {
        recipients: JSON.stringify({ from: [], minus: [], without: [] }),
      });
      await audit(tx, 'change', { campaign: id }, `Step ${name} taken out; its words are a draft`);
    });
  }

  /** A step that has not been set going, its message locked. */
  private async movable(tx: Scoped, id: number, stepId: number): Promise<StepRow> {
    // Before anything is read, so that what was set going meanwhile is seen.
    await this.messages.lock(tx, stepId);
    await this.need(tx, id);
    const step = (await this.steps.all(tx, id)).find(({ message_id }) => message_id === stepId);
    if (!step) throw new NotFound('step');
    if (step.state === 'draft') return step;
    const why = step.state === 'scheduled' ? 'plan.going' : 'plan.left';
    throw new Conflict(sentence(why, { name: step.name }));
  }
}
