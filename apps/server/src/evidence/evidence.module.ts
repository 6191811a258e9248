import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { EvidenceController } from './evidence.controller';
import { EvidenceFileRepository } from './evidence-file.repository';
import { EvidenceFileService } from './evidence-file.service';
import { RevocationsService } from './revocations.service';

@Module({
  imports: [PermissionModule, SupportersModule, TeamModule],
  controllers: [EvidenceController],
  providers: [EvidenceFileService, EvidenceFileRepository, RevocationsService],
  exports: [EvidenceFileService],
})
export class EvidenceModule {}
