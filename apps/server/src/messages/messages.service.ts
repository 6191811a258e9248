import { isDeepStrictEqual } from 'node:util';
import { Inject, Injectable } from '@nestjs/common';
import type {
  CheckedWords,
  MakeMessageBody,
  MessageView,
  Preview,
  SavedWords,
} from '@goodword/core/contract';
import type { AskRule, LetterDoc } from '@goodword/core/letter';
import type { Channel, Purpose } from '@goodword/core/permission';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid, Newer } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { LetterCheckService } from './letter-check.service';
import { WordingsRepository } from '../wordings/wordings.repository';
import { PublicListService } from './public-list.service';
import { TeamRepository } from '../team/team.repository';
import { ComposingService } from './composing.service';
import { MessagesRepository, messageView, type MessageRow } from './messages.repository';
import { sentence } from '../platform/words';
import { PreviewService } from './preview.service';
import { TemplatesRepository } from './templates.repository';
import { WordVersionsRepository } from './word-versions.repository';
import { keptWords, mannerColumns, wordsFrom } from './words-from';

export interface MessageBody {
  name: string;
  purpose: Purpose | null;
  listId: number | null;
  subject: string;
  preheader: string;
  letter: LetterDoc | null;
  text: string;
  senderId?: number | null;
  locale?: string | null;
  ask?: AskRule | null;
  plainly?: boolean;
  basedOn: number;
}

@Injectable()
export class MessagesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(WordVersionsRepository) private readonly versions: WordVersionsRepository,
    @Inject(PreviewService) private readonly previews: PreviewService,
    @Inject(TemplatesRepository) private readonly templates: TemplatesRepository,
    @Inject(LetterCheckService) private readonly letters: LetterCheckService,
    @Inject(PublicListService) private readonly publicLists: PublicListService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(WordingsRepository) private readonly wordings: WordingsRepository,
  ) {}

  async list(scope: AccessScope): Promise<MessageView[]> {
    const db = this.database.read(scope);
    const [rows, names] = [await this.messages.all(db), await this.templates.names(db)];
    // Another wording is shown where its message is.
    return rows.flatMap((row) => (row.wording_of === null ? [messageView(row, names)] : []));
  }

  async show(scope: AccessScope, id: number): Promise<MessageView> {
    const db = this.database.read(scope);
    return messageView(await this.messages.need(db, id), await this.templates.names(db));
  }

  async make(scope: AccessScope, body: MakeMessageBody): Promise<{ id: number }> {
    return this.database.writeUnlogged(scope, async (tx) => ({ id: await this.begin(tx, body) }));
  }

  /** A draft with the words of a template or a starter, or none yet. */
  async begin(
    tx: Scoped,
    { name, channel, purpose, from }: Omit<MakeMessageBody, 'channel'> & { channel: Channel },
  ): Promise<number> {
    const id = await this.messages.make(tx, { name, channel, purpose });
    if (from) await this.messages.change(tx, id, await wordsFrom(tx, this.templates, from, channel));
    return id;
  }

  /** A draft with the words of another message, whatever became of that; who gets it is chosen anew. */
  async copy(scope: AccessScope, id: number): Promise<{ id: number }> {
    return this.database.writeUnlogged(scope, async (tx) => {
      const of = await this.messages.need(tx, id);
      const { name } = of;
      const made = await this.wordsOf(tx, of, againNamed(name));
      await audit(tx, 'make', { message: made }, `${againNamed(name)} begun with the words of ${name}`);
      return { id: made };
    });
  }

  /** A draft that begins with the words of another message. */
  async wordsOf(tx: Scoped, of: MessageRow, name: string): Promise<number> {
    const { channel, purpose, list_id, subject, preheader, letter, body } = of;
    const made = await this.messages.make(tx, { name, channel, purpose: purpose ?? 'news' });
    const words = { subject, preheader, letter: letter === null ? null : JSON.stringify(letter), body };
    const { template_id, template_version } = of;
    const origin = { ...mannerColumns(of), template_id, template_version };
    await this.messages.change(tx, made, { purpose, list_id, ...words, ...origin });
    return made;
  }

  /**
   * Saves the words; only a draft can change. Returns what is wrong with them, so that the Margin can say so.
   */
  async save(scope: AccessScope, id: number, body: MessageBody): Promise<SavedWords> {
    await this.letters.check(scope, body.letter);
    const version = await this.database.writeUnlogged(scope, async (tx) => {
      const message = await this.draft(tx, id);
      if (message.version !== body.basedOn)
        throw new Newer('these words', await this.team.nameOf(tx, message.changed_by));
      if (body.listId !== null) await this.publicLists.check(tx, body.listId);
      const senderId = body.senderId ?? message.sender_id;
      if (senderId !== null && senderId !== message.sender_id) await this.checkSender(tx, senderId);
      const manner = {
        locale: body.locale === undefined ? message.locale : body.locale,
        ask: body.ask === undefined ? message.ask : body.ask,
        plainly: body.plainly ?? message.plainly === 1,
      };
      const changed =
        !isDeepStrictEqual(manner, {
          locale: message.locale,
          ask: message.ask,
          plainly: message.plainly === 1,
        }) ||
        message.sender_id !== senderId ||
        message.subject !== body.subject ||
        message.body !== body.text ||
        JSON.stringify(message.letter) !== JSON.stringify(body.letter);
      const now = { ...body, ...manner };
      await this.versions.keep(
        tx,
        { of: 'message', id },
        {
          version: message.version,
          words: keptWords({ ...message, text: message.body }),
          by: message.changed_by,
        },
        { version: message.version + 1, words: keptWords(now) },
      );
      const next = await this.messages.revise(tx, message, 'version', {
        name: body.name,
        purpose: body.purpose,
        list_id: body.listId,
        subject: body.subject,
        preheader: body.preheader,
        letter: body.letter === null ? null : JSON.stringify(body.letter),
        body: body.text,
        sender_id: senderId,
        ...mannerColumns(manner),
        ...(changed || message.preheader !== body.preheader ? { tested_at: null, seconded_by: null } : {}),
        ...(message.purpose !== body.purpose ? { seconded_by: null } : {}),
      });
      // What it is and whom it asks is said once for all wordings, and agreed to once.
      const first = message.wording_of ?? id;
      await this.wordings.share(tx, first);
      if (first !== id) await this.messages.change(tx, first, { seconded_by: null });
      return next;
    });
    return { version, ...(await this.checked(scope, id)) };
  }

  async remove(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const message = await this.draft(tx, id);
      if (message.automation_id !== null) throw new Conflict(sentence('message.automatic'));
      for (const one of [...(await this.wordings.beside(tx, id)), id]) {
        await this.wordings.forget(tx, one);
        await this.messages.remove(tx, one);
        await this.versions.remove(tx, { of: 'message', id: one });
      }
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
    const message = await this.messages.need(this.database.read(scope), id);
    return this.previews.of(scope, message, message.sender_id, supporterId);
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
}

/** "Winter hull, again", and "Winter hull, again 2" of that. */
export function againNamed(name: string): string {
  const [, first, nth] = /^(.*), again(?: (\d{1,3}))?$/.exec(name) ?? [];
  const next =
    first === undefined ? `${name.slice(0, 110)}, again` : `${first}, again ${Number(nth ?? 1) + 1}`;
  return next.slice(0, 120);
}
