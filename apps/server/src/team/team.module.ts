import { Module } from '@nestjs/common';
import { SignInBrake } from './sign-in-brake';
import { TeamController } from './team.controller';
import { TeamRepository } from './team.repository';
import { TeamService } from './team.service';
import { TeammateLinks } from './teammate-links.service';
import { TeammatesRepository } from './teammates.repository';

@Module({
  controllers: [TeamController],
  providers: [SignInBrake, TeamService, TeamRepository, TeammateLinks, TeammatesRepository],
  exports: [SignInBrake, TeamRepository, TeamService, TeammateLinks, TeammatesRepository],
})
export class TeamModule {}
