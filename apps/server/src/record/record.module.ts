import { Module } from '@nestjs/common';
import { RostersModule } from '../campaigns/rosters.module';
import { EvidenceModule } from '../evidence/evidence.module';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { HistoryService } from './history.service';
import { HouseholdsRepository } from './households.repository';
import { MergingRepository } from './merging.repository';
import { MergingService } from './merging.service';
import { NotesRepository } from './notes.repository';
import { PersonFileService } from './person-file.service';
import { RecordController } from './record.controller';
import { RecordService } from './record.service';
import { TimelineRepository } from './timeline.repository';

@Module({
  imports: [RostersModule, EvidenceModule, PermissionModule, SupportersModule, TeamModule],
  controllers: [RecordController],
  providers: [
    RecordService,
    HistoryService,
    MergingService,
    PersonFileService,
    HouseholdsRepository,
    MergingRepository,
    NotesRepository,
    TimelineRepository,
  ],
  exports: [RecordService, HouseholdsRepository, NotesRepository],
})
export class RecordModule {}
