import { Module } from '@nestjs/common';
import { RollService } from './roll.service';

@Module({ providers: [RollService], exports: [RollService] })
export class RollModule {}
