import { createHash } from 'node:crypto';
import { Inject, Injectable, Logger } from '@nestjs/common';
import { ownWords, readIntent, type ReplyIntent } from '@goodword/core/text';
import { everyWording } from '../messages/composer';
import { ComposingService } from '../messages/composing.service';
import { MessagesRepository } from '../messages/messages.repository';
import { TagTriggersService } from '../messages/tag-triggers.service';
import { HoldsRepository } from '../permission/holds.repository';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { programScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { STORAGE, type Storage } from '../platform/storage';
import { Tokens } from '../platform/tokens';
import { RepliesRepository, type ReplyFile } from '../replies/replies.repository';
import { TasksRepository } from '../today/tasks.repository';
import { UnsubscribeRepository, type TokenDelivery } from '../unsubscribe/unsubscribe.repository';
import { UnsubscribeService } from '../unsubscribe/unsubscribe.service';
import { keptFiles } from './attachments';
import { isFromMachine } from './machines';
import { closedByMail } from './mail-entry';
import { MailReader, type ReadMail } from './mail-reader';

const LONGEST = 20_000;

/**
 * What people write back: a way out by mail, an answer. Each is kept and acted on once; what a machine
 * answers is kept and counts as nobody's word.
 */
@Injectable()
export class AnswersService {
  private readonly tokens: Tokens;
  private readonly log = new Logger('answers');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RepliesRepository) private readonly replies: RepliesRepository,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(UnsubscribeRepository) private readonly deliveries: UnsubscribeRepository,
    @Inject(UnsubscribeService) private readonly unsubscribe: UnsubscribeService,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(HoldsRepository) private readonly holds: HoldsRepository,
    @Inject(TasksRepository) private readonly tasks: TasksRepository,
    @Inject(TagTriggersService) private readonly tagTriggers: TagTriggersService,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MailReader) private readonly reader: MailReader,
    @Inject(CONFIG) config: Config,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /** `leave-TOKEN@…`, `answer-TOKEN@…`, with a token of ours. */
  takes(address: string): boolean {
    return this.read(address) !== null;
  }

  private read(address: string): { kind: 'leave' | 'answer'; deliveryId: number } | null {
    // The case of an address may be lost on its way; a token has one.
    const found = /^(leave|answer)-([a-z2-7]+)@/.exec(address.toLowerCase());
    if (!found) return null;
    const kind = found[1] as 'leave' | 'answer';
    const read =
      this.tokens.read(kind === 'leave' ? 'leave-by-mail' : 'answer', found[2]!) ??
      this.tokens.read('leave', found[2]!);
    return read ? { kind, deliveryId: read.id } : null;
  }

  /** `from` is the sender of the envelope, empty for the null sender. */
  async receive(address: string, raw: Buffer, from: string, receivedAt: Date): Promise<void> {
    const read = this.read(address);
    const delivery = read ? await this.deliveries.delivery(this.database, read.deliveryId) : null;
    if (!read || !delivery)
      return this.log.warn({ address: address.slice(0, 12) }, 'a mail for a delivery that is gone');
    if (read.kind === 'leave')
      return this.unsubscribe.leave(delivery, 'this', '', 'reply', 'Mailed the address to leave by');
    const mail = await this.reader.read(raw);
    const files = await keptFiles(this.storage, mail.attachments);
    const isNew = await this.answer(delivery, { mail, raw, from, receivedAt, files }).catch(
      async (error: unknown) => {
        await this.drop(files);
        throw error;
      },
    );
    if (!isNew) await this.drop(files);
  }

  private async drop(files: readonly ReplyFile[]): Promise<void> {
    for (const { storageKey } of files) if (storageKey !== null) await this.storage.remove(storageKey);
  }

  /** False where it has come before. */
  private async answer(delivery: TokenDelivery, came: CameMail): Promise<boolean> {
    const { mail, files } = came;
    const words = ownWords(mail.text, await this.letterOf(delivery)).slice(0, LONGEST);
    const asks = askedBy(mail.subject, words);
    const machine = isFromMachine(mail, came.from, asks);
    const key = keyOf(delivery, came, words);
    const keyword = machine ? 'machine' : asks === 'stop' ? 'stop' : 'none';
    return this.database.write(programScope(delivery.organizationId), async (tx) => {
      const replyId = await this.replies.keep(tx, {
        key,
        channel: 'email',
        sender: mail.from,
        contactPointId: delivery.contactPointId,
        supporterId: delivery.supporterId,
        deliveryId: delivery.id,
        subject: mail.subject,
        mailId: mailIdOf(mail),
        body: words || mail.subject,
        keyword,
        receivedAt: came.receivedAt,
      });
      if (replyId === null) return false;
      await this.replies.keepFiles(tx, replyId, files);
      if (machine) tx.unchanged();
      else await this.obey(tx, delivery, { asks, key, replyId, words, shown: words || mail.subject });
      return true;
    });
  }

  private async obey(
    tx: Scoped,
    delivery: TokenDelivery,
    said: { asks: ReplyIntent; key: string; replyId: number; words: string; shown: string },
  ): Promise<void> {
    const { asks, words, shown, replyId } = said;
    if (asks === 'stop') {
      // An answer that says stop closes the whole channel, as a text does.
      await this.ledger.record(tx, closedByMail(delivery, { how: 'reply', words: shown, replyId }));
      if (await this.deliveries.mark(tx, delivery.id, 'left_it'))
        await this.deliveries.event(tx, delivery, 'left', `Answered “${shown.slice(0, 80)}”`);
      return;
    }
    if (await this.deliveries.mark(tx, delivery.id, 'replied')) {
      await this.deliveries.event(tx, delivery, 'replied', words);
      await this.tagTriggers.done(tx, delivery, 'replied');
    }
    if (asks !== 'hold') return;
    await this.holds.holdForAnswer(tx, delivery.contactPointId, `Answered “${words.slice(0, 200)}”`);
    await this.tasks.add(tx, {
      kind: 'stop',
      contactPointId: delivery.contactPointId,
      supporterId: delivery.supporterId,
      replyKey: said.key,
      words,
    });
  }

  /** What they had been written, as text: its words are never theirs, however a mail reader quotes them. */
  private async letterOf(delivery: TokenDelivery): Promise<string> {
    const scope = programScope(delivery.organizationId);
    const message = await this.messages.find(this.database.read(scope), delivery.messageId);
    if (!message) return '';
    const { composed } = await this.composing.compose(scope, message);
    return everyWording(composed);
  }
}

