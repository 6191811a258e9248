import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  answers,
  schema,
  type AddStepBody,
  type CampaignExpected,
  type CampaignLook,
  type PathStep,
  type CampaignPlan,
  type ChangeStepBody,
  type PathQuery,
  type SavePlanBody,
  type SetGoingBody,
  type StepParams,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { GoingService } from './going.service';
import { PathService } from './path.service';
import { PlanService } from './plan.service';

@Controller('api/campaigns/:id')
export class PlanController {
  constructor(
    @Inject(PlanService) private readonly plan: PlanService,
    @Inject(GoingService) private readonly going: GoingService,
    @Inject(PathService) private readonly path: PathService,
  ) {}

  @Route('get', 'plan', {
    role: 'viewer',
    summary: 'How a campaign is to go, with its steps',
    params: schema.idParams,
    answer: answers.campaignPlan,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<CampaignPlan> {
    return this.plan.show(scope, id);
  }

  @Route('put', 'plan', {
    role: 'organizer',
    summary: 'Change its first day, its goal, and for whom it is over when',
    params: schema.idParams,
    body: schema.savePlan,
    answer: answers.saved,
  })
  save(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SavePlanBody,
  ): Promise<{ version: number }> {
    return this.plan.save(scope, id, body);
  }

  @Route('post', 'steps', {
    role: 'organizer',
    summary: 'Add a step, with a draft of its own',
    params: schema.idParams,
    body: schema.addStep,
    answer: answers.made,
  })
  add(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: AddStepBody,
  ): Promise<{ id: number }> {
    return this.plan.add(scope, id, body);
  }

  @Route('put', 'steps/:stepId', {
    role: 'organizer',
    summary: 'Change when a step leaves, and for whom of the roster',
    params: schema.stepParams,
    body: schema.changeStep,
    answer: answers.saved,
  })
  change(
    @Caller() scope: AccessScope,
    @Input('params') { id, stepId }: StepParams,
    @Input('body') body: ChangeStepBody,
  ): Promise<{ version: number }> {
    return this.plan.change(scope, id, stepId, body);
  }

  @Route('delete', 'steps/:stepId', {
    role: 'organizer',
    summary: 'Take a step out; its words stay as a draft',
    params: schema.stepParams,
  })
  @HttpCode(204)
  remove(@Caller() scope: AccessScope, @Input('params') { id, stepId }: StepParams): Promise<void> {
    return this.plan.remove(scope, id, stepId);
  }

  @Route('get', 'plan/expected', {
    role: 'viewer',
    summary: 'How many each step would come to now',
    params: schema.idParams,
    answer: answers.campaignExpected,
  })
  expected(@Caller() scope: AccessScope, @Id() id: number): Promise<CampaignExpected> {
    return this.going.expected(scope, id);
  }

  @Route('post', 'plan/look', {
    role: 'organizer',
    summary: 'The last look at all steps that are not set going',
    params: schema.idParams,
    answer: answers.campaignLook,
  })
  @HttpCode(200)
  look(@Caller() scope: AccessScope, @Id() id: number): Promise<CampaignLook> {
    return this.going.look(scope, id);
  }

  @Route('post', 'plan/go', {
    role: 'organizer',
    summary: 'Set the steps going that were looked at',
    params: schema.idParams,
    body: schema.setGoing,
  })
  @HttpCode(202)
  go(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: SetGoingBody): Promise<void> {
    return this.going.go(scope, id, body);
  }

  @Route('get', 'plan/path', {
    role: 'viewer',
    summary: 'How it reaches one person',
    params: schema.idParams,
    query: schema.pathQuery,
    answer: answers.listOf(answers.pathStep),
  })
  pathOf(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') { supporterId }: PathQuery,
  ): Promise<PathStep[]> {
    return this.path.of(scope, id, supporterId);
  }
}
