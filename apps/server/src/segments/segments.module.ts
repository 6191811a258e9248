import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { RollModule } from '../roll/roll.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { SegmentsRepository } from './segments.repository';
import { SegmentSizes } from './segment-sizes';
import { SegmentsService } from './segments.service';

@Module({
  imports: [PermissionModule, RollModule, SupportersModule, TeamModule],
  providers: [SegmentsService, SegmentsRepository, SegmentSizes],
  exports: [SegmentsService, SegmentsRepository, SegmentSizes],
})
export class SegmentsModule {}
