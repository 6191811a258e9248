import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { verdictSentence } from '@goodword/core/words';
import { escapeHtml } from '@goodword/core/letter';
import { CONFIG, type Config } from '../../platform/config';
import { Database } from '../../platform/database';
import { MAIL_OUT, type MailOut } from '../../platform/mail-out';
import type { AccessScope } from '../../platform/scope';
import { houseMail } from '../../team/house-mail';
import { TeamRepository } from '../../team/team.repository';
import { Tokens } from '../../platform/tokens';
import { BatchesRepository } from '../batches.repository';
import { sentence } from '../../platform/words';

/** Tells teammates by mail that a batch is in. */
@Injectable()
export class BatchNotices {
  private readonly tokens: Tokens;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  async tell(scope: AccessScope, batchId: number): Promise<void> {
    const db = this.database.read(scope);
    const batch = await this.batches.find(db, batchId);
    if (!batch?.plan?.notify.length) return;
    const [organization, { counts }] = await Promise.all([
      this.team.organization(scope),
      this.batches.counts(db, batchId),
    ]);
    const words = sentence('batch.became', {
      count: new Intl.NumberFormat(organization.locale).format(batch.row_count),
      rows: batch.row_count,
      file: batch.file_name,
      became: verdictSentence(counts, organization.locale),
    });
    const link = `${this.config.PUBLIC_URL}/gather/${batchId}`;
    for (const id of batch.plan.notify) {
      const teammate = await this.team.teammate(scope, id);
      if (!teammate || teammate.left_at) continue;
      await this.mailOut.send(
        houseMail(organization, this.tokens, {
          ...{
            to: teammate.email,
            key: `batch-${batchId}-${randomUUID()}`,
            about: { teammateId: teammate.id },
          },
          subject: `“${batch.name}” is in`,
          text: `${words}\n\n${link}\n`,
          html: `<p>${escapeHtml(words)}</p><p><a href="${escapeHtml(link)}">See what became of every row</a></p>`,
        }),
      );
    }
  }
}
