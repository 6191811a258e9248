import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { dayInZone, parseIsoDay, startOfDay, type Day } from '@goodword/core/common';
import type { EntryView, ConsentStatusView, UndoStep } from '@goodword/core/contract';
import {
  CHANNELS,
  channelsOf,
  HAND_EVIDENCE,
  isRelationship,
  placeKeyOf,
  rulesFor,
  type Channel,
  type Place,
  type PlaceRules,
  type RecordedState,
  type CollectionMethod,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import { placeWords, scopeWords } from '@goodword/core/words';
import { EvidenceRepository, type EvidenceRow } from '../permission/evidence.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import type { EntryRow } from '../permission/ledger/entries';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { PersonCellsRepository } from '../permission/ledger/facts.repository';
import { statusByScope } from '../permission/consent-status';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import { rewritten } from '../platform/pictures';
import type { AccessScope } from '../platform/scope';
import { stillAs } from '../platform/versions';
import { STORAGE, type Storage } from '../platform/storage';
import { TeamRepository } from '../team/team.repository';
import { GroupsRepository } from './groups.repository';
import { SupportersRepository, type PersonRow } from './supporters.repository';
import { sentence } from '../platform/words';
import { EntriesRepository } from '../permission/ledger/entries.repository';
import { ContactPointsRepository } from './contact-points.repository';

export interface HandEntry {
  contactPointId: number;
  channel: Channel;
  scope: PermissionScope;
  state: RecordedState;
  how: CollectionMethod;
  on: string;
  words: string;
  until?: string;
  evidenceId?: number;
}

export interface Objection {
  how: CollectionMethod;
  on: string;
  words: string;
}

/** Longest that a pause can be asked for by hand. */
const LONGEST_PAUSE_DAYS = 730;
/** Where every day begins first, UTC+14. */
const FURTHEST_EAST = 'Pacific/Kiritimati';
const NOON_MS = 12 * 3_600_000;

/** What one person agreed to: reading it, adding to it by hand, and showing it to anyone as evidence. */
@Injectable()
export class PersonLedger {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
    @Inject(EvidenceRepository) private readonly evidence: EvidenceRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  /** Standings and entries of one person, with what the house rules of their place make of them. */
  async of(
    db: Scoped,
    person: PersonRow,
  ): Promise<{ consent: ConsentStatusView[]; entries: EntryView[]; rulesOf: string }> {
    const rules = await this.houseRules.rules(db);
    const [rows, cells, points, lists, files] = await Promise.all([
      this.entries.entriesOf(db, person.id),
      this.cells.one(db, person.id, rules),
      this.contacts.points(db, [person.id]),
      this.groups.lists(db),
      this.evidence.of(db, person.id),
    ]);
    const nameOf = new Map(lists.map((list) => [list.id, list.name]));
    const words = (scope: PermissionScope) => scopeWords(scope, (id) => nameOf.get(id));
    const place = rulesFor(rules, person);
    return {
      consent: statusByScope(cells, points, Date.now()).map((one) => ({
        ...one,
        scopeName: words(one.scope),
        until: iso(one.until),
        pausedUntil: iso(one.pausedUntil),
      })),
      entries: rows.map((row) => entryView(row, words, place, files)),
      rulesOf: placeWords(placeKeyOf(rules, person)),
    };
  }

  /**
   * An entry by hand counts as the person's own where it is dated and says by what act of theirs they agreed:
   * the evidence for coming back. A no or a pause that was not said through an address holds at every one.
   */
  async addEntry(scope: AccessScope, id: number, entry: HandEntry): Promise<void> {
    const faults = handFaults(entry);
    if (faults) throw new Invalid([faults]);
    const saidAt = await this.saidOn(scope, entry.on, entry.state);
    await this.database.write(scope, async (tx) => {
      const point = (await this.contacts.points(tx, [(await this.supporters.lockForUpdate(tx, id)).id])).find(
        (one) => one.id === entry.contactPointId,
      );
      if (!point) throw new NotFound('address');
      if (!channelsOf(point.kind).includes(entry.channel))
        throw new Invalid([
          {
            field: 'channel',
            code: 'channel',
            message: sentence('permission.no-address', { shown: point.shown }),
          },
        ]);
      if (entry.evidenceId && !(await this.evidence.find(tx, id, entry.evidenceId)))
        throw new NotFound('evidence');
      await this.ledger.record(tx, {
        ...entry,
        contactPointId: isSaidThrough(entry) ? point.id : null,
        supporterId: id,
        saidAt,
        untilAt: entry.state === 'pause' ? new Date(`${entry.until}T23:59:59.999Z`) : null,
        byPerson: isOwnAct(entry),
        evidenceId: entry.evidenceId ?? null,
        source: 'Entered on the record',
      });
    });
  }

  /** Objection to all marketing (GDPR art. 21(2)-(3)): one act that closes every channel at every address. */
  async object(scope: AccessScope, id: number, objection: Objection): Promise<void> {
    const saidAt = await this.saidOn(scope, objection.on, 'no');
    await this.database.write(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      await this.ledger.recordAll(
        tx,
        CHANNELS.map((channel) => ({
          contactPointId: null,
          supporterId: id,
          channel,
          scope: 'marketing',
          state: 'no',
          saidAt,
          byPerson: true,
          how: 'objection',
          words: objection.words,
          source: `Entered on the record, ${objection.how}`,
        })),
      );
      await audit(tx, 'objection', { supporter: id }, 'Objected to all marketing');
    });
  }

  /**
   * The moment that a day given by hand stands for, in the house's zone. A no of today counts from now, of a
   * day gone by from its end, and a yes from the beginning of its day: of one day, the no counts. Where
   * whoever types it sits further east, their today may be the house's tomorrow; it is taken for today.
   */
  private async saidOn(scope: AccessScope, on: string, state: RecordedState): Promise<Date> {
    const zone = (await this.team.organization(scope)).time_zone;
    const [typed, today] = [parseIsoDay(on), dayInZone(Date.now(), zone)];
    if (typed === null || typed > dayInZone(Date.now(), FURTHEST_EAST))
      throw new Invalid([{ field: 'on', code: 'day', message: sentence('permission.said-day') }]);
    const day = Math.min(typed, today) as Day;
    if (state === 'no' && day < today) return new Date(startOfDay(day + 1, zone) - 1);
    return state === 'yes'
      ? new Date(startOfDay(day, zone))
      : state === 'no'
        ? new Date()
        : new Date(startOfDay(day, zone) + NOON_MS);
  }

  /**
   * A relationship that the law of some places takes as agreement for a while; whether and how long is asked
   * when it matters.
   */
  async relate(
    tx: Scoped,
    id: number,
    relationship: CollectionMethod,
    at: Date,
    words: string,
  ): Promise<void> {
    if (!isRelationship(relationship)) throw new Error(`expected a relationship, got "${relationship}"`);
    const points = await this.contacts.points(tx, [id]);
    const entry = {
      supporterId: id,
      scope: 'marketing',
      state: 'implied',
      saidAt: at,
      byPerson: false,
      how: relationship,
      words,
    } as const;
    await this.ledger.recordAll(
      tx,
      points.flatMap((point) =>
        channelsOf(point.kind)
          .filter((channel) => channel !== 'text')
          .map((channel) => ({
            ...entry,
            contactPointId: point.id,
            channel,
            source: 'From the record of it',
          })),
      ),
    );
  }

  async setPlace(scope: AccessScope, id: number, place: Place, was: Place): Promise<void> {
    if (place.region && !place.country)
      throw new Invalid([{ field: 'region', code: 'country', message: sentence('place.country-first') }]);
    await this.database.write(scope, async (tx) => {
      const { country, region } = await this.supporters.lockForUpdate(tx, id);
      const before = { country, region };
      const words = (at: Place) =>
        at.country ? placeWords(at.region ? `${at.country}-${at.region}` : at.country) : 'not known';
      stillAs(was, before, 'where they are', words(before));
      await this.supporters.setPlace(tx, id, place);
      const undo: UndoStep = { kind: 'place', before, after: { ...place } };
      await audit(tx, 'place', { supporter: id }, `Place set to ${words(place)}`, {
        before: words(before),
        after: words(place),
        undo,
      });
    });
  }

  /** Keeps a picture or PDF of the sheet signed. What it is, is read from its bytes and not from its name. */
  async addEvidence(
    scope: AccessScope,
    id: number,
    file: { name: string; bytes: Buffer },
  ): Promise<{ id: number }> {
    await this.supporters.need(this.database.read(scope), id);
    const { mime, bytes } = await evidenceOf(file.bytes);
    const storageKey = await this.storage.put(bytes);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    return this.database.writeUnlogged(scope, async (tx) => ({
      id: await this.evidence.add(tx, {
        supporterId: id,
        name: file.name,
        mime,
        bytes: bytes.length,
        sha256,
        storageKey,
      }),
    }));
  }

  async readEvidence(
    scope: AccessScope,
    id: number,
    evidenceId: number,
  ): Promise<{ name: string; mime: string; bytes: Buffer }> {
    const db = this.database.read(scope);
    await this.supporters.need(db, id);
    const row = await this.evidence.find(db, id, evidenceId);
    if (!row?.storage_key) throw new NotFound('evidence');
    return { name: row.name, mime: row.mime, bytes: await this.storage.get(row.storage_key) };
  }
}

