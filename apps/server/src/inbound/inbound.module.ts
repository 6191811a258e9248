import { Module } from '@nestjs/common';
import { FormsModule } from '../forms/forms.module';
import { MessagesModule } from '../messages/messages.module';
import { PermissionModule } from '../permission/permission.module';
import { RepliesModule } from '../replies/replies.module';
import { SenderModule } from '../sender/sender.module';
import { SendingModule } from '../sending/sending.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { TodayModule } from '../today/today.module';
import { UnsubscribeModule } from '../unsubscribe/unsubscribe.module';
import { AnswersService } from './answers.service';
import { BouncesService } from './bounces.service';
import { ComplaintsService } from './complaints.service';
import { InboundRepository } from './inbound.repository';
import { MailInService } from './mail-in.service';
import { MailReader } from './mail-reader';
import { PostmasterService } from './postmaster.service';
import { SmppInService } from './smpp-in.service';
import { TextAnswersController } from './text-answers.controller';
import { TextAnswersService } from './text-answers.service';
import { TextsController } from './texts.controller';
import { TextsService } from './texts.service';

@Module({
  imports: [
    MessagesModule,
    RepliesModule,
    PermissionModule,
    SenderModule,
    SendingModule,
    SupportersModule,
    UnsubscribeModule,
    FormsModule,
    TodayModule,
    TeamModule,
  ],
  controllers: [TextsController, TextAnswersController],
  providers: [
    TextsService,
    TextAnswersService,
    AnswersService,
    ComplaintsService,
    BouncesService,
    InboundRepository,
    MailInService,
    PostmasterService,
    SmppInService,
    { provide: MailReader, useFactory: () => new MailReader() },
  ],
})
export class InboundModule {}
