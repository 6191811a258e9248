import { Module } from '@nestjs/common';
import { DoNotContactRepository } from './do-not-contact.repository';
import { DoNotContactService } from './do-not-contact.service';
import { EvidenceRepository } from './evidence.repository';
import { HouseRulesRepository } from './house-rules.repository';
import { HouseRulesService } from './house-rules.service';
import { LedgerRepository } from './ledger.repository';
import { PermissionController } from './permission.controller';

@Module({
  controllers: [PermissionController],
  providers: [LedgerRepository, EvidenceRepository, HouseRulesRepository, HouseRulesService, DoNotContactRepository, DoNotContactService],
  exports: [LedgerRepository, EvidenceRepository, HouseRulesRepository, DoNotContactService],
})
export class PermissionModule {}
