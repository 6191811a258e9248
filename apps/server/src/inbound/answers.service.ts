import { createHash } from 'node:crypto';
import { Inject, Injectable, Logger } from '@nestjs/common';
import { simpleParser, type ParsedMail } from 'mailparser';
import { isStopMail, ownWords, plainlySaysStop } from '@goodword/core/text';
import { TagDeedsService } from '../messages/tag-deeds.service';
import { DoNotContactService } from '../permission/do-not-contact.service';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { programScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { OutboxRepository } from '../sending/outbox.repository';
import { TasksRepository } from '../today/tasks.repository';
import { WaysOutRepository, type TokenDelivery } from '../waysout/waysout.repository';
import { WaysOutService } from '../waysout/waysout.service';
import { InboundRepository } from './inbound.repository';

const LONGEST = 20_000;

/** What people write back: a way out by mail, an answer, a complaint that their provider reports. Each is kept and acted on once. */
@Injectable()
export class AnswersService {
  private readonly tokens: Tokens;
  private readonly log = new Logger('answers');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(InboundRepository) private readonly inbound: InboundRepository,
    @Inject(WaysOutRepository) private readonly deliveries: WaysOutRepository,
    @Inject(WaysOutService) private readonly waysOut: WaysOutService,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
    @Inject(OutboxRepository) private readonly outbox: OutboxRepository,
    @Inject(TasksRepository) private readonly tasks: TasksRepository,
    @Inject(TagDeedsService) private readonly tagDeeds: TagDeedsService,
    @Inject(CONFIG) config: Config,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /** `leave-TOKEN@…`, `answer-TOKEN@…`, with a token of ours; and `complaints@…`, whose report carries one. */
  takes(address: string): boolean {
    return this.read(address) !== null || /^complaints@/i.test(address);
  }

  private read(address: string): { kind: 'leave' | 'answer'; deliveryId: number } | null {
    // The case of an address may be lost on its way; a token has one.
    const found = /^(leave|answer)-([a-z2-7]+)@/.exec(address.toLowerCase());
    if (!found) return null;
    const kind = found[1] as 'leave' | 'answer';
    const read = this.tokens.read(kind === 'leave' ? 'leave-by-mail' : 'answer', found[2]!) ?? this.tokens.read('leave', found[2]!);
    return read ? { kind, deliveryId: read.id } : null;
  }

  async receive(address: string, raw: Buffer): Promise<void> {
    if (/^complaints@/i.test(address)) return this.complain(raw);
    const read = this.read(address);
    const delivery = read ? await this.deliveries.delivery(this.database, read.deliveryId) : null;
    if (!read || !delivery) return this.log.warn({ address: address.slice(0, 12) }, 'a mail for a delivery that is gone');
    const mail = await simpleParser(raw);
    // A machine's answer (out of office, receipt) is nobody's word: RFC 3834 §5.
    const automatic = /auto-(replied|generated|notified)/i.test(String(mail.headers.get('auto-submitted') ?? ''));
    if (read.kind === 'leave') return this.waysOut.leave(delivery, 'this', '', 'reply', 'Mailed the address to leave by');
    if (!automatic) await this.answer(delivery, mail, raw);
  }

  private async answer(delivery: TokenDelivery, mail: ParsedMail, raw: Buffer): Promise<void> {
    const words = ownWords(mail.text ?? '').slice(0, LONGEST);
    const subject = mail.subject ?? '';
    const stop = isStopMail(subject, words);
    const key = mail.messageId?.slice(0, 100) ?? createHash('sha256').update(raw).digest('hex');
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      const fresh = await this.inbound.keepReply(tx, {
        key,
        channel: 'email',
        sender: mail.from?.value[0]?.address ?? '',
        contactPointId: delivery.contactPointId,
        supporterId: delivery.supporterId,
        deliveryId: delivery.id,
        body: words || subject,
        keyword: stop ? 'stop' : 'none',
      });
      if (!fresh) return;
      if (stop) {
        // An answer that says stop closes the whole channel, as a text does.
        await this.close(tx, delivery, 'reply', words || subject);
        if (await this.deliveries.mark(tx, delivery.id, 'left_it'))
          await this.deliveries.event(tx, delivery, 'left', `Answered “${(words || subject).slice(0, 80)}”`);
        return;
      }
      if (await this.deliveries.mark(tx, delivery.id, 'replied')) {
        await this.deliveries.event(tx, delivery, 'replied', words);
        await this.tagDeeds.done(tx, delivery, 'replied');
      }
      if (!plainlySaysStop(words)) return;
      await this.outbox.hold(tx, delivery.contactPointId, `Answered “${words.slice(0, 200)}”: waits for a person to say what is meant`);
      await this.tasks.add(tx, { kind: 'stop', contactPointId: delivery.contactPointId, supporterId: delivery.supporterId, replyKey: key, words });
    });
  }

  private async close(
    tx: Parameters<LedgerRepository['record']>[0],
    delivery: TokenDelivery,
    how: 'reply' | 'complaint',
    words: string,
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
    });
  }

  /** A provider's report that somebody called a mail spam (RFC 5965). The delivery is the one whose token the mail carried. */
  private async complain(raw: Buffer): Promise<void> {
    const text = raw.toString('utf8');
    const isReport = /^content-type:\s*multipart\/report[^]*?report-type="?feedback-report/im.test(text) || /^feedback-type:\s*abuse/im.test(text);
    const tokens = [...text.replace(/=\r?\n/g, '').matchAll(/\/leave\/([a-z2-7]{40,60})/gi)].map((found) => found[1]!);
    const id = tokens.map((token) => this.tokens.read('leave', token)?.id).find((one) => one !== undefined);
    const delivery = id === undefined ? null : await this.deliveries.delivery(this.database, id);
    if (!isReport || !delivery) return this.log.warn({ isReport }, 'a complaint that names no mail of ours');
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      await this.close(tx, delivery, 'complaint', 'Reported as spam');
      const [point] = await tx.sql<{ normal: string }>('SELECT normal FROM contact_point WHERE organization_id = :org AND id = :id', {
        id: delivery.contactPointId,
      });
      if (point) await this.doNotContact.close(tx, 'email', point.normal, 'complaint', `Complained about “${delivery.messageName}”`);
      await this.deliveries.event(tx, delivery, 'complained', 'Reported as spam');
    });
  }
}
