import { Module } from '@nestjs/common';
import { LimitsModule } from '../limits/limits.module';
import { TeamModule } from '../team/team.module';
import { CameThroughService } from './came-through.service';
import { SenderController } from './sender.controller';
import { SenderRepository } from './sender.repository';
import { SenderService } from './sender.service';

@Module({
  imports: [LimitsModule, TeamModule],
  controllers: [SenderController],
  providers: [CameThroughService, SenderRepository, SenderService],
  exports: [CameThroughService, SenderService],
})
export class SenderModule {}
