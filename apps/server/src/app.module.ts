import { Module, type DynamicModule } from '@nestjs/common';
import { LoggerModule } from 'nestjs-pino';
import { BulkModule } from './bulk/bulk.module';
import { CallsModule } from './calls/calls.module';
import { CampaignsModule } from './campaigns/campaigns.module';
import { PreferencesModule } from './preferences/preferences.module';
import { FieldsModule } from './fields/fields.module';
import { EvidenceModule } from './evidence/evidence.module';
import { FormsModule } from './forms/forms.module';
import { InboundModule } from './inbound/inbound.module';
import { IntakeModule } from './intake/intake.module';
import { MessagesModule } from './messages/messages.module';
import type { Config } from './platform/config';
import { loggingOf } from './platform/logging';
import { PlatformModule } from './platform/platform.module';
import { RecordModule } from './record/record.module';
import { InboxModule } from './inbox/inbox.module';
import { ResultsModule } from './results/results.module';
import { SegmentsModule } from './segments/segments.module';
import { LettersModule } from './letters/letters.module';
import { FeedsModule } from './feeds/feeds.module';
import { AutomaticModule } from './automatic/automatic.module';
import { ComparingModule } from './comparing/comparing.module';
import { PlansModule } from './plans/plans.module';
import { SenderModule } from './sender/sender.module';
import { SendingModule } from './sending/sending.module';
import { SetupModule } from './setup/setup.module';
import { SortModule } from './sort/sort.module';
import { SupportersModule } from './supporters/supporters.module';
import { TeamModule } from './team/team.module';
import { TodayModule } from './today/today.module';
import { UnsubscribeModule } from './unsubscribe/unsubscribe.module';

@Module({})
export class AppModule {
  static with(config: Config): DynamicModule {
    return {
      module: AppModule,
      imports: [
        LoggerModule.forRoot(loggingOf(config)),
        PlatformModule.with(config),
        TeamModule,
        SupportersModule,
        RecordModule,
        IntakeModule,
        CampaignsModule,
        SegmentsModule,
        SortModule,
        BulkModule,
        CallsModule,
        FieldsModule,
        MessagesModule,
        AutomaticModule,
        FeedsModule,
        ComparingModule,
        PlansModule,
        SenderModule,
        SendingModule,
        LettersModule,
        InboxModule,
        ResultsModule,
        UnsubscribeModule,
        FormsModule,
        PreferencesModule,
        EvidenceModule,
        InboundModule,
        TodayModule,
        SetupModule,
      ],
    };
  }
}
