import { Inject, Injectable, Logger } from '@nestjs/common';
import type { Scope as PermissionScope } from '@goodword/core/permission';
import { TagDeedsService } from '../messages/tag-deeds.service';
import { LedgerRepository } from '../permission/ledger.repository';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { NotFound } from '../platform/errors';
import { programScope } from '../platform/scope';
import { Tokens, type TokenUse } from '../platform/tokens';
import { WaysOutRepository, type TokenDelivery } from './waysout.repository';

export type LeaveAct = 'this' | 'all' | 'back';

@Injectable()
export class WaysOutService {
  private readonly tokens: Tokens;
  private readonly log = new Logger('ways out');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(WaysOutRepository) private readonly waysOut: WaysOutRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(TagDeedsService) private readonly tagDeeds: TagDeedsService,
    @Inject(CONFIG) config: Config,
  ) {
    this.tokens = new Tokens(config.SECRET);
  }

  async find(use: TokenUse, token: string): Promise<TokenDelivery & { extra: number }> {
    const read = this.tokens.read(use, token);
    const delivery = read ? await this.waysOut.delivery(this.database, read.id) : null;
    if (!read || !delivery) {
      this.log.warn({ use, known: read !== null }, 'a link that is none of ours, or of something gone');
      throw new NotFound('message behind this link');
    }
    return { ...delivery, extra: read.extra };
  }

  /** How the person stands now, for the page. */
  async standing(delivery: TokenDelivery): Promise<{ leftThis: boolean; leftAll: boolean }> {
    const db = this.database.read(programScope(delivery.organizationId));
    const [leftThis, leftAll] = await Promise.all([
      this.waysOut.standsAtNo(db, delivery, delivery.scope),
      this.waysOut.standsAtNo(db, delivery, 'all'),
    ]);
    return { leftThis, leftAll: leftThis && leftAll };
  }

  /** Acts at once; the same act twice leaves one entry. `road` is a mail where the way out was one. */
  async leave(delivery: TokenDelivery, act: LeaveAct, origin: string, road: 'one-click' | 'reply' = 'one-click', said?: string): Promise<void> {
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      const scope: PermissionScope = act === 'all' ? 'all' : delivery.scope;
      const closed = await this.waysOut.standsAtNo(tx, delivery, scope);
      if (closed === (act !== 'back')) return;
      await this.ledger.record(tx, {
        contactPointId: delivery.contactPointId,
        supporterId: delivery.supporterId,
        channel: delivery.channel,
        scope,
        state: act === 'back' ? 'yes' : 'no',
        saidAt: new Date(),
        byPerson: true,
        how: road,
        words: said
          ? said.slice(0, 500)
          : act === 'back'
            ? `Keep sending me ${delivery.scopeName}`
            : act === 'all'
              ? 'Send me nothing more'
              : `No more ${delivery.scopeName}`,
        source: `From “${delivery.messageName}”`,
        origin,
      });
      if (act === 'back') return;
      if (await this.waysOut.mark(tx, delivery.id, 'left_it'))
        await this.waysOut.event(
          tx,
          delivery,
          'left',
          `${road === 'reply' ? 'By mail' : 'One click'}, ${act === 'all' ? 'everything' : delivery.scopeName}`,
        );
    });
  }

  async opened(token: string): Promise<void> {
    const delivery = await this.find('open', token);
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      tx.unchanged();
      if (await this.waysOut.mark(tx, delivery.id, 'opened')) await this.waysOut.event(tx, delivery, 'opened', '');
    });
  }

  /** The address behind a tracked link: only ever one that stood in the message. */
  async followed(token: string): Promise<string> {
    const delivery = await this.find('follow', token);
    const scope = programScope(delivery.organizationId);
    const url = await this.waysOut.link(this.database.read(scope), delivery.messageId, delivery.extra);
    if (!url) throw new NotFound('link');
    await this.database.write(scope, async (tx) => {
      tx.unchanged();
      if (await this.waysOut.mark(tx, delivery.id, 'followed')) await this.tagDeeds.done(tx, delivery, 'followed');
      if (!(await this.waysOut.hasFollowed(tx, delivery.id, url))) await this.waysOut.event(tx, delivery, 'followed', url);
    });
    return url;
  }
}
