import { Module } from '@nestjs/common';
import { LedgerRepository } from '../permission/ledger.repository';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { BatchesRepository } from './batches.repository';
import { BringInRepository } from './bring-in.repository';
import { IntakeController } from './intake.controller';
import { IntakeJobs } from './intake.jobs';
import { IntakeService } from './intake.service';
import { TakeOutRepository } from './take-out.repository';

@Module({
  imports: [PermissionModule, SupportersModule, TeamModule],
  controllers: [IntakeController],
  providers: [
    IntakeService,
    IntakeJobs,
    BatchesRepository,
    { provide: BringInRepository, useFactory: (ledger: LedgerRepository) => new BringInRepository(ledger), inject: [LedgerRepository] },
    { provide: TakeOutRepository, useFactory: (ledger: LedgerRepository) => new TakeOutRepository(ledger), inject: [LedgerRepository] },
  ],
  exports: [IntakeJobs],
})
export class IntakeModule {}
