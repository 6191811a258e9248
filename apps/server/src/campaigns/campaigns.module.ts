import { Module } from '@nestjs/common';
import { AutomationsModule } from '../automations/automations.module';
import { MessagesModule } from '../messages/messages.module';
import { UsesModule } from '../sort/uses.module';
import { SegmentsModule } from '../segments/segments.module';
import { CampaignsController } from './campaigns.controller';
import { RostersModule } from './rosters.module';
import { CampaignsService } from './campaigns.service';

@Module({
  imports: [AutomationsModule, MessagesModule, RostersModule, SegmentsModule, UsesModule],
  controllers: [CampaignsController],
  providers: [CampaignsService],
})
export class CampaignsModule {}
