import { hasSecond, wantsSecond, type SecondAsked, type SecondSaid } from '@goodword/core/team';
import { CAUSES, type Cause } from '@goodword/core/automations';
import { Inject, Injectable } from '@nestjs/common';
import type { LastLook, Page, SupporterRow } from '@goodword/core/contract';
import { emptySlots, shownSlots, slotsOf, type MergeValues } from '@goodword/core/merge';
import {
  isHandedOver,
  rulesFor,
  SUPPRESSION_REASONS,
  type Channel,
  type HouseRules,
  type SendingChannel,
  type Verdict,
} from '@goodword/core/permission';
import { TextCrowd, type TextsOfCrowd } from '@goodword/core/text';
import type { EligibilityQuery } from '../permission/ledger/facts.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Newer } from '../platform/errors';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { AccessScope } from '../platform/scope';
import type { GroupReaders } from '../roll/group-readers';
import { RollService } from '../roll/roll.service';
import { SupporterRows } from '../supporters/rows.service';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { filledText, type Composed } from '../messages/composer';
import { ComposingService } from '../messages/composing.service';
import { MessageValuesService, wantedFor } from '../messages/message-values.service';
import { MessagesRepository, scopeOfMessage, type MessageRow } from '../messages/messages.repository';
import { BesideService } from './beside.service';
import { RecipientsService } from './recipients.service';
import { SendingRepository } from './sending.repository';
import { sentence } from '../platform/words';
import { chapterOfMessage, movable } from './movable';
import { createHash } from 'node:crypto';

const CHUNK = 1000;

/** Somebody whose place is not known counts to the organization's own. */
const HERE = { country: null, region: null };

