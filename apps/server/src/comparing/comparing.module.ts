import { Module } from '@nestjs/common';
import { MessagesModule } from '../messages/messages.module';
import { ResultsModule } from '../results/results.module';
import { SendingModule } from '../sending/sending.module';
import { TeamModule } from '../team/team.module';
import { WordingsModule } from '../wordings/wordings.module';
import { ComparingController } from './comparing.controller';
import { ComparingService } from './comparing.service';
import { DecideJob } from './decide.job';
import { TriedService } from './tried.service';

/** Two and more wordings of one message: tried on some, and the better one for the rest. */
@Module({
  imports: [MessagesModule, ResultsModule, SendingModule, TeamModule, WordingsModule],
  controllers: [ComparingController],
  providers: [ComparingService, DecideJob, TriedService],
  exports: [DecideJob],
})
export class ComparingModule {}
