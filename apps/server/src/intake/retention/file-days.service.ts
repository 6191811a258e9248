import { Inject, Injectable } from '@nestjs/common';
import type { HouseFilesBody } from '@goodword/core/contract';
import { audit } from '../../platform/audit';
import { Database } from '../../platform/database';
import type { AccessScope } from '../../platform/scope';
import { stillAs } from '../../platform/versions';
import { TeamRepository } from '../../team/team.repository';
import { BatchesRepository } from '../batches.repository';

/** For how many days the files of batches are kept, as the organization has it. */
@Injectable()
export class FileDaysService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
  ) {}

  async show(scope: AccessScope): Promise<{ days: number }> {
    return { days: (await this.team.organization(scope)).file_days };
  }

  async change(scope: AccessScope, { days, was }: HouseFilesBody): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await tx.lockOrganization();
      stillAs(was, await this.batches.fileDays(tx), 'the days');
      await tx.execute('UPDATE organization SET file_days = :days WHERE id = :org', { days });
      await audit(
        tx,
        'file-days',
        { organization: scope.organizationId },
        `Files of batches are kept ${days} days`,
      );
    });
  }
}
