import { Inject, Injectable } from '@nestjs/common';
import type { Language } from '@goodword/core/forms';
import { escapeHtml } from '@goodword/core/letter';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { MAIL_OUT, type HandOver, type MailOut } from '../platform/mail-out';
import { phrase, PHRASES } from '../platform/pages/phrases';
import { type Phrases } from '../platform/pages/phrases-en';
import { programScope } from '../platform/scope';
import { TEXT_OUT, type TextOut } from '../platform/text-out';
import { Tokens } from '../platform/tokens';
import { houseMail } from '../team/house-mail';
import { imprint, type OrganizationRow } from '../team/team.repository';
import type { ConfirmationRow } from './confirmations.repository';
import { FormsRepository } from './forms.repository';

/** The request to confirm as a mail or a text, with a way to say "never again". */
@Injectable()
export class RequestMail {
  private readonly tokens: Tokens;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(TEXT_OUT) private readonly textOut: TextOut,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  async send(
    row: ConfirmationRow,
    organization: OrganizationRow,
  ): Promise<{ result: HandOver; words: string }> {
    const key = `confirm-${row.id}-${row.sent}`;
    if (row.channel !== 'email') {
      const body = textOf(row, organization.name);
      return {
        result: await this.textOut.send({ from: organization.text_from, to: row.normal, body, key }),
        words: body,
      };
    }
    const db = this.database.read(programScope(row.organization_id));
    const form = row.form_id ? await this.forms.definitionOf(db, row.form_id, row.version ?? 1) : undefined;
    const language: Language = form?.language ?? 'en';
    const p = PHRASES[language];
    const isAddress = row.kind === 'address';
    const title = isAddress
      ? p.addressTitle
      : (row.request?.subject ?? form?.confirm.subject ?? p.confirmTitle);
    const words = isAddress
      ? phrase(p.addressBody, { organization: organization.name, address: row.shown })
      : (row.request?.body ?? form?.confirm.words ?? '');
    const what = isAddress
      ? []
      : [...new Set([...row.asks.map((ask) => ask.words), ...pendingLines(row, p)])];
    const link = `${this.config.PUBLIC_URL}/confirm/${this.tokens.make('confirm', row.id)}`;
    const never = `${this.config.PUBLIC_URL}/never-ask/${this.tokens.make('never-ask', row.id)}`;
    const subject = row.sent === 0 ? title : `${title} (2)`;
    const result = await this.mailOut.send(
      houseMail(organization, this.tokens, {
        ...{ to: row.normal, key, subject, language, about: { contactPointId: row.contact_point_id } },
        text: [
          words,
          what.map((one) => `- ${one}`).join('\n'),
          link,
          `${p.neverAsk}: ${never}`,
          imprint(organization),
          '',
        ].join('\n\n'),
        html: htmlOf({ words, what, link, never, p, organization }),
        headers: { 'List-Unsubscribe': `<${never}>`, 'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click' },
      }),
    );
    return { result, words: [subject, words, ...what].join('\n') };
  }
}

function textOf(row: ConfirmationRow, name: string): string {
  if (row.kind === 'address')
    return `${name}: reply YES if we shall use this number for you. If not, do nothing.`;
  const channels = new Set(row.asks.map((ask) => ask.channel ?? row.channel));
  const what = channels.has('text')
    ? channels.has('call')
      ? 'the texts and calls'
      : 'the texts'
    : 'the calls';
  return `${name}: reply YES to get ${what} you asked for. Message and data rates may apply. HELP for help, STOP to leave.`;
}

/** What a confirmation would add to a record that is there: whoever presses sees it. */
function pendingLines({ pending }: ConfirmationRow, p: Phrases): string[] {
  const addresses = (pending?.addresses ?? []).map(
    ({ kind, shown }) => `${kind === 'email' ? p.email : p.mobile}: ${shown}`,
  );
  const name = [pending?.firstName, pending?.lastName].filter(Boolean).join(' ');
  return [...(name ? [name] : []), ...addresses];
}

function htmlOf(mail: {
  words: string;
  what: readonly string[];
  link: string;
  never: string;
  p: Phrases;
  organization: OrganizationRow;
}): string {
  const small = 'font-size:13px;color:#51626A';
  const button =
    'display:inline-block;padding:12px 18px;background:#17252B;color:#fff;border-radius:4px;text-decoration:none';
  const items = mail.what.map((one) => `<li>${escapeHtml(one)}</li>`).join('');
  return `<div style="font:16px/1.5 Arial,sans-serif;color:#17252B"><p>${escapeHtml(mail.words)}</p>
<ul>${items}</ul><p><a href="${mail.link}" style="${button}">${escapeHtml(mail.p.confirmButton)}</a></p>
<p style="${small}"><a href="${mail.never}">${escapeHtml(mail.p.neverAsk)}</a></p>
<p style="${small}">${escapeHtml(imprint(mail.organization))}</p></div>`;
}
