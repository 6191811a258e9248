import { readFileSync } from 'node:fs';
import { Inject, Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import {
  SMTPServer,
  type SMTPServerAddress,
  type SMTPServerDataStream,
  type SMTPServerSession,
} from 'smtp-server';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { CameThroughService } from '../sender/came-through.service';
import { AnswersService } from './answers.service';
import { BouncesService } from './bounces.service';
import { ComplaintsService } from './complaints.service';
import { InboundRepository } from './inbound.repository';
import { MAIL_LIMITS, mailFault, MailReader } from './mail-reader';
import { PostmasterService } from './postmaster.service';

/** Milliseconds that our domains are known for. */
const DOMAINS_MS = 60_000;
const POSTMASTER = /^postmaster(?:@|$)/i;

const refusal = (responseCode: number, message: string) =>
  Object.assign(new Error(message), { responseCode });

/**
 * A small SMTP server for what comes back: bounces, answers, ways out by mail, complaints. The mail exchanger
 * of the lists' domains; it takes nothing else, and of everything so much and no more.
 */
@Injectable()
export class MailInService implements OnApplicationShutdown {
  private readonly log = new Logger('mail-in');
  private server: SMTPServer | null = null;
  private domains: { known: ReadonlySet<string>; until: number } = { known: new Set(), until: 0 };

  constructor(
    @Inject(BouncesService) private readonly bounces: BouncesService,
    @Inject(AnswersService) private readonly answers: AnswersService,
    @Inject(ComplaintsService) private readonly complaints: ComplaintsService,
    @Inject(CameThroughService) private readonly through: CameThroughService,
    @Inject(PostmasterService) private readonly postmaster: PostmasterService,
    @Inject(InboundRepository) private readonly inbound: InboundRepository,
    @Inject(MailReader) private readonly reader: MailReader,
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  listen(port: number, host: string): void {
    const { INBOUND_TLS_CERT: cert, INBOUND_TLS_KEY: key } = this.config;
    const tls = cert && key ? { cert: readFileSync(cert), key: readFileSync(key) } : null;
    this.server = new SMTPServer({
      disabledCommands: tls ? ['AUTH'] : ['AUTH', 'STARTTLS'],
      ...(tls ?? {}),
      size: MAIL_LIMITS.bytes,
      maxClients: 20,
      socketTimeout: 60_000,
      closeTimeout: 2_000,
      logger: false,
      onRcptTo: (address, session, done) => void this.admit(address, session).then((no) => done(no), done),
      onData: (stream, session, done) =>
        void this.take(stream, session).then(
          () => done(),
          (error: unknown) => {
            if (error instanceof Error && 'responseCode' in error) return done(error);
            this.log.error({ err: error }, 'a mail could not be taken in');
            done(refusal(451, 'Try again later'));
          },
        ),
    });
    this.server.on('error', (error) => this.log.error({ err: error }, 'mail-in'));
    this.server.listen(port, host);
  }

  /** Null where a recipient is one of ours. */
  private async admit({ address }: SMTPServerAddress, session: SMTPServerSession): Promise<Error | null> {
    if (session.envelope.rcptTo.length >= MAIL_LIMITS.recipients) return refusal(452, 'Too many recipients');
    const domain = address.slice(address.lastIndexOf('@') + 1).toLowerCase();
    const [isOurs, isPostmaster] = [await this.isOurs(domain), POSTMASTER.test(address)];
    // RFC 5321 4.5.1: "postmaster" stands also without a domain.
    if (isPostmaster && (isOurs || !address.includes('@'))) return null;
    const isKnown =
      this.bounces.ownerOf(address) !== null ||
      this.through.organizationOf(address) !== null ||
      this.complaints.takes(address) ||
      this.answers.takes(address);
    if (isOurs && isKnown) return null;
    return refusal(550, 'No such mailbox');
  }

  private async isOurs(domain: string): Promise<boolean> {
    if (this.domains.until < Date.now())
      this.domains = { known: await this.inbound.domains(this.database), until: Date.now() + DOMAINS_MS };
    return this.domains.known.has(domain);
  }

  private async take(stream: SMTPServerDataStream, session: SMTPServerSession): Promise<void> {
    const receivedAt = new Date();
    const chunks: Buffer[] = [];
    let bytes = 0;
    // What is too much is heard to its end, as the protocol wants it, and kept no more.
    for await (const chunk of stream)
      if ((bytes += (chunk as Buffer).length) <= MAIL_LIMITS.bytes) chunks.push(chunk as Buffer);
    if (bytes > MAIL_LIMITS.bytes) throw refusal(552, `A mail may have ${MAIL_LIMITS.bytes} bytes`);
    const raw = Buffer.concat(chunks);
    const fault = mailFault(raw);
    if (fault) throw refusal(554, fault);
    const from = session.envelope.mailFrom ? session.envelope.mailFrom.address : '';
    // A token counts once a mail, however often it stands in the envelope.
    const recipients = new Map(
      session.envelope.rcptTo.map(({ address }) => [address.toLowerCase(), address]),
    );
    for (const address of recipients.values()) {
      if (POSTMASTER.test(address)) await this.postmaster.receive(address, raw, from);
      else if (this.through.organizationOf(address) !== null) await this.through.receive(address, raw);
      else if (this.complaints.takes(address)) await this.complaints.receive(raw);
      else if (this.answers.takes(address)) await this.answers.receive(address, raw, from, receivedAt);
      else await this.bounces.receive(address, raw, from);
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await new Promise<void>((done) => (this.server ? this.server.close(() => done()) : done()));
    await this.reader.close();
  }
}
