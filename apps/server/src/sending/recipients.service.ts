import { Inject, Injectable } from '@nestjs/common';
import {
  MOST_CHOSEN,
  type BeginToBody,
  type GroupRef,
  type Recipients,
  type ResultKind,
} from '@goodword/core/contract';
import type { MessageLine, Rule } from '@goodword/core/segment';
import { MessagesService } from '../messages/messages.service';
import { isForHouseholds, MessagesRepository, type MessageRow } from '../messages/messages.repository';
import type { Fall } from '@goodword/core/campaigns';
import { FallingOutRepository } from '../campaigns/falling-out.repository';
import { StepsRepository, type StepOfCampaign } from '../campaigns/steps.repository';
import { Database } from '../platform/database';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { HouseholdsRepository } from '../record/households.repository';
import { ResultsRepository } from '../results/results.repository';
import { SegmentsService } from '../segments/segments.service';
import { SupportersRepository } from '../supporters/supporters.repository';
import { sentence } from '../platform/words';

/** People whose households are read at once. */
const SLICE = 10_000;

/** Who is meant by a message, before anybody is asked whether they may get it. */
@Injectable()
export class RecipientsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(MessagesService) private readonly drafts: MessagesService,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(ResultsRepository) private readonly results: ResultsRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(HouseholdsRepository) private readonly homes: HouseholdsRepository,
    @Inject(StepsRepository) private readonly steps: StepsRepository,
    @Inject(FallingOutRepository) private readonly fallingOut: FallingOutRepository,
  ) {}

  /** Everybody in a message's group; of a step of a campaign without those who are out of it. */
  async of(scope: AccessScope, message: Addressed): Promise<number[]> {
    const { ids, fell } = await this.parted(scope, message);
    return fell.size === 0 ? ids : ids.filter((id) => !fell.has(id));
  }

  /** The same with those who are out, and which they are. */
  async parted(scope: AccessScope, message: Addressed): Promise<{ ids: number[]; fell: Map<number, Fall> }> {
    const ids = await this.everybodyOf(scope, message);
    return { ids, fell: await this.fallingOut.ofMessage(this.database.read(scope), message.id, ids) };
  }

  /** By the same evaluator as everywhere, in rising order. */
  private async everybodyOf(scope: AccessScope, message: Addressed): Promise<number[]> {
    const { recipients } = message;
    const { from, minus, chosen = [] } = recipients;
    if (from.length === 0 && chosen.length === 0) return [];
    const peopleOf = (refs: readonly GroupRef[]) =>
      refs.filter(({ kind }) => kind === 'person').map(({ id }) => id);
    const without = new Set([...recipients.without, ...peopleOf(minus)]);
    const grouped = from.some(({ kind }) => kind !== 'person')
      ? await this.segments.members(scope, await this.ruleOfMessage(scope, message))
      : [];
    const named = (
      await this.supporters.byIds(this.database.read(scope), [...peopleOf(from), ...chosen])
    ).map(({ id }) => id);
    const taken =
      named.length > 0 && minus.some(isGroupOfMany)
        ? new Set(await this.segments.members(scope, await this.minusRule(scope, minus)))
        : null;
    const ids = [...grouped, ...named.filter((id) => !taken?.has(id))];
    return [...new Set(ids)].filter((id) => !without.has(id)).sort((a, b) => a - b);
  }

  /** What its campaign says of a step: its time, and for whom it is over when. */
  async stepOf(scope: AccessScope, { id }: Addressed): Promise<StepOfCampaign | null> {
    return (await this.steps.of(this.database.read(scope), id)) ?? null;
  }

  /**
   * The group of a message as one rule: of a step those on the roster, and whoever comes onto it by
   * themselves, as far as the step is for them.
   */
  async ruleOfMessage(scope: AccessScope, { id, recipients }: Addressed): Promise<Rule> {
    const group = await this.rule(scope, recipients);
    const step = await this.stepOf(scope, { id, recipients });
    if (!step) return group;
    const { campaignId, joinsFrom } = step;
    const roster: Rule = { kind: 'roster', campaignId, stages: [], on: true };
    const joining = joinsFrom === null ? [] : [(await this.segments.segment(scope, joinsFrom)).tree];
    return {
      kind: 'all',
      rules: [
        { kind: 'any', rules: [roster, ...joining] },
        ...(step.rule ? [step.rule] : []),
        { kind: 'none', rules: await this.rulesOf(scope, recipients.minus) },
      ],
    };
  }

  /**
   * Of a letter that is for a whole household: that of each of these people, 0 for none. Undefined where each
   * gets their own copy.
   */
  async households(
    scope: AccessScope,
    message: Pick<MessageRow, 'channel' | 'recipients'>,
    ids: readonly number[],
  ): Promise<Uint32Array | undefined> {
    if (!isForHouseholds(message)) return undefined;
    const db = this.database.read(scope);
    const homes = new Map<number, number>();
    for (let from = 0; from < ids.length; from += SLICE)
      for (const [id, home] of await this.homes.idsOf(db, ids.slice(from, from + SLICE))) homes.set(id, home);
    return Uint32Array.from(ids, (id) => homes.get(id) ?? 0);
  }

  /** The groups as one rule; refuses a segment that is gone. */
  async rule(scope: AccessScope, { from, minus }: Recipients): Promise<Rule> {
    return {
      kind: 'all',
      rules: [
        { kind: 'any', rules: await this.rulesOf(scope, from) },
        { kind: 'none', rules: await this.rulesOf(scope, minus) },
      ],
    };
  }

  private async minusRule(scope: AccessScope, minus: readonly GroupRef[]): Promise<Rule> {
    return { kind: 'any', rules: await this.rulesOf(scope, minus) };
  }

  private rulesOf(scope: AccessScope, refs: readonly GroupRef[]): Promise<Rule[]> {
    return Promise.all(refs.filter(isGroupOfMany).map((ref) => this.ruleOf(scope, ref)));
  }

  private async ruleOf(scope: AccessScope, ref: GroupOfMany): Promise<Rule> {
    switch (ref.kind) {
      case 'segment':
        return (await this.segments.segment(scope, ref.id)).tree;
      case 'list':
        return { kind: 'list', listId: ref.id, on: true };
      case 'tag':
        return { kind: 'tag', tagId: ref.id, has: true };
      case 'batch':
        return { kind: 'batch', batchId: ref.id, in: true };
      case 'campaign':
        return {
          kind: 'roster',
          campaignId: ref.id,
          stages: ref.stage === undefined ? [] : [ref.stage],
          on: true,
        };
      case 'message':
        return messageRule(ref.id, ref.did ?? 'got');
    }
  }

  /** Begins a message to a group that somebody looks at. People who were ticked are named one by one. */
  async begin(scope: AccessScope, { to, ...message }: BeginToBody): Promise<{ id: number }> {
    const recipients: Recipients = { from: [], minus: [], without: [], ...(await this.meant(scope, to)) };
    if (recipients.from.length > 0) await this.rule(scope, recipients);
    const id = await this.database.writeUnlogged(scope, async (tx) => {
      const made = await this.drafts.begin(tx, message);
      await this.messages.change(tx, made, { recipients: JSON.stringify(recipients) });
      return made;
    });
    return { id };
  }

  private async behind(
    scope: AccessScope,
    { messageId, kind }: { messageId: number; kind: ResultKind },
  ): Promise<number[]> {
    const db = this.database.read(scope);
    if (!(await this.messages.find(db, messageId))) throw new NotFound('message');
    return this.results.peopleIds(db, messageId, kind);
  }

  private async meant(scope: AccessScope, to: BeginToBody['to']): Promise<Partial<Recipients>> {
    if ('ref' in to) return { from: [to.ref] };
    const chosen = await this.segments.peopleIn(
      scope,
      'group' in to ? to.group : { ids: await this.behind(scope, to.result) },
    );
    if (chosen.length === 0) throw new Conflict(sentence('group.nobody-to-write'));
    if (chosen.length > MOST_CHOSEN)
      throw new Invalid([
        {
          field: 'to',
          code: 'many',
          message: sentence('recipients.too-many', { count: chosen.length, most: MOST_CHOSEN }),
        },
      ]);
    return { chosen };
  }
}

/** What says who is meant by a message. */
type Addressed = Pick<MessageRow, 'id' | 'recipients'>;

type GroupOfMany = GroupRef & { kind: Exclude<GroupRef['kind'], 'person'> };

/** Single people are no rule: they are named. */
function isGroupOfMany(ref: GroupRef): ref is GroupOfMany {
  return ref.kind !== 'person';
}

/**
 * Who did not do something with a message are those of its readers who did not: everybody else never had it.
 */
function messageRule(messageId: number, did: NonNullable<GroupRef['did']>): Rule {
  const line = (event: MessageLine['event'], done: boolean): MessageLine => ({
    ...{ kind: 'message', event, did: done, messageId, atLeast: 1 },
    window: { over: 'ever' },
  });
  if (did === 'not-clicked' || did === 'not-replied')
    return {
      kind: 'all',
      rules: [line('got', true), line(did === 'not-clicked' ? 'clicked' : 'replied', false)],
    };
  return line(did, true);
}
