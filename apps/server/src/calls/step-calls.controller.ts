import { Controller, HttpCode, Inject } from '@nestjs/common';
import { answers, schema, type StepCalls } from '@goodword/core/contract';
import { Caller, Id, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { StepCallsService } from './step-calls.service';

/** Calls of a step. */
@Controller('api/messages/:id/calls')
export class StepCallsController {
  constructor(@Inject(StepCallsService) private readonly calls: StepCallsService) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'The lists that the calls of a step are made by, and how many are still to be called',
    params: schema.idParams,
    answer: answers.stepCalls,
  })
  view(@Caller() scope: AccessScope, @Id() id: number): Promise<StepCalls> {
    return this.calls.view(scope, id);
  }

  @Route('post', 'over', {
    role: 'organizer',
    summary: 'Say that nobody more is called for the step',
    params: schema.idParams,
  })
  @HttpCode(204)
  over(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.calls.over(scope, id);
  }
}
