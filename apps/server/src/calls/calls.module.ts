import { Module } from '@nestjs/common';
import { RostersModule } from '../campaigns/rosters.module';
import { MessagesModule } from '../messages/messages.module';
import { PermissionModule } from '../permission/permission.module';
import { RecordModule } from '../record/record.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { SendingModule } from '../sending/sending.module';
import { CallPermission } from './call-permission.service';
import { CallRowsService } from './call-rows.service';
import { StepCallsController } from './step-calls.controller';
import { StepCallsRepository } from './step-calls.repository';
import { StepCallsService } from './step-calls.service';
import { CallsController } from './calls.controller';
import { CallsRepository } from './calls.repository';
import { CallsService } from './calls.service';

@Module({
  imports: [
    RostersModule,
    MessagesModule,
    PermissionModule,
    RecordModule,
    SegmentsModule,
    SendingModule,
    SupportersModule,
    TeamModule,
  ],
  controllers: [CallsController, StepCallsController],
  providers: [
    CallPermission,
    CallRowsService,
    CallsService,
    CallsRepository,
    StepCallsRepository,
    StepCallsService,
  ],
  exports: [CallPermission, CallsService, CallsRepository],
})
export class CallsModule {}