const iso = (at: number | null) => (at === null ? null : new Date(at).toISOString());

/** Whether the person said it themselves, by an act that there is evidence of. */
function isOwnAct({ state, how }: HandEntry): boolean {
  return (
    state === 'no' ||
    state === 'pause' ||
    (state === 'yes' && (HAND_EVIDENCE as readonly CollectionMethod[]).includes(how))
  );
}

/**
 * What was agreed was agreed for an address. A refusal is for all of them, unless it came back through one.
 */
function isSaidThrough({ state, how }: HandEntry): boolean {
  return state === 'yes' || state === 'implied' || (state === 'no' && how === 'reply');
}

function handFaults(entry: HandEntry): { field: string; code: string; message: string } | null {
  const fault = (field: string, message: string) => ({ field, code: field, message });
  if (entry.state === 'yes' && entry.words.length < 10) return fault('words', sentence('permission.words'));
  if (entry.state === 'implied' && !isRelationship(entry.how))
    return fault('how', sentence('permission.implied-by'));
  if (entry.state === 'implied' && entry.channel === 'text')
    return fault('channel', sentence('permission.text-implied'));
  if (entry.state !== 'pause') return null;
  const until = entry.until ? parseIsoDay(entry.until) : null;
  const today = Math.floor(Date.now() / 86_400_000);
  if (until === null || until < today || until > today + LONGEST_PAUSE_DAYS)
    return fault('until', sentence('permission.pause'));
  return null;
}

