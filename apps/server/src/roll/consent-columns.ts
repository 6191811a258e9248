import {
  ADDRESS_KIND,
  decide,
  joinMarks,
  type AddressFlags,
  type Decision,
  type HouseRules,
  type Marks,
  type PastPlace,
  type Place,
} from '@goodword/core/permission';
import { longestCap, type EligibilityQuery } from '../permission/ledger/facts.repository';
import { scanSaid } from '../permission/ledger/columns';
import type { Scoped } from '../platform/scoped';
import type { Ordinals } from './ordinals';
import { isLandline } from '../permission/line.sql';

/**
 * Takes the decision of one person. The address that was chosen is given apart, 0 where there is none: people
 * who are alike share one decision.
 */
export type EachDecided = (ordinal: number, decided: Decision, contactPointId: number) => void;

interface Link {
  contactPointId: number;
  position: number;
}

const ON_HOLD = 1;
const DO_NOT_CONTACT = 2;
const NO_MARKS: Marks = {};
const NOWHERE: Place = { country: null, region: null };
const NOBODY_BEFORE: readonly PastPlace[] = [];
const NOTHING_RECENT: readonly number[] = [];
/** Kinds of people who are decided once for all: no address, a yes at the only one, nothing said there. */
const PLAIN = ['none', 'yes', 'never'] as const;

interface AtPoint {
  point: number;
  marks: Marks;
}

/** Addresses of one person, best first, and what bears on them at each. */
interface Known {
  addresses: readonly AddressFlags[];
  marks: readonly Marks[];
}

/**
 * Decides for everybody at once with the core's own function, from four readings of covering indexes: whose
 * the addresses of the channel are, which of them can't be written to, what was said there, and what was sent
 * lately. Most people have one sound address and either agreed to it or said nothing; they are decided once
 * for each set of rules and not one by one.
 */
export class ConsentColumns {
  /** Addresses on hold or not to be contacted. */
  private readonly health = new Map<number, number>();
  /** Numbers that can't be texted, which are as good as none. */
  private readonly landlines = new Set<number>();
  /**
   * The id of the first address of each, 0 where there is none; the second and further ones stand in `more`.
   */
  private first = new Uint32Array(0);
  private firstPositions = new Uint16Array(0);
  private readonly more = new Map<number, Link[]>();
  /** A one for whoever is decided one by one. */
  private special = new Uint8Array(0);
  private agreed = new Uint8Array(0);
  private ownYes = new Float64Array(0);
  /** Marks beyond a plain yes: of each person at each of their addresses. */
  private marks: (AtPoint[] | undefined)[] = [];
  /** What everybody at an address is bound by. */
  private readonly ofAddress = new Map<number, Marks>();
  /** What people said of all their addresses. */
  private ofPerson: (Marks | undefined)[] = [];
  private readonly recent = new Map<number, number[]>();
  /** All of it put together, of those who are decided one by one: worked out when they are first decided. */
  private known: (Known | undefined)[] = [];
  /** Where each is, by its place in the list of all places that anybody is in. */
  private placeAt = new Uint16Array(0);
  private readonly placesHere: Place[] = [NOWHERE];
  private readonly before = new Map<number, PastPlace[]>();

  constructor(
    private readonly people: Ordinals,
    private readonly asking: EligibilityQuery,
  ) {}

  /** Reads it all; people may still be read meanwhile, until `here`. */
  async read(db: Scoped, here: Promise<void>): Promise<void> {
    const severalPlaces = Object.keys(this.asking.rules.places).length > 1;
    const ofPeople = here.then(() =>
      Promise.all([
        this.readRecent(db),
        ...(severalPlaces ? [this.readPlaces(db), this.readPlacesBefore(db)] : []),
      ]),
    );
    await Promise.all([this.readAddresses(db, here), ofPeople]);
  }

