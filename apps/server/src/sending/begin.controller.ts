import { Controller, Inject } from '@nestjs/common';
import { schema, answers, type BeginToBody } from '@goodword/core/contract';
import { Caller, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { RecipientsService } from './recipients.service';

@Controller('api/messages-to')
export class BeginController {
  constructor(@Inject(RecipientsService) private readonly recipients: RecipientsService) {}

  @Route('post', '', {
    role: 'organizer',
    summary: 'Begin a message to a group: one by its id, or people who were chosen',
    body: schema.beginTo,
    answer: answers.made,
  })
  begin(@Caller() scope: AccessScope, @Input('body') body: BeginToBody): Promise<{ id: number }> {
    return this.recipients.begin(scope, body);
  }
}
