import { Module } from '@nestjs/common';
import { MessagesModule } from '../messages/messages.module';
import { PermissionModule } from '../permission/permission.module';
import { UnsubscribeController } from './unsubscribe.controller';
import { UnsubscribeRepository } from './unsubscribe.repository';
import { UnsubscribeService } from './unsubscribe.service';

@Module({
  imports: [MessagesModule, PermissionModule],
  controllers: [UnsubscribeController],
  providers: [UnsubscribeService, UnsubscribeRepository],
  exports: [UnsubscribeRepository, UnsubscribeService],
})
export class UnsubscribeModule {}
