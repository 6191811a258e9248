import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { RollModule } from '../roll/roll.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { SegmentsRepository } from './segments.repository';
import { SegmentsService } from './segments.service';

@Module({
  imports: [PermissionModule, RollModule, SupportersModule, TeamModule],
  providers: [SegmentsService, SegmentsRepository],
  exports: [SegmentsService],
})
export class SegmentsModule {}
