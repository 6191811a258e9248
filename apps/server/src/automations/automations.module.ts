import { Module } from '@nestjs/common';
import { AutomationsRepository } from './automations.repository';
import { VisitsRepository } from './visits.repository';

const KEPT = [AutomationsRepository, VisitsRepository];

/** Automatic messages and those for whom they were set going, as they are kept. */
@Module({ providers: KEPT, exports: KEPT })
export class AutomationsModule {}
