import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type MessageResults,
  type Page,
  type ReplyView,
  type ResultPerson,
  answers,
  type ResultPeopleQuery,
  type SettleBody,
  type HandledBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { ResultsRepository } from './results.repository';
import { ResultsService } from './results.service';

@Controller('api')
export class ResultsController {
  constructor(
    @Inject(ResultsService) private readonly results: ResultsService,
    @Inject(ResultsRepository) private readonly repository: ResultsRepository,
    @Inject(Database) private readonly database: Database,
  ) {}

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

  @Route('get', 'replies', {
    role: 'viewer',
    summary: 'Replies, open ones first',
    answer: answers.listOf(answers.replyView),
  })
  replies(@Caller() scope: AccessScope): Promise<ReplyView[]> {
    return this.repository.replies(this.database.read(scope));
  }

  @Route('post', 'replies/:id/handled', {
    role: 'organizer',
    summary: 'Put a reply aside, or take it up again',
    params: schema.idParams,
    body: schema.handled,
  })
  @HttpCode(204)
  handled(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: HandledBody): Promise<void> {
    return this.results.handleReply(scope, id, body.handled);
  }
}
