import { Controller, HttpCode, Inject } from '@nestjs/common';
import { schema, answers, type HouseFilesBody } from '@goodword/core/contract';
import { audit } from '../../platform/audit';
import { Caller, Input, Route } from '../../platform/api';
import { Database } from '../../platform/database';
import { stillAs } from '../../platform/versions';
import type { AccessScope } from '../../platform/scope';
import { BatchesRepository } from '../batches.repository';
import { TeamRepository } from '../../team/team.repository';

/** How long the files of batches are kept. */
@Controller('api/house/files')
export class RetentionController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
  ) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'Days that the files of batches are kept',
    answer: answers.retention,
  })
  async show(@Caller() scope: AccessScope): Promise<{ days: number }> {
    return { days: (await this.team.organization(scope)).file_days };
  }

  @Route('put', '', {
    role: 'owner',
    ofAll: true,
    summary: 'Change how long the files of batches are kept',
    body: schema.houseFiles,
  })
  @HttpCode(204)
  async change(@Caller() scope: AccessScope, @Input('body') body: HouseFilesBody): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await tx.lockOrganization();
      stillAs(body.was, await this.batches.fileDays(tx), 'the days');
      await tx.execute('UPDATE organization SET file_days = :days WHERE id = :org', { days: body.days });
      await audit(tx, {
        act: 'file-days',
        subject: 'organization',
        subjectId: scope.organizationId,
        words: `Files of batches are kept ${body.days} days`,
      });
    });
  }
}
