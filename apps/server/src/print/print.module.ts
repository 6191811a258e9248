import { Module } from '@nestjs/common';
import { CallsModule } from '../calls/calls.module';
import { PermissionModule } from '../permission/permission.module';
import { RecordModule } from '../record/record.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { PrintService } from './print.service';
import { PrintedPeople } from './printed-people.service';

@Module({
  imports: [CallsModule, PermissionModule, RecordModule, SupportersModule, TeamModule],
  providers: [PrintService, PrintedPeople],
  exports: [PrintService, PrintedPeople],
})
export class PrintModule {}
