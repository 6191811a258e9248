import { Inject, Injectable } from '@nestjs/common';
import { momentOfStep } from '@goodword/core/campaigns';
import { dayInZone, isoDay } from '@goodword/core/common';
import type { AheadView } from '@goodword/core/contract';
import { lastLeaves } from '@goodword/core/delivery';
import { isHandedOver, type HouseRules } from '@goodword/core/permission';
import { momentFor, wallTimeOf, zoneOf } from '@goodword/core/schedule';
import { MailLimitsRepository } from '../limits/mail-limits.repository';
import { MessagesRepository, scopeOfMessage, type MessageRow } from '../messages/messages.repository';
import { decentMoment } from '../permission/decent-moment';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { SegmentsService } from '../segments/segments.service';
import { TeamRepository } from '../team/team.repository';
import { AheadRepository } from './ahead.repository';
import { eligibilityQueryOf } from './last-look.service';
import { OverlapService } from './overlap.service';
import { RecipientsService } from './recipients.service';
import { EVERYBODY, SendingRepository } from './sending.repository';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** A gift of so many days is told before somebody is asked anew (common practice, no source). */
const LATELY_DAYS = 30;
/** So many domains are named, and moments for which somebody waits. */
const NAMED = 5;

/** When a message is to leave, and whether by the clock of each. */
interface When {
  at: Date;
  ownTime: boolean;
  /** Over so many hours; null for at once. */
  spreadHours: number | null;
}