  private makeRoom({ size }: Ordinals): void {
    this.first = new Uint32Array(size);
    this.firstPositions = new Uint16Array(size);
    this.agreed = new Uint8Array(size);
    this.ownYes = new Float64Array(size);
    this.special = new Uint8Array(size);
    // Filled, so that they are lists and no tables by number.
    const none = <T>(): (T | undefined)[] => new Array<T | undefined>(size).fill(undefined);
    [this.marks, this.ofPerson, this.known] = [none(), none(), none()];
  }

  /**
   * Whose the addresses are, which of them are in trouble, and what was said there. All are read side by
   * side: while the rows of one are put away, the database makes those of another. Then they are joined.
   */
  private async readAddresses(db: Scoped, here: Promise<void>): Promise<void> {
    const [links, yes, marks] = [new Triples(), new Triples(), [] as [number, number, Marks][]];
    const readLinks = db.scan(
      `SELECT supporter_id, contact_point_id, position
        FROM supporter_contact
        WHERE organization_id = :org AND kind = :kind`,
      { kind: ADDRESS_KIND[this.asking.channel] },
      (row) => links.push(Number(row[0]), Number(row[1]), Number(row[2])),
    );
    const readSaid = scanSaid(db, this.asking.channel, this.asking.scope, {
      marks: (contactPointId, supporterId, said) => marks.push([contactPointId, supporterId, said]),
      yes: (contactPointId, supporterId, own) => yes.push(contactPointId, supporterId, own),
    });
    await Promise.all([this.readTroubles(db), readLinks, readSaid, here]);
    this.makeRoom(this.people);
    for (const [contactPointId, supporterId, said] of marks)
      this.keepMarks(contactPointId, supporterId, said);
    links.each((supporterId, contactPointId, position) =>
      this.keepLink(supporterId, contactPointId, position),
    );
    yes.each((contactPointId, supporterId, own) => this.keepYes(contactPointId, supporterId, own));
  }

  /** Hands out the decision of everybody; by other rules than they were read for, where these are given. */
  decide(each: EachDecided, rules: HouseRules = this.asking.rules): void {
    const plain = PLAIN.map((): Decision[] => []);
    for (let ordinal = 0; ordinal < this.people.size; ordinal++) {
      if (!this.people.alive.has(ordinal)) continue;
      if (this.isPlain(ordinal)) each(ordinal, this.plainly(ordinal, plain, rules), this.first[ordinal]!);
      else {
        const decided = this.oneByOne(ordinal, rules);
        each(ordinal, decided, decided.contactPointId ?? 0);
      }
    }
  }

  /**
   * One sound address at most, where nobody refused, and nothing beyond a yes: all such people of a place are
   * alike.
   */
  private isPlain(ordinal: number): boolean {
    return this.special[ordinal] === 0 && !this.recent.has(ordinal);
  }

  private plainly(ordinal: number, plain: readonly Decision[][], rules: HouseRules): Decision {
    const known = plain[this.first[ordinal] === 0 ? 0 : this.agreed[ordinal] === 1 ? 1 : 2]!;
    return (known[this.placeAt[ordinal] ?? 0] ??= this.oneByOne(ordinal, rules));
  }

  private oneByOne(ordinal: number, rules: HouseRules): Decision {
    const { channel, scope, now, ownAct = false } = this.asking;
    const { addresses, marks } = (this.known[ordinal] ??= this.knownOf(ordinal));
    return decide(
      {
        supporterId: this.people.ids[ordinal]!,
        channel,
        scope,
        rules,
        ownAct,
        now: now.getTime(),
        place: this.placeOf(ordinal),
        before: this.before.get(ordinal) ?? NOBODY_BEFORE,
        addresses,
        recent: this.recent.get(ordinal) ?? NOTHING_RECENT,
      },
      (contactPointId) =>
        marks[addresses.findIndex((one) => one.contactPointId === contactPointId)] ?? NO_MARKS,
    );
  }

  private knownOf(ordinal: number): Known {
    const addresses = this.addresses(ordinal);
    return { addresses, marks: addresses.map(({ contactPointId }) => this.marksAt(ordinal, contactPointId)) };
  }

