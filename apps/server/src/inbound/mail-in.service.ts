import { Inject, Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import { SMTPServer, type SMTPServerDataStream, type SMTPServerSession } from 'smtp-server';
import { AnswersService } from './answers.service';
import { BouncesService } from './bounces.service';

const LARGEST = 2 * 1024 * 1024;

/** A small SMTP server for what comes back: bounces, answers, ways out by mail, complaints. The mail exchanger of the lists' domain; it takes nothing else. */
@Injectable()
export class MailInService implements OnApplicationShutdown {
  private readonly log = new Logger('mail-in');
  private server: SMTPServer | null = null;

  constructor(
    @Inject(BouncesService) private readonly bounces: BouncesService,
    @Inject(AnswersService) private readonly answers: AnswersService,
  ) {}

  listen(port: number, host: string): void {
    this.server = new SMTPServer({
      disabledCommands: ['AUTH', 'STARTTLS'],
      size: LARGEST,
      logger: false,
      onRcptTo: (address, _session, done) => {
        if (this.bounces.deliveryIdOf(address.address) !== null || this.answers.takes(address.address)) return done();
        done(Object.assign(new Error('No such mailbox'), { responseCode: 550 }));
      },
      onData: (stream, session, done) =>
        void this.take(stream, session).then(
          () => done(),
          (error: unknown) => {
            this.log.error({ err: error }, 'a bounce could not be taken in');
            done(Object.assign(new Error('Try again later'), { responseCode: 451 }));
          },
        ),
    });
    this.server.on('error', (error) => this.log.error({ err: error }, 'mail-in'));
    this.server.listen(port, host);
  }

  private async take(stream: SMTPServerDataStream, session: SMTPServerSession): Promise<void> {
    const receivedAt = new Date();
    const chunks: Buffer[] = [];
    for await (const chunk of stream) chunks.push(chunk as Buffer);
    const raw = Buffer.concat(chunks);
    const from = session.envelope.mailFrom ? session.envelope.mailFrom.address : '';
    for (const rcpt of session.envelope.rcptTo) {
      if (this.answers.takes(rcpt.address)) await this.answers.receive(rcpt.address, raw, from, receivedAt);
      else await this.bounces.receive(rcpt.address, raw);
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await new Promise<void>((done) => (this.server ? this.server.close(() => done()) : done()));
  }
}
