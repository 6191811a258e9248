import { Inject, Injectable, Logger } from '@nestjs/common';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { MAIL_OUT, type MailOut } from '../platform/mail-out';
import { Tokens } from '../platform/tokens';
import { houseMail } from '../team/house-mail';
import { InboundRepository } from './inbound.repository';
import { isFromMachine } from './machines';
import { MailReader } from './mail-reader';

const MOST_AN_HOUR = 20;
const LONGEST = 20_000;
/** An address that may stand in a header as it is. */
const REPLIABLE = /^[\x21-\x7e]+@[a-z0-9.-]+$/i;

/**
 * Somebody answers at "postmaster" (RFC 5321 4.5.1): what is written there goes on to the owners of the
 * organization whose domain it is. What machines send is not passed on, nor more than twenty an hour.
 */
@Injectable()
export class PostmasterService {
  private readonly log = new Logger('postmaster');
  private readonly tokens: Tokens;
  private passed: number[] = [];

  constructor(
    @Inject(InboundRepository) private readonly inbound: InboundRepository,
    @Inject(Database) private readonly database: Database,
    @Inject(MailReader) private readonly reader: MailReader,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(CONFIG) config: Config,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  async receive(address: string, raw: Buffer, from: string): Promise<void> {
    const mail = await this.reader.read(raw);
    const hour = Date.now() - 3_600_000;
    this.passed = this.passed.filter((at) => at > hour);
    if (isFromMachine(mail, from) || this.passed.length >= MOST_AN_HOUR) return;
    this.passed.push(Date.now());
    const domain = address.includes('@') ? address.slice(address.lastIndexOf('@') + 1) : null;
    for (const owner of await this.inbound.owners(this.database, domain)) {
      const text = `${mail.from || from} wrote to postmaster@${owner.organization.list_domain}:\n\n${mail.text.slice(0, LONGEST)}`;
      const sent = await this.mailOut.send({
        ...houseMail(owner.organization, this.tokens, {
          ...{ to: owner.email, key: crypto.randomUUID(), text, about: { teammateId: owner.id } },
          subject: `To postmaster: ${mail.subject.slice(0, 150)}`,
        }),
        from: { name: 'Good Word', address: owner.organization.from_email },
        ...(REPLIABLE.test(mail.from || from) ? { replyTo: mail.from || from } : {}),
      });
      if (sent.kind !== 'accepted')
        this.log.warn({ outcome: sent.kind }, 'a mail to postmaster was not passed on');
    }
  }
}
