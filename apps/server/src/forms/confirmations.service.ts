import { Inject, Injectable, Logger } from '@nestjs/common';
import type { Language } from '@goodword/core/forms';
import { escapeHtml } from '@goodword/core/letter';
import { mayAskToConfirm, rulesFor } from '@goodword/core/permission';
import { nextDecentMoment, zonesOf } from '@goodword/core/schedule';
import { phrase, PHRASES } from '../platform/pages/phrases';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { LedgerRepository } from '../permission/ledger.repository';
import { audit } from '../platform/audit';
import { CONFIG, type Config } from '../platform/config';
import { Database, type Scoped } from '../platform/database';
import { MAIL_OUT, type HandOver, type MailOut } from '../platform/mail-out';
import { programScope } from '../platform/scope';
import { TEXT_OUT, type TextOut } from '../platform/text-out';
import { Tokens } from '../platform/tokens';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository, type OrganizationRow } from '../team/team.repository';
import { ConfirmationsRepository, type ConfirmationRow } from './confirmations.repository';
import { FormsRepository } from './forms.repository';

const DAY_MS = 86_400_000;
const REMIND_AFTER_DAYS = 3;

export type Confirmed = { kind: 'done' | 'again'; row: ConfirmationRow } | { kind: 'expired'; row: ConfirmationRow } | { kind: 'unknown' };

/** Requests to confirm: sent once with one reminder, and what comes of them. */
@Injectable()
export class ConfirmationsService {
  private readonly tokens: Tokens;
  private readonly log = new Logger('confirmations');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(TEXT_OUT) private readonly textOut: TextOut,
    @Inject(ConfirmationsRepository) private readonly confirmations: ConfirmationsRepository,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {
    this.tokens = new Tokens(config.SECRET);
  }

  /** Sends the next confirmation that is due; false when there is none. */
  async sendOne(): Promise<boolean> {
    const claimed = await this.confirmations.claim(this.database);
    if (!claimed) {
      await this.confirmations.sweep(this.database);
      return false;
    }
    const scope = programScope(claimed.organizationId);
    const db = this.database.read(scope);
    const row = await this.confirmations.find(db, claimed.id);
    if (!row) return true;
    const place = await db.sql<{ country: string | null; region: string | null }>(
      'SELECT country, region FROM supporter WHERE organization_id = :org AND id = :id AND erased_at IS NULL',
      { id: row.supporter_id },
    );
    const address = { onHold: row.on_hold === 1, doNotContact: row.do_not_contact === 1 };
    // A STOP that came after the question was asked: what stood at that moment is kept with the question itself.
    const saidNo = row.channel === 'text' && (await this.stopped(db, row.contact_point_id));
    if (
      place.length === 0 ||
      row.expires_at.getTime() < Date.now() ||
      !mayAskToConfirm({ channel: row.channel, address, saidNo, sentBefore: claimed.sentBefore })
    ) {
      await this.settle(row, { state: 'dropped', detail: 'The address may not be written to any more' });
      return true;
    }
    const organization = await this.team.organization(scope);
    const result = await this.handOver(row, organization, claimed.sentBefore);
    await this.after(row, result, claimed.sentBefore, place[0]!, organization);
    return true;
  }

  private async after(
    row: ConfirmationRow,
    result: HandOver,
    sentBefore: number,
    place: { country: string | null; region: string | null },
    organization: OrganizationRow,
  ): Promise<void> {
    if (result.kind === 'unreachable' || (result.kind === 'refused' && !result.permanent))
      return this.settle(row, {
        state: sentBefore === 0 ? 'waiting' : 'sent',
        sent: sentBefore,
        due_at: new Date(Date.now() + 30_000),
        detail: result.detail.slice(0, 300),
      });
    if (result.kind === 'refused') return this.settle(row, { state: 'dropped', detail: result.detail.slice(0, 300) });
    let due: Date | null = null;
    if (sentBefore === 0) {
      const at = Date.now() + REMIND_AFTER_DAYS * DAY_MS;
      const hours = rulesFor(await this.houseRules.rules(this.database.read(programScope(row.organization_id))), place).hours.text;
      due = new Date(row.channel === 'text' ? nextDecentMoment(hours, zonesOf(place, organization.time_zone), at) : at);
    }
    await this.settle(row, { state: 'sent', due_at: due, detail: null });
  }

  private async settle(row: ConfirmationRow, values: Parameters<ConfirmationsRepository['change']>[2]): Promise<void> {
    await this.database.quietly(programScope(row.organization_id), async (tx) => {
      const now = await this.confirmations.find(tx, row.id, true);
      // Confirmed while the answer of the gateway was on its way: that stands.
      if (now?.state === 'handing') await this.confirmations.change(tx, row.id, values);
    });
  }

  private async stopped(db: Scoped, contactPointId: number): Promise<boolean> {
    const rows = await db.sql(
      `SELECT 1 FROM permission_state n WHERE n.organization_id = :org AND n.contact_point_id = :contactPointId AND n.supporter_id = 0 AND n.channel = 'text' AND n.scope IN ('all', 'marketing') AND n.no_at IS NOT NULL
        AND NOT EXISTS (SELECT 1 FROM permission_state y WHERE y.organization_id = :org AND y.contact_point_id = n.contact_point_id AND y.channel = 'text' AND y.own_yes_at > n.no_at)`,
      { contactPointId },
    );
    return rows.length > 0;
  }

