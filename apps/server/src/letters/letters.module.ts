import { Module } from '@nestjs/common';
import { RostersModule } from '../campaigns/rosters.module';
import { MessagesModule } from '../messages/messages.module';
import { PermissionModule } from '../permission/permission.module';
import { PrintModule } from '../print/print.module';
import { SendingModule } from '../sending/sending.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { LetterComposer } from './letter-composer.service';
import { LettersController } from './letters.controller';
import { LettersJob } from './letters.job';
import { LettersRepository } from './letters.repository';
import { LettersService } from './letters.service';

@Module({
  imports: [
    MessagesModule,
    PermissionModule,
    PrintModule,
    RostersModule,
    SendingModule,
    SupportersModule,
    TeamModule,
  ],
  controllers: [LettersController],
  providers: [LetterComposer, LettersJob, LettersRepository, LettersService],
})
export class LettersModule {}