  private addresses(ordinal: number): AddressFlags[] {
    if (this.first[ordinal] === 0) return [];
    const more = this.more.get(ordinal);
    if (!more) return [this.address(this.first[ordinal]!)];
    const first: Link = { contactPointId: this.first[ordinal]!, position: this.firstPositions[ordinal]! };
    return [first, ...more]
      .sort((a, b) => a.position - b.position || a.contactPointId - b.contactPointId)
      .map(({ contactPointId }) => this.address(contactPointId));
  }

  private address(contactPointId: number): AddressFlags {
    const health = this.health.get(contactPointId) ?? 0;
    return {
      contactPointId,
      onHold: (health & ON_HOLD) !== 0,
      doNotContact: (health & DO_NOT_CONTACT) !== 0,
    };
  }

  private marksAt(ordinal: number, contactPointId: number): Marks {
    let marks = this.marks[ordinal]?.find(({ point }) => point === contactPointId)?.marks ?? NO_MARKS;
    if (this.first[ordinal] === contactPointId && this.agreed[ordinal] === 1)
      marks = joined(marks, yesOf(this.ownYes[ordinal]!));
    marks = joined(marks, this.ofAddress.get(contactPointId));
    return joined(marks, this.ofPerson[ordinal]);
  }

  private placeOf(ordinal: number): Place {
    return this.placesHere[this.placeAt[ordinal] ?? 0]!;
  }

  private async readTroubles(db: Scoped): Promise<void> {
    const texted = this.asking.channel === 'text';
    await db.scan(
      `SELECT id, on_hold, do_not_contact, ${isLandline('line')}
        FROM contact_point
        WHERE organization_id = :org AND kind = :kind
        AND (on_hold <> 0 OR do_not_contact <> 0 ${texted ? `OR ${isLandline('line')}` : ''})`,
      { kind: ADDRESS_KIND[this.asking.channel] },
      ([id, onHold, closed, landline]) => {
        if (texted && landline) this.landlines.add(Number(id));
        else this.health.set(Number(id), (onHold ? ON_HOLD : 0) | (closed ? DO_NOT_CONTACT : 0));
      },
    );
  }

  /** Whose an address is; after what was refused has been put away. */
  private keepLink(supporterId: number, contactPointId: number, position: number): void {
    const ordinal = this.people.ordinalOf(supporterId);
    if (ordinal === undefined || this.landlines.has(contactPointId)) return;
    if (this.health.has(contactPointId) || this.ofAddress.has(contactPointId)) this.special[ordinal] = 1;
    if (this.first[ordinal] === 0) {
      this.first[ordinal] = contactPointId;
      this.firstPositions[ordinal] = position;
      return;
    }
    this.special[ordinal] = 1;
    const link: Link = { contactPointId, position };
    const known = this.more.get(ordinal);
    if (known) known.push(link);
    else this.more.set(ordinal, [link]);
  }

  private keepMarks(contactPointId: number, supporterId: number, marks: Marks): void {
    if (supporterId === 0) return join(this.ofAddress, contactPointId, marks);
    const ordinal = this.people.ordinalOf(supporterId);
    if (ordinal === undefined) return;
    if (contactPointId > 0) return this.join(ordinal, contactPointId, marks);
    this.ofPerson[ordinal] = joined(this.ofPerson[ordinal] ?? NO_MARKS, marks);
    this.special[ordinal] = 1;
  }

  private keepYes(contactPointId: number, supporterId: number, own: number): void {
    const ordinal = this.people.ordinalOf(supporterId);
    if (ordinal === undefined) return;
    if (this.first[ordinal] !== contactPointId) return this.join(ordinal, contactPointId, yesOf(own));
    this.agreed[ordinal] = 1;
    this.ownYes[ordinal] = Math.max(this.ownYes[ordinal]!, own);
  }

