import { Module } from '@nestjs/common';
import { RostersModule } from '../campaigns/rosters.module';
import { FormsModule } from '../forms/forms.module';
import { MessagesModule } from '../messages/messages.module';
import { SegmentsModule } from '../segments/segments.module';
import { UsesService } from './uses.service';

@Module({
  imports: [FormsModule, MessagesModule, RostersModule, SegmentsModule],
  providers: [UsesService],
  exports: [UsesService],
})
export class UsesModule {}
