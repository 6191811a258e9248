import { Inject, Injectable } from '@nestjs/common';
import type { MergeValues } from '@goodword/core/merge';
import { rulesFor, type HouseRules, type Place } from '@goodword/core/permission';
import { type Basis } from '@goodword/core/words';
import type { Automation } from '../automations/automations.repository';
import type { CampaignFrame } from '../campaigns/steps.repository';
import { CONFIG, type Config } from '../platform/config';
import { MAIL_OUT, type HandOver, type MailOut, type OutgoingMail } from '../platform/mail-out';
import { TEXT_OUT, type OutgoingText, type TextOut } from '../platform/text-out';
import { ShortLinks } from '../platform/short-links';
import { Tokens } from '../platform/tokens';
import { countParts } from '@goodword/core/text';
import { filledLinks, filledMail, filledText, type Composed } from '../messages/composer';
import { listId } from '../messages/mail-headers';
import type { MessageRow } from '../messages/messages.repository';
import { returnPathOf, type MailOf } from '../team/house-mail';
import type { OrganizationRow, TeammateRow } from '../team/team.repository';

/** A message with all that stands around it, read once for all its deliveries. */
export interface MessageContext {
  message: MessageRow;
  composed: Composed;
  organization: OrganizationRow;
  sender: TeammateRow | undefined;
  listName: string | null;
  whyOf: (basis: Basis | null) => string;
  rules: HouseRules;
  /** Of a step, what its campaign says. */
  campaign: CampaignFrame | null;
  /** The automatic message that it is one of. */
  automation: Automation | null;
}

export interface Recipient {
  deliveryId: number;
  key: string;
  to: string;
  place: Place;
  /** What it rests on; null for nothing at all. */
  basis: Basis | null;
  values: MergeValues;
}

