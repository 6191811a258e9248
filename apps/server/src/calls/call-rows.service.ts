import { Inject, Injectable } from '@nestjs/common';
import { isoDay } from '@goodword/core/common';
import type { CallRow } from '@goodword/core/contract';
import { verdictWords } from '@goodword/core/words';
import { composeScript, filledText, type Composed } from '../messages/composer';
import { ComposingService } from '../messages/composing.service';
import { MergeRegistryService } from '../messages/merge-registry.service';
import { MessageValuesService, wantedFor, type ValuesWanted } from '../messages/message-values.service';
import { MessagesRepository } from '../messages/messages.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { ContactPointsRepository } from '../supporters/contact-points.repository';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { callHours } from './call-hours';
import { CallPermission } from './call-permission.service';
import type { CallListRow, CallMemberRow } from './calls.repository';

/** People of a list as whoever calls sees them: number, hours, script, and what came of the call. */
@Injectable()
export class CallRowsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CallPermission) private readonly permission: CallPermission,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(MessageValuesService) private readonly values: MessageValuesService,
    @Inject(MergeRegistryService) private readonly registry: MergeRegistryService,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  async of(scope: AccessScope, list: CallListRow, members: readonly CallMemberRow[]): Promise<CallRow[]> {
    const db = this.database.read(scope);
    const ids = members.map((member) => member.supporter_id);
    const [organization, points, gifts, decided, people, rules] = await Promise.all([
      this.team.organization(scope),
      this.contacts.points(db, ids),
      this.supporters.gifts(db, ids),
      this.permission.decide(db, ids, list),
      this.supporters.byIds(db, ids),
      this.houseRules.rules(db),
    ]);
    const now = new Date();
    const placeOf = new Map(people.map(({ id, country, region }) => [id, { country, region }]));
    const { composed, ...wanted } = await this.scriptOf(scope, list);
    const values = await this.values.of(scope, ids, { ...wanted, composed });
    return members.map((member) => {
      const id = member.supporter_id;
      const gift = gifts.find((one) => one.supporter_id === id && Number(one.amount) > 0);
      const hours = callHours(placeOf.get(id) ?? { country: null, region: null }, rules, organization, now);
      const chosen = points.find(
        (point) => point.supporter_id === id && point.id === decided.get(id)?.contactPointId,
      );
      return {
        position: member.position,
        supporterId: id,
        name: member.gone
          ? 'No longer here'
          : `${member.first_name} ${member.last_name}`.trim() || 'No name on file',
        phone: hours.from === null ? (chosen?.shown ?? null) : null,
        hours,
        suppressed: member.gone
          ? 'No longer here'
          : member.suppressed && verdictWords(member.suppressed, 'call'),
        stage: member.stage,
        outcome: member.outcome,
        note: member.note ?? '',
        lastGift: gift ? { amount: Number(gift.amount), on: isoDay(gift.given_on) } : null,
        script: filledText(composed, values.get(id) ?? {}).text,
      };
    });
  }

  /** What is said, and whose values it takes; of a step its words, as they were looked at. */
  private async scriptOf(scope: AccessScope, list: CallListRow): Promise<ValuesWanted> {
    const sender = scope.actorId ? await this.team.teammate(scope, scope.actorId) : undefined;
    if (list.message_id !== null) {
      const message = await this.messages.need(this.database.read(scope), list.message_id);
      const { composed, organization } = await this.composing.compose(scope, message);
      return wantedFor(message, { composed, organization, sender });
    }
    const organization = await this.team.organization(scope);
    const composed: Composed = composeScript(list.script, await this.registry.of(scope));
    const about = { channel: 'call', scope: list.purpose, locale: organization.locale, ask: null } as const;
    return { ...about, composed, organization, sender };
  }
}
