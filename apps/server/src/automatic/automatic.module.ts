import { Module } from '@nestjs/common';
import { AutomationsModule } from '../automations/automations.module';
import { RostersModule } from '../campaigns/rosters.module';
import { MessagesModule } from '../messages/messages.module';
import { PermissionModule } from '../permission/permission.module';
import { SegmentsModule } from '../segments/segments.module';
import { SendingModule } from '../sending/sending.module';
import { TeamModule } from '../team/team.module';
import { AutomationsController } from './automations.controller';
import { AutomationsService } from './automations.service';
import { CauseNamesRepository } from './cause-names.repository';
import { FieldTypesRepository } from './field-types.repository';
import { LackingService } from './lacking.service';
import { LeavingService } from './leaving.service';
import { RoundsService } from './rounds.service';
import { SourcesService } from './sources.service';
import { SwitchingService } from './switching.service';
import { TakingUpService } from './taking-up.service';
import { WaitingService } from './waiting.service';

/** Messages that leave by themselves: when something happens, to whom it happened. */
@Module({
  imports: [
    AutomationsModule,
    MessagesModule,
    PermissionModule,
    RostersModule,
    SegmentsModule,
    SendingModule,
    TeamModule,
  ],
  controllers: [AutomationsController],
  providers: [
    AutomationsService,
    CauseNamesRepository,
    FieldTypesRepository,
    LackingService,
    LeavingService,
    RoundsService,
    SourcesService,
    SwitchingService,
    TakingUpService,
    WaitingService,
  ],
  exports: [RoundsService],
})
export class AutomaticModule {}