/** Puts a filled message into its envelope and gives it to the provider. */
@Injectable()
export class EnvelopeService {
  private readonly tokens: Tokens;
  private readonly shortLinks: ShortLinks;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(TEXT_OUT) private readonly textOut: TextOut,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
    this.shortLinks = new ShortLinks(config.SECRET, config.SECRET_BEFORE);
  }

  /** Whether a text that may have gone can be given to the gateway again. */
  get canRepeatTexts(): boolean {
    return this.textOut.knowsKeys;
  }

  /**
   * Fills and signs what one person gets. What comes back hands it over: it may be long before its turn, and
   * is let go where the door says no.
   */
  async ready(context: MessageContext, recipient: Recipient): Promise<() => Promise<HandOver>> {
    if (context.message.channel === 'email') {
      const written = await this.mailOut.write(this.mail(context, recipient));
      return () => this.mailOut.handOver(written);
    }
    const text = this.text(context, recipient);
    return () => this.textOut.send(text);
  }

  private text(context: MessageContext, recipient: Recipient): OutgoingText {
    const { composed } = context;
    const leave = `${this.config.PUBLIC_URL}/leave/${this.tokens.make('leave', recipient.deliveryId)}`;
    const values = { ...recipient.values, 'link.preferences': leave };
    const { text } = filledText(composed, values, this.shortened(context, recipient, values));
    return {
      from: context.organization.text_from,
      to: recipient.to,
      body: text,
      key: recipient.key,
      language: countParts(text, composed.shiftTables).language,
    };
  }

  /**
   * The links of a text: short ones of this delivery, so that who follows them is seen as in a mail; as they
   * are where a place's rules want nobody followed, or there is no room for one more.
   */
  private shortened(
    { composed, rules, organization }: MessageContext,
    { deliveryId, place }: Recipient,
    values: MergeValues,
  ): string[] {
    const { track } = rulesFor(rules, place);
    const base = organization.link_url || this.config.PUBLIC_URL;
    return filledLinks(composed, values).map((url, i) => {
      const own = track.links && /^https?:/i.test(url) ? this.shortLinks.make(deliveryId, i) : null;
      return own === null ? url : `${base}/${own}`;
    });
  }

  /**
   * The mail of one delivery: tracked links, one-click way out (RFC 8058), List-Id (RFC 2919), a return path
   * of its own.
   */
  mail(context: MessageContext, recipient: Recipient): OutgoingMail {
    const { message, organization, composed } = context;
    const base = this.config.PUBLIC_URL;
    const token = this.tokens.make('leave', recipient.deliveryId);
    const leave = `${base}/leave/${token}`;
    const { track } = rulesFor(context.rules, recipient.place);
    const values = { ...recipient.values, leave, 'link.preferences': leave };
    const links = filledLinks(composed, values).map((url, i) =>
      // Their own page to choose on is nobody's to count.
      track.links && /^https?:/.test(url) && url !== leave
        ? `${base}/f/${this.tokens.make('follow', recipient.deliveryId, i)}`
        : url,
    );
    const pixel = track.opens ? `${base}/o/${this.tokens.make('open', recipient.deliveryId)}.gif` : '';
    return {
      ...this.addressed(
        context,
        recipient.to,
        recipient.key,
        { ...values, pixel, why: context.whyOf(recipient.basis) },
        links,
      ),
      // What whoever is written to next sees: it opens nothing.
      replyTo: `answer-${this.tokens.make('answer', recipient.deliveryId)}@${organization.list_domain}`,
      returnPath: `b-${this.tokens.make('bounce', recipient.deliveryId)}@${organization.list_domain}`,
      headers: {
        'List-Id': listId(message, context.listName, organization),
        'List-Unsubscribe': `<${leave}>, <mailto:leave-${this.tokens.make('leave-by-mail', recipient.deliveryId)}@${organization.list_domain}?subject=unsubscribe>`,
        'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
        // RFC 3834 §5: no machine is to answer what a machine sent.
        ...(context.automation ? { 'Auto-Submitted': 'auto-generated' } : {}),
        // RFC 5322 3.6.4: so that it stands under what it answers.
        ...(message.in_reply_to
          ? { 'In-Reply-To': message.in_reply_to, References: message.in_reply_to }
          : {}),
        ...this.feedbackId(message),
      },
    };
  }

  /**
   * By what complaints are counted (common practice of large mailbox providers): message, purpose, sender.
   */
  private feedbackId({ id, purpose, organization_id }: MessageRow): Record<string, string> {
    const sender = this.config.FEEDBACK_SENDER;
    return sender ? { 'Feedback-ID': `m${id}:${purpose ?? 'list'}:o${organization_id}:${sender}` } : {};
  }

  private addressed(
    context: Omit<MessageContext, 'rules' | 'whyOf' | 'campaign' | 'automation'>,
    to: string,
    key: string,
    values: MergeValues,
    links: readonly string[],
  ): OutgoingMail {
    const { organization, sender } = context;
    const { subject, body } = filledMail(context.composed, values, links);
    const name = [sender?.name, organization.name].filter(Boolean).join(', ');
    return {
      from: { name, address: organization.from_email },
      to,
      messageId: `<${key}@${organization.list_domain}>`,
      returnPath: organization.from_email,
      headers: {},
      subject,
      body,
      language: context.message.locale ?? organization.locale,
    };
  }

  async sendTest(
    test: Omit<MessageContext, 'rules' | 'whyOf' | 'campaign' | 'automation'> & {
      to: string;
      about: MailOf;
      values: MergeValues;
    },
  ): Promise<HandOver> {
    const key = crypto.randomUUID();
    if (test.message.channel === 'text') {
      const { text } = filledText(test.composed, test.values, filledLinks(test.composed, test.values));
      return this.textOut.send({ from: test.organization.text_from, to: test.to, body: text, key });
    }
    const leave = `${this.config.PUBLIC_URL}/leave/example`;
    const links = filledLinks(test.composed, test.values);
    const mail = this.addressed(test, test.to, key, { ...test.values, leave }, links);
    // The headers of the real one, but for ways out that would close something.
    const headers = {
      'List-Id': listId(test.message, test.listName, test.organization),
      'List-Unsubscribe': `<${leave}>`,
      'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
    };
    return this.mailOut.send({
      ...{ ...mail, headers, subject: `Test: ${mail.subject}` },
      returnPath: returnPathOf(test.organization, this.tokens, test.about),
    });
  }
}
