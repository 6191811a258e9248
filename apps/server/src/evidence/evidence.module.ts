import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { EvidenceController } from './evidence.controller';
import { FileRepository } from './file.repository';
import { FileService } from './file.service';
import { RevocationsService } from './revocations.service';

@Module({
  imports: [PermissionModule, SupportersModule, TeamModule],
  controllers: [EvidenceController],
  providers: [FileService, FileRepository, RevocationsService],
  exports: [FileService],
})
export class EvidenceModule {}
