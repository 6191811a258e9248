import { Module } from '@nestjs/common';
import { BulkModule } from '../bulk/bulk.module';
import { MessagesModule } from '../messages/messages.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { FormsModule } from '../forms/forms.module';
import { RecordModule } from '../record/record.module';
import { RollModule } from '../roll/roll.module';
import { AutomationsModule } from '../automations/automations.module';
import { RostersModule } from '../campaigns/rosters.module';
import { FindRepository } from './find.repository';
import { FindService } from './find.service';
import { PeopleViewsRepository } from './people-views.repository';
import { TagsService } from './tags.service';
import { UsesModule } from './uses.module';
import { FinderController } from './finder.controller';
import { ListsController } from './lists.controller';
import { ListsService } from './lists.service';
import { PeopleViewsService } from './people-views.service';
import { SegmentsController } from './segments.controller';
import { SnapshotsService } from './snapshots.service';
import { TagsController } from './tags.controller';
import { WholeRecordController } from './whole-record.controller';

@Module({
  imports: [
    BulkModule,
    FormsModule,
    UsesModule,
    RecordModule,
    RollModule,
    AutomationsModule,
    RostersModule,
    MessagesModule,
    SegmentsModule,
    SupportersModule,
  ],
  controllers: [TagsController, ListsController, SegmentsController, FinderController, WholeRecordController],
  providers: [
    TagsService,
    ListsService,
    PeopleViewsRepository,
    PeopleViewsService,
    SnapshotsService,
    FindService,
    FindRepository,
  ],
})
export class SortModule {}
