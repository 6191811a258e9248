import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type CallListView,
  type CallRow,
  type Page,
  answers,
  type MakeCallListBody,
  type CallPeopleQuery,
  type CallParams,
  type AnswerCallBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { CallsService } from './calls.service';

@Controller('api/calls')
export class CallsController {
  constructor(@Inject(CallsService) private readonly calls: CallsService) {}

  @Route('get', '', {
    role: 'organizer',
    summary: 'Lists of people to call',
    answer: answers.listOf(answers.callListView),
  })
  all(@Caller() scope: AccessScope): Promise<CallListView[]> {
    return this.calls.all(scope);
  }

  @Route('post', '', {
    role: 'organizer',
    summary: 'Make a list of people to call, in their order',
    body: schema.makeCallList,
    answer: answers.made,
  })
  make(@Caller() scope: AccessScope, @Input('body') body: MakeCallListBody): Promise<{ id: number }> {
    return this.calls.make(scope, body);
  }

  @Route('get', ':id', {
    role: 'organizer',
    summary: 'How far a list is called through',
    params: schema.idParams,
    answer: answers.callListView,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<CallListView> {
    return this.calls.show(scope, id);
  }

  @Route('get', ':id/people', {
    role: 'organizer',
    summary:
      'Its people after a place; who=may for those who may be called, who=open for those still to be, who=again for those not reached',
    params: schema.idParams,
    query: schema.callPeople,
    answer: answers.pageOf(answers.callRow),
  })
  people(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: CallPeopleQuery,
  ): Promise<Page<CallRow>> {
    return this.calls.people(scope, id, query);
  }

  @Route('put', ':id/people/:position', {
    role: 'organizer',
    summary: 'What came of one call',
    params: schema.callParams,
    body: schema.answerCall,
    answer: answers.callRow,
  })
  answer(
    @Caller() scope: AccessScope,
    @Input('params') params: CallParams,
    @Input('body') body: AnswerCallBody,
  ): Promise<CallRow> {
    return this.calls.answer(scope, params.id, params.position, body);
  }

  @Route('delete', ':id', {
    role: 'organizer',
    summary: 'Delete a list; what was answered stays on the records',
    params: schema.idParams,
  })
  @HttpCode(204)
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.calls.remove(scope, id);
  }
}
