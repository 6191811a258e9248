import { Inject, Injectable } from '@nestjs/common';
import type { CheckedWords, MessageView, Preview, SavedWords } from '@goodword/core/contract';
import { letterFault, type LetterDoc } from '@goodword/core/letter';
import { emptySlots } from '@goodword/core/merge';
import type { Purpose, SendingChannel } from '@goodword/core/permission';
import { countParts } from '@goodword/core/text';
import { speak } from '@goodword/core/words';
import { audit } from '../platform/audit';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid, Newer, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { GroupsRepository } from '../supporters/groups.repository';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { filledText } from './composer';
import { ComposingService } from './composing.service';
import { MergeValuesRepository } from './merge-values.repository';
import { MessagesRepository, messageView, scopeOfMessage, type MessageRow } from './messages.repository';
import { sentence } from '../platform/words';

export interface MessageBody {
  name: string;
  purpose: Purpose | null;
  listId: number | null;
  subject: string;
  preheader: string;
  letter: LetterDoc | null;
  text: string;
  senderId?: number | null;
  basedOn: number;
}

@Injectable()
export class MessagesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MergeValuesRepository) private readonly mergeValues: MergeValuesRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
  ) {}

  async list(scope: AccessScope): Promise<MessageView[]> {
    return (await this.messages.all(this.database.read(scope))).map(messageView);
  }

  async show(scope: AccessScope, id: number): Promise<MessageView> {
    return messageView(await this.messages.need(this.database.read(scope), id));
  }

  async make(
    scope: AccessScope,
    message: { name: string; channel: SendingChannel; purpose: Purpose },
  ): Promise<{ id: number }> {
    return { id: await this.database.writeUnlogged(scope, (tx) => this.messages.make(tx, message)) };
  }

  /** A draft with the words of another message, whatever became of that; who gets it is chosen anew. */
  async copy(scope: AccessScope, id: number): Promise<{ id: number }> {
    return this.database.writeUnlogged(scope, async (tx) => {
      const { name, channel, purpose, list_id, subject, preheader, letter, body } = await this.messages.need(
        tx,
        id,
      );
      const made = await this.messages.make(tx, {
        name: againNamed(name),
        channel,
        purpose: purpose ?? 'news',
      });
      const words = { subject, preheader, letter: letter === null ? null : JSON.stringify(letter), body };
      await this.messages.change(tx, made, { purpose, list_id, ...words });
      await audit(tx, 'make', { message: made }, `${againNamed(name)} begun with the words of ${name}`);
      return { id: made };
    });
  }

  /**
   * Saves the words; only a draft can change. Returns what is wrong with them, so that the Margin can say so.
   */
  async save(scope: AccessScope, id: number, body: MessageBody): Promise<SavedWords> {
    const wrong = body.letter === null ? null : letterFault(body.letter);
    if (wrong) throw new Invalid([{ field: 'letter', code: wrong.code, message: speak(wrong) }]);
    const version = await this.database.writeUnlogged(scope, async (tx) => {
      const message = await this.draft(tx, id);
      if (message.version !== body.basedOn)
        throw new Newer('these words', await this.team.nameOf(tx, message.changed_by));
      if (body.listId !== null) await this.checkList(tx, body.listId);
      const senderId = body.senderId ?? message.sender_id;
      if (senderId !== null && senderId !== message.sender_id) await this.checkSender(tx, senderId);
      const changed =
        message.sender_id !== senderId ||
        message.subject !== body.subject ||
        message.body !== body.text ||
        JSON.stringify(message.letter) !== JSON.stringify(body.letter);
      return this.messages.revise(tx, message, 'version', {
        name: body.name,
        purpose: body.purpose,
        list_id: body.listId,
        subject: body.subject,
        preheader: body.preheader,
        letter: body.letter === null ? null : JSON.stringify(body.letter),
        body: body.text,
        sender_id: senderId,
        ...(changed || message.preheader !== body.preheader ? { tested_at: null, seconded_by: null } : {}),
        ...(message.purpose !== body.purpose ? { seconded_by: null } : {}),
      });
    });
    return { version, ...(await this.checked(scope, id)) };
  }

  async remove(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const message = await this.draft(tx, id);
      await this.messages.remove(tx, id);
      await audit(tx, 'delete', { message: id }, `Draft ${message.name} deleted`);
    });
  }

  /** What is wrong with the words, and what is worth a second look. */
  async checked(scope: AccessScope, id: number): Promise<CheckedWords> {
    const message = await this.messages.need(this.database.read(scope), id);
    return {
      faults: await this.composing.faults(scope, message),
      doubts: await this.composing.doubts(scope, message),
    };
  }

  /** The message as one person will get it; without a person, as the first supporter would. */
  async preview(scope: AccessScope, id: number, supporterId: number | undefined): Promise<Preview> {
    const db = this.database.read(scope);
    const message = await this.messages.need(db, id);
    const person = supporterId
      ? await this.supporters.find(db, supporterId)
      : (await this.supporters.page(db, {}, null, 1)).rows[0];
    if (!person) throw new NotFound('supporter');
    const { composed, organization, whyOf } = await this.composing.compose(scope, message);
    const sender = message.sender_id ? await this.team.teammate(scope, message.sender_id) : undefined;
    const about = { channel: message.channel, scope: scopeOfMessage(message) };
    const values =
      (await this.mergeValues.of(db, [person.id], about, organization, sender)).get(person.id) ?? {};
    const asking = { ...about, rules: await this.houseRules.rules(db), now: new Date() };
    const entryId = (await this.facts.decide(db, [person.id], asking)).get(person.id)?.entryId ?? null;
    const basis = entryId === null ? null : ((await this.facts.bases(db, [entryId])).get(entryId) ?? null);
    const filled = filledText(composed, { ...values, leave: '#', why: whyOf(basis) });
    const missing = emptySlots({ parts: composed.slots, faults: [] }, values).map((slot) => slot.name);
    return {
      supporter: { id: person.id, name: `${person.first_name} ${person.last_name}`.trim() },
      ...filled,
      parts: countParts(filled.text).parts,
      holes: [...new Set(missing)],
    };
  }

  private async draft(tx: Scoped, id: number): Promise<MessageRow> {
    await this.messages.need(tx, id);
    const message = await this.messages.lock(tx, id);
    if (message?.state !== 'draft') throw new Conflict(sentence('message.on-its-way'));
    return message;
  }

  /** Whose name stands in the From, and whose words the merge fields of the sender are. */
  private async checkSender(tx: Scoped, senderId: number): Promise<void> {
    const here = (await this.team.teammates(tx)).some(({ id }) => id === senderId);
    if (!here)
      throw new Invalid([{ field: 'senderId', code: 'sender', message: sentence('message.sender-gone') }]);
  }

  private async checkList(tx: Scoped, listId: number): Promise<void> {
    const list = (await this.groups.lists(tx)).find((one) => one.id === listId);
    if (!list) throw new NotFound('list');
    if (!list.isPublic)
      throw new Invalid([
        {
          field: 'listId',
          code: 'list',
          message: sentence('message.list-internal', { name: list.name }),
        },
      ]);
  }
}

/** "Winter hull, again", and "Winter hull, again 2" of that. */
export function againNamed(name: string): string {
  const [, first, nth] = /^(.*), again(?: (\d{1,3}))?$/.exec(name) ?? [];
  const next =
    first === undefined ? `${name.slice(0, 110)}, again` : `${first}, again ${Number(nth ?? 1) + 1}`;
  return next.slice(0, 120);
}
