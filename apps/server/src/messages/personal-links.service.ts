import { Inject, Injectable } from '@nestjs/common';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { TeamRepository } from '../team/team.repository';
import { filledLinks } from './composer';
import { ComposingService } from './composing.service';
import { MessageValuesService, wantedFor } from './message-values.service';
import { MessagesRepository } from './messages.repository';

/** Where a link with merge fields in it leads one person, at the moment that they follow it. */
@Injectable()
export class PersonalLinksService {
  private readonly tokens: Tokens;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MessageValuesService) private readonly values: MessageValuesService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(CONFIG) private readonly config: Config,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /** The page on which whoever got a delivery chooses what they get, or leaves. */
  preferencesOf(deliveryId: number): string {
    return `${this.config.PUBLIC_URL}/leave/${this.tokens.make('leave', deliveryId)}`;
  }

  /** `href` is an address of the message as typed. Fields of whoever is gone are empty. */
  async of(
    scope: AccessScope,
    { id, messageId, supporterId }: { id: number; messageId: number; supporterId: number },
    href: string,
  ): Promise<string> {
    const message = await this.messages.need(this.database.read(scope), messageId);
    const { composed, organization } = await this.composing.compose(scope, message);
    const sender = message.sender_id ? await this.team.teammate(scope, message.sender_id) : undefined;
    const wanted = wantedFor(message, { composed, organization, sender });
    const values = (await this.values.of(scope, [supporterId], wanted)).get(supporterId) ?? {};
    // Their own page to choose on, which the delivery opens.
    const own = { ...values, 'link.preferences': this.preferencesOf(id) };
    return filledLinks(composed, own)[composed.links.indexOf(href)] ?? href;
  }
}
