import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { TeamRepository } from '../team/team.repository';
import { filledLinks } from './composer';
import { ComposingService } from './composing.service';
import { MessageValuesService, wantedFor } from './message-values.service';
import { MessagesRepository } from './messages.repository';

/** Where a link with merge fields in it leads one person, at the moment that they follow it. */
@Injectable()
export class PersonalLinksService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MessageValuesService) private readonly values: MessageValuesService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** `href` is an address of the message as typed. Fields of whoever is gone are empty. */
  async of(
    scope: AccessScope,
    { messageId, supporterId }: { messageId: number; supporterId: number },
    href: string,
  ): Promise<string> {
    const message = await this.messages.need(this.database.read(scope), messageId);
    const { composed, organization } = await this.composing.compose(scope, message);
    const sender = message.sender_id ? await this.team.teammate(scope, message.sender_id) : undefined;
    const wanted = wantedFor(message, { composed, organization, sender });
    const values = (await this.values.of(scope, [supporterId], wanted)).get(supporterId) ?? {};
    return filledLinks(composed, values)[composed.links.indexOf(href)] ?? href;
  }
}
