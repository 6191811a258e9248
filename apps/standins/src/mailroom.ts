import express from 'express';
import { simpleParser } from 'mailparser';
import { createTransport } from 'nodemailer';
import { SMTPServer, type SMTPServerDataStream, type SMTPServerSession } from 'smtp-server';
import { answerMail, complaintMail, leavingMail } from './answers';
import { chance } from './chance';
import { deliveryStatusMail } from './dsn';
import type { CaughtMail } from './mail';
import { mailPage, mailsPage, namesPage } from './mailroom-pages';
import { recordsIn } from './zone';

/**
 * How the room behaves. Addresses say it by how they begin (refuse…, defer…, bounce…, opens…, follows…); the
 * chances are for all others.
 */
export interface Settings {
  seed: string;
  openChance: number;
  followChance: number;
  bounceChance: number;
  /** Milliseconds before a mail is answered with 250. */
  delay: number;
}

const MOST = 30_000;

export interface MailroomOptions {
  smtpPort: number;
  httpPort: number;
  /** Where mail to return paths is taken in. */
  bounceHost: string;
  bouncePort: number;
  /** Mail to this domain goes on to where it is taken in, as its mail exchanger is asked to. */
  listDomain?: string;
  /** Records of a domain name service, one a line: name, kind, words. */
  zone?: string;
  settings?: Partial<Settings>;
}

/**
 * Simulates the mail world: takes mail for anybody, keeps it in mailboxes, and does what readers and servers
 * do.
 */
export class Mailroom {
  readonly mails: CaughtMail[] = [];
  readonly settings: Settings;
  /** As the options say at first; changed on its page. */
  zone: string;
  private readonly deferred = new Map<string, number>();
  private readonly smtp: SMTPServer;
  private readonly http: ReturnType<express.Express['listen']>;
  private next = 1;

  constructor(private readonly options: MailroomOptions) {
    this.settings = {
      seed: 'ferry',
      openChance: 0,
      followChance: 0,
      bounceChance: 0,
      delay: 0,
      ...options.settings,
    };
    this.zone = options.zone ?? '';
    this.smtp = new SMTPServer({
      disabledCommands: ['AUTH', 'STARTTLS'],
      size: 30 * 1024 * 1024,
      logger: false,
      onRcptTo: (address, _session, done) => done(this.refusal(address.address)),
      onData: (stream, session, done) => void this.take(stream, session).then(() => done(), done),
    });
    this.smtp.on('error', () => undefined);
    this.smtp.listen(options.smtpPort, '127.0.0.1');
    this.http = this.app().listen(options.httpPort, '127.0.0.1');
  }

  async close(): Promise<void> {
    await Promise.all([
      new Promise<void>((done) => this.smtp.close(() => done())),
      new Promise<void>((done) => this.http.close(() => done())),
    ]);
  }

  private refusal(address: string): (Error & { responseCode: number }) | null {
    if (/^refuse/i.test(address))
      return Object.assign(new Error('5.1.1 No such mailbox here'), { responseCode: 550 });
    const times = this.deferred.get(address) ?? 0;
    if (/^defer/i.test(address) && times < 1) {
      this.deferred.set(address, times + 1);
      return Object.assign(new Error('4.2.1 Try again later'), { responseCode: 451 });
    }
    return null;
  }

  private async take(stream: SMTPServerDataStream, session: SMTPServerSession): Promise<void> {
    const chunks: Buffer[] = [];
    for await (const chunk of stream) chunks.push(chunk as Buffer);
    const raw = Buffer.concat(chunks);
    if (this.settings.delay > 0) await new Promise((done) => setTimeout(done, this.settings.delay));
    const parsed = await simpleParser(raw);
    const returnPath = session.envelope.mailFrom ? session.envelope.mailFrom.address : '';
    for (const { address } of session.envelope.rcptTo) {
      if (address.toLowerCase().endsWith(`@${this.options.listDomain}`)) {
        await this.post(returnPath, { to: address, raw: raw.toString('latin1') });
        continue;
      }
      const mail = { id: this.next++, to: address.toLowerCase(), returnPath, at: new Date(), raw, parsed };
      this.mails.push(mail);
      if (this.mails.length > MOST) this.mails.shift();
      this.react(mail);
    }
  }

  /** What happens to a mail after it has arrived, a moment later. */
  private react(mail: CaughtMail): void {
    const { seed, openChance, followChance, bounceChance } = this.settings;
    const luck = (what: string) => chance(seed, what, mail.to, mail.parsed.subject ?? '');
    const bounces = /^bounce/i.test(mail.to) || luck('bounce') < bounceChance;
    const follows = /^follows/i.test(mail.to) || luck('follow') < followChance;
    const opens = follows || /^opens/i.test(mail.to) || luck('open') < openChance;
    const later = (act: () => Promise<unknown>) =>
      setTimeout(() => void act().catch(() => undefined), 100 + 400 * luck('when'));
    if (bounces) later(() => this.bounce(mail));
    else {
      if (opens) later(() => this.open(mail));
      if (follows) later(() => this.follow(mail, 0));
    }
  }

  /** Sends a delivery status notification to the mail's return path. */
  async bounce(mail: CaughtMail): Promise<void> {
    if (mail.returnPath) await this.post('', { to: mail.returnPath, raw: deliveryStatusMail(mail) });
  }

