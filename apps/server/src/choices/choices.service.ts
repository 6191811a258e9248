import { Inject, Injectable, Logger } from '@nestjs/common';
import { isoDay } from '@goodword/core/common';
import type { Language } from '@goodword/core/forms';
import { escapeHtml } from '@goodword/core/letter';
import {
  isPaused,
  mayWrite,
  rulesFor,
  type Channel,
  type PermissionState,
  type Purpose,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import { phrase, PHRASES } from '../platform/pages/phrases';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { LedgerRepository } from '../permission/ledger.repository';
import { standingAt } from '../permission/standings';
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
export const FRESH_DAYS = 30;
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

/** Reading for the preference page: whose link it is, what they get and why, a copy of all that is held, and fresh links. */
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

  async read(db: Scoped, held: Held, language: Language): Promise<ChoicesView> {
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
}

/** The address of each channel that counts first. */
function firstPoints(points: readonly PointRow[]): Map<Channel, PointRow> {
  const out = new Map<Channel, PointRow>();
  for (const point of points) for (const channel of CHANNELS_OF[point.kind]) if (!out.has(channel)) out.set(channel, point);
  return out;
}
