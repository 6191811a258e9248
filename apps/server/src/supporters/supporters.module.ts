import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { TeamModule } from '../team/team.module';
import { ContactPointsController } from './contact-points.controller';
import { ContactPointsService } from './contact-points.service';
import { ErasureRepository } from './erasure.repository';
import { ErasureService } from './erasure.service';
import { FieldsRepository } from './fields.repository';
import { FieldsService } from './fields.service';
import { GroupsRepository } from './groups.repository';
import { PersonLedger } from './person-ledger.service';
import { SupporterRows } from './rows.service';
import { SupportersController } from './supporters.controller';
import { SupportersRepository } from './supporters.repository';
import { SupportersService } from './supporters.service';
import { ContactPointsRepository } from './contact-points.repository';
import { GroupsService } from './groups.service';

@Module({
  imports: [PermissionModule, TeamModule],
  controllers: [SupportersController, ContactPointsController],
  providers: [
    ContactPointsService,
    PersonLedger,
    ErasureService,
    ErasureRepository,
    SupportersService,
    GroupsService,
    SupportersRepository,
    ContactPointsRepository,
    FieldsService,
    FieldsRepository,
    GroupsRepository,
    SupporterRows,
  ],
  exports: [
    ErasureRepository,
    ErasureService,
    PersonLedger,
    SupportersService,
    GroupsService,
    SupportersRepository,
    ContactPointsRepository,
    FieldsService,
    FieldsRepository,
    GroupsRepository,
    SupporterRows,
  ],
})
export class SupportersModule {}
