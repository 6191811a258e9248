import { Controller, HttpCode, Inject } from '@nestjs/common';
import {
  schema,
  type AheadQuery,
  type AheadView,
  type LastLook,
  type Overlap,
  type ProofsView,
  type Page,
  type ReaderView,
  type SupporterRow,
  answers,
  type AgreeToLookBody,
  type OwnTimesQuery,
  type OwnTimesView,
  type ReadersQuery,
  type SaveRecipientsBody,
  type SuppressedQuery,
  type SendMessageBody,
  type SendTestBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import type { AccessScope } from '../platform/scope';
import { ReadersService } from './readers.service';
import { ProofsService } from './proofs.service';
import { TestSendingService } from './test-sending.service';
import { AheadService } from './ahead.service';
import { OwnTimeService } from './own-time.service';
import { SendingService } from './sending.service';
import { LastLookService } from './last-look.service';
import { OverlapService } from './overlap.service';

@Controller('api/messages/:id')
export class SendingController {
  constructor(
    @Inject(SendingService) private readonly sending: SendingService,
    @Inject(ReadersService) private readonly readers: ReadersService,
    @Inject(LastLookService) private readonly looking: LastLookService,
    @Inject(ProofsService) private readonly proofs: ProofsService,
    @Inject(AheadService) private readonly ahead: AheadService,
    @Inject(OwnTimeService) private readonly ownTimes: OwnTimeService,
    @Inject(TestSendingService) private readonly tests: TestSendingService,
    @Inject(OverlapService) private readonly overlaps: OverlapService,
  ) {}

  @Route('get', 'readers', {
    role: 'viewer',
    summary: 'Whom the message can be read as: those who would get it first',
    params: schema.idParams,
    query: schema.readersQuery,
    answer: answers.listOf(answers.readerView),
  })
  readAs(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: ReadersQuery,
  ): Promise<ReaderView[]> {
    return this.readers.of(scope, id, query.search);
  }

  @Route('post', 'proofs', {
    role: 'writer',
    summary: 'Look through everybody who would get it, for those it is worth reading it as',
    params: schema.idParams,
  })
  @HttpCode(202)
  beginProofs(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.proofs.begin(scope, id);
  }

  @Route('get', 'proofs', {
    role: 'viewer',
    summary: 'What was found, or how far it is',
    params: schema.idParams,
    answer: answers.proofsShown,
  })
  proofsOf(@Caller() scope: AccessScope, @Id() id: number): Promise<ProofsView> {
    return this.proofs.view(scope, id);
  }

  @Route('put', 'recipients', {
    role: 'organizer',
    summary: 'Choose who is in the group',
    params: schema.idParams,
    body: schema.saveRecipients,
    answer: answers.saved,
  })
  saveRecipients(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SaveRecipientsBody,
  ): Promise<{ version: number }> {
    return this.sending.saveRecipients(scope, id, body);
  }

  @Route('post', 'second', {
    role: 'organizer',
    summary: 'Agree to what the last look says, so that another may send it',
    params: schema.idParams,
    body: schema.agreeToLook,
  })
  @HttpCode(204)
  second(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') { digest }: AgreeToLookBody,
  ): Promise<void> {
    return this.looking.second(scope, id, digest);
  }

  @Route('post', 'last-look', {
    role: 'writer',
    summary: 'Count the group down to those who will get it',
    params: schema.idParams,
    answer: answers.lastLook,
  })
  @HttpCode(200)
  lastLook(@Caller() scope: AccessScope, @Id() id: number): Promise<LastLook> {
    return this.looking.lastLook(scope, id);
  }

  @Route('get', 'last-look/overlap', {
    role: 'writer',
    summary: 'Who of those that it reaches also gets what is planned',
    params: schema.idParams,
    answer: answers.listOf(answers.overlap),
  })
  overlap(@Caller() scope: AccessScope, @Id() id: number): Promise<Overlap[]> {
    return this.overlaps.of(scope, id);
  }

  @Route('get', 'last-look/ahead', {
    role: 'writer',
    summary: 'What is to come for those that it reaches, until it has left',
    params: schema.idParams,
    query: schema.aheadQuery,
    answer: answers.aheadView,
  })
  aheadOf(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') { at, ownTime, spreadHours }: AheadQuery,
  ): Promise<AheadView> {
    return this.ahead.of(scope, id, {
      at: at ? new Date(at) : null,
      ownTime,
      spreadHours: spreadHours ?? null,
    });
  }

  @Route('get', 'last-look/people', {
    role: 'writer',
    summary: 'The people behind a number of the last look',
    params: schema.idParams,
    query: schema.suppressedQuery,
    answer: answers.pageOf(answers.supporterRow),
  })
  people(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: SuppressedQuery,
  ): Promise<Page<SupporterRow>> {
    return this.looking.lookPeople(scope, id, query);
  }

  @Route('post', 'test', {
    role: 'writer',
    summary: 'Send it as a test: to oneself, or to those on a list who agreed to it',
    params: schema.idParams,
    body: schema.sendTest,
    answer: answers.sentTo,
  })
  @HttpCode(200)
  test(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SendTestBody,
  ): Promise<{ to: string }> {
    return this.tests.test(scope, id, body);
  }

  @Route('get', 'own-times', {
    role: 'organizer',
    summary: 'When a time comes to those of the last look, where they are',
    params: schema.idParams,
    query: schema.ownTimesQuery,
    answer: answers.ownTimesView,
  })
  ownTimesOf(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') { at }: OwnTimesQuery,
  ): Promise<OwnTimesView> {
    return this.ownTimes.of(scope, id, new Date(at));
  }

  @Route('post', 'send', {
    role: 'organizer',
    summary: 'Send now or at a time',
    params: schema.idParams,
    body: schema.sendMessage,
  })
  @HttpCode(202)
  send(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: SendMessageBody): Promise<void> {
    return this.sending.send(scope, id, { ...body, at: body.at === null ? null : new Date(body.at) });
  }

  @Route('post', 'unschedule', {
    role: 'organizer',
    summary: 'Take it back from its schedule',
    params: schema.idParams,
  })
  @HttpCode(204)
  unschedule(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.sending.unschedule(scope, id);
  }

  @Route('post', 'pause', { role: 'organizer', summary: 'Pause the sending', params: schema.idParams })
  @HttpCode(204)
  pause(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.sending.pause(scope, id);
  }

  @Route('post', 'resume', { role: 'organizer', summary: 'Go on sending', params: schema.idParams })
  @HttpCode(204)
  resume(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.sending.resume(scope, id);
  }

  @Route('post', 'stop', {
    role: 'organizer',
    summary: 'Stop for good; what has left has left',
    params: schema.idParams,
  })
  @HttpCode(204)
  stop(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.sending.stop(scope, id);
  }
}
