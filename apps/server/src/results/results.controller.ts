import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type MessageResults,
  type Page,
  type ResultPerson,
  answers,
  type ResultPeopleQuery,
  type SettleBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { ResultsService } from './results.service';

@Controller('api')
export class ResultsController {
  constructor(@Inject(ResultsService) private readonly results: ResultsService) {}

  @Route('get', 'messages/:id/results', {
    role: 'viewer',
    summary: 'What came of a message',
    params: schema.idParams,
    answer: answers.messageResults,
  })
  of(@Caller() scope: AccessScope, @Id() id: number): Promise<MessageResults> {
    return this.results.of(scope, id);
  }

  @Route('get', 'messages/:id/results/people', {
    role: 'viewer',
    summary: 'The people behind a number',
    params: schema.idParams,
    query: schema.resultPeople,
    answer: answers.pageOf(answers.resultPerson),
  })
  people(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: ResultPeopleQuery,
  ): Promise<Page<ResultPerson>> {
    return this.results.people(scope, id, query);
  }

  @Route('post', 'deliveries/:id/settle', {
    role: 'organizer',
    summary: 'Settle an unsure delivery',
    params: schema.idParams,
    body: schema.settle,
  })
  @HttpCode(204)
  settle(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: SettleBody): Promise<void> {
    return this.results.settle(scope, id, body.as);
  }
}
