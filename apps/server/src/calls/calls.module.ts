import { Module } from '@nestjs/common';
import { RostersModule } from '../campaigns/rosters.module';
import { MessagesModule } from '../messages/messages.module';
import { PermissionModule } from '../permission/permission.module';
import { RecordModule } from '../record/record.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
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
    SupportersModule,
    TeamModule,
  ],
  controllers: [CallsController],
  providers: [CallsService, CallsRepository],
  exports: [CallsService, CallsRepository],
})
export class CallsModule {}
