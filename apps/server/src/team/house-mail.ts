import { escapeHtml } from '@goodword/core/letter';
import { mailBody } from '@goodword/core/mail';
import type { OutgoingMail } from '../platform/mail-out';
import type { Tokens } from '../platform/tokens';
import type { OrganizationRow } from './team.repository';

type Sender = Pick<OrganizationRow, 'name' | 'from_email' | 'list_domain'>;

/** Whose address a mail goes to that is no delivery. */
export type MailOf = { contactPointId: number } | { teammateId: number };

/** A mail that the program writes by itself: a confirmation, an invitation, a word to the team. */
interface HouseMail {
  to: string;
  /** Tells it from others, and names it again where it is sent twice. */
  key: string;
  subject: string;
  text: string;
  /** Escaped already; the text itself where there is none. */
  html?: string;
  /** BCP 47. */
  language?: string;
  /** Whose address it is: what comes back is known by it. */
  about: MailOf;
  headers?: Record<string, string>;
}

/** The return path of a mail to an address or a teammate; the organization's own where no mail comes back. */
export function returnPathOf(organization: Sender, tokens: Tokens, about: MailOf): string {
  if (organization.list_domain === '') return organization.from_email;
  const token =
    'contactPointId' in about
      ? tokens.make('bounce-point', about.contactPointId)
      : tokens.make('bounce-mate', about.teammateId);
  return `b-${token}@${organization.list_domain}`;
}

/** RFC 3834 §5: a program wrote it, so that no other answers. */
export function houseMail(organization: Sender, tokens: Tokens, mail: HouseMail): OutgoingMail {
  const { to, key, subject, text, about, language = 'en' } = mail;
  const html = mail.html ?? `<pre style="white-space:pre-wrap">${escapeHtml(text)}</pre>`;
  const page = `<!doctype html><html lang="${language}"><body>${html}</body></html>`;
  return {
    from: { name: organization.name, address: organization.from_email },
    to,
    returnPath: returnPathOf(organization, tokens, about),
    messageId: `<${key}@${organization.list_domain || organization.from_email.split('@')[1]}>`,
    subject,
    body: mailBody({ text, html: page }),
    language,
    headers: { 'Auto-Submitted': 'auto-generated', ...mail.headers },
  };
}
