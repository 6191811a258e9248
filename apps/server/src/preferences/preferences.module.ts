import { Module } from '@nestjs/common';
import { EvidenceModule } from '../evidence/evidence.module';
import { FormsModule } from '../forms/forms.module';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { UnsubscribeModule } from '../unsubscribe/unsubscribe.module';
import { PreferencesController } from './preferences.controller';
import { PreferencesRepository } from './preferences.repository';
import { PreferencesService } from './preferences.service';
import { PreferenceCommands } from './preference-commands.service';

@Module({
  imports: [PermissionModule, SupportersModule, TeamModule, UnsubscribeModule, EvidenceModule, FormsModule],
  controllers: [PreferencesController],
  providers: [PreferencesService, PreferenceCommands, PreferencesRepository],
  exports: [PreferencesService],
})
export class PreferencesModule {}
