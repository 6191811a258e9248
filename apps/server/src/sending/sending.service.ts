import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { LastLook, Page, Recipients, SupporterRow } from '@goodword/core/contract';
import { emptySlots, type MergeValues } from '@goodword/core/merge';
import {
  SUPPRESSION_REASONS,
  rulesFor,
  UNDO_SECONDS,
  type HouseRules,
  type Verdict,
} from '@goodword/core/permission';
import { countParts } from '@goodword/core/text';
import type { EligibilityQuery } from '../permission/ledger/facts.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { audit } from '../platform/audit';
import { Database, type Scoped, rowsOf } from '../platform/database';
import { Conflict, Invalid, Newer, NotFound, Unavailable } from '../platform/errors';
import { cancel, enqueue } from '../platform/jobs';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { AccessScope } from '../platform/scope';
import { RollService } from '../roll/roll.service';
import { SupporterRows } from '../supporters/rows.service';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { filledText, type Composed } from '../messages/composer';
import { ComposingService } from '../messages/composing.service';
import { MergeValuesRepository } from '../messages/merge-values.repository';
import { MessagesRepository, scopeOfMessage, type MessageRow } from '../messages/messages.repository';
import { EnvelopeService } from './envelope.service';
import { RecipientsService } from './recipients.service';
import { SendingRepository } from './sending.repository';
import { sentence } from '../platform/words';

const CHUNK = 1000;
/** Somebody whose place is not known counts to the organization's own. */
const HERE = { country: null, region: null };

