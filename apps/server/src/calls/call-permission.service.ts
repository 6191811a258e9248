import { Inject, Injectable } from '@nestjs/common';
import { FELL_OUT } from '@goodword/core/campaigns';
import type { Decision, Purpose, Verdict } from '@goodword/core/permission';
import { FallingOutRepository } from '../campaigns/falling-out.repository';
import { MessagesRepository } from '../messages/messages.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import type { Scoped } from '../platform/scoped';
import { eligibilityQueryOf } from '../sending/last-look.service';

/** What a list calls for: a purpose, or as a step of a campaign. */
export interface CallsFor {
  purpose: Purpose;
  message_id: number | null;
}

/** Who may be called for something now; for a step of a campaign also whether they are out of it. */
@Injectable()
export class CallPermission {
  constructor(
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(FallingOutRepository) private readonly fallingOut: FallingOutRepository,
  ) {}

  async decide(
    db: Scoped,
    ids: readonly number[],
    { purpose, message_id: messageId }: CallsFor,
  ): Promise<Map<number, Decision>> {
    const rules = await this.houseRules.rules(db);
    if (messageId === null)
      return this.facts.decide(db, ids, { channel: 'call', scope: purpose, rules, now: new Date() });
    const message = await this.messages.need(db, messageId);
    const decided = await this.facts.decide(db, ids, eligibilityQueryOf(message, rules));
    for (const id of (await this.fallingOut.ofMessage(db, messageId, ids)).keys()) decided.set(id, FELL_OUT);
    return decided;
  }

  /** Who of these may not be called now, with the reason. */
  async suppressedOf(db: Scoped, ids: readonly number[], about: CallsFor): Promise<Map<number, Verdict>> {
    const decided = await this.decide(db, ids, about);
    return new Map([...decided].flatMap(([id, { verdict }]) => (verdict === 'send' ? [] : [[id, verdict]])));
  }
}
