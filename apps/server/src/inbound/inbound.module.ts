import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { SendingModule } from '../sending/sending.module';
import { WaysOutModule } from '../waysout/waysout.module';
import { BouncesService } from './bounces.service';
import { InboundRepository } from './inbound.repository';
import { MailInService } from './mail-in.service';
import { TextsController } from './texts.controller';
import { TextsService } from './texts.service';

@Module({
  imports: [PermissionModule, SendingModule, WaysOutModule],
  controllers: [TextsController],
  providers: [TextsService, BouncesService, InboundRepository, MailInService],
})
export class InboundModule {}
