import { Module } from '@nestjs/common';
import { MessagesModule } from '../messages/messages.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { PeopleViewsRepository } from './people-views.repository';
import { SortController } from './sort.controller';

@Module({ imports: [MessagesModule, SegmentsModule, SupportersModule], controllers: [SortController], providers: [PeopleViewsRepository] })
export class SortModule {}
