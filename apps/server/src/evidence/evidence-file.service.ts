import { Inject, Injectable } from '@nestjs/common';
import type {
  AddressHolder,
  EvidenceDelivery,
  EvidenceEntry,
  PermissionReport,
} from '@goodword/core/contract';
import { cleanEmail, cleanMobile } from '@goodword/core/intake';
import {
  rulePurposeOf,
  foldEntries,
  hasJustWritten,
  requiredConsentOf,
  placeAt,
  placeKeyOf,
  rulesFor,
  rulesInForce,
  type HouseRules,
  type PastPlace,
  type Place,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import {
  explain,
  placeWords,
  ruleWords,
  scopeWords,
  heldBackWords,
  verdictWords,
} from '@goodword/core/words';
import { EvidenceRepository } from '../permission/evidence.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { PersonCells } from '../permission/ledger/facts.repository';
import { asSaid, type EntryRow } from '../permission/ledger/entries';
import { statusAtEachAddress } from '../permission/consent-status';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Invalid, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { HouseKeys } from '../platform/house-keys';
import { ErasureRepository } from '../supporters/erasure.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { entryView } from '../supporters/person-ledger.service';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import {
  EvidenceFileRepository,
  scopeOfDelivery,
  type DeliveryFact,
  type EvidenceSubject,
} from './evidence-file.repository';
import { sentence } from '../platform/words';
import { EntriesRepository } from '../permission/ledger/entries.repository';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

/** What left, or may have. */
const LEFT = ['sent', 'delivered', 'bounced', 'unsure', 'in-flight'];
const PAPER_WORDS: Record<string, string> = {
  call: 'A call sheet',
  door: 'A door-to-door sheet',
  labels: 'A label',
  letters: 'A letter',
};

interface Point {
  id: number;
  kind: 'email' | 'mobile' | 'post';
  shown: string;
  onHold: boolean;
}

/** The rules and the place of one person as they were at any moment. */
interface Past {
  rulesAt(at: Date): HouseRules;
  placeAt(at: Date): Place;
}

/**
 * One person's file of permission, whole: what they said, what they were sent and on what ground, what
 * changed.
 */
