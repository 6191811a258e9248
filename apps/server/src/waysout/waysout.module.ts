import { Module } from '@nestjs/common';
import { MessagesModule } from '../messages/messages.module';
import { PermissionModule } from '../permission/permission.module';
import { UnsubscribeController } from './waysout.controller';
import { UnsubscribeRepository } from './waysout.repository';
import { UnsubscribeService } from './waysout.service';

@Module({
  imports: [MessagesModule, PermissionModule],
  controllers: [UnsubscribeController],
  providers: [UnsubscribeService, UnsubscribeRepository],
  exports: [UnsubscribeRepository, UnsubscribeService],
})
export class UnsubscribeModule {}
