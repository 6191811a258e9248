import { Module } from '@nestjs/common';
import { MailLimitsRepository } from './mail-limits.repository';

/** How much may leave, for those who send and those who tell of it. */
@Module({ providers: [MailLimitsRepository], exports: [MailLimitsRepository] })
export class LimitsModule {}
