import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { ConfirmationsRepository } from './confirmations.repository';
import { ConfirmationsService } from './confirmations.service';
import { FormsController } from './forms.controller';
import { FormsRepository } from './forms.repository';
import { FormsService } from './forms.service';
import { JoinController } from './join.controller';
import { JoinService } from './join.service';
import { FormPostsRepository } from './form-posts.repository';
import { RequestMail } from './request-mail';

@Module({
  imports: [PermissionModule, SupportersModule, TeamModule],
  controllers: [FormsController, JoinController],
  providers: [
    FormsService,
    FormsRepository,
    JoinService,
    FormPostsRepository,
    RequestMail,
    ConfirmationsService,
    ConfirmationsRepository,
  ],
  exports: [FormsRepository, JoinService, ConfirmationsService, ConfirmationsRepository],
})
export class FormsModule {}
