import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type CallAnswer,
  type CallListView,
  type CallRow,
  type CallWho,
  type MakeCallList,
  type Page,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { CallsService } from './calls.service';

@Controller('api/calls')
export class CallsController {
  constructor(@Inject(CallsService) private readonly calls: CallsService) {}

  @Route('get', '', { role: 'organizer', summary: 'Lists of people to call' })
  all(@Caller() scope: AccessScope): Promise<CallListView[]> {
    return this.calls.all(scope);
  }

  @Route('post', '', {
    role: 'organizer',
    summary: 'Make a list of people to call, in their order',
    body: schema.makeCallList,
  })
  make(@Caller() scope: AccessScope, @Input('body') body: MakeCallList): Promise<{ id: number }> {
    return this.calls.make(scope, body);
  }

  @Route('get', ':id', {
    role: 'organizer',
    summary: 'How far a list is called through',
    params: schema.idParams,
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
  })
  people(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: { after: number; limit: number; who: CallWho },
  ): Promise<Page<CallRow>> {
    return this.calls.people(scope, id, query);
  }

  @Route('put', ':id/people/:position', {
    role: 'organizer',
    summary: 'What came of one call',
    params: schema.callParams,
    body: schema.answerCall,
  })
  answer(
    @Caller() scope: AccessScope,
    @Input('params') params: { id: number; position: number },
    @Input('body') body: CallAnswer,
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
