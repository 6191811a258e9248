import { Inject, Injectable, Logger } from '@nestjs/common';
import { isoDay } from '@goodword/core/common';
import { LANGUAGES, type Language } from '@goodword/core/forms';
import { escapeHtml } from '@goodword/core/letter';
import {
  ADDRESS_KIND,
  CHANNELS,
  isOpen,
  isPaused,
  mayWrite,
  consentStatus,
  isOptedOut,
  type Channel,
  type PermissionState,
  type PlaceRules,
  type Purpose,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import { verdictWords } from '@goodword/core/words';
import { phrase, PHRASES } from '../platform/pages/phrases';
import { EvidenceFileService } from '../evidence/evidence-file.service';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository, PersonCellsRepository } from '../permission/ledger/facts.repository';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, NotFound, Unavailable } from '../platform/errors';
import { MAIL_OUT, type MailOut } from '../platform/mail-out';
import { programScope, type AccessScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { SupportersRepository, type PersonRow } from '../supporters/supporters.repository';
import { type PointRow } from '../supporters/contact-points.repository';
import { SupportersService } from '../supporters/supporters.service';
import { houseMail } from '../team/house-mail';
import { imprint, TeamRepository, type OrganizationRow } from '../team/team.repository';
import { UnsubscribeRepository } from '../unsubscribe/unsubscribe.repository';
import { PreferencesRepository, type LinkHolder } from './preferences.repository';
import { sentence } from '../platform/words';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

/** Links older than this still close everything; what opens anything wants a newer one. */
export const FRESH_DAYS = 30;
const DAY_MS = 86_400_000;
const OFFERED: readonly Purpose[] = ['news', 'appeals', 'volunteering'];

/** One thing that can be on or off. */
export interface PreferenceLine {
  channel: Channel;
  scope: PermissionScope;
  name: string;
  why: string;
  state: PermissionState;
  /** Whether messages of this kind reach the person as things stand. */
  on: boolean;
}

export interface PreferencesView {
  organization: OrganizationRow;
  person: PersonRow;
  language: Language;
  fresh: boolean;
  inTime: boolean;
  email: string | null;
  mobile: string | null;
  choices: PreferenceLine[];
  /** The address that each channel's choices are about. */
  points: Partial<Record<Channel, number>>;
  rules: PlaceRules;
  /** Channels closed by a STOP: only a text from the phone opens them again. */
  stopped: Channel[];
  pausedUntil: number | null;
  erasureAsked: boolean;
}

/** Who holds a link, the address that it came to, and what it opens. */
export interface OpenedLink extends LinkHolder {
  contactPointId: number | null;
  /** Asked for and sent to the address lately: opens what is opened about the person. */
  fresh: boolean;
  /** Not older than its time: choices can be made by it. Ways out work for ever. */
  inTime: boolean;
}

/**
 * Reading for the preference page: whose link it is, what they get and why, a copy of all that is opened, and
 * fresh links.
 */
@Injectable()
export class PreferencesService {
  private readonly tokens: Tokens;
  private readonly log = new Logger('choices');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(PreferencesRepository) private readonly preferences: PreferencesRepository,
    @Inject(UnsubscribeRepository) private readonly unsubscribe: UnsubscribeRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(SupportersService) private readonly records: SupportersService,
    @Inject(EvidenceFileService) private readonly files: EvidenceFileService,
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /**
   * A link of one's own: what a message carries, or one that was asked for. Throws NotFound for any other.
   */
  async openLink(token: string): Promise<OpenedLink> {
    const own = this.tokens.read('choices', token);
    if (own) {
      const fresh = today() - own.extra <= FRESH_DAYS;
      return this.openedLink(own.id, { contactPointId: own.more || null, fresh, inTime: fresh });
    }
    const read = this.tokens.read('leave', token);
    const delivery = read ? await this.unsubscribe.delivery(this.database, read.id) : null;
    if (!delivery) return this.refuse('a preference link that is none of ours');
    const db = this.database.read(programScope(delivery.organizationId));
    const sentAt = await this.preferences.sentAt(db, delivery.id);
    return this.openedLink(delivery.supporterId, {
      contactPointId: await this.unsubscribe.currentPoint(db, delivery.supporterId, delivery.contactPointId),
      // The link of a message goes wherever the message is passed on to: it is no key to the person.
      fresh: false,
      inTime: sentAt !== null && Date.now() - sentAt.getTime() <= FRESH_DAYS * DAY_MS,
    });
  }

  private async openedLink(
    supporterId: number,
    link: Omit<OpenedLink, keyof LinkHolder>,
  ): Promise<OpenedLink> {
    const holder = await this.preferences.holder(this.database, supporterId);
    return holder ? { ...holder, ...link } : this.refuse('a preference link of somebody erased');
  }

  private refuse(why: string): never {
    this.log.warn(why);
    throw new NotFound('page behind this link');
  }

  /** A link of their own, for the address that it is sent to. */
  private linkFor(supporterId: number, contactPointId: number): string {
    return `${this.config.PUBLIC_URL}/choices/${this.tokens.make('choices', supporterId, today(), contactPointId)}`;
  }

  async view(opened: OpenedLink, language: Language): Promise<PreferencesView> {
    const db = this.database.read(programScope(opened.organizationId));
    return this.read(db, opened, language);
  }

  async read(db: Scoped, opened: OpenedLink, language: Language): Promise<PreferencesView> {
    const person = await this.supporters.find(db, opened.supporterId);
    if (!person) throw new NotFound('page behind this link');
    const all = await this.houseRules.rules(db);
    const [points, cells, lists, organization, erasureAsked] = await Promise.all([
      this.contacts.points(db, [opened.supporterId]),
      this.cells.one(db, opened.supporterId, all),
      this.preferences.lists(db),
      this.team.organization(db),
      this.preferences.erasureAsked(db, opened.supporterId),
    ]);
    const p = PHRASES[language];
    const now = Date.now();
    const first = firstPoints(points, opened.contactPointId);
    const marksOf = (channel: Channel, scope: PermissionScope) =>
      cells.marksAt({ contactPointId: first.get(channel)!.id, channel, scope });
    const stopped = first.has('text') && isOptedOut(marksOf('text', 'all')) ? (['text'] as Channel[]) : [];
    const choices: PreferenceLine[] = [];
    for (const channel of first.keys()) {
      const offer = (scope: PermissionScope, name: string, why: string, purpose: Purpose | 'lists') => {
        const { state } = consentStatus(marksOf(channel, scope), now, cells.rules);
        choices.push({
          channel,
          scope,
          name,
          why,
          state,
          on: mayWrite(cells.rules.now, channel, purpose, state),
        });
      };
      if (stopped.includes(channel)) continue;
      for (const list of lists) offer(`list:${list.id}`, list.name, list.why || list.description, 'lists');
      for (const purpose of OFFERED) offer(purpose, p[purpose as 'news'], '', purpose);
    }
    const pauses = [...first.keys()]
      .map((channel) => marksOf(channel, 'all'))
      .filter((marks) => isPaused(marks, now));
    return {
      organization,
      person,
      language,
      fresh: opened.fresh,
      inTime: opened.inTime,
      email: first.get('email')?.shown ?? null,
      mobile: first.get('text')?.shown ?? null,
      choices,
      points: Object.fromEntries([...first].map(([channel, point]) => [channel, point.id])),
      rules: cells.rules.now,
      stopped,
      pausedUntil: pauses.length > 0 ? Math.max(...pauses.map((marks) => marks.pause!.until!)) : null,
      erasureAsked,
    };
  }

  /** Everything opened about the person, as they may ask for it (GDPR art. 15, art. 20). */
  async copy(opened: OpenedLink): Promise<object> {
    const scope = programScope(opened.organizationId);
    const db = this.database.read(scope);
    const [record, report, messages] = await Promise.all([
      this.records.record(scope, opened.supporterId),
      this.files.of(scope, opened.supporterId),
      this.preferences.messages(db, opened.supporterId),
    ]);
    const {
      organization: _organization,
      madeAt: _madeAt,
      supporter: _supporter,
      replies,
      sent: _sent,
      ...permission
    } = report;
    return {
      name: { first: record.firstName, last: record.lastName },
      place: record.place,
      addresses: record.contactPoints.map(({ kind, shown, onHold }) => ({ kind, address: shown, onHold })),
      fields: record.fields
        .filter((field) => field.value !== null)
        .map(({ name, shown }) => ({ name, value: shown })),
      tags: record.tags.map((tag) => tag.name),
      lists: record.lists.map((list) => list.name),
      gifts: record.gifts.map(({ amount, on, note }) => ({ amountInMinorUnits: amount, on, note })),
      permission,
      messages: messages.map(({ sent_at, opened, clicked, ...message }) => ({
        ...message,
        sentAt: sent_at,
        opened: opened === 1,
        clicked: clicked === 1,
      })),
      replies,
      madeAt: isoDay(Math.floor(Date.now() / DAY_MS)),
    };
  }

  /**
   * Sends the person a link of their own, as they have asked for. Where they want no word at all by email,
   * none goes.
   */
  async sendLink(scope: AccessScope, supporterId: number): Promise<string> {
    const db = this.database.read(scope);
    const person = await this.supporters.need(db, supporterId);
    const rules = await this.houseRules.rules(db);
    const asking = { channel: 'email', scope: 'service', rules, now: new Date(), ownAct: true } as const;
    const { verdict, contactPointId } = (await this.facts.decide(db, [supporterId], asking)).get(
      supporterId,
    )!;
    if (verdict !== 'send')
      throw new Conflict(sentence('link.no-mail', { why: verdictWords(verdict, 'email').toLowerCase() }));
    const language = LANGUAGES.find((one) => one === person.language) ?? 'en';
    const { to } = await this.freshLink(
      { organizationId: scope.organizationId, supporterId, contactPointId },
      language,
    );
    if (!to) throw new Unavailable(sentence('link.not-handed-over'));
    return to;
  }

  /**
   * Sends a fresh link to the address that the old one came to, else to the first on file: whoever holds an
   * old one gets nothing but this. Returns where it went, or why it went nowhere: no address of theirs is
   * open, or the mail server did not take it.
   */
  async freshLink(
    opened: LinkHolder & { contactPointId: number | null },
    language: Language,
  ): Promise<{ to?: string; not?: 'closed' | 'away' }> {
    const scope = programScope(opened.organizationId);
    const [organization, points] = await Promise.all([
      this.team.organization(scope),
      this.contacts.points(this.database.read(scope), [opened.supporterId]),
    ]);
    const open = points.filter(
      (one) =>
        one.kind === 'email' && isOpen({ onHold: one.on_hold === 1, doNotContact: one.do_not_contact === 1 }),
    );
    const point = open.find((one) => one.id === opened.contactPointId) ?? open[0];
    if (!point) return { not: 'closed' };
    const p = PHRASES[language];
    const link = this.linkFor(opened.supporterId, point.id);
    const title = phrase(p.choicesTitle, { organization: organization.name });
    const result = await this.mailOut.send(
      houseMail(organization, this.tokens, {
        ...{ to: point.normal, key: `fresh-${crypto.randomUUID()}`, subject: title, language },
        about: { contactPointId: point.id },
        text: `${title}\n\n${link}\n\n${imprint(organization)}\n`,
        html: `<p><a href="${link}">${escapeHtml(title)}</a></p><p>${escapeHtml(imprint(organization))}</p>`,
      }),
    );
    if (result.kind === 'accepted') return { to: point.shown };
    this.log.warn({ result: result.kind }, 'a fresh link could not be handed over');
    return { not: 'away' };
  }
}

/** The address of each channel that counts first: that which the link came to, else the first on file. */
function firstPoints(points: readonly PointRow[], linkTo: number | null): Map<Channel, PointRow> {
  const out = new Map<Channel, PointRow>();
  const ordered = [...points].sort((a, b) => Number(b.id === linkTo) - Number(a.id === linkTo));
  for (const channel of CHANNELS) {
    const point = ordered.find(({ kind }) => kind === ADDRESS_KIND[channel]);
    if (point) out.set(channel, point);
  }
  return out;
}

const today = () => Math.floor(Date.now() / DAY_MS);
