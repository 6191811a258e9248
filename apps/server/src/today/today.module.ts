import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { SegmentsModule } from '../segments/segments.module';
import { SenderModule } from '../sender/sender.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { JobsRepository } from './jobs.repository';
import { TasksRepository } from './tasks.repository';
import { TasksService } from './tasks.service';
import { TodayController } from './today.controller';
import { TodayRepository } from './today.repository';
import { WeekRepository } from './week.repository';
import { WeekService } from './week.service';

@Module({
  imports: [PermissionModule, SenderModule, SupportersModule, SegmentsModule, TeamModule],
  controllers: [TodayController],
  providers: [TodayRepository, JobsRepository, TasksRepository, TasksService, WeekRepository, WeekService],
  exports: [TasksRepository],
})
export class TodayModule {}
