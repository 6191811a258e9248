import type { CaughtMail } from './mail';

/**
 * A delivery status notification for a mailbox that does not exist (RFC 3461 to 3464), with the headers that
 * came.
 */
export function deliveryStatusMail(mail: Pick<CaughtMail, 'to' | 'returnPath' | 'raw'>): string {
  const boundary = `=_gw_${Math.random().toString(36).slice(2)}`;
  const headers = mail.raw.toString('utf8').split(/\r?\n\r?\n/)[0] ?? '';
  return [
    'From: Mail Delivery System <mailer-daemon@mailroom.test>',
    `To: <${mail.returnPath}>`,
    'Subject: Undelivered Mail Returned to Sender',
    'Auto-Submitted: auto-replied',
    'MIME-Version: 1.0',
    `Content-Type: multipart/report; report-type=delivery-status; boundary="${boundary}"`,
    '',
    `--${boundary}`,
    'Content-Type: text/plain; charset=utf-8',
    '',
    `Your message could not be delivered to ${mail.to}: there is no such mailbox.`,
    `--${boundary}`,
    'Content-Type: message/delivery-status',
    '',
    'Reporting-MTA: dns; mailroom.test',
    '',
    `Final-Recipient: rfc822; ${mail.to}`,
    'Action: failed',
    'Status: 5.1.1',
    'Diagnostic-Code: smtp; 550 5.1.1 No such mailbox here',
    `--${boundary}`,
    'Content-Type: text/rfc822-headers',
    '',
    headers,
    `--${boundary}--`,
    '',
  ].join('\r\n');
}
