import { Module } from '@nestjs/common';
import { RepliesRepository } from './replies.repository';

/** What people wrote back, as it is kept. */
@Module({ providers: [RepliesRepository], exports: [RepliesRepository] })
export class RepliesModule {}
