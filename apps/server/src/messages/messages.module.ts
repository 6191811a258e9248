import { Module } from '@nestjs/common';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { ComposingService } from './composing.service';
import { ImagesService } from './images.service';
import { MergeValuesRepository } from './merge-values.repository';
import { MessagesController } from './messages.controller';
import { MessagesRepository } from './messages.repository';
import { MessagesService } from './messages.service';

@Module({
  imports: [SupportersModule, TeamModule],
  controllers: [MessagesController],
  providers: [MessagesService, MessagesRepository, ComposingService, MergeValuesRepository, ImagesService],
  exports: [MessagesService, MessagesRepository, ComposingService, MergeValuesRepository],
})
export class MessagesModule {}
