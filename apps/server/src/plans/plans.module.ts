import { Module } from '@nestjs/common';
import { RostersModule } from '../campaigns/rosters.module';
import { MessagesModule } from '../messages/messages.module';
import { PermissionModule } from '../permission/permission.module';
import { SegmentsModule } from '../segments/segments.module';
import { SendingModule } from '../sending/sending.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { GoingService } from './going.service';
import { PathService } from './path.service';
import { PlanController } from './plan.controller';
import { PlanRepository } from './plan.repository';
import { PlanService } from './plan.service';

/** Campaigns as plans: their steps, how they would go, and how they reach one person. */
@Module({
  imports: [
    MessagesModule,
    PermissionModule,
    RostersModule,
    SegmentsModule,
    SendingModule,
    SupportersModule,
    TeamModule,
  ],
  controllers: [PlanController],
  providers: [GoingService, PathService, PlanRepository, PlanService],
})
export class PlansModule {}
