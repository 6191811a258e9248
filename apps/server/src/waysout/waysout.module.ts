import { Module } from '@nestjs/common';
import { MessagesModule } from '../messages/messages.module';
import { PermissionModule } from '../permission/permission.module';
import { WaysOutController } from './waysout.controller';
import { WaysOutRepository } from './waysout.repository';
import { WaysOutService } from './waysout.service';

@Module({
  imports: [MessagesModule, PermissionModule],
  controllers: [WaysOutController],
  providers: [WaysOutService, WaysOutRepository],
  exports: [WaysOutRepository, WaysOutService],
})
export class WaysOutModule {}
