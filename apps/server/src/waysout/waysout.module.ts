import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { WaysOutController } from './waysout.controller';
import { WaysOutRepository } from './waysout.repository';
import { WaysOutService } from './waysout.service';

@Module({
  imports: [PermissionModule],
  controllers: [WaysOutController],
  providers: [WaysOutService, WaysOutRepository],
  exports: [WaysOutRepository, WaysOutService],
})
export class WaysOutModule {}
