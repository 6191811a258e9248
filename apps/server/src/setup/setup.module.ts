import { Module } from '@nestjs/common';
import { CallsModule } from '../calls/calls.module';
import { IntakeModule } from '../intake/intake.module';
import { MessagesModule } from '../messages/messages.module';
import { RepliesModule } from '../replies/replies.module';
import { TeamModule } from '../team/team.module';
import { BeginningRepository } from './beginning.repository';
import { BeginningService } from './beginning.service';
import { OrganizationRepository } from './organization.repository';
import { HouseStyleService } from './house-style.service';
import { OrganizationService } from './organization.service';
import { SetupController } from './setup.controller';
import { TeammatesService } from './teammates.service';

@Module({
  imports: [CallsModule, IntakeModule, MessagesModule, RepliesModule, TeamModule],
  controllers: [SetupController],
  providers: [
    BeginningRepository,
    BeginningService,
    OrganizationRepository,
    HouseStyleService,
    OrganizationService,
    TeammatesService,
  ],
})
export class SetupModule {}