/** An entry as teammates see it. */
export function entryView(
  row: EntryRow,
  words: (scope: PermissionScope) => string,
  rules: PlaceRules,
  files: readonly EvidenceRow[],
): EntryView {
  const evidence = files.find((file) => file.id === row.evidence_id);
  const oldest = new Date();
  oldest.setUTCMonth(oldest.getUTCMonth() - rules.oldAfterMonths);
  return {
    id: row.id,
    channel: row.channel,
    scope: row.scope,
    scopeName: words(row.scope),
    state: row.state,
    at: row.said_at.toISOString(),
    until: row.until_at?.toISOString() ?? null,
    how: row.how,
    words: row.words,
    source: row.source,
    recordedBy: row.recorded_name,
    address: row.shown,
    takenBack: row.taken_back_at !== null,
    old: row.state === 'yes' && row.said_at < oldest,
    evidence: evidence ? { id: evidence.id, name: evidence.name } : null,
  };
}

/**
 * A picture is decoded and written anew, so that nothing but a picture is kept; a PDF is kept as it is and
 * only ever downloaded.
 */
async function evidenceOf(bytes: Buffer): Promise<{ mime: string; bytes: Buffer }> {
  if (bytes.subarray(0, 5).toString('latin1') === '%PDF-') return { mime: 'application/pdf', bytes };
  const picture = await rewritten(bytes, { pixels: 60_000_000, widest: 2400, alpha: false, quality: 82 });
  if (!picture) throw new Conflict(sentence('evidence.kind'));
  return { mime: picture.mime, bytes: picture.data };
}
