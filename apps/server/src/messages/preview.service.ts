import { Inject, Injectable } from '@nestjs/common';
import type { Preview } from '@goodword/core/contract';
import { emptySlots } from '@goodword/core/merge';
import { countParts } from '@goodword/core/text';
import { FactsRepository } from '../permission/ledger/facts.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { Database } from '../platform/database';
import { NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { filledText } from './composer';
import { ComposingService } from './composing.service';
import { shownHeaders } from './mail-headers';
import { MessageValuesService } from './message-values.service';
import { scopeOfMessage, type Composable } from './messages.repository';

/** Words as one person will get them. */
@Injectable()
export class PreviewService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MessageValuesService) private readonly values: MessageValuesService,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
  ) {}

  /** Without a person, as the first supporter would. */
  async of(
    scope: AccessScope,
    words: Composable,
    senderId: number | null,
    supporterId: number | undefined,
  ): Promise<Preview> {
    const db = this.database.read(scope);
    const person = supporterId
      ? await this.supporters.find(db, supporterId)
      : (await this.supporters.page(db, {}, null, 1)).rows[0];
    if (!person) throw new NotFound('supporter');
    const { composed, organization, whyOf, listName } = await this.composing.compose(scope, words);
    const sender = senderId ? await this.team.teammate(scope, senderId) : undefined;
    const about = { channel: words.channel, scope: scopeOfMessage(words) };
    const locale = words.locale ?? organization.locale;
    const wanted = { ...about, composed, organization, sender, locale, ask: words.ask };
    const values = (await this.values.of(scope, [person.id], wanted)).get(person.id) ?? {};
    const asking = { ...about, rules: await this.houseRules.rules(db), now: new Date() };
    const entryId = (await this.facts.decide(db, [person.id], asking)).get(person.id)?.entryId ?? null;
    const basis = entryId === null ? null : ((await this.facts.bases(db, [entryId])).get(entryId) ?? null);
    const filled = filledText(composed, { ...values, leave: '#', why: whyOf(basis) });
    const missing = emptySlots({ parts: composed.own }, values).map((slot) => slot.name);
    return {
      supporter: { id: person.id, name: `${person.first_name} ${person.last_name}`.trim() },
      ...filled,
      headers:
        words.channel === 'email'
          ? shownHeaders(words, { listName, organization, sender, subject: filled.subject })
          : [],
      parts: countParts(filled.text, composed.shiftTables).parts,
      holes: [...new Set(missing)],
    };
  }
}
