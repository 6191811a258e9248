import { Inject, Injectable } from '@nestjs/common';
import type { SendTestBody } from '@goodword/core/contract';
import { ADDRESS_KIND, isHandedOver } from '@goodword/core/permission';
import { ComposingService } from '../messages/composing.service';
import { MessageValuesService, wantedFor } from '../messages/message-values.service';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import { Database } from '../platform/database';
import { Conflict, NotFound, Unavailable } from '../platform/errors';
import type { HandOver } from '../platform/mail-out';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';
import { SegmentsService } from '../segments/segments.service';
import { ContactPointsRepository } from '../supporters/contact-points.repository';
import { SupportersRepository, type PersonRow } from '../supporters/supporters.repository';
import type { MailOf } from '../team/house-mail';
import { TeamRepository, type TeammateRow } from '../team/team.repository';
import { EnvelopeService } from './envelope.service';
import { chapterOfMessage } from './movable';
import { RecipientsService } from './recipients.service';

/** People who get one test: more are no test. */
const MOST_TESTERS = 50;

/**
 * A message as a test: to oneself, or to those on a list who agreed to that list; as the first of its group
 * or as whoever is named. It is marked as a test, and counts for nobody.
 */
/** Who gets a test, and whose address that is. */
interface Tester {
  address: string;
  about: MailOf;
}

@Injectable()
export class TestSendingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MessageValuesService) private readonly values: MessageValuesService,
    @Inject(RecipientsService) private readonly recipients: RecipientsService,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(EnvelopeService) private readonly envelopes: EnvelopeService,
  ) {}

  async test(scope: AccessScope, id: number, { asId, listId }: SendTestBody): Promise<{ to: string }> {
    const db = this.database.read(scope);
    const message = await this.messages.need(db, id);
    if (!isHandedOver(message.channel)) throw new Conflict(sentence('send.no-test-of-letters'));
    const teammate = scope.actorId ? await this.team.teammate(scope, scope.actorId) : undefined;
    if (!teammate) throw new NotFound('teammate');
    const to =
      listId === null
        ? [{ address: this.ownAddress(message, teammate), about: { teammateId: teammate.id } }]
        : await this.testers(scope, message, listId);
    const { composed, organization, listName } = await this.composing.compose(scope, message);
    const sender = message.sender_id ? await this.team.teammate(scope, message.sender_id) : teammate;
    const someone = await this.readAs(scope, message, asId);
    const wanted = wantedFor(message, { composed, organization, sender });
    const values = someone ? ((await this.values.of(scope, [someone.id], wanted)).get(someone.id) ?? {}) : {};
    const context = { message, composed, organization, sender, listName };
    for (const { address, about } of to)
      accepted(await this.envelopes.sendTest({ ...context, to: address, about, values }));
    // Somebody of the team has read it: that is what a test is asked for.
    if (message.state === 'draft' && listId === null)
      await this.database.writeUnlogged(scope, (tx) =>
        this.messages.change(tx, id, { tested_at: new Date(), sender_id: sender?.id ?? teammate.id }),
      );
    return { to: listId === null ? to[0]!.address : sentence('send.testers', { count: to.length }) };
  }

  private ownAddress({ channel }: MessageRow, { email, mobile }: TeammateRow): string {
    const own = channel === 'email' ? email : mobile;
    if (!own) throw new Conflict(sentence('send.no-own-mobile'));
    return own;
  }

  /** Addresses of those on a list who may get what goes to that list, on the message's channel, now. */
  private async testers(scope: AccessScope, message: MessageRow, listId: number): Promise<Tester[]> {
    const db = this.database.read(scope);
    const ids = await this.segments.members(scope, { kind: 'list', listId, on: true });
    if (ids.length > MOST_TESTERS)
      throw new Conflict(sentence('send.too-many-testers', { count: ids.length, most: MOST_TESTERS }));
    const decided = await this.facts.decide(db, ids, {
      ...{ channel: message.channel, scope: `list:${listId}` as const, now: new Date() },
      rules: await this.houseRules.rules(db),
    });
    const chosen = new Set(
      [...decided.values()].flatMap(({ verdict, contactPointId }) =>
        verdict === 'send' && contactPointId !== null ? [contactPointId] : [],
      ),
    );
    const kind = ADDRESS_KIND[message.channel];
    const points = await this.contacts.pointsWithParts(db, ids);
    const to = points.filter((point) => point.kind === kind && chosen.has(point.id));
    const addresses = new Map(to.map(({ id, normal }) => [normal, id]));
    if (addresses.size === 0) throw new Conflict(sentence('send.no-testers'));
    return [...addresses].map(([address, id]) => ({ address, about: { contactPointId: id } }));
  }

  private async readAs(
    scope: AccessScope,
    message: MessageRow,
    asId: number | null,
  ): Promise<PersonRow | undefined> {
    const db = this.database.read(scope);
    if (asId !== null) {
      const named = await this.supporters.find(db, asId);
      if (!named) throw new NotFound('supporter');
      return named;
    }
    const ids = await this.recipients.of(chapterOfMessage(scope, message), message);
    const [first] = await this.supporters.byIds(db, ids.slice(0, 1));
    return first ?? (await this.supporters.page(db, {}, null, 1)).rows[0];
  }
}

function accepted(outcome: HandOver): void {
  if (outcome.kind === 'unreachable' || outcome.kind === 'unsure')
    throw new Unavailable(sentence('send.test-unreachable', { detail: outcome.detail }));
  if (outcome.kind === 'refused')
    throw new Conflict(sentence('send.test-refused', { detail: outcome.detail }));
}
