import { Controller, HttpCode, Inject } from '@nestjs/common';
import { answers, schema } from '@goodword/core/contract';
import type { SenderView } from '@goodword/core/contract';
import type { MailLimits, TextNumber } from '@goodword/core/delivery';
import { Caller, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { SenderService } from './sender.service';

/** As whom mail and texts go out: records, a mail sent through, the number. */
@Controller('api/sender')
export class SenderController {
  constructor(@Inject(SenderService) private readonly sender: SenderService) {}

  @Route('get', '', {
    role: 'organizer',
    summary: 'As whom mail and texts go out, with what was found last',
    answer: answers.senderView,
  })
  show(@Caller() scope: AccessScope): Promise<SenderView> {
    return this.sender.show(scope);
  }

  @Route('post', 'check', {
    role: 'organizer',
    summary: 'Look for every record anew',
    answer: answers.senderView,
  })
  @HttpCode(200)
  check(@Caller() scope: AccessScope): Promise<SenderView> {
    return this.sender.check(scope);
  }

  @Route('post', 'through', {
    role: 'organizer',
    summary: 'Send a mail to ourselves by way of the provider',
    answer: answers.senderView,
  })
  @HttpCode(200)
  through(@Caller() scope: AccessScope): Promise<SenderView> {
    return this.sender.sendThrough(scope);
  }

  @Route('put', 'limits', {
    role: 'owner',
    ofAll: true,
    summary: 'How much mail the provider takes, and how a new domain is made known',
    body: schema.saveMailLimits,
  })
  @HttpCode(204)
  limits(@Caller() scope: AccessScope, @Input('body') body: MailLimits): Promise<void> {
    return this.sender.saveLimits(scope, body);
  }

  @Route('put', 'number', {
    role: 'owner',
    ofAll: true,
    summary: 'What kind of number texts come from, how it is registered, and its rate',
    body: schema.saveTextNumber,
  })
  @HttpCode(204)
  number(@Caller() scope: AccessScope, @Input('body') body: TextNumber): Promise<void> {
    return this.sender.saveNumber(scope, body);
  }
}
