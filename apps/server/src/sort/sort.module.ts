import { Module } from '@nestjs/common';
import { MessagesModule } from '../messages/messages.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { FormsModule } from '../forms/forms.module';
import { RollModule } from '../roll/roll.module';
import { FindRepository } from './find.repository';
import { FindService } from './find.service';
import { PeopleViewsRepository } from './people-views.repository';
import { UsesService } from './uses.service';
import { SortController } from './sort.controller';

@Module({
  imports: [FormsModule, RollModule, MessagesModule, SegmentsModule, SupportersModule],
  controllers: [SortController],
  providers: [UsesService, PeopleViewsRepository, FindService, FindRepository],
})
export class SortModule {}
