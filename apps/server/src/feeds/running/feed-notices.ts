import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { escapeHtml } from '@goodword/core/letter';
import { CONFIG, type Config } from '../../platform/config';
import { Database } from '../../platform/database';
import { MAIL_OUT, type MailOut } from '../../platform/mail-out';
import type { AccessScope } from '../../platform/scope';
import { Tokens } from '../../platform/tokens';
import { sentence } from '../../platform/words';
import { houseMail } from '../../team/house-mail';
import { TeamRepository } from '../../team/team.repository';
import { FeedsRepository } from '../feeds.repository';
import { RunsRepository } from './runs.repository';

/** Tells by mail that a feed stopped by itself: whoever turned it on, and the owners where that is nobody. */
@Injectable()
export class FeedNotices {
  private readonly tokens: Tokens;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(FeedsRepository) private readonly feeds: FeedsRepository,
    @Inject(RunsRepository) private readonly runs: RunsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /** After a run: a mail where it is what stopped the feed, and none otherwise. */
  async tell(scope: AccessScope, feedId: number, runId: number): Promise<void> {
    const db = this.database.read(scope);
    const [feed, run] = [await this.feeds.find(db, feedId), await this.runs.find(db, runId)];
    const isCause = run?.state === 'held' || run?.state === 'failed';
    if (!feed || !isCause || feed.problem === null || feed.is_on === 1) return;
    const organization = await this.team.organization(scope);
    const words = sentence('feed.stopped', { name: feed.name, why: feed.problem });
    const link = `${this.config.PUBLIC_URL}/gather/feeds/${feedId}`;
    for (const teammate of await this.feeds.caretakers(db, feedId))
      await this.mailOut.send(
        houseMail(organization, this.tokens, {
          ...{ to: teammate.email, key: `feed-${runId}-${randomUUID()}`, about: { teammateId: teammate.id } },
          subject: sentence('feed.stopped-subject', { name: feed.name }),
          text: `${words}\n\n${link}\n`,
          html: `<p>${escapeHtml(words)}</p><p><a href="${escapeHtml(link)}">${escapeHtml(link)}</a></p>`,
        }),
      );
  }
}