/** What is to come for those whom the last look found, until the last of them has the message. */
@Injectable()
export class AheadService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(RecipientsService) private readonly recipients: RecipientsService,
    @Inject(OverlapService) private readonly overlaps: OverlapService,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(MailLimitsRepository) private readonly mailLimits: MailLimitsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(AheadRepository) private readonly ahead: AheadRepository,
  ) {}

  /** Were it to leave at a time; where none is named, now or when the plan of its campaign says. */
  async of(
    scope: AccessScope,
    id: number,
    { at: chosen, ...how }: Omit<When, 'at'> & { at: Date | null },
  ): Promise<AheadView> {
    const db = this.database.read(scope);
    const message = await this.messages.need(db, id);
    const { time_zone: home } = await this.team.organization(scope);
    const rules = await this.houseRules.rules(db);
    const reached = await this.sending.lookPeople(db, id, 'send', 0, EVERYBODY);
    const at = await this.begins(scope, message, chosen, home);
    const since = dayInZone(Date.now(), home) - LATELY_DAYS;
    const waits = await this.waits(db, message, reached, { at, ...how }, { rules, home });
    return {
      at: at.toISOString(),
      ...(await this.byThen(scope, message, reached, at, rules)),
      gave: message.purpose === 'appeals' ? await this.ahead.gaveSince(db, reached, since) : 0,
      gaveSince: isoDay(since),
      waits,
      ...(await this.mailing(db, message, reached, { at, waits, ...how })),
    };
  }

  private async begins(scope: AccessScope, message: MessageRow, chosen: Date | null, home: string) {
    const step = chosen ? null : await this.recipients.stepOf(scope, message);
    const planned = step && step.firstDay !== null ? new Date(momentOfStep(step.firstDay, step, home)) : null;
    return new Date(Math.max(Date.now(), (chosen ?? planned)?.getTime() ?? 0));
  }

  /**
   * Who of them may not get it any more by then: their permission lapses, or they have had enough, with what
   * is planned before it. Asked of those alone for whom either can be.
   */
  private async byThen(
    scope: AccessScope,
    message: MessageRow,
    reached: readonly number[],
    at: Date,
    rules: HouseRules,
  ): Promise<Pick<AheadView, 'lapses' | 'enough'>> {
    const own = { ...scope, chapterId: message.chapter_id ?? scope.chapterId };
    const ahead = new Map<number, number[]>();
    for (const { other, leaves, both } of await this.overlaps.planned(scope, message.id, reached))
      if (leaves < at && other.channel === message.channel)
        for (const id of both) ahead.set(id, [...(ahead.get(id) ?? []), leaves.getTime()]);
    // A day more than these: days of the column are UTC's, and who does not lapse by then is decided below.
    const days = Math.ceil((at.getTime() - Date.now()) / DAY_MS) + 1;
    const subject = { channel: message.channel, scope: scopeOfMessage(message) };
    const [lapsing] =
      days > 1 ? await this.segments.among(own, [{ kind: 'lapses', ...subject, days }], reached) : [];
    const asking = { ...eligibilityQueryOf(message, rules), now: at, ahead };
    const decided = await this.facts.decide(
      this.database.read(own),
      [...new Set([...ahead.keys(), ...(lapsing ?? [])])],
      asking,
    );
    const found = { lapses: 0, enough: 0 };
    for (const { verdict } of decided.values())
      if (verdict === 'had-enough') found.enough += 1;
      else if (verdict !== 'send') found.lapses += 1;
    return found;
  }

  /** What waits for a decent hour where its people are: for when, how many, where; the soonest first. */
  private async waits(
    db: Scoped,
    message: MessageRow,
    reached: readonly number[],
    { at, ownTime, spreadHours }: When,
    { rules, home }: { rules: HouseRules; home: string },
  ): Promise<AheadView['waits']> {
    const { channel } = message;
    // Spread over hours, each has a moment of their own.
    if (!isHandedOver(channel) || spreadHours !== null) return [];
    const waits = new Map<string, AheadView['waits'][number]>();
    for (const { people, ...place } of await this.ahead.places(db, reached)) {
      const due = ownTime
        ? Math.max(at.getTime(), momentFor(wallTimeOf(at.getTime(), home), place, home).at)
        : at.getTime();
      const then = decentMoment(channel, place, { rules, homeZone: home }, due);
      if (then <= due) continue;
      const [zone, moment] = [zoneOf(place, home), new Date(then).toISOString()];
      const known = waits.get(`${moment} ${zone}`);
      if (known) known.people += people;
      else waits.set(`${moment} ${zone}`, { zone, at: moment, people });
    }
    return [...waits.values()].sort((a, b) => a.at.localeCompare(b.at) || b.people - a.people);
  }

  /**
   * Where most of it goes, and when the last of it leaves: by the limits of the house, else as fast as the
   * mailing before did.
   */
  private async mailing(
    db: Scoped,
    { channel }: MessageRow,
    reached: readonly number[],
    { at, waits, spreadHours }: When & { waits: AheadView['waits'] },
  ): Promise<Pick<AheadView, 'domains' | 'lastLeaves'>> {
    const spread = spreadHours === null ? null : new Date(at.getTime() + spreadHours * HOUR_MS).toISOString();
    const waited = spread ?? waits.at(-1)?.at ?? null;
    if (channel !== 'email') return { domains: [], lastLeaves: waited };
    const known = await this.mailLimits.limits(db);
    const pace = known ? [] : await this.ahead.pace(db);
    const domains = (await this.ahead.domains(db, reached)).slice(0, NAMED).map(([domain, people]) => {
      const before = pace.find((one) => one.domain === domain);
      return { domain, people, seconds: before ? Math.ceil((people * before.seconds) / before.mails) : null };
    });
    const [mails, seconds] = [
      pace.reduce((sum, one) => sum + one.mails, 0),
      Math.max(0, ...pace.map((one) => one.seconds)),
    ];
    const last = known
      ? lastLeaves(known.limits, reached.length, {
          ...{ at: at.getTime(), zone: known.zone },
          sent: await this.mailLimits.sentBy(db, known.zone, at),
        })
      : mails > 0
        ? at.getTime() + (reached.length * seconds * 1000) / mails
        : null;
    // ISO moments are in the order of their letters.
    const leaves = last === null ? null : new Date(last).toISOString();
    return { domains, lastLeaves: leaves === null || (waited ?? '') > leaves ? waited : leaves };
  }
}
