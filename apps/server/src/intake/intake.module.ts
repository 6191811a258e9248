import { Module } from '@nestjs/common';
import { RostersModule } from '../campaigns/rosters.module';
import { HoldsRepository } from '../permission/holds.repository';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { BatchNotices } from './batch-notices';
import { BatchesRepository } from './batches.repository';
import { BringInRepository } from './bring-in.repository';
import { CheckRepository } from './check.repository';
import { IntakeController } from './intake.controller';
import { IntakeJobs } from './intake.jobs';
import { IntakeService } from './intake.service';
import { LayoutsController } from './layouts.controller';
import { LayoutsRepository } from './layouts.repository';
import { DoublesService } from './looks.service';
import { OtherFilesRepository } from './other-files.repository';
import { RetentionController } from './retention.controller';
import { RetentionService } from './retention.service';
import { RowsToldRepository } from './rows-told.repository';
import { RowPermissionRepository } from './row-permission.repository';
import { SheetsService } from './sheets.service';
import { StagingRepository } from './staging.repository';
import { PlanFaultsService } from './plan-faults.service';
import { TakeOutRepository } from './take-out.repository';

const withLedger = <T>(provide: new (ledger: LedgerRepository, holds: HoldsRepository) => T) => ({
  provide,
  useFactory: (ledger: LedgerRepository, holds: HoldsRepository) => new provide(ledger, holds),
  inject: [LedgerRepository, HoldsRepository],
});

@Module({
  imports: [RostersModule, PermissionModule, SupportersModule, TeamModule],
  controllers: [IntakeController, LayoutsController, RetentionController],
  providers: [
    IntakeService,
    IntakeJobs,
    DoublesService,
    PlanFaultsService,
    SheetsService,
    RetentionService,
    BatchNotices,
    BatchesRepository,
    StagingRepository,
    CheckRepository,
    LayoutsRepository,
    RowPermissionRepository,
    RowsToldRepository,
    BringInRepository,
    withLedger(OtherFilesRepository),
    withLedger(TakeOutRepository),
  ],
  exports: [BatchesRepository, IntakeJobs, RetentionService],
})
export class IntakeModule {}
