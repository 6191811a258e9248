import { Inject, Injectable, Logger } from '@nestjs/common';
import { isoDay } from '@goodword/core/common';
import type { Language } from '@goodword/core/forms';
import { escapeHtml } from '@goodword/core/letter';
import { cleanEmail, cleanMobile } from '@goodword/core/intake';
import {
  isPaused,
  mayWrite,
  rulesFor,
  type Channel,
  type PermissionState,
  type Purpose,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import { standardTextAsk } from '@goodword/core/text';
import { ConfirmationsRepository } from '../forms/confirmations.repository';
import { phrase, PHRASES, type Phrases } from '../platform/pages/phrases';
import { DoNotContactService } from '../permission/do-not-contact.service';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { LedgerRepository } from '../permission/ledger.repository';
import { standingAt } from '../permission/standings';
import { audit } from '../platform/audit';
import { CONFIG, type Config } from '../platform/config';
import { Database, type Scoped } from '../platform/database';
import { NotFound } from '../platform/errors';
import { MAIL_OUT, type MailOut } from '../platform/mail-out';
import { programScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { CHANNELS_OF, PersonLedger } from '../supporters/person-ledger.service';
import { SupportersRepository, type PersonRow, type PointRow } from '../supporters/supporters.repository';
import { SupportersService } from '../supporters/supporters.service';
import { TeamRepository, type OrganizationRow } from '../team/team.repository';
import { WaysOutRepository } from '../waysout/waysout.repository';
import { ChoicesRepository, type Holder } from './choices.repository';

/** Links older than this still close everything; what shows or changes personal data wants a fresh one. */
const FRESH_DAYS = 30;
const DAY_MS = 86_400_000;
const OFFERED: readonly Purpose[] = ['news', 'appeals', 'volunteering'];

/** One thing that can be on or off. */
export interface Choice {
  channel: Channel;
  scope: PermissionScope;
  name: string;
  why: string;
  state: PermissionState;
  /** Whether messages of this kind reach the person as things stand. */
  on: boolean;
}

export interface ChoicesView {
  organization: OrganizationRow;
  person: PersonRow;
  language: Language;
  fresh: boolean;
  email: string | null;
  mobile: string | null;
  choices: Choice[];
  /** Channels closed by a STOP: only a text from the phone opens them again. */
  stopped: Channel[];
  pausedUntil: number | null;
  erasureAsked: boolean;
}

/** Who holds a link, and how fresh it is. */
export interface Held extends Holder {
  fresh: boolean;
}

/** The page where supporters see what they get, choose, pause, correct, take a copy, and ask to be erased. */
@Injectable()
export class ChoicesService {
  private readonly tokens: Tokens;
  private readonly log = new Logger('choices');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(ChoicesRepository) private readonly choices: ChoicesRepository,
    @Inject(WaysOutRepository) private readonly waysOut: WaysOutRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(SupportersService) private readonly records: SupportersService,
    @Inject(PersonLedger) private readonly personLedger: PersonLedger,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(ConfirmationsRepository) private readonly confirmations: ConfirmationsRepository,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {
    this.tokens = new Tokens(config.SECRET);
  }

  /** A link of one's own: what a message carries, or one that was asked for. Throws NotFound for any other. */
  async hold(token: string): Promise<Held> {
    const own = this.tokens.read('choices', token);
    if (own) return this.held(own.id, Math.floor(Date.now() / DAY_MS) - own.extra <= FRESH_DAYS);
    const read = this.tokens.read('leave', token);
    const delivery = read ? await this.waysOut.delivery(this.database, read.id) : null;
    if (!delivery) return this.refuse('a preference link that is none of ours');
    const sentAt = await this.choices.sentAt(this.database.read(programScope(delivery.organizationId)), delivery.id);
    return this.held(delivery.supporterId, sentAt !== null && Date.now() - sentAt.getTime() <= FRESH_DAYS * DAY_MS);
  }

  private async held(supporterId: number, fresh: boolean): Promise<Held> {
    const holder = await this.choices.holder(this.database, supporterId);
    return holder ? { ...holder, fresh } : this.refuse('a preference link of somebody erased');
  }

  private refuse(why: string): never {
    this.log.warn(why);
    throw new NotFound('page behind this link');
  }

  linkFor(supporterId: number): string {
    return `${this.config.PUBLIC_URL}/choices/${this.tokens.make('choices', supporterId, Math.floor(Date.now() / DAY_MS))}`;
  }

  async view(held: Held, language: Language): Promise<ChoicesView> {
    const db = this.database.read(programScope(held.organizationId));
    return this.read(db, held, language);
  }

  private async read(db: Scoped, held: Held, language: Language): Promise<ChoicesView> {
    const person = await this.supporters.find(db, held.supporterId);
    if (!person) throw new NotFound('page behind this link');
    const [points, states, all, lists, organization, erasureAsked] = await Promise.all([
      this.supporters.points(db, [held.supporterId]),
      this.ledger.statesOf(db, [held.supporterId]),
      this.houseRules.rules(db),
      this.choices.lists(db),
      this.team.organization(db.scope),
      this.choices.erasureAsked(db, held.supporterId),
    ]);
    const rules = rulesFor(all, person);
    const p = PHRASES[language];
    const now = Date.now();
    const first = firstPoints(points);
    const stand = (channel: Channel, scope: PermissionScope) =>
      standingAt(states, { contactPointId: first.get(channel)!.id, channel, scope }, now, rules);
    const stopped = first.has('text') && stand('text', 'all').state === 'no' ? (['text'] as Channel[]) : [];
    const choices: Choice[] = [];
    for (const channel of first.keys()) {
      const offer = (scope: PermissionScope, name: string, why: string, purpose: Purpose | 'lists') => {
        const { state } = stand(channel, scope);
        choices.push({ channel, scope, name, why, state, on: mayWrite(rules, channel, purpose, state) });
      };
      if (stopped.includes(channel)) continue;
      for (const list of lists) offer(`list:${list.id}`, list.name, list.why || list.description, 'lists');
      for (const purpose of OFFERED) offer(purpose, p[purpose as 'news'], '', purpose);
    }
    const pauses = [...first.keys()].map((channel) => stand(channel, 'all').marks).filter((marks) => isPaused(marks, now));
    return {
      organization,
      person,
      language,
      fresh: held.fresh,
      email: first.get('email')?.shown ?? null,
      mobile: first.get('text')?.shown ?? null,
      choices,
      stopped,
      pausedUntil: pauses.length > 0 ? Math.max(...pauses.map((marks) => marks.pause!.until!)) : null,
      erasureAsked,
    };
  }

  /** What was ticked of what was shown: only differences are recorded, each with the words that stood beside its box. */
  async choose(held: Held, shown: ReadonlySet<string>, ticked: ReadonlySet<string>, language: Language, origin: string): Promise<void> {
    await this.write(held, async (tx) => {
      const view = await this.read(tx, held, language);
      const points = await this.supporters.points(tx, [held.supporterId]);
      for (const choice of view.choices) {
        const key = `${choice.channel}.${choice.scope}`;
        if (!shown.has(key) || ticked.has(key) === choice.on) continue;
        const on = ticked.has(key);
        const words = on && choice.channel === 'text' ? `${choice.name}. ${standardTextAsk(view.organization.name, 2)}` : choice.name;
        // A no closes every address of the channel; a yes is said at the first.
        const at = points.filter((point) => CHANNELS_OF[point.kind].includes(choice.channel));
        for (const point of on ? at.slice(0, 1) : at)
          await this.record(tx, held, point, choice.channel, choice.scope, on ? 'yes' : 'no', words, origin);
        if (on && choice.scope.startsWith('list:')) await this.putOnList(tx, held, Number(choice.scope.slice(5)));
      }
    });
  }

  async nothing(held: Held, origin: string, words: string): Promise<void> {
    await this.everyChannel(held, (tx, point, channel) => this.record(tx, held, point, channel, 'all', 'no', words, origin));
  }

  /** A pause of so many days on everything, or its end (0). */
  async pause(held: Held, days: number, origin: string, words: string): Promise<void> {
    const until = new Date(days === 0 ? Date.now() : Math.floor(Date.now() / DAY_MS + days) * DAY_MS + DAY_MS - 1);
    await this.everyChannel(held, (tx, point, channel) => this.record(tx, held, point, channel, 'all', 'pause', words, origin, until));
  }

  private async everyChannel(held: Held, act: (tx: Scoped, point: PointRow, channel: Channel) => Promise<void>): Promise<void> {
    await this.write(held, async (tx) => {
      for (const point of await this.supporters.points(tx, [held.supporterId]))
        for (const channel of CHANNELS_OF[point.kind]) await act(tx, point, channel);
    });
  }

  private async record(
    tx: Scoped,
    held: Held,
    point: PointRow,
    channel: Channel,
    scope: PermissionScope,
    state: 'yes' | 'no' | 'pause',
    words: string,
    origin: string,
    until?: Date,
  ): Promise<void> {
    await this.ledger.record(tx, {
      contactPointId: point.id,
      supporterId: held.supporterId,
      channel,
      scope,
      state,
      saidAt: new Date(),
      untilAt: until ?? null,
      byPerson: true,
      how: 'preferences',
      words,
      source: 'On their preference page',
      origin,
    });
  }

  private async putOnList(tx: Scoped, held: Held, listId: number): Promise<void> {
    await tx.execute('INSERT IGNORE INTO supporter_list (organization_id, supporter_id, list_id) VALUES (:org, :supporterId, :listId)', {
      supporterId: held.supporterId,
      listId,
    });
  }

  /** Corrects name and addresses. A new address is asked to confirm, and takes the place of the old one when it has. */
  async correct(
    held: Held,
    yours: { firstName: string; lastName: string; email: string; mobile: string },
    language: Language,
  ): Promise<{ fault: { input: string; phrase: keyof Phrases; value: string } | null }> {
    const p = PHRASES[language];
    const organization = await this.team.organization(programScope(held.organizationId));
    const email = yours.email.trim() === '' ? null : cleanEmail(yours.email);
    const mobile = yours.mobile.trim() === '' ? null : cleanMobile(yours.mobile, organization.country);
    if (email && !email.ok) return { fault: { input: 'email', phrase: 'badEmail', value: yours.email.slice(0, 60) } };
    if (mobile && !mobile.ok) return { fault: { input: 'mobile', phrase: 'badMobile', value: yours.mobile.slice(0, 60) } };
    await this.write(held, async (tx) => {
      const person = (await this.supporters.find(tx, held.supporterId))!;
      const [first, last] = [yours.firstName.trim().slice(0, 100), yours.lastName.trim().slice(0, 100)];
      if (first !== person.first_name || last !== person.last_name) {
        await this.supporters.rename(tx, held.supporterId, first, last);
        const [before, after] = [`${person.first_name} ${person.last_name}`.trim(), `${first} ${last}`.trim()];
        await audit(tx, {
          act: 'rename',
          subject: 'supporter',
          subjectId: held.supporterId,
          words: `They changed their name to ${after || 'none'} themselves`,
          before,
          after,
        });
      }
      const view = await this.read(tx, held, language);
      const points = await this.supporters.points(tx, [held.supporterId]);
      for (const [kind, cleaned] of [
        ['email', email],
        ['mobile', mobile],
      ] as const) {
        if (!cleaned?.ok || points.some((point) => point.kind === kind && point.normal === cleaned.normal)) continue;
        const closed = await this.doNotContact.isClosed(tx, kind, cleaned.normal);
        const contactPointId = await this.choices.point(tx, kind, cleaned, closed);
        const channel = kind === 'email' ? ('email' as const) : ('text' as const);
        // What they agreed to at the old address goes with them, said anew at the new one.
        const asks = view.choices
          .filter((choice) => choice.channel === channel && choice.state === 'yes')
          .map((choice) => ({
            scope: choice.scope,
            words: `${choice.name}: ${phrase(p.addressBody, { organization: organization.name, address: cleaned.shown })}`,
          }));
        await this.confirmations.add(tx, {
          kind: 'address',
          formId: null,
          version: null,
          supporterId: held.supporterId,
          contactPointId,
          channel,
          asks,
          expiresAt: new Date(Date.now() + FRESH_DAYS * DAY_MS),
          saidNo: false,
        });
      }
    });
    return { fault: null };
  }

  /** Everything held about the person, as they may ask for it (GDPR art. 15, art. 20). */
  async copy(held: Held): Promise<object> {
    const scope = programScope(held.organizationId);
    const db = this.database.read(scope);
    const [record, report, messages, replies] = await Promise.all([
      this.records.record(scope, held.supporterId),
      this.personLedger.report(scope, held.supporterId),
      this.choices.messages(db, held.supporterId),
      this.choices.replies(db, held.supporterId),
    ]);
    return {
      name: { first: record.firstName, last: record.lastName },
      place: record.place,
      addresses: record.contactPoints.map(({ kind, shown, onHold }) => ({ kind, address: shown, onHold })),
      fields: record.fields.filter((field) => field.value !== null).map(({ name, shown }) => ({ name, value: shown })),
      tags: record.tags.map((tag) => tag.name),
      lists: record.lists.map((list) => list.name),
      gifts: record.gifts.map(({ amount, on, note }) => ({ amountInMinorUnits: amount, on, note })),
      permission: { standings: report.standings, entries: report.entries },
      messages: messages.map(({ sent_at, opened, followed, ...message }) => ({
        ...message,
        sentAt: sent_at,
        opened: opened === 1,
        followed: followed === 1,
      })),
      replies,
      madeAt: isoDay(Math.floor(Date.now() / DAY_MS)),
    };
  }

  async askErasure(held: Held): Promise<void> {
    await this.write(held, async (tx) => {
      if (!(await this.choices.erasureAsked(tx, held.supporterId))) await this.choices.askErasure(tx, held.supporterId);
    });
  }

  /** Sends a fresh link to the address on file: whoever holds an old one gets nothing but this. */
  async freshLink(held: Held, language: Language): Promise<void> {
    const scope = programScope(held.organizationId);
    const [organization, points] = await Promise.all([
      this.team.organization(scope),
      this.supporters.points(this.database.read(scope), [held.supporterId]),
    ]);
    const point = points.find((one) => one.kind === 'email' && one.on_hold === 0);
    if (!point) return;
    const p = PHRASES[language];
    const link = this.linkFor(held.supporterId);
    const title = phrase(p.choicesTitle, { organization: organization.name });
    const result = await this.mailOut.send({
      from: `"${organization.name.replace(/["\\\r\n]/g, '')}" <${organization.from_email}>`,
      to: point.normal,
      returnPath: organization.from_email,
      messageId: `<fresh-${crypto.randomUUID()}@${organization.list_domain}>`,
      subject: title,
      text: `${title}\n\n${link}\n\n${organization.name}, ${organization.postal_address}\n`,
      html: `<!doctype html><html lang="${language}"><body><p><a href="${link}">${escapeHtml(title)}</a></p><p>${escapeHtml(organization.name)}, ${escapeHtml(organization.postal_address)}</p></body></html>`,
      headers: { 'Auto-Submitted': 'auto-generated' },
    });
    if (result.kind !== 'accepted') this.log.warn({ result: result.kind }, 'a fresh link could not be handed over');
  }

  private async write(held: Held, work: (tx: Scoped) => Promise<void>): Promise<void> {
    await this.database.write(programScope(held.organizationId), work);
  }
}

/** The address of each channel that counts first. */
function firstPoints(points: readonly PointRow[]): Map<Channel, PointRow> {
  const out = new Map<Channel, PointRow>();
  for (const point of points) for (const channel of CHANNELS_OF[point.kind]) if (!out.has(channel)) out.set(channel, point);
  return out;
}