@Injectable()
export class EvidenceFileService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(HouseKeys) private readonly keys: HouseKeys,
    @Inject(EvidenceFileRepository) private readonly facts: EvidenceFileRepository,
    @Inject(EvidenceRepository) private readonly evidence: EvidenceRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(ErasureRepository) private readonly erasures: ErasureRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  /** Also of somebody erased: their dates and states, with a keyed hash in place of each address. */
  async of(scope: AccessScope, id: number): Promise<PermissionReport> {
    const db = this.database.read(scope);
    const person =
      (await this.facts.subject(db, id)) ?? (await this.supporters.need(db, id).then(() => null));
    if (!person) throw new NotFound('supporter');
    const [points, rules, lists, organization] = await Promise.all([
      this.points(db, person),
      this.houseRules.rules(db),
      this.groups.lists(db),
      this.team.organization(scope),
    ]);
    const nameOf = new Map(lists.map((list) => [list.id, list.name]));
    const words = (said: PermissionScope) => scopeWords(said, (listId) => nameOf.get(listId));
    const ids = points.map((point) => point.id);
    const [rows, deliveries, places] = await Promise.all([
      this.entries.entriesOf(db, id, ids),
      this.facts.deliveries(db, [...(await this.erasures.mergedInto(db, id)), id]),
      this.facts.places(db, id),
    ]);
    const before = places.map(({ country, region, until_at }) => ({
      country,
      region,
      until: until_at.getTime(),
    }));
    const past = await this.past(db, person, before, rules, [...rows, ...deliveries]);
    return {
      organization: organization.name,
      madeAt: new Date().toISOString(),
      supporter: {
        id,
        name: person.erased_at ? 'Erased' : `${person.first_name} ${person.last_name}`.trim() || 'No name',
        place: placeName(person),
        erasedAt: iso(person.erased_at),
        addresses: points.map(({ kind, shown, onHold }) => ({ kind, shown, onHold })),
      },
      consent: this.consent(person, before, rows, points, rules, words),
      entries: await this.entryViews(db, person, points, rows, deliveries, past, words),
      forms: await this.forms(db, rows),
      sent: deliveries.filter(({ state }) => LEFT.includes(state)).map((one) => sentView(one, past)),
      notSent: deliveries.filter(({ state }) => !LEFT.includes(state)).map(notSentView),
      places: places.map((row) => ({ place: placeName(row), until: row.until_at.toISOString(), by: row.by })),
      ...(await this.around(db, id, ids)),
    };
  }

  /** What else is kept, as it is. */
  private async around(
    db: Scoped,
    id: number,
    points: readonly number[],
  ): Promise<
    Pick<
      PermissionReport,
      'confirmations' | 'paper' | 'calls' | 'replies' | 'holds' | 'questions' | 'addressChanges'
    >
  > {
    const [confirmations, paper, calls, replies, holds, byOthers, questions, changes] = await Promise.all([
      this.facts.confirmations(db, id),
      this.facts.paper(db, id),
      this.facts.calls(db, id),
      this.facts.replies(db, id),
      this.facts.holds(db, points),
      this.facts.heldByOthers(db, id, points),
      this.facts.questions(db, id),
      this.facts.addressChanges(db, id),
    ]);
    return {
      confirmations: confirmations.map((one) => ({ ...one, at: one.at.toISOString() })),
      paper: paper.map(({ form, title, at, by }) => ({
        what: `${PAPER_WORDS[form] ?? 'A sheet'}${title ? `, “${title}”` : ''}`,
        at: at.toISOString(),
        by,
      })),
      calls: calls.map((one) => ({
        ...one,
        at: iso(one.at),
        suppressed: one.suppressed && verdictWords(one.suppressed, 'call'),
      })),
      replies: replies.map(({ channel, at, words, keyword }) => ({
        channel,
        at: at.toISOString(),
        words,
        readAs: keyword,
      })),
      holds: holds.map((one) => ({
        address: one.address,
        at: one.at.toISOString(),
        reason: byOthers.has(one.point)
          ? 'Somebody at this address said something that a person must read'
          : one.reason,
        releasedAt: iso(one.released_at),
        releasedBy: one.by,
        why: one.why,
      })),
      questions: questions.map((one) => ({
        words: one.words || (one.kind === 'erasure' ? 'To be erased' : ''),
        at: one.at.toISOString(),
        settledAt: iso(one.done_at),
        settledBy: one.by,
        outcome: one.outcome,
      })),
      addressChanges: changes.map((one) => ({ ...one, at: one.at.toISOString() })),
    };
  }

  /** Addresses of today; of somebody erased those that were theirs, by hash. */
  private async points(db: Scoped, person: EvidenceSubject): Promise<Point[]> {
    if (!person.erased_at)
      return (await this.contacts.points(db, [person.id])).map(({ id, kind, shown, on_hold }) => ({
        id,
        kind,
        shown,
        onHold: on_hold === 1,
      }));
    const people = [...(await this.erasures.mergedInto(db, person.id)), person.id];
    const hashOf = await this.keys.hasher();
    return (await this.erasures.everyPoint(db, people)).map(({ id, kind, normal }) => {
      const hash = normal.startsWith('erased:') ? normal.split(':')[1]! : hashOf(kind, normal);
      return { id, kind, shown: `hash ${hash}`, onHold: false };
    });
  }

  private consent(
    person: EvidenceSubject,
    before: readonly PastPlace[],
    rows: readonly EntryRow[],
    points: readonly Point[],
    rules: HouseRules,
    words: (scope: PermissionScope) => string,
  ): PermissionReport['consent'] {
    const cells = new PersonCells(
      person.id,
      foldEntries(rows.flatMap(asSaid)),
      rulesInForce(rules, person, before),
    );
    const shown = new Map(points.map((point) => [point.id, inShort(point)]));
    return statusAtEachAddress(cells, points, Date.now()).map(
      ({ contactPointId, until, pausedUntil, ...one }) => ({
        ...one,
        scopeName: words(one.scope),
        until: until === null ? null : new Date(until).toISOString(),
        pausedUntil: pausedUntil === null ? null : new Date(pausedUntil).toISOString(),
        address: shown.get(contactPointId) ?? null,
      }),
    );
  }

  private async entryViews(
    db: Scoped,
    person: EvidenceSubject,
    points: readonly Point[],
    rows: readonly EntryRow[],
    deliveries: readonly DeliveryFact[],
    past: Past,
    words: (scope: PermissionScope) => string,
  ): Promise<EvidenceEntry[]> {
    const files = await this.evidence.of(db, person.id);
    const placeRules = rulesFor(past.rulesAt(new Date()), person);
    // An erased address is told from another by its hash, also under what was said there.
    const erased = new Map(person.erased_at ? points.map((point) => [point.id, inShort(point)]) : []);
    return rows.map((row) => {
      const byAnother = row.supporter_id !== null && row.supporter_id !== person.id;
      const [rules, place] = [past.rulesAt(row.said_at), past.placeAt(row.said_at)];
      const view = entryView(row, words, placeRules, byAnother ? [] : files);
      const others = {
        words: '',
        source: 'Said by somebody else at this address',
        recordedBy: null,
        evidence: null,
      };
      return {
        ...view,
        address: erased.get(row.contact_point_id ?? 0) ?? view.address,
        ...(byAnother ? others : {}),
        byAnother,
        recordedAt: row.recorded_at.toISOString(),
        origin: byAnother ? null : row.origin,
        page: byAnother ? null : row.page,
        form: byAnother || row.form_id === null ? null : { id: row.form_id, version: row.form_version ?? 1 },
        place: placeName(place),
        rule: ruleWords({ channel: row.channel, scope: row.scope, rules, place }, view.scopeName),
        sentOnItsStrength: deliveries
          .filter((one) => one.entry_id === row.id && LEFT.includes(one.state))
          .map((one) => ({
            message: one.message,
            channel: one.channel,
            at: iso(one.sent_at),
            outcome: one.state,
          })),
      };
    });
  }

  private async forms(db: Scoped, rows: readonly EntryRow[]): Promise<PermissionReport['forms']> {
    const used = new Set(
      rows.flatMap((row) => (row.form_id === null ? [] : [`${row.form_id}:${row.form_version ?? 1}`])),
    );
    const versions = await this.facts.forms(
      db,
      rows.flatMap((row) => row.form_id ?? []),
    );
    return versions
      .filter(({ id, version }) => used.has(`${id}:${version}`))
      .map(({ made_at, ...form }) => ({ ...form, madeAt: made_at.toISOString() }));
  }

  /**
   * Rules that suppressed at the moments of some facts; before the first version those that a house begins
   * with.
   */
  private async past(
    db: Scoped,
    person: EvidenceSubject,
    before: readonly PastPlace[],
    now: HouseRules,
    facts: readonly { said_at?: Date; sent_at?: Date | null; made_at?: Date }[],
  ): Promise<Past> {
    const since = await this.facts.rulesSince(db);
    const versionAt = (at: Date) => since.filter((version) => version.made_at <= at).at(-1) ?? since[0];
    const moments = facts.flatMap(({ said_at, sent_at, made_at }) => said_at ?? sent_at ?? made_at ?? []);
    const kept = await this.facts.rulesAt(
      db,
      moments.flatMap((at) => versionAt(at)?.id ?? []),
    );
    return {
      rulesAt: (at) => kept.get(versionAt(at)?.id ?? 0) ?? now,
      placeAt: (at) => placeAt(person, before, at.getTime()),
    };
  }

  /**
   * Whose file an address leads to that somebody shows: also one that was taken off, and of people erased.
   */
  async at(scope: AccessScope, address: string): Promise<AddressHolder[]> {
    const db = this.database.read(scope);
    const { country } = await this.team.organization(scope);
    const [email, mobile] = [cleanEmail(address), cleanMobile(address, country)];
    const hashOf = await this.keys.hasher();
    const named = [
      ...(email.ok ? [{ kind: 'email' as const, normal: email.normal }] : []),
      ...(mobile.ok ? [{ kind: 'mobile' as const, normal: mobile.normal }] : []),
    ].map((one) => ({ ...one, hash: hashOf(one.kind, one.normal) }));
    if (named.length === 0)
      throw new Invalid([
        { field: 'address', code: 'address', message: sentence('evidence.address', { address }) },
      ]);
    const points = (await this.facts.pointsNamed(db, named)).map(({ id }) => id);
    const said = await this.entries.peopleAt(db, points);
    return (await this.facts.peopleAt(db, points, said)).map(({ id, name, erased_at, current }) => ({
      id,
      name: erased_at ? '' : name || 'No name',
      erasedAt: iso(erased_at),
      current: current === 1,
    }));
  }
}

