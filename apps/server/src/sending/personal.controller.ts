import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type PersonalVerdict,
  answers,
  type PersonalQuery,
  type PersonalMessageBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { PersonalService } from './personal.service';

@Controller('api/supporters/:id')
export class PersonalController {
  constructor(@Inject(PersonalService) private readonly personal: PersonalService) {}

  @Route('get', 'may-write', {
    role: 'viewer',
    summary: 'What a message to this person would meet now',
    params: schema.idParams,
    query: schema.personalQuery,
    answer: answers.personalVerdict,
  })
  verdict(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: PersonalQuery,
  ): Promise<PersonalVerdict> {
    return this.personal.verdict(scope, id, query);
  }

  @Route('post', 'messages', {
    role: 'organizer',
    summary: 'Write to this person alone, now',
    params: schema.idParams,
    body: schema.personalMessage,
    answer: answers.made,
  })
  @HttpCode(202)
  send(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: PersonalMessageBody,
  ): Promise<{ id: number }> {
    return this.personal.send(scope, id, body);
  }
}
