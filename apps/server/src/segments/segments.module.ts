import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { RollModule } from '../roll/roll.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { SegmentsRepository } from './segments.repository';
import { SegmentSizes } from './segment-sizes';
import { SegmentsService } from './segments.service';
import { RuleNamesService } from './rule-names.service';

@Module({
  imports: [PermissionModule, RollModule, SupportersModule, TeamModule],
  providers: [SegmentsService, RuleNamesService, SegmentsRepository, SegmentSizes],
  exports: [SegmentsService, RuleNamesService, SegmentsRepository, SegmentSizes],
})
export class SegmentsModule {}
