import { Module } from '@nestjs/common';
import { SegmentsModule } from '../segments/segments.module';
import { CampaignsController } from './campaigns.controller';
import { CampaignsRepository } from './campaigns.repository';
import { CampaignsService } from './campaigns.service';

@Module({
  imports: [SegmentsModule],
  controllers: [CampaignsController],
  providers: [CampaignsService, CampaignsRepository],
  exports: [CampaignsRepository],
})
export class CampaignsModule {}
