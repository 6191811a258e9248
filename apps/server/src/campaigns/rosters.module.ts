import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { CampaignsRepository } from './campaigns.repository';
import { FallingOutRepository } from './falling-out.repository';
import { StepsRepository } from './steps.repository';

const KEPT = [CampaignsRepository, StepsRepository, FallingOutRepository];

/** Campaigns, their steps and rosters as they are kept, for all who read or fill them. */
@Module({ imports: [PermissionModule], providers: KEPT, exports: KEPT })
export class RostersModule {}
