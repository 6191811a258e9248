import { dayInZone } from '@goodword/core/common';
import { formatDay } from '@goodword/core/fields';
import { Inject, Injectable } from '@nestjs/common';
import type { PrintAct } from '@goodword/core/contract';
import { greetingOf, oneEach } from '@goodword/core/household';
import { ComposingService } from '../messages/composing.service';
import { MergeRegistryService } from '../messages/merge-registry.service';
import { MessageValuesService } from '../messages/message-values.service';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { Database } from '../platform/database';
import type { Scoped } from '../platform/scoped';
import { Conflict } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { TeamRepository, type OrganizationRow } from '../team/team.repository';
import { letterPages } from './sheets';
import { sentence } from '../platform/words';
import { type Here, addressLines, nameOf, inOrder } from './printed-people.service';

/** Letters for those who may be written to by post, each with its person's words. */
@Injectable()
export class LettersService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MergeRegistryService) private readonly registry: MergeRegistryService,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(MessageValuesService) private readonly values: MessageValuesService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  async letterDocument(scope: AccessScope, act: PrintAct, may: Here[], organization: OrganizationRow) {
    const db = this.database.read(scope);
    const message = await this.letter(db, act);
    const sender = scope.actorId ? await this.team.teammate(scope, scope.actorId) : undefined;
    const { composed } = await this.composing.compose(scope, { ...message, channel: 'post' });
    const values = await this.values.of(
      scope,
      may.map(({ person }) => person.id),
      {
        channel: 'post',
        scope: act.purpose,
        composed,
        organization,
        sender,
        locale: message.locale ?? organization.locale,
        ask: message.ask,
      },
    );
    const letters = (act.together ? oneEach(may) : may.map((one) => [one])).map((together) => {
      const own = values.get(together[0]!.person.id) ?? {};
      // Only those who are written to are greeted: whoever of the household objected is not.
      const greeting = greetingOf(inOrder(together).map(nameOf), null, organization.locale);
      return { address: addressLines(together, organization), values: { ...own, greeting } };
    });
    const around = {
      registry: await this.registry.of(scope),
      organization: organization.name,
      postalAddress: organization.postal_address,
      day: dayOnPaper(organization),
      paper: act.paper,
    };
    return letterPages(message.letter!, letters, around);
  }

  async letter(db: Scoped, act: PrintAct): Promise<MessageRow> {
    const message = act.messageId === null ? undefined : await this.messages.find(db, act.messageId);
    if (!message?.letter) throw new Conflict(sentence('print.letter'));
    return message;
  }
}

/** Today, where the organization is, as it stands on paper. */
export function dayOnPaper(organization: OrganizationRow): string {
  return formatDay(dayInZone(Date.now(), organization.time_zone), organization.locale);
}
