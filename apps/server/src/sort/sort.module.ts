import { Module } from '@nestjs/common';
import { MessagesModule } from '../messages/messages.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { SortController } from './sort.controller';

@Module({ imports: [MessagesModule, SegmentsModule, SupportersModule], controllers: [SortController] })
export class SortModule {}