  /** What a reader does beside the mail itself: writes back, mails the address to leave by, calls it spam. */
  async writeBack(mail: CaughtMail, letter: { to: string; raw: string } | null): Promise<void> {
    if (letter) await this.post(mail.to, letter);
  }

  /** Gives a mail to the server of the sender's lists, trying again while it is away. */
  private async post(from: string, { to, raw }: { to: string; raw: string }): Promise<void> {
    const transport = createTransport({
      host: this.options.bounceHost,
      port: this.options.bouncePort,
      ignoreTLS: true,
    });
    for (let attempt = 0; attempt < 5; attempt++) {
      try {
        await transport.sendMail({ envelope: { from, to: [to] }, raw });
        return;
      } catch {
        await new Promise((done) => setTimeout(done, 1000 * 2 ** attempt));
      }
    }
  }

  /** Loads the pictures, as a mail reader does. */
  async open(mail: CaughtMail): Promise<void> {
    const pixel = /<img src="([^"]+\/o\/[^"]+)"/.exec(mail.parsed.html || '')?.[1];
    if (pixel) await fetch(pixel);
  }

  /** Follows the nth link of the letter, leaving out the way out; goes no further than its redirect. */
  async follow(mail: CaughtMail, nth: number): Promise<void> {
    const links = [...(mail.parsed.html || '').matchAll(/<a [^>]*?href="([^"]+\/f\/[^"]+)"/g)].map(
      (found) => found[1]!,
    );
    if (links[nth]) await fetch(links[nth], { redirect: 'manual' });
  }

  /** The one-click way out of RFC 8058: a POST to the address in the header, with its one body. */
  async oneClick(mail: CaughtMail): Promise<number> {
    const header =
      mail.parsed.headerLines
        .find((line) => line.key === 'list-unsubscribe')
        ?.line.replace(/\r?\n\s+/g, ' ') ?? '';
    const address = /<(https?:[^>]+)>/.exec(header)?.[1];
    if (!address) return 0;
    const response = await fetch(address, {
      method: 'POST',
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      body: 'List-Unsubscribe=One-Click',
    });
    return response.status;
  }

  private app(): express.Express {
    const app = express();
    app.use(express.json(), express.urlencoded({ extended: false }));
    const find = (id: string) => this.mails.find((mail) => mail.id === Number(id));
    app.get(
      '/',
      (request, response) => void response.send(mailsPage(this.mails, String(request.query.box ?? ''))),
    );
    app.get('/mail/:id', (request, response) => {
      const mail = find(request.params.id);
      if (mail) response.send(mailPage(mail));
      else response.status(404).send('This mail is no longer kept.');
    });
    app.post('/mail/:id/:act', async (request, response) => {
      const mail = find(request.params.id);
      const acts: Record<string, (mail: CaughtMail) => Promise<unknown>> = {
        bounce: (m) => this.bounce(m),
        open: (m) => this.open(m),
        follow: (m) => this.follow(m, 0),
        'one-click': (m) => this.oneClick(m),
        answer: (m) =>
          this.writeBack(m, answerMail(m, String((request.body as { words?: string }).words ?? ''))),
        leave: (m) => this.writeBack(m, leavingMail(m)),
        complain: (m) => this.writeBack(m, complaintMail(m)),
      };
      const act = acts[request.params.act];
      if (mail && act) await act(mail);
      response.redirect(303, `/mail/${request.params.id}`);
    });
    // What a domain name service would say: everything takes mail but what is named so that it does not.
    app.post('/lookup/domains', (request, response) => {
      const domains = (request.body as { domains?: unknown }).domains;
      const names = Array.isArray(domains)
        ? domains.filter((one): one is string => typeof one === 'string')
        : [];
      response.json(
        Object.fromEntries(
          names
            .filter((name) => !name.startsWith('silent.'))
            .map((name) => [name, !/^nowhere\.|\.invalid$/.test(name)]),
        ),
      );
    });
    app.post('/lookup/records', (request, response) => {
      const { name, kind } = request.body as { name?: unknown; kind?: unknown };
      response.json({ records: recordsIn(this.zone, String(name), String(kind)) });
    });
    app.get('/names', (_request, response) => response.send(namesPage(this.zone)));
    app.post('/names', (request, response) => {
      this.zone = String((request.body as { zone?: string }).zone ?? '');
      response.redirect(303, '/names');
    });
    app.get('/api/mails', (request, response) => {
      const to = String(request.query.to ?? '').toLowerCase();
      const mails = this.mails.filter((mail) => to === '' || mail.to === to);
      response.json(
        mails.map((mail) => ({
          id: mail.id,
          to: mail.to,
          returnPath: mail.returnPath,
          subject: mail.parsed.subject,
          messageId: mail.parsed.messageId,
          text: mail.parsed.text,
          html: mail.parsed.html || '',
          at: mail.at,
        })),
      );
    });
    app.get(
      '/api/mails/:id/raw',
      (request, response) => void response.type('message/rfc822').send(find(request.params.id)?.raw ?? ''),
    );
    app.put(
      '/api/settings',
      (request, response) => void response.json(Object.assign(this.settings, request.body)),
    );
    return app;
  }
}
