import { createTransport, type SMTPPoolOptions, type Transporter } from 'nodemailer';
import SMTPConnection from 'nodemailer/lib/smtp-connection';
import type { Readable } from 'node:stream';
import { domainToASCII } from 'node:url';
import { deliveryFault, type DeliveryFault } from '@goodword/core/delivery';
import {
  givenHeader,
  MAIL_TYPE,
  mailboxHeader,
  mailDate,
  wordsHeader,
  type Mailbox,
} from '@goodword/core/mail';
import { signatures, type DkimKey } from './dkim';

/** A mail, ready to be put into its envelope. */
export interface OutgoingMail {
  from: Mailbox;
  to: string;
  replyTo?: string;
  /** Envelope sender, to which bounces come back. */
  returnPath: string;
  messageId: string;
  subject: string;
  /** Of the type MAIL_TYPE, see core/mail. */
  body: string;
  /** BCP 47. */
  language: string;
  headers: Record<string, string>;
}

/**
 * What became of a hand-over. "unreachable" means that nothing of the message was given away, or that the
 * server takes nothing of ours as it stands: it is tried again, and nobody is lost. "unsure" means that it
 * was under way when the connection went, so only a person can tell.
 */
export type HandOver =
  | { kind: 'accepted'; detail: string }
  | { kind: 'refused'; permanent: boolean; fault: DeliveryFault; detail: string }
  | { kind: 'unreachable'; detail: string }
  | { kind: 'unsure'; detail: string };

/** A mail as it goes over the wire. */
export interface WrittenMail extends Pick<OutgoingMail, 'to' | 'returnPath' | 'messageId'> {
  raw: Buffer;
}

/** Port: gives one mail to a provider. Never throws. */
export interface MailOut {
  /** Signs it and puts it together, which is most of the work and may be done before its turn. */
  write(mail: OutgoingMail): Promise<WrittenMail>;
  handOver(mail: WrittenMail): Promise<HandOver>;
  /** Both at once. */
  send(mail: OutgoingMail): Promise<HandOver>;
  close(): void;
}

export const MAIL_OUT = Symbol('MAIL_OUT');

interface SmtpError extends Error {
  code?: string;
  responseCode?: number;
  command?: string;
  /** The whole answer of the server. */
  response?: string;
}

/** SMTP through nodemailer's pool. */
export class SmtpOut implements MailOut {
  private readonly transport: Transporter;
  private readonly bodies = new WeakMap<object, Readable>();
  private readonly url: string;
  private readonly keys: readonly DkimKey[];
  private utf8: { until: number; offered: Promise<boolean | null> } | null = null;

  constructor(options: { url: string; connections: number; perSecond: number; keys: readonly DkimKey[] }) {
    this.url = options.url;
    const pool: SMTPPoolOptions & { pool: true } = {
      pool: true,
      url: options.url,
      maxConnections: options.connections,
      maxMessages: Infinity,
      // Whether a message may be tried again is decided here, never by the pool.
      maxRequeues: 0,
      connectionTimeout: 10_000,
      greetingTimeout: 10_000,
      socketTimeout: 60_000,
      ...(options.perSecond > 0 ? { rateDelta: 1000, rateLimit: options.perSecond } : {}),
    };
    this.keys = options.keys;
    this.transport = createTransport(pool) as Transporter;
    this.transport.use('stream', (mail, done) => {
      this.watchBody(
        mail.data,
        mail.message as unknown as { createReadStream(...args: unknown[]): Readable },
      );
      done();
    });
  }

  async send(mail: OutgoingMail): Promise<HandOver> {
    return this.handOver(await this.write(mail));
  }

  async write(mail: OutgoingMail): Promise<WrittenMail> {
    const { to, returnPath, messageId } = mail;
    return { to, returnPath, messageId, raw: await written(mail, this.keys, new Date()) };
  }

  async handOver(mail: WrittenMail): Promise<HandOver> {
    if (!ASCII.test(mail.to.slice(0, mail.to.lastIndexOf('@')))) {
      const offered = await this.offersUtf8();
      if (offered === null)
        return { kind: 'unreachable', detail: 'The mail server did not say what it takes' };
      if (!offered) return { kind: 'refused', permanent: true, fault: 'message', detail: NO_UTF8 };
    }
    const data = {
      envelope: { from: mail.returnPath, to: [mail.to] },
      messageId: mail.messageId,
      raw: mail.raw,
      mark: {},
    };
    try {
      const info = (await this.transport.sendMail(data)) as { response?: string };
      return { kind: 'accepted', detail: info.response ?? '' };
    } catch (error) {
      return classify(error as SmtpError, this.bodies.get(data.mark)?.readableDidRead ?? false);
    }
  }

