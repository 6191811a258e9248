import { randomUUID } from 'node:crypto';
import type { CaughtMail } from './mail';

type Read = Pick<CaughtMail, 'to' | 'raw' | 'parsed'>;

/** A plain answer, as a mail program writes it: to Reply-To, with what it answers quoted below. */
export function answerMail(mail: Read, words: string): { to: string; raw: string } | null {
  const to = mail.parsed.replyTo?.value[0]?.address ?? mail.parsed.from?.value[0]?.address;
  if (!to) return null;
  const quoted = (mail.parsed.text ?? '')
    .split('\n')
    .slice(0, 12)
    .map((line) => `> ${line}`);
  const raw = [
    `From: <${mail.to}>`,
    `To: <${to}>`,
    `Subject: Re: ${(mail.parsed.subject ?? '').replace(/[\r\n]/g, ' ')}`,
    `Message-ID: <${randomUUID()}@mailroom.test>`,
    ...(mail.parsed.messageId ? [`In-Reply-To: ${mail.parsed.messageId}`] : []),
    'Content-Type: text/plain; charset=utf-8',
    '',
    ...words.split('\n'),
    '',
    ...quoted,
    '',
  ];
  return { to, raw: raw.join('\r\n') };
}

/** The mail that a mail program sends for the mailto way out of List-Unsubscribe (RFC 2369 §3.2). */
export function leavingMail(mail: Read): { to: string; raw: string } | null {
  const header =
    mail.parsed.headerLines.find((line) => line.key === 'list-unsubscribe')?.line.replace(/\r?\n\s+/g, ' ') ??
    '';
  const to = /<mailto:([^?>]+)/.exec(header)?.[1];
  if (!to) return null;
  const raw = [
    `From: <${mail.to}>`,
    `To: <${to}>`,
    'Subject: unsubscribe',
    `Message-ID: <${randomUUID()}@mailroom.test>`,
    'Content-Type: text/plain',
    '',
    '',
  ];
  return { to, raw: raw.join('\r\n') };
}

/**
 * A provider's report that its user called a mail spam (RFC 5965), to the domain that the mail's lists live
 * at.
 */
export function complaintMail(mail: Read): { to: string; raw: string } | null {
  const domain = mail.parsed.replyTo?.value[0]?.address?.split('@')[1];
  if (!domain) return null;
  const boundary = `=_gw_${randomUUID()}`;
  const raw = [
    'From: Feedback <feedback@mailroom.test>',
    `To: <complaints@${domain}>`,
    'Subject: Complaint about a message',
    'MIME-Version: 1.0',
    `Content-Type: multipart/report; report-type=feedback-report; boundary="${boundary}"`,
    '',
    `--${boundary}`,
    'Content-Type: text/plain; charset=utf-8',
    '',
    'A reader has called this message spam.',
    `--${boundary}`,
    'Content-Type: message/feedback-report',
    '',
    'Feedback-Type: abuse',
    'User-Agent: Mailroom/1.0',
    'Version: 1',
    `Original-Rcpt-To: ${mail.to}`,
    '',
    `--${boundary}`,
    'Content-Type: message/rfc822',
    '',
    mail.raw.toString('utf8'),
    `--${boundary}--`,
    '',
  ];
  return { to: `complaints@${domain}`, raw: raw.join('\r\n') };
}
