import { Module } from '@nestjs/common';
import { RostersModule } from '../campaigns/rosters.module';
import { PermissionModule } from '../permission/permission.module';
import { PrintModule } from '../print/print.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { BulkController } from './bulk.controller';
import { BulkJobs } from './bulk.jobs';
import { BulkRepository } from './bulk.repository';
import { BulkService } from './bulk.service';
import { ExportRepository } from './export.repository';
import { ExportService } from './export.service';

@Module({
  imports: [RostersModule, PermissionModule, PrintModule, SegmentsModule, SupportersModule, TeamModule],
  controllers: [BulkController],
  providers: [BulkService, BulkJobs, BulkRepository, ExportService, ExportRepository],
  exports: [BulkJobs, BulkService],
})
export class BulkModule {}
