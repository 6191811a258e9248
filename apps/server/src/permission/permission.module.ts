import { Module } from '@nestjs/common';
import { DoNotContactRepository } from './do-not-contact.repository';
import { DoNotContactService } from './do-not-contact.service';
import { EvidenceRepository } from './evidence.repository';
import { HoldsRepository } from './holds.repository';
import { HouseRulesRepository } from './house-rules.repository';
import { HouseRulesService } from './house-rules.service';
import { FactsRepository, PersonCellsRepository } from './ledger/facts.repository';
import { BatchEntriesRepository } from './ledger/batch-entries.repository';
import { LedgerRepository } from './ledger/ledger.repository';
import { RollModule } from '../roll/roll.module';
import { PermissionController } from './permission.controller';
import { EntriesRepository } from './ledger/entries.repository';
import { RefusalsRepository } from './ledger/refusals.repository';
import { FoldingRepository } from './ledger/folding.repository';

@Module({
  imports: [RollModule],
  controllers: [PermissionController],
  providers: [
    LedgerRepository,
    FoldingRepository,
    EntriesRepository,
    RefusalsRepository,
    BatchEntriesRepository,
    FactsRepository,
    PersonCellsRepository,
    EvidenceRepository,
    HoldsRepository,
    HouseRulesRepository,
    HouseRulesService,
    DoNotContactRepository,
    DoNotContactService,
  ],
  exports: [
    LedgerRepository,
    FoldingRepository,
    EntriesRepository,
    RefusalsRepository,
    BatchEntriesRepository,
    FactsRepository,
    PersonCellsRepository,
    EvidenceRepository,
    HoldsRepository,
    HouseRulesRepository,
    DoNotContactService,
  ],
})
export class PermissionModule {}
