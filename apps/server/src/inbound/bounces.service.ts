import { Inject, Injectable, Logger } from '@nestjs/common';
import { deliveryFault, returnedMail, type ReturnPathMail } from '@goodword/core/delivery';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { programScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { addEvents } from '../sending/delivery-events';
import { DeliveryFaultsRepository } from '../sending/delivery-faults.repository';
import { UnsubscribeRepository } from '../unsubscribe/unsubscribe.repository';
import { TeammatesRepository } from '../team/teammates.repository';
import { InboundRepository, type Addressee } from './inbound.repository';
import { headerWords } from './machines';
import { MailReader, type ReadMail } from './mail-reader';

/** What a return path names: a delivery, an address that was written to by itself, a teammate. */
interface BounceOwner {
  use: 'bounce' | 'bounce-point' | 'bounce-mate';
  id: number;
}

const REPORTS = ['message/delivery-status', 'message/global-delivery-status'];

/** What stands in a mail to a return path (RFC 3464; RFC 6533 where addresses have other letters). */
function returnPathMail(mail: ReadMail, envelopeFrom: string): ReturnPathMail {
  const part = mail.attachments.find(({ contentType }) => REPORTS.includes(contentType.toLowerCase()));
  return {
    report: part ? part.content.toString('utf8') : null,
    subject: mail.subject,
    text: mail.text,
    header: (name) => headerWords(mail, name),
    envelopeFrom,
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
    @Inject(TeammatesRepository) private readonly mates: TeammatesRepository,
    @Inject(UnsubscribeRepository) private readonly unsubscribe: UnsubscribeRepository,
    @Inject(MailReader) private readonly reader: MailReader,
    @Inject(CONFIG) config: Config,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /** Whose mail a return path such as `b-TOKEN@…` belongs to; null for any other address. */
  ownerOf(address: string): BounceOwner | null {
    const token = /^b-([a-z2-7]+)@/i.exec(address)?.[1]?.toLowerCase();
    if (!token) return null;
    for (const use of ['bounce', 'bounce-point', 'bounce-mate'] as const) {
      const id = this.tokens.read(use, token)?.id;
      if (id !== undefined) return { use, id };
    }
    return null;
  }

  /**
   * A failure for good (status class 5, RFC 3463 §3.1): what follows is by what it was about. A delay changes
   * nothing; its end comes in as a failure of its own (class 4 given up, RFC 3464 §2.3.3).
   */
  async receive(address: string, raw: Buffer, envelopeFrom: string): Promise<void> {
    const owner = this.ownerOf(address);
    const to = owner && (await this.addressee(owner));
    if (!to) return this.log.log({ owner }, 'a mail to a return path of nobody that is known');
    const returned = returnedMail(returnPathMail(await this.reader.read(raw), envelopeFrom), to.address);
    if (!returned) return this.log.log({ owner }, 'a mail to a return path that is no failure');
    const detail = [returned.status, returned.diagnostic].filter(Boolean).join(' ');
    const fault = deliveryFault({ reply: replyIn(returned.diagnostic), text: detail });
    // What was given up after days may be there tomorrow: the address is not held for it.
    const forGood = returned.status === '' || returned.status.startsWith('5');
    await this.database.write(programScope(to.organizationId), async (tx) => {
      if (owner.use === 'bounce-mate') return this.mates.linkReturned(tx, owner.id, detail);
      tx.reached.add(to.contactPointId!);
      if (owner.use === 'bounce-point') {
        if (forGood && fault === 'address') await this.faults.holdPoint(tx, owner.id, detail);
        return;
      }
      if (!(await this.inbound.setState(tx, owner.id, 'bounced', detail, fault))) return;
      await addEvents(tx, [owner.id], 'bounced', detail);
      if (!forGood) return;
      await this.faults.follow(tx, {
        ...{ id: owner.id, fault, detail },
        contact_point_id: to.contactPointId!,
      });
    });
  }

  /** To whom the mail behind a return path went. */
  private async addressee({ use, id }: BounceOwner): Promise<Addressee | null> {
    if (use === 'bounce-point') return this.inbound.pointAddress(this.database, id);
    if (use === 'bounce-mate') return this.inbound.mateAddress(this.database, id);
    const delivery = await this.unsubscribe.delivery(this.database, id);
    return delivery && this.inbound.pointAddress(this.database, delivery.contactPointId);
  }
}
