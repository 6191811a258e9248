import { Module } from '@nestjs/common';
import { IntakeModule } from '../intake/intake.module';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { FeedHooksController } from './feed-hooks.controller';
import { FeedsController } from './feeds.controller';
import { FeedsRepository } from './feeds.repository';
import { FeedsService } from './feeds.service';
import { LookingService } from './looking.service';
import { FeedClock } from './running/feed-clock.service';
import { FeedNotices } from './running/feed-notices';
import { FeedReadingService } from './running/feed-reading.service';
import { FeedRunJob } from './running/feed-run.job';
import { RecordsRepository, RunsRepository } from './running/runs.repository';
import { SettlingService } from './running/settling.service';
import { AddressSource } from './sources/address.source';
import { DeskSource } from './sources/desk.source';
import { NoticesRepository } from './telling/notices.repository';
import { TellingService } from './telling/telling.service';
import { FeedSourcesController } from './sources/feed-sources.controller';
import { FeedSourcesRepository } from './sources/feed-sources.repository';
import { FeedSourcesService } from './sources/feed-sources.service';

/** Lists that fill themselves from other systems: a run of a feed is a batch. */
@Module({
  imports: [IntakeModule, PermissionModule, SupportersModule, TeamModule],
  controllers: [FeedsController, FeedSourcesController, FeedHooksController],
  providers: [
    AddressSource,
    DeskSource,
    FeedClock,
    FeedNotices,
    FeedReadingService,
    FeedRunJob,
    FeedsRepository,
    FeedsService,
    FeedSourcesRepository,
    FeedSourcesService,
    LookingService,
    RecordsRepository,
    RunsRepository,
    NoticesRepository,
    SettlingService,
    TellingService,
  ],
  exports: [FeedClock, FeedRunJob, TellingService],
})
export class FeedsModule {}
