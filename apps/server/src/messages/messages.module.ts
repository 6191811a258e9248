import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { RecordModule } from '../record/record.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { ComposingService } from './composing.service';
import { ImagesService } from './images.service';
import { MergeValuesRepository } from './merge-values.repository';
import { MessagesController } from './messages.controller';
import { MessagesRepository } from './messages.repository';
import { MessagesService } from './messages.service';
import { TagTriggersService } from './tag-triggers.service';

@Module({
  imports: [PermissionModule, RecordModule, SupportersModule, TeamModule],
  controllers: [MessagesController],
  providers: [
    MessagesService,
    MessagesRepository,
    ComposingService,
    MergeValuesRepository,
    ImagesService,
    TagTriggersService,
  ],
  exports: [
    ImagesService,
    MessagesService,
    MessagesRepository,
    ComposingService,
    MergeValuesRepository,
    TagTriggersService,
  ],
})
export class MessagesModule {}
