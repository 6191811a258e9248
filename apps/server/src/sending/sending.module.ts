import { Module } from '@nestjs/common';
import { AutomationsModule } from '../automations/automations.module';
import { LimitsModule } from '../limits/limits.module';
import { MessagesModule } from '../messages/messages.module';
import { PermissionModule } from '../permission/permission.module';
import { RecordModule } from '../record/record.module';
import { ResultsModule } from '../results/results.module';
import { RostersModule } from '../campaigns/rosters.module';
import { RollModule } from '../roll/roll.module';
import { RepliesModule } from '../replies/replies.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { WordingsModule } from '../wordings/wordings.module';
import { EnvelopeService } from './envelope.service';
import { OutboxRepository } from './outbox.repository';
import { BesideService } from './beside.service';
import { ByHandRepository } from './by-hand.repository';
import { BeginController } from './begin.controller';
import { PersonalController } from './personal.controller';
import { PersonalService } from './personal.service';
import { ProofsJob } from './proofs.job';
import { ProofsRepository } from './proofs.repository';
import { ProofsService } from './proofs.service';
import { DeliveryFaultsRepository } from './delivery-faults.repository';
import { OwnTimeService } from './own-time.service';
import { PrepareJob } from './prepare.job';
import { RosterJoiningService } from './roster-joining.service';
import { SendingController } from './sending.controller';
import { ReadersService } from './readers.service';
import { RecipientsService } from './recipients.service';
import { SendingRepository } from './sending.repository';
import { TestSendingService } from './test-sending.service';
import { SendingService } from './sending.service';
import { LastLookService } from './last-look.service';
import { AheadRepository } from './ahead.repository';
import { AheadService } from './ahead.service';
import { OverlapService } from './overlap.service';
import { LeasesRepository } from './leases.repository';

@Module({
  imports: [
    AutomationsModule,
    LimitsModule,
    MessagesModule,
    PermissionModule,
    RecordModule,
    RepliesModule,
    ResultsModule,
    RollModule,
    RostersModule,
    SegmentsModule,
    SupportersModule,
    TeamModule,
    WordingsModule,
  ],
  controllers: [SendingController, BeginController, PersonalController],
  providers: [
    BesideService,
    ByHandRepository,
    SendingService,
    TestSendingService,
    LastLookService,
    AheadRepository,
    AheadService,
    OverlapService,
    ReadersService,
    RecipientsService,
    PersonalService,
    SendingRepository,
    OutboxRepository,
    DeliveryFaultsRepository,
    LeasesRepository,
    EnvelopeService,
    OwnTimeService,
    RosterJoiningService,
    PrepareJob,
    ProofsJob,
    ProofsRepository,
    ProofsService,
  ],
  exports: [
    BesideService,
    ByHandRepository,
    OutboxRepository,
    DeliveryFaultsRepository,
    LastLookService,
    LeasesRepository,
    EnvelopeService,
    PrepareJob,
    RecipientsService,
    RosterJoiningService,
    SendingRepository,
    SendingService,
  ],
})
export class SendingModule {}