/** A mail as it came, with the sender of its envelope. */
interface CameMail {
  mail: ReadMail;
  raw: Buffer;
  from: string;
  receivedAt: Date;
  files: readonly ReplyFile[];
}

/**
 * By which a mail is known when it comes again. Mailers give one Message-ID to several mails: what it answers
 * and says belongs to it.
 */
function keyOf(delivery: TokenDelivery, { mail, raw }: CameMail, words: string): string {
  const hash = createHash('sha256');
  if (mail.messageId === null) hash.update(raw);
  else hash.update([mail.messageId, delivery.id, mail.subject, words].join('\n'));
  return hash.digest('hex');
}

/** The Message-ID where it is one that can stand in a header of ours (RFC 5322 3.6.4); null otherwise. */
function mailIdOf({ messageId }: ReadMail): string | null {
  return messageId !== null && /^<[!-;=?-~]{1,250}>$/.test(messageId) ? messageId : null;
}

/** What an answer asks for: its words decide; its subject only where there are next to none. */
function askedBy(subject: string, words: string): ReplyIntent {
  const asks = readIntent(words);
  if (asks !== 'none' || words.length > 200) return asks;
  return readIntent(subject.replace(/^((re|aw|sv|wg|fwd?|tr|rv)\s*:\s*)+/i, '')) === 'stop' ? 'stop' : 'none';
}
