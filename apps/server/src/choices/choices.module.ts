import { Module } from '@nestjs/common';
import { EvidenceModule } from '../evidence/evidence.module';
import { FormsModule } from '../forms/forms.module';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { UnsubscribeModule } from '../waysout/waysout.module';
import { PreferencesController } from './choices.controller';
import { PreferencesRepository } from './choices.repository';
import { PreferencesService } from './choices.service';
import { PreferenceCommands } from './choosing.service';

@Module({
  imports: [PermissionModule, SupportersModule, TeamModule, UnsubscribeModule, EvidenceModule, FormsModule],
  controllers: [PreferencesController],
  providers: [PreferencesService, PreferenceCommands, PreferencesRepository],
  exports: [PreferencesService],
})
export class PreferencesModule {}
