import { Module } from '@nestjs/common';
import { CampaignsRepository } from './campaigns.repository';

/** Campaigns and rosters as they are kept, for all who read or fill them. */
@Module({ providers: [CampaignsRepository], exports: [CampaignsRepository] })
export class RostersModule {}