  private join(ordinal: number, point: number, marks: Marks): void {
    const own = this.marks[ordinal];
    const known = own?.find((one) => one.point === point);
    if (known) known.marks = joinMarks(known.marks, marks);
    else if (own) own.push({ point, marks });
    else this.marks[ordinal] = [{ point, marks }];
    this.special[ordinal] = 1;
  }

  private async readRecent(db: Scoped): Promise<void> {
    const { channel, now, messageId = 0 } = this.asking;
    const longest = longestCap(this.asking);
    if (longest === 0) return;
    const add = (supporterId: unknown, at: number) => {
      const ordinal = this.people.ordinalOf(Number(supporterId));
      if (ordinal !== undefined) this.recent.set(ordinal, [...(this.recent.get(ordinal) ?? []), at]);
    };
    const mine = `FROM delivery
        WHERE organization_id = :org AND channel = :channel AND counts = 1 AND message_id <> :messageId`;
    await db.scan(
      `SELECT supporter_id, sent_at ${mine} AND sent_at > :since AND state IN ('sent', 'delivered')`,
      { channel, messageId, since: new Date(now.getTime() - longest * 86_400_000) },
      ([id, at]) => add(id, (at as Date).getTime()),
    );
    // On its way this very moment.
    await db.scan(
      `SELECT supporter_id ${mine} AND state IN ('in-flight', 'unsure')`,
      { channel, messageId },
      ([id]) => add(id, now.getTime()),
    );
  }

  private async readPlaces(db: Scoped): Promise<void> {
    this.placeAt = new Uint16Array(this.people.size);
    const known = new Map<string, number>();
    await db.scan(
      `SELECT id, country, region
        FROM supporter
        WHERE organization_id = :org AND erased_at IS NULL AND country IS NOT NULL`,
      {},
      ([id, country, region]) => {
        const ordinal = this.people.ordinalOf(Number(id));
        if (ordinal === undefined) return;
        const name = region === null ? (country as string) : `${country as string}-${region as string}`;
        let code = known.get(name);
        if (code === undefined) {
          known.set(name, (code = this.placesHere.length));
          this.placesHere.push({ country: country as string, region: region as string | null });
        }
        this.placeAt[ordinal] = code;
      },
    );
  }

  private async readPlacesBefore(db: Scoped): Promise<void> {
    await db.scan(
      `SELECT supporter_id, country, region, until_at
        FROM place_before
        WHERE organization_id = :org
        ORDER BY supporter_id, until_at, id`,
      {},
      ([id, country, region, until]) => {
        const ordinal = this.people.ordinalOf(Number(id));
        if (ordinal === undefined) return;
        const past = {
          country: country as string | null,
          region: region as string | null,
          until: (until as Date).getTime(),
        };
        this.before.set(ordinal, [...(this.before.get(ordinal) ?? []), past]);
      },
    );
  }
}

/** Without an object for nothing. */
function joined(marks: Marks, more: Marks | undefined): Marks {
  if (!more) return marks;
  return marks === NO_MARKS ? more : joinMarks(marks, more);
}

function join(into: Map<number, Marks>, key: number, marks: Marks): void {
  const known = into.get(key);
  into.set(key, known ? joinMarks(known, marks) : marks);
}

function yesOf(own: number): Marks {
  const yes = { at: own, entryId: 0 };
  return own > 0 ? { yes, ownYes: yes } : { yes: { at: 0, entryId: 0 } };
}

/** A growing list of three numbers a row, which takes no object for each. */
class Triples {
  private numbers = new Float64Array(3 << 14);
  private length = 0;

  push(a: number, b: number, c: number): void {
    if (this.length === this.numbers.length) {
      const larger = new Float64Array(this.length * 2);
      larger.set(this.numbers);
      this.numbers = larger;
    }
    this.numbers[this.length++] = a;
    this.numbers[this.length++] = b;
    this.numbers[this.length++] = c;
  }

  each(take: (a: number, b: number, c: number) => void): void {
    for (let at = 0; at < this.length; at += 3)
      take(this.numbers[at]!, this.numbers[at + 1]!, this.numbers[at + 2]!);
  }
}
