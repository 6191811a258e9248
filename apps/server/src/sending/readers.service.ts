import { Inject, Injectable } from '@nestjs/common';
import type { ReaderView } from '@goodword/core/contract';
import { ADDRESS_KIND } from '@goodword/core/permission';
import { verdictWords } from '@goodword/core/words';
import { scopeOfMessage, MessagesRepository } from '../messages/messages.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import { Database } from '../platform/database';
import { NotFound } from '../platform/errors';
import { sentence } from '../platform/words';
import type { AccessScope } from '../platform/scope';
import { SupportersRepository } from '../supporters/supporters.repository';
import { RecipientsService } from './recipients.service';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

/** Of a group as many as are asked whether they would get it, to show a few who would. */
const LOOKED_AT = 60;
const SHOWN = 8;

/**
 * Whom a message can be read as: those who would get it first, then who is in the group, then whoever else
 * was typed.
 */
@Injectable()
export class ReadersService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(RecipientsService) private readonly recipients: RecipientsService,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  async of(scope: AccessScope, id: number, search: string): Promise<ReaderView[]> {
    const db = this.database.read(scope);
    const message = await this.messages.find(db, id);
    if (!message) throw new NotFound('message');
    const group = await this.recipients.of(
      { ...scope, chapterId: message.chapter_id ?? scope.chapterId },
      message,
    );
    const people =
      search === ''
        ? await this.supporters.byIds(db, group.slice(0, LOOKED_AT))
        : (await this.supporters.page(db, { search }, null, LOOKED_AT)).rows;
    const ids = people.map((person) => person.id);
    const asking = {
      channel: message.channel,
      scope: scopeOfMessage(message),
      rules: await this.houseRules.rules(db),
      now: new Date(),
    };
    const [decisions, points] = [
      await this.facts.decide(db, ids, asking),
      await this.contacts.points(db, ids),
    ];
    // The group may be everybody: of it only those who were found are looked for.
    const found = new Set(ids);
    const among = new Set(group.filter((one) => found.has(one)));
    const kind = ADDRESS_KIND[message.channel];
    const readers = people.map((person): ReaderView & { rank: number } => {
      const decision = decisions.get(person.id);
      const own = points.filter((point) => point.supporter_id === person.id && point.kind === kind);
      const gets = decision?.verdict === 'send' && among.has(person.id);
      return {
        id: person.id,
        name: `${person.first_name} ${person.last_name}`.trim(),
        address: (own.find((point) => point.id === decision?.contactPointId) ?? own[0])?.shown ?? null,
        note: gets
          ? null
          : !among.has(person.id)
            ? sentence('readers.not-in-group')
            : verdictWords(decision?.verdict ?? 'no-address', message.channel),
        rank: gets ? 0 : among.has(person.id) ? 1 : 2,
      };
    });
    return readers
      .sort((a, b) => a.rank - b.rank)
      .slice(0, SHOWN)
      .map(({ rank: _rank, ...reader }) => reader);
  }
}
