import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { RollRepository } from './roll.repository';
import { RollService } from './roll.service';

@Module({ imports: [PermissionModule], providers: [RollService, RollRepository], exports: [RollService] })
export class RollModule {}
