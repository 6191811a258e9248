import { join } from 'node:path';
import {
  Global,
  Module,
  type DynamicModule,
  type OnApplicationShutdown,
  type Provider,
  Inject,
} from '@nestjs/common';
import { APP_FILTER, APP_GUARD } from '@nestjs/core';
import { CONFIG, type Config } from './config';
import { dkimKeysOf } from './dkim';
import { Database } from './database';
import { RouteGuard } from './guard';
import { HouseKeys } from './house-keys';
import { HealthController } from './health.controller';
import { MAIL_OUT, SmtpOut, type MailOut } from './mail-out';
import { ProblemFilter } from './problem.filter';
import { Ownership } from './ownership';
import { watchedMail } from './providers';
import { RateLimits } from './rate-limit';
import { Sessions } from './sessions';
import { FetchOut } from './fetch-out';
import { FolderStorage, STORAGE } from './storage';
import { domainsFrom, DOMAINS, LINES, linesFrom, NAMES, namesFrom } from './lookups';
import { textOutOf } from './text-gateway';
import { TEXT_OUT, type TextOut } from './text-out';

/** What has no domain: configuration, database, ports to the outside, and the guard before every route. */
@Global()
@Module({})
export class PlatformModule implements OnApplicationShutdown {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(TEXT_OUT) private readonly textOut: TextOut,
  ) {}

  static with(config: Config): DynamicModule {
    const ports: Provider[] = [
      { provide: CONFIG, useValue: config },
      {
        provide: Database,
        useFactory: () => new Database(config.DATABASE_URL, 10, config.STATEMENT_SECONDS),
      },
      FetchOut,
      { provide: STORAGE, useFactory: () => new FolderStorage(join(config.DATA_DIR, 'files')) },
      {
        provide: MAIL_OUT,
        useFactory: () =>
          watchedMail(
            new SmtpOut({
              url: config.SMTP_URL,
              connections: config.SMTP_CONNECTIONS,
              perSecond: config.SMTP_PER_SECOND,
              keys: dkimKeysOf(config).inUse,
            }),
          ),
      },
      {
        provide: TEXT_OUT,
        inject: [Database],
        useFactory: (database: Database) => textOutOf(config, database),
      },
    ];
    ports.push(
      { provide: DOMAINS, useFactory: () => domainsFrom(config.DOMAIN_LOOKUP) },
      { provide: NAMES, useFactory: () => namesFrom(config.NAME_LOOKUP) },
      { provide: LINES, useFactory: () => linesFrom(config.LINE_LOOKUP) },
    );
    return {
      module: PlatformModule,
      controllers: [HealthController],
      providers: [
        ...ports,
        HouseKeys,
        Ownership,
        RateLimits,
        Sessions,
        { provide: APP_GUARD, useClass: RouteGuard },
        { provide: APP_FILTER, useClass: ProblemFilter },
      ],
      exports: [
        CONFIG,
        Database,
        STORAGE,
        MAIL_OUT,
        TEXT_OUT,
        DOMAINS,
        FetchOut,
        HouseKeys,
        LINES,
        NAMES,
        RateLimits,
        Sessions,
      ],
    };
  }

  async onApplicationShutdown(): Promise<void> {
    this.mailOut.close();
    this.textOut.close();
    await this.database.close();
  }
}
