import { createHash } from 'node:crypto';
import { DeliveryFaultsRepository } from '../sending/delivery-faults.repository';
import { Inject, Injectable, Logger } from '@nestjs/common';
import { ownWords, readIntent, type ReplyIntent } from '@goodword/core/text';
import { everyWording } from '../messages/composer';
import { ComposingService } from '../messages/composing.service';
import { MessagesRepository } from '../messages/messages.repository';
import { TagTriggersService } from '../messages/tag-triggers.service';
import { DoNotContactService } from '../permission/do-not-contact.service';
import { HoldsRepository } from '../permission/holds.repository';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { programScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { TasksRepository } from '../today/tasks.repository';
import { UnsubscribeRepository, type TokenDelivery } from '../unsubscribe/unsubscribe.repository';
import { UnsubscribeService } from '../unsubscribe/unsubscribe.service';
import { isComplaint, readFeedbackReport } from './feedback-report';
import { InboundRepository } from './inbound.repository';
import { isFromMachine } from './machines';
import { MailReader, type ReadMail } from './mail-reader';

const LONGEST = 20_000;

/**
 * What people write back: a way out by mail, an answer, a complaint that their provider reports. Each is kept
 * and acted on once.
 */
@Injectable()
export class AnswersService {
  private readonly tokens: Tokens;
  private readonly log = new Logger('answers');

  constructor(
    @Inject(DeliveryFaultsRepository) private readonly faults: DeliveryFaultsRepository,
    @Inject(Database) private readonly database: Database,
    @Inject(InboundRepository) private readonly inbound: InboundRepository,
    @Inject(UnsubscribeRepository) private readonly deliveries: UnsubscribeRepository,
    @Inject(UnsubscribeService) private readonly unsubscribe: UnsubscribeService,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
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

  /**
   * `leave-TOKEN@…`, `answer-TOKEN@…`, with a token of ours; and `complaints@…`, whose report carries one.
   */
  takes(address: string): boolean {
    return this.read(address) !== null || /^complaints@/i.test(address);
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
    if (/^complaints@/i.test(address)) return this.complain(raw);
    const read = this.read(address);
    const delivery = read ? await this.deliveries.delivery(this.database, read.deliveryId) : null;
    if (!read || !delivery)
      return this.log.warn({ address: address.slice(0, 12) }, 'a mail for a delivery that is gone');
    if (read.kind === 'leave')
      return this.unsubscribe.leave(delivery, 'this', '', 'reply', 'Mailed the address to leave by');
    const mail = await this.reader.read(raw);
    if (!isFromMachine(mail, from)) await this.answer(delivery, mail, raw, receivedAt);
  }

  private async answer(
    delivery: TokenDelivery,
    mail: ReadMail,
    raw: Buffer,
    receivedAt: Date,
  ): Promise<void> {
    const words = ownWords(mail.text, await this.letterOf(delivery)).slice(0, LONGEST);
    const { subject } = mail;
    const asks = askedBy(subject, words);
    const stop = asks === 'stop';
    const key = mail.messageId?.slice(0, 100) ?? createHash('sha256').update(raw).digest('hex');
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      const replyId = await this.inbound.keepReply(tx, {
        key,
        channel: 'email',
        sender: mail.from,
        contactPointId: delivery.contactPointId,
        supporterId: delivery.supporterId,
        deliveryId: delivery.id,
        body: words || subject,
        keyword: stop ? 'stop' : 'none',
        receivedAt,
      });
      if (replyId === null) return;
      if (stop) {
        // An answer that says stop closes the whole channel, as a text does.
        await this.close(tx, delivery, 'reply', words || subject, replyId);
        if (await this.deliveries.mark(tx, delivery.id, 'left_it'))
          await this.deliveries.event(tx, delivery, 'left', `Answered “${(words || subject).slice(0, 80)}”`);
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
        replyKey: key,
        words,
      });
    });
  }

  private async close(
    tx: Parameters<LedgerRepository['record']>[0],
    delivery: TokenDelivery,
    how: 'reply' | 'complaint',
    words: string,
    replyId: number | null = null,
  ): Promise<void> {
    await this.ledger.record(tx, {
      contactPointId: delivery.contactPointId,
      supporterId: delivery.supporterId,
      channel: 'email',
      scope: 'all',
      state: 'no',
      saidAt: new Date(),
      byPerson: true,
      how,
      words: words.slice(0, 500),
      source: `From “${delivery.messageName}”`,
      deliveryId: delivery.id,
      replyId,
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

  /**
   * A provider's report that somebody called a mail spam (RFC 5965): counted once, for the delivery that it
   * is about.
   */
  private async complain(raw: Buffer): Promise<void> {
    const report = await readFeedbackReport(this.reader, raw);
    if (!report || !isComplaint(report))
      return this.log.warn({ type: report?.type }, 'a report that is no complaint');
    const delivery = await this.reported(report.original);
    if (!delivery) return this.log.warn('a complaint that names no mail of ours');
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      tx.unchanged();
      await this.deliveries.lockDelivery(tx, delivery.id);
      if (await this.deliveries.hasEvent(tx, delivery.id, 'complained')) return;
      await this.close(tx, delivery, 'complaint', 'Reported as spam');
      const [point] = await tx.sql<{ normal: string }>(
        'SELECT normal FROM contact_point WHERE organization_id = :org AND id = :id',
        {
          id: delivery.contactPointId,
        },
      );
      if (point)
        await this.doNotContact.close(
          tx,
          'email',
          point.normal,
          'complaint',
          `Complained about “${delivery.messageName}”`,
        );
      await this.deliveries.event(tx, delivery, 'complained', 'Reported as spam');
      await this.faults.brake(tx, delivery.id, 'complaints');
    });
  }

  /**
   * The delivery whose way out the reported mail carried, or whose Message-ID it had where links were taken
   * out.
   */
  private async reported(original: string): Promise<TokenDelivery | null> {
    for (const [, token] of original.matchAll(/\/leave\/([a-z2-7]{40,60})/g)) {
      const read = this.tokens.read('leave', token!);
      if (read) return this.deliveries.delivery(this.database, read.id);
    }
    const key = /^message-id:\s*<([^@>\s]+)@/im.exec(original)?.[1];
    const known = key ? await this.inbound.deliveryByKey(this.database, key) : undefined;
    return known ? this.deliveries.delivery(this.database, known.id) : null;
  }
}

/** What an answer asks for: its words decide; its subject only where there are next to none. */
function askedBy(subject: string, words: string): ReplyIntent {
  const asks = readIntent(words);
  if (asks !== 'none' || words.length > 200) return asks;
  return readIntent(subject.replace(/^((re|aw|sv|wg|fwd?|tr|rv)\s*:\s*)+/i, '')) === 'stop' ? 'stop' : 'none';
}
