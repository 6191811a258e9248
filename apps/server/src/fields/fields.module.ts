import { Module } from '@nestjs/common';
import { AutomationsModule } from '../automations/automations.module';
import { RostersModule } from '../campaigns/rosters.module';
import { FormsModule } from '../forms/forms.module';
import { MessagesModule } from '../messages/messages.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { FieldAdminRepository } from './field-admin.repository';
import { FieldAdminService } from './field-admin.service';
import { FieldFilesController } from './field-files.controller';
import { FieldFilesService } from './field-files.service';
import { FieldsController } from './fields.controller';

@Module({
  imports: [
    AutomationsModule,
    FormsModule,
    MessagesModule,
    RostersModule,
    SegmentsModule,
    SupportersModule,
    TeamModule,
  ],
  controllers: [FieldsController, FieldFilesController],
  providers: [FieldAdminService, FieldFilesService, FieldAdminRepository],
})
export class FieldsModule {}
