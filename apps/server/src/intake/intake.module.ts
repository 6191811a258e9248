import { Module } from '@nestjs/common';
import { RostersModule } from '../campaigns/rosters.module';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { BatchGuard } from './batch-guard';
import { BatchNotices } from './bringing-in/batch-notices';
import { BatchesRepository } from './batches.repository';
import { FedBatchesService } from './fed-batches.service';
import { IntakeFiles } from './reading/intake-files.service';
import { BringInJob } from './bringing-in/bring-in.job';
import { BringInRepository } from './bringing-in/bring-in.repository';
import { CheckBatchJob } from './checking/check-batch.job';
import { ForecastRepository } from './checking/forecast.repository';
import { ForecastService } from './checking/forecast.service';
import { IntakeController } from './intake.controller';
import { IntakeService } from './intake.service';
import { LayoutsController } from './layouts/layouts.controller';
import { LayoutsRepository } from './layouts/layouts.repository';
import { LayoutsService } from './layouts/layouts.service';
import { DoublesService } from './doubles/doubles.service';
import { OtherFilesRepository } from './other-files/other-files.repository';
import { FileDaysService } from './retention/file-days.service';
import { RetentionController } from './retention/retention.controller';
import { RetentionService } from './retention/retention.service';
import { RowStoryRepository } from './checking/row-story.repository';
import { RowPermissionRepository } from './bringing-in/row-permission.repository';
import { SheetsService } from './reading/sheets.service';
import { StagingRepository } from './checking/staging.repository';
import { PlanFaultsService } from './checking/plan-faults.service';
import { ReadBatchJob } from './reading/read-batch.job';
import { TakeOutJob } from './taking-out/take-out.job';
import { TakeOutRepository } from './taking-out/take-out.repository';
import { StagedRowsRepository } from './staged-rows.repository';
import { RowClaimsRepository } from './bringing-in/row-claims.repository';
import { BatchViewsService } from './batch-views.service';
import { RowAddressesRepository } from './bringing-in/row-addresses.repository';

const BATCH_JOBS = [ReadBatchJob, CheckBatchJob, BringInJob, TakeOutJob];

@Module({
  imports: [RostersModule, PermissionModule, SupportersModule, TeamModule],
  controllers: [IntakeController, LayoutsController, RetentionController],
  providers: [
    IntakeService,
    BatchViewsService,
    BatchGuard,
    FedBatchesService,
    IntakeFiles,
    ...BATCH_JOBS,
    ForecastService,
    DoublesService,
    PlanFaultsService,
    SheetsService,
    RetentionService,
    FileDaysService,
    BatchNotices,
    BatchesRepository,
    StagedRowsRepository,
    StagingRepository,
    ForecastRepository,
    LayoutsRepository,
    LayoutsService,
    RowPermissionRepository,
    RowClaimsRepository,
    RowStoryRepository,
    BringInRepository,
    RowAddressesRepository,
    OtherFilesRepository,
    TakeOutRepository,
  ],
  exports: [
    BatchesRepository,
    StagedRowsRepository,
    ForecastService,
    RetentionService,
    IntakeService,
    FedBatchesService,
    IntakeFiles,
    ...BATCH_JOBS,
  ],
})
export class IntakeModule {}
