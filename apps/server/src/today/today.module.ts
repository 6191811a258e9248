import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { JobsRepository } from './jobs.repository';
import { TasksRepository } from './tasks.repository';
import { TasksService } from './tasks.service';
import { TodayController } from './today.controller';
import { TodayRepository } from './today.repository';

@Module({
  imports: [PermissionModule, SupportersModule, SegmentsModule],
  controllers: [TodayController],
  providers: [TodayRepository, JobsRepository, TasksRepository, TasksService],
  exports: [TasksRepository],
})
export class TodayModule {}
