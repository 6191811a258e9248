import { Module } from '@nestjs/common';
import { TodayController } from './today.controller';
import { TodayRepository } from './today.repository';

@Module({ controllers: [TodayController], providers: [TodayRepository] })
export class TodayModule {}
