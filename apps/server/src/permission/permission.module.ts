import { Module } from '@nestjs/common';
import { HouseRulesRepository } from './house-rules.repository';
import { LedgerRepository } from './ledger.repository';

@Module({ providers: [LedgerRepository, HouseRulesRepository], exports: [LedgerRepository, HouseRulesRepository] })
export class PermissionModule {}