  /**
   * Whether the server takes addresses with letters beyond ASCII before the @ (RFC 6531 §3.1); null where it
   * can't be asked. Sent without asking, such an address may come out as another one. Asked once in ten
   * minutes.
   */
  private offersUtf8(): Promise<boolean | null> {
    if (this.utf8 && this.utf8.until > Date.now()) return this.utf8.offered;
    const offered = askUtf8(this.url);
    this.utf8 = { until: Date.now() + 600_000, offered };
    void offered.then((known) => known === null && (this.utf8 = null));
    return offered;
  }

  close(): void {
    this.transport.close();
  }

  /** Remembers the stream that the body is read from: unread means that not a byte of it was given away. */
  private watchBody(data: object, message: { createReadStream(...args: unknown[]): Readable }): void {
    const make = message.createReadStream.bind(message);
    message.createReadStream = (...args) => {
      const stream = make(...args);
      this.bodies.set((data as { mark: object }).mark, stream);
      return stream;
    };
  }
}

/** An address as it stands in mail: its domain in ASCII (RFC 5890 §2.3.2.1), nothing that ends a header. */
function inMail(address: string): string {
  const at = address.lastIndexOf('@');
  return address.slice(0, at + 1) + (domainToASCII(address.slice(at + 1)) || address.slice(at + 1));
}

/** The mail as it goes over the wire, its signatures first. */
export async function written(mail: OutgoingMail, keys: readonly DkimKey[], now: Date): Promise<Buffer> {
  const { from, to, replyTo, messageId, subject, language, headers, body } = mail;
  const all = [
    mailboxHeader('From', { ...from, address: inMail(from.address) }),
    mailboxHeader('To', { name: '', address: inMail(to) }),
    ...(replyTo ? [mailboxHeader('Reply-To', { name: '', address: inMail(replyTo) })] : []),
    wordsHeader('Subject', subject),
    givenHeader('Message-ID', messageId),
    givenHeader('Date', mailDate(now)),
    ...Object.entries(headers).map(([name, value]) => givenHeader(name, value)),
    givenHeader('Content-Language', language),
    'MIME-Version: 1.0\r\n',
    givenHeader('Content-Type', MAIL_TYPE),
  ];
  return Buffer.from(`${await signatures(keys, all, body, now)}${all.join('')}\r\n${body}`);
}

const ASCII = /^[\x20-\x7e]*$/;
const NO_UTF8 =
  'The mail server takes no addresses with such letters before the @ (it does not offer SMTPUTF8)';

/** What the server answers to EHLO; the connection is closed again. */
function askUtf8(url: string): Promise<boolean | null> {
  const { hostname, port, protocol, searchParams } = new URL(url);
  // As the pool takes them: `tls.rejectUnauthorized=false` for a server with a certificate of its own.
  const tls = Object.fromEntries(
    [...searchParams].flatMap(([name, value]) =>
      name.startsWith('tls.')
        ? [[name.slice(4), value === 'true' ? true : value === 'false' ? false : value]]
        : [],
    ),
  );
  const secure = protocol === 'smtps:';
  const connection = new SMTPConnection({
    ...{ host: hostname, port: Number(port) || (secure ? 465 : 587), secure, tls },
    ...{ connectionTimeout: 10_000, greetingTimeout: 10_000, socketTimeout: 10_000 },
  });
  return new Promise((answer) => {
    connection.once('error', () => answer(null));
    connection.connect((error) => {
      answer(error ? null : /\bSMTPUTF8\b/i.test(String(connection.lastServerResponse)));
      connection.close();
    });
  });
}

/**
 * Reply codes by RFC 5321 §4.2.1: 4yz may succeed later, 5yz will not. What the server says of us (a
 * password, a sender, a quota) concerns everybody: nobody is refused for it.
 */
export function classify(error: SmtpError, bodyRead: boolean): HandOver {
  const detail = error.message.slice(0, 300);
  const reply = error.responseCode ?? 0;
  if (reply === 421) return bodyRead ? { kind: 'unsure', detail } : { kind: 'unreachable', detail };
  if (error.code === 'EAUTH') return { kind: 'unreachable', detail };
  if (reply >= 400) {
    const said = error.response ?? error.message;
    const fault = deliveryFault({ reply, text: said.replace(/^\d{3}[ -]/, ''), command: error.command });
    if (fault === 'provider') return { kind: 'unreachable', detail };
    return { kind: 'refused', permanent: reply >= 500, fault, detail };
  }
  if (error.code === 'EENVELOPE') return { kind: 'refused', permanent: true, fault: 'address', detail };
  return bodyRead ? { kind: 'unsure', detail } : { kind: 'unreachable', detail };
}
