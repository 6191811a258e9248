import { Module } from '@nestjs/common';
import { LimitsModule } from '../limits/limits.module';
import { MessagesModule } from '../messages/messages.module';
import { ResultsController } from './results.controller';
import { ResultsRepository } from './results.repository';
import { ResultsService } from './results.service';

@Module({
  imports: [LimitsModule, MessagesModule],
  controllers: [ResultsController],
  providers: [ResultsService, ResultsRepository],
  exports: [ResultsRepository],
})
export class ResultsModule {}
