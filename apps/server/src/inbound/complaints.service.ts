import { Inject, Injectable, Logger } from '@nestjs/common';
import { DoNotContactService } from '../permission/do-not-contact.service';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { programScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { DeliveryFaultsRepository } from '../sending/delivery-faults.repository';
import { UnsubscribeRepository, type TokenDelivery } from '../unsubscribe/unsubscribe.repository';
import { isComplaint, readFeedbackReport } from './feedback-report';
import { InboundRepository } from './inbound.repository';
import { closedByMail } from './mail-entry';
import { MailReader } from './mail-reader';

/** Complaints that people's providers report (RFC 5965). Each is kept and acted on once. */
@Injectable()
export class ComplaintsService {
  private readonly tokens: Tokens;
  private readonly log = new Logger('complaints');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(InboundRepository) private readonly inbound: InboundRepository,
    @Inject(UnsubscribeRepository) private readonly deliveries: UnsubscribeRepository,
    @Inject(DeliveryFaultsRepository) private readonly faults: DeliveryFaultsRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
    @Inject(MailReader) private readonly reader: MailReader,
    @Inject(CONFIG) config: Config,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /** `complaints@…`, whose report carries a token of ours. */
  takes(address: string): boolean {
    return /^complaints@/i.test(address);
  }

  /** A report that somebody called a mail spam: counted once, for the delivery that it is about. */
  async receive(raw: Buffer): Promise<void> {
    const report = await readFeedbackReport(this.reader, raw);
    if (!report || !isComplaint(report))
      return this.log.warn({ type: report?.type }, 'a report that is no complaint');
    const delivery = await this.reported(report.original);
    if (!delivery) return this.log.warn('a complaint that names no mail of ours');
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      tx.unchanged();
      await this.deliveries.lockDelivery(tx, delivery.id);
      if (await this.deliveries.hasEvent(tx, delivery.id, 'complained')) return;
      await this.ledger.record(tx, closedByMail(delivery, { how: 'complaint', words: 'Reported as spam' }));
      const [point] = await tx.sql<{ normal: string }>(
        'SELECT normal FROM contact_point WHERE organization_id = :org AND id = :id',
        { id: delivery.contactPointId },
      );
      const about = `Complained about “${delivery.messageName}”`;
      if (point) await this.doNotContact.close(tx, 'email', point.normal, 'complaint', about);
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
