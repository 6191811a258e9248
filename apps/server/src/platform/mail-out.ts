import { createTransport, type SMTPPoolOptions, type Transporter } from 'nodemailer';
import SMTPConnection from 'nodemailer/lib/smtp-connection';
import type { Readable } from 'node:stream';
import { deliveryFault, type DeliveryFault } from '@goodword/core/delivery';

/** A rendered mail, ready to go. */
export interface OutgoingMail {
  from: string;
  to: string;
  replyTo?: string;
  /** Envelope sender, to which bounces come back. */
  returnPath: string;
  messageId: string;
  subject: string;
  html: string;
  text: string;
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

/** Port: gives one mail to a provider. Never throws. */
export interface MailOut {
  send(mail: OutgoingMail): Promise<HandOver>;
  close(): void;
}

export const MAIL_OUT = Symbol('MAIL_OUT');

export interface Dkim {
  domain: string;
  selector: string;
  privateKey: string;
}

/**
 * Headers that the signature covers: those of RFC 6376 §5.4.1, and both list headers that RFC 8058 §4
 * requires it to cover.
 */
export const SIGNED_HEADERS =
  'From:Sender:Reply-To:Subject:Date:Message-ID:To:Cc:MIME-Version:Content-Type:Content-Transfer-Encoding:List-Id:List-Unsubscribe:List-Unsubscribe-Post';

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
  private utf8: { until: number; offered: Promise<boolean | null> } | null = null;

  constructor(options: { url: string; connections: number; perSecond: number; dkim: Dkim | null }) {
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
    const dkim = options.dkim && {
      domainName: options.dkim.domain,
      keySelector: options.dkim.selector,
      privateKey: options.dkim.privateKey,
      headerFieldNames: SIGNED_HEADERS,
    };
    this.transport = createTransport({ ...pool, ...(dkim ? { dkim } : {}) }) as Transporter;
    this.transport.use('stream', (mail, done) => {
      this.watchBody(
        mail.data,
        mail.message as unknown as { createReadStream(...args: unknown[]): Readable },
      );
      done();
    });
  }

  async send(mail: OutgoingMail): Promise<HandOver> {
    if (!ASCII.test(mail.to.slice(0, mail.to.lastIndexOf('@')))) {
      const offered = await this.offersUtf8();
      if (offered === null)
        return { kind: 'unreachable', detail: 'The mail server did not say what it takes' };
      if (!offered) return { kind: 'refused', permanent: true, fault: 'message', detail: NO_UTF8 };
    }
    const data = {
      envelope: { from: mail.returnPath, to: [mail.to] },
      from: mail.from,
      to: mail.to,
      replyTo: mail.replyTo,
      messageId: mail.messageId,
      subject: asTyped(mail.subject),
      html: mail.html,
      text: mail.text,
      headers: asWritten(mail.headers),
      encoding: 'quoted-printable' as const,
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

/**
 * A subject that reads as it was typed: what looks like an encoded word in a name or a value is encoded
 * itself (RFC 2047 §2, at most 75 characters each), since a mail reader would decode it. Others are left to
 * the library.
 */
export function asTyped(subject: string): string {
  if (!subject.includes('=?')) return subject;
  const words: string[] = [];
  let piece = '';
  for (const char of [...subject, '']) {
    if (char === '' || Buffer.byteLength(piece + char) > 45) {
      words.push(`=?UTF-8?B?${Buffer.from(piece).toString('base64')}?=`);
      piece = '';
    }
    piece += char;
  }
  return words.join(' ');
}

const ASCII = /^[\x20-\x7e]*$/;
const NO_UTF8 =
  'The mail server takes no addresses with such letters before the @ (it does not offer SMTPUTF8)';

/** What the server answers to EHLO; the connection is closed again. */
function askUtf8(url: string): Promise<boolean | null> {
  const { hostname, port, protocol } = new URL(url);
  const secure = protocol === 'smtps:';
  const connection = new SMTPConnection({
    ...{ host: hostname, port: Number(port) || (secure ? 465 : 587), secure },
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
 * List headers are structured (RFC 2369 §2, RFC 2919 §3): an encoded word in them would hide the identifier.
 */
function asWritten(
  headers: Record<string, string>,
): Record<string, { prepared: true; foldLines: true; value: string }> {
  return Object.fromEntries(
    Object.entries(headers).map(([name, value]) => [name, { prepared: true, foldLines: true, value }]),
  );
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
