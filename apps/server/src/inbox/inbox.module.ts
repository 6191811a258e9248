import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { RecordModule } from '../record/record.module';
import { RepliesModule } from '../replies/replies.module';
import { SupportersModule } from '../supporters/supporters.module';
import { InboxController } from './inbox.controller';
import { InboxService } from './inbox.service';
import { ThreadsRepository } from './threads.repository';

/** What people wrote back, a thread for each of them, and what is done about it. */
@Module({
  imports: [PermissionModule, RecordModule, RepliesModule, SupportersModule],
  controllers: [InboxController],
  providers: [InboxService, ThreadsRepository],
})
export class InboxModule {}
