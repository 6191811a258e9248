import { Inject, Injectable, Logger } from '@nestjs/common';
import { isOptedOut, type Scope as PermissionScope } from '@goodword/core/permission';
import { PersonalLinksService } from '../messages/personal-links.service';
import { TagTriggersService } from '../messages/tag-triggers.service';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { PersonCellsRepository } from '../permission/ledger/facts.repository';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { NotFound } from '../platform/errors';
import { programScope } from '../platform/scope';
import { ShortLinks } from '../platform/short-links';
import { Tokens, type TokenUse } from '../platform/tokens';
import { UnsubscribeRepository, type TokenDelivery } from './unsubscribe.repository';
import { EntriesRepository } from '../permission/ledger/entries.repository';

export type UnsubscribeCommand = 'this' | 'all' | 'back';

/**
 * How long a leaving can be undone on its own page; whoever comes back later does so on the preference page.
 */
const UNDO_DAYS = 7;
const SAME_PRESS_MS = 60_000;
const undoableSince = () => new Date(Date.now() - UNDO_DAYS * 86_400_000);

@Injectable()
export class UnsubscribeService {
  private readonly tokens: Tokens;
  private readonly shortLinks: ShortLinks;
  private readonly log = new Logger('ways out');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(UnsubscribeRepository) private readonly unsubscribe: UnsubscribeRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(TagTriggersService) private readonly tagTriggers: TagTriggersService,
    @Inject(PersonalLinksService) private readonly personalLinks: PersonalLinksService,
    @Inject(CONFIG) config: Config,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
    this.shortLinks = new ShortLinks(config.SECRET, config.SECRET_BEFORE);
  }

  async find(use: TokenUse, token: string): Promise<TokenDelivery & { extra: number }> {
    const read = this.tokens.read(use, token);
    const delivery = read ? await this.unsubscribe.delivery(this.database, read.id) : null;
    if (!read || !delivery) {
      this.log.warn({ use, known: read !== null }, 'a link that is none of ours, or of something gone');
      throw new NotFound('message behind this link');
    }
    return { ...delivery, extra: read.extra };
  }

  /** The delivery behind a tracked link, or a short one. */
  private async followed(token: string): Promise<TokenDelivery & { extra: number }> {
    const short = this.shortLinks.read(token);
    if (!short) return this.find('follow', token);
    const delivery = await this.unsubscribe.delivery(this.database, short.id);
    if (!delivery) throw new NotFound('message behind this link');
    return { ...delivery, extra: short.extra };
  }

  /** How the person stands now, for the page; and whether what this link closed can still be undone. */
  async leaveStatus(
    delivery: TokenDelivery,
  ): Promise<{ leftThis: boolean; leftAll: boolean; canUndo: boolean }> {
    const db = this.database.read(programScope(delivery.organizationId));
    const person = await this.cells.one(db, delivery.supporterId, await this.houseRules.rules(db));
    const contactPointId = await this.unsubscribe.currentPoint(
      db,
      delivery.supporterId,
      delivery.contactPointId,
    );
    const isNo = (scope: PermissionScope) =>
      isOptedOut(person.marksAt({ contactPointId, channel: delivery.channel, scope })) !== undefined;
    const canUndo = (await this.entries.leavingsOf(db, delivery.id, undoableSince())).length > 0;
    return { leftThis: isNo(delivery.scope), leftAll: isNo(delivery.scope) && isNo('all'), canUndo };
  }

  /**
   * Acts at once and is always written down, also where it changes nothing; a press that is repeated within a
   * minute is the same one. `road` is a mail where the way out was one.
   */
  async leave(
    delivery: TokenDelivery,
    act: UnsubscribeCommand,
    origin: string,
    road: 'one-click' | 'reply' = 'one-click',
    said?: string,
  ): Promise<void> {
    if (act === 'back') return this.undoLeaving(delivery);
    const scope: PermissionScope = act === 'all' ? 'all' : delivery.scope;
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      tx.unchanged();
      await this.unsubscribe.lockDelivery(tx, delivery.id);
      if (
        await this.entries.hasJustLeft(
          tx,
          delivery.id,
          { scope, how: road },
          new Date(Date.now() - SAME_PRESS_MS),
        )
      )
        return;
      await this.ledger.record(tx, {
        contactPointId: delivery.contactPointId,
        supporterId: delivery.supporterId,
        channel: delivery.channel,
        scope,
        state: 'no',
        saidAt: new Date(),
        byPerson: true,
        how: road,
        words:
          said?.slice(0, 500) ?? (act === 'all' ? 'Send me nothing more' : `No more ${delivery.scopeName}`),
        source: `From “${delivery.messageName}”`,
        origin,
        deliveryId: delivery.id,
      });
      const way = road === 'reply' ? 'By mail' : 'One click';
      if (await this.unsubscribe.mark(tx, delivery.id, 'left_it'))
        await this.unsubscribe.event(
          tx,
          delivery,
          'left',
          `${way}, ${act === 'all' ? 'everything' : delivery.scopeName}`,
        );
    });
  }

  /**
   * Undoes just what this link closed, for some days; a no that was said in any other way stays, whenever
   * that was.
   */
  private async undoLeaving(delivery: TokenDelivery): Promise<void> {
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      tx.unchanged();
      await this.unsubscribe.lockDelivery(tx, delivery.id);
      const ids = await this.entries.leavingsOf(tx, delivery.id, undoableSince());
      await this.ledger.takeBack(tx, ids, 'by the one who left, on the page of that message');
    });
  }

  async opened(token: string): Promise<void> {
    const delivery = await this.find('open', token);
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      tx.unchanged();
      if (await this.unsubscribe.mark(tx, delivery.id, 'opened'))
        await this.unsubscribe.event(tx, delivery, 'opened', '');
    });
  }

  /** The address behind a tracked link: only ever one that stood in the message. */
  async clicked(token: string): Promise<string> {
    const delivery = await this.followed(token);
    const scope = programScope(delivery.organizationId);
    const url = await this.unsubscribe.link(this.database.read(scope), delivery.messageId, delivery.extra);
    if (!url) throw new NotFound('link');
    const target = url.includes('{') ? await this.personalLinks.of(scope, delivery, url) : url;
    // On their own page to choose on nobody is counted.
    if (target === this.personalLinks.preferencesOf(delivery.id)) return target;
    await this.database.write(scope, async (tx) => {
      tx.unchanged();
      if (await this.unsubscribe.mark(tx, delivery.id, 'clicked'))
        await this.tagTriggers.done(tx, delivery, 'clicked');
      if (!(await this.unsubscribe.hasClicked(tx, delivery.id, url)))
        await this.unsubscribe.event(tx, delivery, 'clicked', url);
    });
    return target;
  }
}
