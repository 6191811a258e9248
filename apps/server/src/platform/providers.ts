import { Logger } from '@nestjs/common';
import type { HandOver, MailOut } from './mail-out';
import type { TextOut } from './text-out';

/** Writes in the log when a provider is away, and when it answers again: once each, not for every message. */
class Watch {
  private readonly log = new Logger('providers');
  private away: Date | null = null;

  constructor(private readonly name: string) {}

  heard(result: HandOver): HandOver {
    if (result.kind === 'unreachable' && this.away === null) {
      this.away = new Date();
      this.log.warn(`${this.name} is away: ${result.detail}. What is to leave waits, and is tried again.`);
    } else if (result.kind !== 'unreachable' && result.kind !== 'unsure' && this.away !== null) {
      this.log.log(
        `${this.name} answers again, after ${Math.round((Date.now() - this.away.getTime()) / 1000)} s`,
      );
      this.away = null;
    }
    return result;
  }
}

export function watchedMail(inner: MailOut): MailOut {
  const watch = new Watch('The mail server');
  return {
    write: (mail) => inner.write(mail),
    handOver: async (mail) => watch.heard(await inner.handOver(mail)),
    send: async (mail) => watch.heard(await inner.send(mail)),
    close: () => inner.close(),
  };
}

export function watchedTexts(inner: TextOut): TextOut {
  const watch = new Watch('The text gateway');
  return {
    send: async (text) => watch.heard(await inner.send(text)),
    knowsKeys: inner.knowsKeys,
    close: () => inner.close(),
  };
}

interface Fault {
  code?: string;
  message: string;
  responseCode?: number;
}

const CERTIFICATE = /certificate|self[- ]signed|altname|CERT_|UNABLE_TO_VERIFY/i;

/**
 * What is wrong with a mail server, in a sentence, and whether it will be as wrong in an hour: a certificate
 * or a password is mended by a person, an outage ends by itself.
 */
export function mailServerFault(error: Fault, address: string): { words: string; lasting: boolean } {
  const text = `${error.code ?? ''} ${error.message}`;
  if (CERTIFICATE.test(text))
    return {
      words: `The mail server at ${address} shows a certificate that is not accepted: ${error.message}`,
      lasting: true,
    };
  if (error.code === 'EAUTH' || error.responseCode === 535)
    return {
      words: `The mail server at ${address} does not accept the user and password in SMTP_URL`,
      lasting: true,
    };
  if (/ENOTFOUND|EDNS|EAI_AGAIN/.test(text))
    return { words: `There is no host “${address.split(':')[0]}”, which SMTP_URL names`, lasting: true };
  if (/wrong version number|ETLS|SSL routines/i.test(text))
    return {
      words: `The mail server at ${address} does not speak TLS as SMTP_URL says: smtps:// is for port 465, smtp:// for 587 and 25`,
      lasting: true,
    };
  if (/ETIMEDOUT|timeout/i.test(text))
    return { words: `The mail server at ${address} does not answer in time`, lasting: false };
  return { words: `The mail server at ${address} can not be reached: ${error.message}`, lasting: false };
}
