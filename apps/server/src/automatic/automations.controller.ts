import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  answers,
  schema,
  type AddAutomationStepBody,
  type AutomationLook,
  type AutomationLookQuery,
  type AutomationView,
  type AutomationWhole,
  type ChangeAutomationStepBody,
  type HeldVisitsBody,
  type MakeAutomationBody,
  type OnAutomationBody,
  type Page,
  type SaveAutomationBody,
  type SomeVisitsBody,
  type StepParams,
  type SwitchOnBody,
  type VisitRow,
  type VisitsQuery,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { AutomationsService } from './automations.service';
import { SwitchingService } from './switching.service';
import { WaitingService } from './waiting.service';

@Controller('api/automations')
export class AutomationsController {
  constructor(
    @Inject(AutomationsService) private readonly automations: AutomationsService,
    @Inject(SwitchingService) private readonly switching: SwitchingService,
    @Inject(WaitingService) private readonly waiting: WaitingService,
  ) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'Automatic messages',
    answer: answers.listOf(answers.automationView),
  })
  all(@Caller() scope: AccessScope): Promise<AutomationView[]> {
    return this.automations.all(scope);
  }

  @Route('post', '', {
    role: 'organizer',
    summary: 'Begin an automatic message',
    body: schema.makeAutomation,
    answer: answers.made,
  })
  make(@Caller() scope: AccessScope, @Input('body') body: MakeAutomationBody): Promise<{ id: number }> {
    return this.automations.make(scope, body);
  }

  @Route('get', ':id', {
    role: 'viewer',
    summary: 'An automatic message, whole',
    params: schema.idParams,
    answer: answers.automationWhole,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<AutomationWhole> {
    return this.automations.show(scope, id);
  }

  @Route('put', ':id', {
    role: 'organizer',
    summary: 'Change what sets it going, and what ends it; while it is off',
    params: schema.idParams,
    body: schema.saveAutomation,
    answer: answers.saved,
  })
  save(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SaveAutomationBody,
  ): Promise<{ version: number }> {
    return this.automations.save(scope, id, body);
  }

  @Route('delete', ':id', {
    role: 'organizer',
    summary: 'Delete one that was set going for nobody',
    params: schema.idParams,
  })
  @HttpCode(204)
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.automations.remove(scope, id);
  }

  @Route('post', ':id/steps', {
    role: 'organizer',
    summary: 'Add a message to it, with a draft of its own',
    params: schema.idParams,
    body: schema.addAutomationStep,
    answer: answers.made,
  })
  addStep(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: AddAutomationStepBody,
  ): Promise<{ id: number }> {
    return this.automations.addStep(scope, id, body);
  }

  @Route('put', ':id/steps/:stepId', {
    role: 'organizer',
    summary: 'Change how long one of its messages waits',
    params: schema.stepParams,
    body: schema.changeAutomationStep,
    answer: answers.saved,
  })
  changeStep(
    @Caller() scope: AccessScope,
    @Input('params') { id, stepId }: StepParams,
    @Input('body') body: ChangeAutomationStepBody,
  ): Promise<{ version: number }> {
    return this.automations.changeStep(scope, id, stepId, body);
  }

  @Route('delete', ':id/steps/:stepId', {
    role: 'organizer',
    summary: 'Take one of its messages out; its words stay as a draft',
    params: schema.stepParams,
  })
  @HttpCode(204)
  removeStep(@Caller() scope: AccessScope, @Input('params') { id, stepId }: StepParams): Promise<void> {
    return this.automations.removeStep(scope, id, stepId);
  }

  @Route('post', ':id/steps/:stepId/anew', {
    role: 'organizer',
    summary: 'Write one of its messages anew that has gone to somebody',
    params: schema.stepParams,
    answer: answers.made,
  })
  anew(@Caller() scope: AccessScope, @Input('params') { id, stepId }: StepParams): Promise<{ id: number }> {
    return this.automations.anew(scope, id, stepId);
  }

  @Route('get', ':id/look', {
    role: 'viewer',
    summary: 'What keeps it from being switched on, and to how many it happened lately',
    params: schema.idParams,
    query: schema.automationLookQuery,
    answer: answers.automationLook,
  })
  look(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') { days }: AutomationLookQuery,
  ): Promise<AutomationLook> {
    return this.switching.look(scope, id, days ?? 0);
  }

  @Route('post', ':id/on', {
    role: 'organizer',
    summary: 'Switch it on, with as many of before as were seen',
    params: schema.idParams,
    body: schema.switchOn,
  })
  @HttpCode(204)
  on(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: SwitchOnBody): Promise<void> {
    return this.switching.on(scope, id, body);
  }

  @Route('post', ':id/off', {
    role: 'organizer',
    summary: 'Switch it off; whoever waits waits',
    params: schema.idParams,
    body: schema.onAutomation,
  })
  @HttpCode(204)
  off(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { basedOn }: OnAutomationBody,
  ): Promise<void> {
    return this.switching.off(scope, id, basedOn);
  }

  @Route('get', ':id/people', {
    role: 'viewer',
    summary: 'Those for whom it was set going, by how it stands with them',
    params: schema.idParams,
    query: schema.visitsQuery,
    answer: answers.pageOf(answers.visitRow),
  })
  people(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: VisitsQuery,
  ): Promise<Page<VisitRow>> {
    return this.waiting.people(scope, id, query);
  }

  @Route('post', ':id/hurry', {
    role: 'organizer',
    summary: 'Some who wait get it now',
    params: schema.idParams,
    body: schema.someVisits,
    answer: answers.counted,
  })
  @HttpCode(200)
  hurry(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { ids }: SomeVisitsBody,
  ): Promise<{ people: number }> {
    return this.waiting.hurry(scope, id, ids);
  }

  @Route('post', ':id/take-out', {
    role: 'organizer',
    summary: 'Some who wait get nothing more of it',
    params: schema.idParams,
    body: schema.someVisits,
    answer: answers.counted,
  })
  @HttpCode(200)
  takeOut(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { ids }: SomeVisitsBody,
  ): Promise<{ people: number }> {
    return this.waiting.takeOut(scope, id, ids);
  }

  @Route('post', ':id/let-go', {
    role: 'organizer',
    summary: 'Those who wait for a look go, as many as were seen',
    params: schema.idParams,
    body: schema.heldVisits,
  })
  @HttpCode(204)
  letGo(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { people }: HeldVisitsBody,
  ): Promise<void> {
    return this.waiting.letGo(scope, id, people);
  }

  @Route('post', ':id/drop-held', {
    role: 'organizer',
    summary: 'None of those who wait for a look gets it, as many as were seen',
    params: schema.idParams,
    body: schema.heldVisits,
  })
  @HttpCode(204)
  dropHeld(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { people }: HeldVisitsBody,
  ): Promise<void> {
    return this.waiting.dropHeld(scope, id, people);
  }
}
