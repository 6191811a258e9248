import { Module } from '@nestjs/common';
import { EvidenceModule } from '../evidence/evidence.module';
import { FormsModule } from '../forms/forms.module';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { WaysOutModule } from '../waysout/waysout.module';
import { ChoicesController } from './choices.controller';
import { ChoicesRepository } from './choices.repository';
import { ChoicesService } from './choices.service';
import { ChoosingService } from './choosing.service';

@Module({
  imports: [PermissionModule, SupportersModule, TeamModule, WaysOutModule, EvidenceModule, FormsModule],
  controllers: [ChoicesController],
  providers: [ChoicesService, ChoosingService, ChoicesRepository],
  exports: [ChoicesService],
})
export class ChoicesModule {}
