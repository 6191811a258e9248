import { Inject, Injectable } from '@nestjs/common';
import { AutomationsRepository } from '../automations/automations.repository';
import { Database } from '../platform/database';
import { programScope } from '../platform/scope';
import { LeavingService } from './leaving.service';
import { TakingUpService } from './taking-up.service';

/** Automatic messages, round after round: who is taken up, and who is due. */
@Injectable()
export class RoundsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
    @Inject(TakingUpService) private readonly takingUp: TakingUpService,
    @Inject(LeavingService) private readonly leaving: LeavingService,
  ) {}

  /** One round over all that are on, a slice of each; false when there was nothing to do. */
  async round(now = new Date()): Promise<boolean> {
    let people = 0;
    const failed: unknown[] = [];
    for (const { id, organization_id } of await this.automations.on(this.database.unscoped())) {
      const scope = programScope(organization_id);
      // One that fails keeps no other waiting.
      try {
        people += await this.takingUp.look(scope, id, now);
        people += await this.leaving.leave(scope, id, now);
      } catch (error) {
        failed.push(error);
      }
    }
    if (failed.length > 0) throw failed[0];
    return people > 0;
  }
}