/** The last look at a message before it leaves: who gets it, who does not and why, and how it reads. */
@Injectable()
export class LastLookService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MessageValuesService) private readonly values: MessageValuesService,
    @Inject(RecipientsService) private readonly recipients: RecipientsService,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(SupporterRows) private readonly rows: SupporterRows,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(RollService) private readonly roll: RollService,
    @Inject(BesideService) private readonly beside: BesideService,
  ) {}

  async asking(db: Scoped, message: MessageRow): Promise<EligibilityQuery> {
    return eligibilityQueryOf(message, await this.houseRules.rules(db));
  }

  /**
   * Counts the group down to those who will get it, as of now, and looks at the words with these people in
   * mind.
   */
  async lastLook(scope: AccessScope, id: number): Promise<LastLook> {
    const message = await this.messages.need(this.database.read(scope), id);
    const chapterScope = chapterOfMessage(scope, message);
    if (message.state !== 'draft') throw new Conflict(sentence('send.settled', { state: message.state }));
    if (message.wording_of !== null) throw new Conflict(sentence('send.wording'));
    const { all, groups } = await this.narrowed(chapterScope, message);
    const about = await this.aboutOf(chapterScope, message);
    const digest = await this.database.writeUnlogged(chapterScope, async (tx) => {
      // Under the lock of the message: of two looks at once the later one is the one that is there, whole.
      const locked = await movable(this.messages, tx, scope, id, ['draft']);
      if (!sameVersion(locked, message)) throw new Newer('it', await this.team.nameOf(tx, locked.changed_by));
      await this.sending.keepLook(tx, id, groups);
      return digestOf(about, await this.sending.lookBytes(tx, id));
    });
    const people = (verdict: Verdict) => groups[verdict]?.length ?? 0;
    const { composed } = await this.composing.compose(chapterScope, message);
    const faults = [
      ...(await this.composing.faults(chapterScope, message)),
      ...(await this.beside.faults(chapterScope, message)),
    ];
    const asks = await this.beside.asks(this.database.read(scope), message);
    return {
      group: all,
      suppressed: suppressedOf(groups),
      reached: people('send'),
      ...(await this.lookAtWords(chapterScope, message, composed)),
      faults,
      doubts: await this.composing.doubts(chapterScope, message),
      inOrder: inOrder(message, faults.length),
      asks,
      second: await this.agreement(chapterScope, message, { reached: people('send'), asks }),
      hours: isHandedOver(message.channel) ? await this.hoursHere(scope, message.channel) : null,
      digest,
    };
  }

  /** When such a message may come where the house is; null for at any hour. */
  private async hoursHere(scope: AccessScope, channel: SendingChannel): Promise<LastLook['hours']> {
    return rulesFor(await this.houseRules.rules(this.database.read(scope)), HERE).hours[channel] ?? null;
  }

  /** The group counted down to those who would get it now; of a step those who fell out go first. */
  async narrowed(
    scope: AccessScope,
    message: MessageRow,
  ): Promise<{ all: number; ids: number[]; groups: GroupReaders }> {
    const { ids, fell } = await this.recipients.parted(scope, message);
    const rest = fell.size === 0 ? ids : ids.filter((id) => !fell.has(id));
    const asked = { channel: message.channel, scope: scopeOfMessage(message) };
    const households = await this.recipients.households(scope, message, rest);
    const groups = await this.roll.ask(scope, 'look', {
      ...{ asked, households },
      ids: Uint32Array.from(rest),
    });
    const out: GroupReaders =
      fell.size === 0 ? groups : { ...groups, 'fell-out': Uint32Array.from(fell.keys()) };
    return { all: ids.length, ids, groups: out };
  }

  /**
   * Which group it is, what they would read, from whom, and by which rules, as of now: differs where any of
   * it does.
   */
  async aboutOf(scope: AccessScope, message: MessageRow): Promise<string> {
    const [{ composed }, rules, group, step, others] = await Promise.all([
      this.composing.compose(scope, message),
      this.houseRules.rules(this.database.read(scope)),
      this.recipients.ruleOfMessage(scope, message),
      this.recipients.stepOf(scope, message),
      this.beside.aboutOf(scope, message),
    ]);
    const { channel, purpose, list_id, sender_id, version, group_version, recipients } = message;
    return JSON.stringify([
      channel,
      purpose,
      list_id,
      sender_id,
      version,
      group_version,
      recipients,
      group,
      step,
      composed,
      rules,
      others,
      scope.actorId,
    ]);
  }

  /** Agrees to a look that was seen: to its words, its group, and how many it reaches. */
  async second(scope: AccessScope, id: number, digest: string): Promise<void> {
    const seen = await this.messages.need(this.database.read(scope), id);
    const about = await this.aboutOf(chapterOfMessage(scope, seen), seen);
    await this.database.write(scope, async (tx) => {
      tx.changed('nothing', 0, []);
      const message = await movable(this.messages, tx, scope, id, ['draft']);
      if (!sameVersion(message, seen) || digestOf(about, await this.sending.lookBytes(tx, id)) !== digest)
        throw new Conflict(sentence('send.look-again'));
      const reached = (await this.sending.lookCounts(tx, id)).get('send') ?? 0;
      await this.messages.change(tx, id, {
        seconded_by: scope.actorId,
        seconded_group: message.group_version,
        seconded_reached: reached,
      });
      await audit(tx, 'second', { message: id }, `${message.name} agreed to for ${reached}`);
    });
  }

  /** Whether somebody else has to agree, and what was agreed to. */
  private async agreement(
    scope: AccessScope,
    message: MessageRow,
    found: { reached: number; asks: readonly string[] },
  ): Promise<LastLook['second']> {
    const db = this.database.read(scope);
    const { secondAbove: above = 0 } = await this.houseRules.rules(db);
    const why = wantsSecond(found, above);
    if (why === null) return null;
    const { said, asked } = secondOf(scope, message, found);
    return {
      ...{ why, above, reached: said.reached, own: said.by !== null && said.by === scope.actorId },
      by: said.by === null ? null : await this.team.nameOf(db, said.by),
      holds: hasSecond(said, asked, above),
    };
  }

  /** Holes in what people would read, and the text parts they would take, over everybody reached. */
  private async lookAtWords(
    scope: AccessScope,
    message: MessageRow,
    composed: Composed,
  ): Promise<Pick<LastLook, 'holes' | 'parts' | 'texts'>> {
    const risky = slotsOf({ parts: composed.own }).some((slot) => slot.or === null);
    if (!risky && message.channel !== 'text') return { holes: [], parts: null, texts: null };
    const missing = new Map<string, number>();
    const crowd = new TextCrowd(composed.shiftTables);
    const isText = message.channel === 'text';
    await this.overReached(scope, message, composed, (values) => {
      for (const name of new Set(emptySlots({ parts: composed.own }, values).map((slot) => slot.name)))
        missing.set(name, (missing.get(name) ?? 0) + 1);
      if (isText) crowd.see(filledText(composed, values).text, standingValues(composed, values));
    });
    return {
      holes: [...missing].map(([name, people]) => ({ name, people })),
      parts: isText ? crowd.found().total : null,
      texts: isText ? await this.costed(scope, crowd.found()) : null,
    };
  }

  private async costed(scope: AccessScope, { total, ...found }: TextsOfCrowd): Promise<LastLook['texts']> {
    const { text_price: price } = await this.team.organization(scope);
    return { ...found, cost: price === null ? null : Number(price) * total };
  }

  private async overReached(
    scope: AccessScope,
    message: MessageRow,
    composed: Composed,
    each: (values: MergeValues) => void,
  ): Promise<void> {
    const db = this.database.read(scope);
    const organization = await this.team.organization(scope);
    const sender = message.sender_id ? await this.team.teammate(scope, message.sender_id) : undefined;
    const wanted = wantedFor(message, { composed, organization, sender });
    for (let from = 0; ; from += CHUNK) {
      const ids = await this.sending.lookPeople(db, message.id, 'send', from, CHUNK);
      const values = await this.values.of(scope, ids, wanted);
      values.forEach(each);
      if (ids.length < CHUNK) return;
    }
  }

  async lookPeople(
    scope: AccessScope,
    id: number,
    query: { verdict: Verdict; after?: string; limit: number },
  ): Promise<Page<SupporterRow>> {
    const db = this.database.read(scope);
    const message = await this.messages.need(db, id);
    const from = Number(decodeCursor(query.after, 1)?.[0] ?? 0);
    const ids = await this.sending.lookPeople(db, message.id, query.verdict, from, query.limit);
    const total = (await this.sending.lookCounts(db, message.id)).get(query.verdict) ?? 0;
    const rows = await this.rows.of(db, await this.supporters.byIds(db, ids));
    return { rows, total, next: ids.length === query.limit ? encodeCursor([from + ids.length]) : null };
  }
}