  private async handOver(row: ConfirmationRow, organization: OrganizationRow, sentBefore: number): Promise<HandOver> {
    const key = `confirm-${row.id}-${sentBefore}`;
    if (row.channel === 'text') {
      const body =
        row.kind === 'address'
          ? `${organization.name}: reply YES if we shall use this number for you. If not, do nothing.`
          : `${organization.name}: reply YES to get the texts you asked for. Message and data rates may apply. HELP for help, STOP to leave.`;
      return this.textOut.send({ from: organization.text_from, to: row.normal, body, key });
    }
    const db = this.database.read(programScope(row.organization_id));
    const form = row.form_id ? await this.forms.definitionOf(db, row.form_id, row.version ?? 1) : undefined;
    const language: Language = form?.language ?? 'en';
    const p = PHRASES[language];
    const link = `${this.config.PUBLIC_URL}/confirm/${this.tokens.make('confirm', row.id)}`;
    const subject = row.kind === 'address' ? p.addressTitle : (row.request?.subject ?? form?.confirm.subject ?? p.confirmTitle);
    const words =
      row.kind === 'address'
        ? phrase(p.addressBody, { organization: organization.name, address: row.shown })
        : (row.request?.body ?? form?.confirm.words ?? '');
    const what = [...new Set(row.asks.map((ask) => ask.words))];
    return this.mailOut.send({
      from: `"${organization.name.replace(/["\\\r\n]/g, '')}" <${organization.from_email}>`,
      to: row.normal,
      returnPath: organization.from_email,
      messageId: `<${key}@${organization.list_domain}>`,
      subject: sentBefore === 0 ? subject : `${subject} (2)`,
      text: `${words}\n\n${what.map((one) => `- ${one}`).join('\n')}\n\n${link}\n\n${organization.name}, ${organization.postal_address}\n`,
      html: `<!doctype html><html lang="${language}"><body style="font:16px/1.5 Arial,sans-serif;color:#17252B"><p>${escapeHtml(words)}</p><ul>${what.map((one) => `<li>${escapeHtml(one)}</li>`).join('')}</ul><p><a href="${link}" style="display:inline-block;padding:12px 18px;background:#17252B;color:#fff;border-radius:4px;text-decoration:none">${escapeHtml(p.confirmButton)}</a></p><p style="font-size:13px;color:#51626A">${escapeHtml(organization.name)}, ${escapeHtml(organization.postal_address)}</p></body></html>`,
      headers: { 'Auto-Submitted': 'auto-generated' },
    });
  }

  /** What a token stands for, without acting. */
  async look(token: string): Promise<Confirmed> {
    const read = this.tokens.read('confirm', token);
    const row = read ? await this.confirmations.byToken(this.database, read.id) : undefined;
    if (!row || row.asks === null) {
      this.log.warn({ known: Boolean(read) }, 'a confirmation link that is none of ours, or of something gone');
      return { kind: 'unknown' };
    }
    if (row.state === 'confirmed') return { kind: 'again', row };
    // Erased meanwhile, or superseded: there is nothing left to confirm.
    if (row.kind === 'join' && row.asks.length === 0) return { kind: 'unknown' };
    return { kind: row.expires_at.getTime() < Date.now() ? 'expired' : 'done', row };
  }

  /** The press of the button: a yes for each thing asked, from the address itself. Twice is once. */
  async confirm(token: string, origin: string): Promise<Confirmed> {
    const found = await this.look(token);
    if (found.kind !== 'done') return found;
    return this.database.write(programScope(found.row.organization_id), async (tx) => {
      const row = await this.confirmations.find(tx, found.row.id, true);
      if (!row) return { kind: 'unknown' };
      if (row.state === 'confirmed') return { kind: 'again', row };
      await this.fulfil(tx, row, { origin, by: 'Confirmed by the button in our mail' });
      return { kind: 'done', row };
    });
  }

  /** An answer YES from the phone itself. Returns what was confirmed. */
  async confirmByText(tx: Scoped, contactPointId: number): Promise<ConfirmationRow[]> {
    const open = await this.confirmations.openAt(tx, contactPointId);
    for (const row of open) await this.fulfil(tx, row, { origin: null, by: 'Confirmed by answering YES' });
    return open;
  }

  private async fulfil(tx: Scoped, row: ConfirmationRow, how: { origin: string | null; by: string }): Promise<void> {
    const form = row.form_id ? await this.forms.find(tx, row.form_id) : undefined;
    const source = form ? `Form “${form.name}”, version ${row.version ?? 1}. ${how.by}` : how.by;
    if (row.kind === 'address') await this.attach(tx, row);
    for (const ask of row.asks)
      await this.ledger.record(tx, {
        contactPointId: row.contact_point_id,
        supporterId: row.supporter_id,
        channel: row.channel,
        scope: ask.scope,
        state: 'yes',
        saidAt: new Date(),
        byPerson: true,
        how: row.kind === 'address' ? 'preferences' : 'form',
        words: ask.words,
        source,
        origin: how.origin,
      });
    await this.confirmations.change(tx, row.id, { state: 'confirmed', confirmed_at: new Date(), due_at: null });
    if (row.form_id) await this.forms.count(tx, row.form_id, 'confirmed');
  }

  /** The new address comes first from now on, in the place of the one it replaces. */
  private async attach(tx: Scoped, row: ConfirmationRow): Promise<void> {
    const kind = row.channel === 'email' ? 'email' : 'mobile';
    const before = (await this.supporters.points(tx, [row.supporter_id])).find((point) => point.kind === kind);
    await this.supporters.addPoint(tx, row.supporter_id, { kind, normal: row.normal, shown: row.shown, doNotContact: row.do_not_contact === 1 });
    if (before && before.id !== row.contact_point_id) await this.supporters.replacePoint(tx, row.supporter_id, before.id, row.contact_point_id);
    await audit(tx, {
      act: 'contact',
      subject: 'supporter',
      subjectId: row.supporter_id,
      words: `They changed their ${kind} to ${row.shown} themselves`,
      before: before?.shown ?? null,
      after: row.shown,
    });
  }
}
