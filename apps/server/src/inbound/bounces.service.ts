import { Inject, Injectable, Logger } from '@nestjs/common';
import { deliveryFault } from '@goodword/core/delivery';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { programScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { addEvents } from '../sending/delivery-events';
import { DeliveryFaultsRepository } from '../sending/delivery-faults.repository';
import { UnsubscribeRepository } from '../unsubscribe/unsubscribe.repository';
import { InboundRepository } from './inbound.repository';
import { MailReader } from './mail-reader';

export interface DeliveryStatus {
  action: string;
  status: string;
  diagnostic: string;
}

/**
 * The first recipient's fields of a delivery status notification (RFC 3464 §2.3), or null where the mail is
 * none.
 */
export async function readDeliveryStatus(reader: MailReader, raw: Buffer): Promise<DeliveryStatus | null> {
  const mail = await reader.read(raw);
  const part = mail.attachments.find((attachment) => attachment.contentType === 'message/delivery-status');
  const text = part?.content.toString('utf8').replace(/\r?\n[ \t]+/g, ' ') ?? '';
  const field = (name: string) => new RegExp(`^${name}:\\s*(.+)$`, 'im').exec(text)?.[1]?.trim() ?? '';
  if (!part || field('Action') === '') return null;
  return {
    action: field('Action').toLowerCase(),
    status: field('Status'),
    diagnostic: field('Diagnostic-Code').replace(/^smtp;\s*/i, ''),
  };
}

/** The reply code that a diagnostic begins with (RFC 3464 §2.3.6); null where there is none. */
const replyIn = (diagnostic: string): number | null => Number(/^([45]\d\d)\b/.exec(diagnostic)?.[1]) || null;

/** Mail that comes back to a delivery's own return path. */
@Injectable()
export class BouncesService {
  private readonly tokens: Tokens;
  private readonly log = new Logger('bounces');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(InboundRepository) private readonly inbound: InboundRepository,
    @Inject(DeliveryFaultsRepository) private readonly faults: DeliveryFaultsRepository,
    @Inject(UnsubscribeRepository) private readonly unsubscribe: UnsubscribeRepository,
    @Inject(MailReader) private readonly reader: MailReader,
    @Inject(CONFIG) config: Config,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /** The delivery behind a return path such as `b-TOKEN@…`; null for any other address. */
  deliveryIdOf(address: string): number | null {
    const token = /^b-([a-z2-7]+)@/i.exec(address)?.[1]?.toLowerCase();
    return token ? (this.tokens.read('bounce', token)?.id ?? null) : null;
  }

  /**
   * A failure for good (status class 5, RFC 3463 §3.1): what follows is by what it was about. A delay changes
   * nothing; its end comes in as a failure of its own (class 4 given up, RFC 3464 §2.3.3).
   */
  async receive(address: string, raw: Buffer): Promise<void> {
    const deliveryId = this.deliveryIdOf(address);
    const status = await readDeliveryStatus(this.reader, raw);
    const delivery = deliveryId === null ? null : await this.unsubscribe.delivery(this.database, deliveryId);
    if (!delivery || status?.action !== 'failed')
      return this.log.log(
        { deliveryId, action: status?.action },
        'a mail to a return path that is no failure',
      );
    await this.database.write(programScope(delivery.organizationId), async (tx) => {
      tx.reached.add(delivery.contactPointId);
      const detail = [status.status, status.diagnostic].filter(Boolean).join(' ');
      const fault = deliveryFault({ reply: replyIn(status.diagnostic), text: detail });
      if (!(await this.inbound.setState(tx, delivery.id, 'bounced', detail, fault))) return;
      await addEvents(tx, [delivery.id], 'bounced', detail);
      // What was given up after days may be there tomorrow: the address is not held for it.
      if (!status.status.startsWith('5')) return;
      await this.faults.follow(tx, {
        ...{ id: delivery.id, fault, detail },
        contact_point_id: delivery.contactPointId,
      });
    });
  }
}
