import { Controller, Inject } from '@nestjs/common';
import type { TodayView } from '@goodword/core/contract';
import { Caller, Route } from '../platform/api';
import { Database } from '../platform/database';
import type { Scope } from '../platform/scope';
import { TodayRepository } from './today.repository';

@Controller('api/today')
export class TodayController {
  constructor(
    @Inject(TodayRepository) private readonly today: TodayRepository,
    @Inject(Database) private readonly database: Database,
  ) {}

  @Route('get', '', { role: 'viewer', summary: 'What waits' })
  view(@Caller() scope: Scope): Promise<TodayView> {
    return this.today.view(this.database.read(scope));
  }
}