/** The whole hash stands where the addresses are listed. */
const inShort = ({ shown }: Point) => (shown.startsWith('hash ') ? `${shown.slice(0, 17)}…` : shown);

const iso = (at: Date | null) => at?.toISOString() ?? null;

function placeName(place: Place): string {
  return place.country
    ? placeWords(place.region ? `${place.country}-${place.region}` : place.country)
    : 'not known';
}

const SENT = { verdict: 'send', state: 'never', contactPointId: null, entryId: null, until: null } as const;

/** Why a message left that rests on no entry. */
function withoutEntry(one: DeliveryFact, asked: Parameters<typeof explain>[1], where: string): string {
  const { rules, place, channel, scope } = asked;
  const needs = requiredConsentOf(rulesFor(rules, place), channel, rulePurposeOf(scope));
  if (needs === 'nothing') return explain(SENT, asked);
  const left = (one.sent_at ?? one.made_at).getTime();
  if (!one.wrote_at || !hasJustWritten(one.wrote_at.getTime(), left))
    return `No entry was kept with it; place then: ${where}.`;
  const day = one.wrote_at.toISOString().slice(0, 10);
  return `It answers what they wrote from this address on ${day}; place then: ${where}.`;
}

/** What a message that left rested on: an entry, or the rule of the place as it was then. */
function sentView(one: DeliveryFact, past: Past): EvidenceDelivery {
  const [rules, place] = [past.rulesAt(one.sent_at ?? one.made_at), past.placeAt(one.sent_at ?? one.made_at)];
  const asked = { channel: one.channel, scope: scopeOfDelivery(one), rules, place };
  const where = placeWords(placeKeyOf(rules, place));
  const service = asked.scope === 'service' ? 'A service message. ' : '';
  const why =
    one.entry_id !== null
      ? `It rests on entry ${one.entry_id}; place then: ${where}.`
      : `${service}${withoutEntry(one, asked, where)}`;
  return { ...shape(one), outcome: one.state, why };
}

function notSentView(one: DeliveryFact): EvidenceDelivery {
  const verdict = one.door_verdict ?? one.verdict;
  const why = verdict !== 'send' ? heldBackWords(verdict, one.channel, one.detail) : (one.detail ?? '');
  return { ...shape(one), outcome: one.state, why: one.door_verdict ? `Held back as it left: ${why}` : why };
}

function shape({ message, channel, address, sent_at, made_at, entry_id }: DeliveryFact) {
  return { message, channel, address, at: iso(sent_at ?? made_at), entryId: entry_id };
}