@Injectable()
export class SendingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MergeValuesRepository) private readonly mergeValues: MergeValuesRepository,
    @Inject(RecipientsService) private readonly recipients: RecipientsService,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(SupporterRows) private readonly rows: SupporterRows,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(EnvelopeService) private readonly envelopes: EnvelopeService,
    @Inject(RollService) private readonly roll: RollService,
  ) {}

  /** Returns the version of the group that this made. */
  async saveRecipients(
    scope: AccessScope,
    id: number,
    { basedOn, ...recipients }: Recipients & { basedOn: number },
  ): Promise<{ version: number }> {
    await this.recipients.rule(scope, recipients);
    return this.database.writeUnlogged(scope, async (tx) => {
      const message = await this.movable(tx, scope, id, ['draft']);
      if (message.group_version !== basedOn)
        throw new Newer('who gets it', await this.team.nameOf(tx, message.changed_by));
      return {
        version: await this.messages.revise(tx, message, 'group_version', {
          recipients: JSON.stringify(recipients),
        }),
      };
    });
  }

  async asking(db: Scoped, message: MessageRow): Promise<EligibilityQuery> {
    return eligibilityQueryOf(message, await this.houseRules.rules(db));
  }

  /**
   * Counts the group down to those who will get it, as of now, and looks at the words with these people in
   * mind.
   */
  async lastLook(scope: AccessScope, id: number): Promise<LastLook> {
    const message = await this.message(this.database.read(scope), id);
    const chapterScope = this.chapterOf(scope, message);
    if (message.state !== 'draft') throw new Conflict(sentence('send.settled', { state: message.state }));
    const ids = await this.recipients.of(chapterScope, message.recipients);
    const asked = { channel: message.channel, scope: scopeOfMessage(message) };
    const groups = await this.roll.ask(chapterScope, 'look', { asked, ids: Uint32Array.from(ids) });
    const about = await this.aboutOf(chapterScope, message);
    const digest = await this.database.writeUnlogged(chapterScope, async (tx) => {
      // Under the lock of the message: of two looks at once the later one is the one that is there, whole.
      const locked = await this.movable(tx, scope, id, ['draft']);
      if (!sameVersion(locked, message)) throw new Newer('it', await this.team.nameOf(tx, locked.changed_by));
      await this.sending.keepLook(tx, id, groups);
      return digestOf(about, await this.sending.lookBytes(tx, id));
    });
    const people = (verdict: Verdict) => groups[verdict]?.length ?? 0;
    const { composed } = await this.composing.compose(chapterScope, message);
    const faults = await this.composing.faults(chapterScope, message);
    return {
      group: ids.length,
      suppressed: SUPPRESSION_REASONS.flatMap((reason) =>
        people(reason) > 0 ? [{ reason, people: people(reason) }] : [],
      ),
      reached: people('send'),
      ...(await this.lookAtWords(chapterScope, message, composed)),
      faults,
      inOrder: inOrder(message, faults.length),
      asks: await this.composing.asks(this.database.read(scope), message),
      seconded: message.seconded_by !== null,
      hours:
        message.channel === 'text'
          ? rulesFor(await this.houseRules.rules(this.database.read(scope)), HERE).hours.text
          : null,
      digest,
    };
  }

  /**
   * Which group it is, what they would read, from whom, and by which rules, as of now: differs where any of
   * it does.
   */
  private async aboutOf(scope: AccessScope, message: MessageRow): Promise<string> {
    const [{ composed }, rules, group] = await Promise.all([
      this.composing.compose(scope, message),
      this.houseRules.rules(this.database.read(scope)),
      this.recipients.rule(scope, message.recipients),
    ]);
    const { channel, purpose, list_id, version, group_version, recipients } = message;
    return JSON.stringify([
      channel,
      purpose,
      list_id,
      version,
      group_version,
      recipients,
      group,
      composed,
      rules,
      scope.actorId,
    ]);
  }

  /** Says that one has read a service message that asks, and that it may go. */
  async second(scope: AccessScope, id: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      tx.changed('nothing', 0, []);
      const message = await this.movable(tx, scope, id, ['draft']);
      await this.messages.change(tx, id, { seconded_by: scope.actorId });
      await audit(tx, {
        act: 'second',
        subject: 'message',
        subjectId: id,
        words: `${message.name} read by a second person`,
      });
    });
  }

  /** Holes in what people would read, and the text parts they would take, over everybody reached. */
  private async lookAtWords(
    scope: AccessScope,
    message: MessageRow,
    composed: Composed,
  ): Promise<Pick<LastLook, 'holes' | 'parts'>> {
    const risky = composed.slots.filter((slot) => slot.or === null);
    if (risky.length === 0 && message.channel === 'email') return { holes: [], parts: null };
    const missing = new Map<string, number>();
    let parts = 0;
    await this.overReached(scope, message, (values) => {
      for (const name of new Set(emptySlots({ parts: risky, faults: [] }, values).map((slot) => slot.name)))
        missing.set(name, (missing.get(name) ?? 0) + 1);
      if (message.channel === 'text') parts += countParts(filledText(composed, values).text).parts;
    });
    return {
      holes: [...missing].map(([name, people]) => ({ name, people })),
      parts: message.channel === 'text' ? parts : null,
    };
  }

  private async overReached(
    scope: AccessScope,
    message: MessageRow,
    each: (values: MergeValues) => void,
  ): Promise<void> {
    const db = this.database.read(scope);
    const about = { channel: message.channel, scope: scopeOfMessage(message) };
    const organization = await this.team.organization(scope);
    const sender = message.sender_id ? await this.team.teammate(scope, message.sender_id) : undefined;
    for (let from = 0; ; from += CHUNK) {
      const ids = await this.sending.lookPeople(db, message.id, 'send', from, CHUNK);
      const values = await this.mergeValues.of(db, ids, about, organization, sender);
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
    const message = await this.message(db, id);
    const from = Number(decodeCursor(query.after, 1)?.[0] ?? 0);
    const ids = await this.sending.lookPeople(db, message.id, query.verdict, from, query.limit);
    const total = (await this.sending.lookCounts(db, message.id)).get(query.verdict) ?? 0;
    const rows = await this.rows.of(db, await this.supporters.byIds(db, ids));
    return { rows, total, next: ids.length === query.limit ? encodeCursor([from + ids.length]) : null };
  }

  /** Sends the message to the teammate alone, filled for the first of its group. */
  async test(scope: AccessScope, id: number): Promise<{ to: string }> {
    const db = this.database.read(scope);
    const message = await this.message(db, id);
    const teammate = scope.actorId ? await this.team.teammate(scope, scope.actorId) : undefined;
    if (!teammate) throw new NotFound('teammate');
    const to = message.channel === 'email' ? teammate.email : teammate.mobile;
    if (!to) throw new Conflict(sentence('send.no-own-mobile'));
    const ids = await this.recipients.of(this.chapterOf(scope, message), message.recipients);
    const someone =
      (await this.supporters.byIds(db, ids.slice(0, 1)))[0] ??
      (await this.supporters.page(db, {}, null, 1)).rows[0];
    const { composed, organization, listName } = await this.composing.compose(scope, message);
    const about = { channel: message.channel, scope: scopeOfMessage(message) };
    const values = someone
      ? ((await this.mergeValues.of(db, [someone.id], about, organization, teammate)).get(someone.id) ?? {})
      : {};
    const outcome = await this.envelopes.sendTest({
      message,
      composed,
      organization,
      sender: teammate,
      listName,
      to,
      values,
    });
    if (outcome.kind === 'unreachable' || outcome.kind === 'unsure')
      throw new Unavailable(sentence('send.test-unreachable', { detail: outcome.detail }));
    if (outcome.kind === 'refused')
      throw new Conflict(sentence('send.test-refused', { detail: outcome.detail }));
    if (message.state === 'draft')
      await this.database.writeUnlogged(scope, (tx) =>
        this.messages.change(tx, id, { tested_at: new Date(), sender_id: teammate.id }),
      );
    return { to };
  }

  /**
   * Sends to those who were counted, now (and not before the time of taking it back is over), or to the group
   * as it will be at a time. The look that was seen is named by its digest; where anything of it is different
   * now, nothing leaves.
   */
  async send(scope: AccessScope, id: number, when: { at: Date | null; digest: string }): Promise<void> {
    const message = await this.message(this.database.read(scope), id);
    const chapterScope = this.chapterOf(scope, message);
    if (message.state === 'draft') await this.readyToSend(chapterScope, message);
    if (when.at !== null && when.at.getTime() <= Date.now())
      throw new Invalid([{ field: 'at', code: 'past', message: sentence('send.past') }]);
    const { undoSeconds = UNDO_SECONDS } = await this.houseRules.rules(this.database.read(scope));
    const about = await this.aboutOf(chapterScope, message);
    await this.database.writeUnlogged(scope, async (tx) => {
      const locked = await this.movable(tx, scope, id, ['draft']);
      const look = await this.sending.lookBytes(tx, id);
      if (look.length === 0) throw new Conflict(sentence('send.look-first'));
      if (!sameVersion(locked, message) || digestOf(about, look) !== when.digest)
        throw new Conflict(sentence('send.look-again'));
      const reached = (await this.sending.lookCounts(tx, id)).get('send') ?? 0;
      if (reached === 0) throw new Conflict(sentence('send.nobody'));
      const waits = when.at === null && undoSeconds > 0 ? new Date(Date.now() + undoSeconds * 1000) : null;
      await this.messages.change(tx, id, {
        state: when.at !== null || waits ? 'scheduled' : 'preparing',
        scheduled_at: when.at,
        leaves_at: waits,
        sender_id: scope.actorId,
        prepared_to: 0,
      });
      await enqueue(
        tx.knex,
        { ...scope, chapterId: message.chapter_id },
        'message-prepare',
        id,
        when.at ?? waits ?? new Date(),
      );
      await audit(tx, {
        act: 'send',
        subject: 'message',
        subjectId: id,
        words: `${message.name} ${when.at ? 'scheduled' : 'sent'} for ${reached}`,
      });
    });
  }

  private async readyToSend(scope: AccessScope, message: MessageRow): Promise<void> {
    const faults = await this.composing.faults(scope, message);
    if (faults.length > 0)
      throw new Conflict(
        sentence('send.not-ready', { faults: faults.map((fault) => fault.message).join(' ') }),
      );
    const asks = await this.composing.asks(this.database.read(scope), message);
    if (asks.length > 0 && (message.seconded_by === null || message.seconded_by === scope.actorId))
      throw new Conflict(sentence('send.service-asks', { asks: asks.join('”, “') }));
    if (!message.tested_at) throw new Conflict(sentence('send.test-first'));
  }

  async unschedule(scope: AccessScope, id: number): Promise<void> {
    await this.move(scope, id, ['scheduled'], 'draft', async (tx) => {
      await cancel(tx.knex, 'message-prepare', id);
      await rowsOf(tx.knex, 'job').where({ kind: 'message-prepare', ref_id: id, state: 'waiting' }).delete();
      await this.messages.change(tx, id, { scheduled_at: null, leaves_at: null });
    });
  }

  async pause(scope: AccessScope, id: number): Promise<void> {
    await this.move(scope, id, ['sending'], 'paused');
  }

  async resume(scope: AccessScope, id: number): Promise<void> {
    await this.move(scope, id, ['paused'], 'sending');
  }

  async stop(scope: AccessScope, id: number): Promise<void> {
    await this.move(scope, id, ['preparing', 'sending', 'paused'], 'stopped', (tx) =>
      this.sending.stopReady(tx, id),
    );
  }

  private async move(
    scope: AccessScope,
    id: number,
    from: string[],
    to: string,
    also?: (tx: Scoped) => Promise<unknown>,
  ): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const message = await this.movable(tx, scope, id, from);
      await this.messages.change(tx, id, { state: to });
      await also?.(tx);
      await audit(tx, {
        act: to,
        subject: 'message',
        subjectId: id,
        words: `${message.name}: ${to}`,
        before: message.state,
        after: to,
      });
    });
  }

  private async message(db: Scoped, id: number): Promise<MessageRow> {
    const message = await this.messages.find(db, id);
    if (!message) throw new NotFound('message');
    return message;
  }

  private async movable(tx: Scoped, scope: AccessScope, id: number, from: string[]): Promise<MessageRow> {
    await this.message(tx, id);
    const message = (await this.messages.lock(tx, id))!;
    this.chapterOf(scope, message);
    if (!from.includes(message.state))
      throw new Conflict(sentence('send.too-late', { state: message.state }));
    return message;
  }

  /** The message's own chapter decides who can be in its group; a chapter can't send for all of them. */
  private chapterOf(scope: AccessScope, message: MessageRow): AccessScope {
    if (scope.chapterId !== null && message.chapter_id === null)
      throw new Conflict(
        scope.boundTo === null ? sentence('send.all-chapters') : sentence('send.all-chapters-bound'),
      );
    return { ...scope, chapterId: message.chapter_id };
  }
}

/**
 * What is asked of the ledger for a message. A service message to one person answers what they have set going
 * themselves; one to a group does not, and is held by the cap as any other.
 */
export function eligibilityQueryOf(message: MessageRow, rules: HouseRules): EligibilityQuery {
  const scope = scopeOfMessage(message);
  const ownAct = scope === 'service' && message.personal_to !== null;
  return { channel: message.channel, scope, rules, ownAct, now: new Date(), messageId: message.id };
}

/** What a look says of the message (`about`) and of the people whom it counted, as one word. */
function digestOf(about: string, look: Buffer): string {
  return createHash('sha256').update(about).update(look).digest('hex');
}

function sameVersion(one: MessageRow, other: MessageRow): boolean {
  return one.version === other.version && one.group_version === other.group_version;
}

function inOrder(message: MessageRow, faults: number): string[] {
  const email =
    message.channel === 'email'
      ? ['One-click way out, in the header and the footer', 'Postal address in the footer']
      : ['STOP is obeyed at once'];
  return [
    ...email,
    ...(faults === 0 ? ['Every merge field is known'] : []),
    ...(message.tested_at ? ['Test sent to you'] : []),
  ];
}
