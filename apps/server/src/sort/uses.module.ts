import { Module } from '@nestjs/common';
import { AutomationsModule } from '../automations/automations.module';
import { RostersModule } from '../campaigns/rosters.module';
import { FormsModule } from '../forms/forms.module';
import { MessagesModule } from '../messages/messages.module';
import { SegmentsModule } from '../segments/segments.module';
import { UsesService } from './uses.service';

@Module({
  imports: [AutomationsModule, FormsModule, MessagesModule, RostersModule, SegmentsModule],
  providers: [UsesService],
  exports: [UsesService],
})
export class UsesModule {}