/** The values that stand in somebody's text, by the names of their fields. */
function standingValues({ text }: Composed, values: MergeValues): { name: string; value: string }[] {
  return shownSlots(text, values).map(({ key, name }) => ({ name, value: values[key] ?? '' }));
}

/** How many are held back by which reason, in the order in which reasons are tried. */
export function suppressedOf(groups: GroupReaders): LastLook['suppressed'] {
  return SUPPRESSION_REASONS.flatMap((reason) => {
    const people = groups[reason]?.length ?? 0;
    return people > 0 ? [{ reason, people }] : [];
  });
}

const IN_ORDER: Record<Channel, readonly string[]> = {
  email: ['One-click way out, in the header and the footer', 'Postal address in the footer'],
  text: ['STOP is obeyed at once'],
  post: ['Whoever said no to post gets none', 'Your address stands over theirs'],
  call: ['Whoever said no to calls is on no list', 'A number is shown at a decent hour there'],
};

function inOrder(message: MessageRow, faults: number): string[] {
  return [
    ...IN_ORDER[message.channel],
    ...(faults === 0 ? ['Every merge field is known'] : []),
    ...(message.tested_at ? ['Test sent to you'] : []),
  ];
}

/**
 * What is asked of the ledger for a message. A service message to one person, or one that they set going by
 * what they did, answers that; one to a group does not, and is held by the cap as any other. `ownEach`:
 * whether of two people at one address each gets their own.
 */
export function eligibilityQueryOf(
  message: MessageRow,
  rules: HouseRules,
  cause: Cause | null = null,
): EligibilityQuery & { ownEach: boolean } {
  const scope = scopeOfMessage(message);
  const isOwn = message.personal_to !== null || (cause !== null && CAUSES[cause.kind].own);
  return {
    ...{ channel: message.channel, scope, rules, ownAct: scope === 'service' && isOwn, now: new Date() },
    ...{ messageId: message.id, ownEach: isOwn || cause?.kind === 'date' },
  };
}

/** What a second person agreed to, and what they are asked about. */
export function secondOf(
  scope: AccessScope,
  message: MessageRow,
  found: { reached: number; asks: readonly string[] },
): { said: SecondSaid; asked: SecondAsked } {
  return {
    said: { by: message.seconded_by, group: message.seconded_group, reached: message.seconded_reached },
    asked: { ...found, group: message.group_version, sender: scope.actorId },
  };
}

/** What a look says of the message (`about`) and of the people whom it counted, as one word. */
export function digestOf(about: string, look: Buffer): string {
  return createHash('sha256').update(about).update(look).digest('hex');
}

/**
 * Whether two readings of a message are of the same words, group and sender; when a teammate leaves, the
 * sender alone is another.
 */
export function sameVersion(one: MessageRow, other: MessageRow): boolean {
  return (
    one.version === other.version &&
    one.group_version === other.group_version &&
    one.sender_id === other.sender_id
  );
}
