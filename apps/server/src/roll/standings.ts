import {
  bearingScopes,
  decideBy,
  joinMarks,
  MARK_KINDS,
  placeKeyOf,
  type Address,
  type Decision,
  type Marks,
  type Place,
  type PlaceKey,
} from '@goodword/core/permission';
import { COLUMN_OF } from '../permission/ledger.repository';
import type { Asking } from '../permission/verdict.sql';
import type { Bound, Scoped } from '../platform/database';
import type { Ordinals } from './ordinals';

export type Decided = Decision & { until: number | null };

interface Link {
  contactPointId: number;
  position: number;
}

const ON_HOLD = 1;
const DO_NOT_CONTACT = 2;
const NO_MARKS: Marks = {};
/** As the bindings of a verdict name them. */
const kindOf = (channel: string) => (channel === 'email' ? 'email' : channel === 'post' ? 'post' : 'mobile');

/**
 * Decides for everybody at once with the core's own function, from four readings of covering indexes: whose the addresses of
 * the channel are, which of them can't be written to, what was said there, and what was sent lately. Most people have one sound
 * address and either agreed to it or said nothing; they are decided once for each set of rules and not one by one. The
 * set-based statement remains for those of whom something changed.
 */
export class Standings {
  /** Addresses on hold or not to be contacted. */
  private readonly health = new Map<number, number>();
  /** Numbers that can't be texted, which are as good as none. */
  private readonly landlines = new Set<number>();
  /** The id of the first address of each, 0 where there is none; the second and further ones stand in `more`. */
  private first = new Uint32Array(0);
  private firstPositions = new Uint16Array(0);
  private readonly more = new Map<number, Link[]>();
  private agreed = new Uint8Array(0);
  private ownYes = new Float64Array(0);
  /** Marks beyond a plain yes, by person and address. */
  private readonly marks = new Map<string, Marks>();
  private readonly troubled = new Set<number>();
  private readonly noAt = new Map<number, number>();
  private readonly recent = new Map<number, number[]>();
  private readonly places = new Map<number, Place>();

  constructor(
    private readonly people: Ordinals,
    private readonly asking: Asking,
  ) {}

  /** Reads it all; people may still be read meanwhile, until `here`. */
  async read(db: Scoped, here: Promise<void>): Promise<void> {
    const severalPlaces = Object.keys(this.asking.rules.places).length > 1;
    const ofPeople = here.then(() => Promise.all([this.readRecent(db), severalPlaces ? this.readPlaces(db) : null]));
    await Promise.all([this.readAddresses(db, here), ofPeople]);
  }

  private makeRoom({ size }: Ordinals): void {
    this.first = new Uint32Array(size);
    this.firstPositions = new Uint16Array(size);
    this.agreed = new Uint8Array(size);
    this.ownYes = new Float64Array(size);
  }

  /**
   * Whose the addresses are, which of them are in trouble, and what was said there. All are read side by side: while the rows
   * of one are put away, the database makes those of another. Then they are joined.
   */
  private async readAddresses(db: Scoped, here: Promise<void>): Promise<void> {
    const [links, yes, marks] = [new Triples(), new Triples(), [] as unknown[][]];
    const readLinks = db.scan(
      'SELECT supporter_id, contact_point_id, position FROM supporter_contact WHERE organization_id = :org AND kind = :kind',
      { kind: kindOf(this.asking.channel) },
      (row) => links.push(Number(row[0]), Number(row[1]), Number(row[2])),
    );
    await Promise.all([this.readTroubles(db), readLinks, this.readSaid(db, marks, yes), here]);
    this.makeRoom(this.people);
    for (const row of marks) this.keepMarks(row);
    links.each((supporterId, contactPointId, position) => this.keepLink(supporterId, contactPointId, position));
    yes.each((contactPointId, supporterId, own) => this.keepYes(contactPointId, supporterId, own));
  }

  /** Hands out the decision of everybody. */
  decide(each: (ordinal: number, decided: Decided) => void): void {
    const plain = new Map<string, Decided>();
    for (let ordinal = 0; ordinal < this.people.size; ordinal++) {
      if (!this.people.alive.has(ordinal)) continue;
      each(ordinal, this.isPlain(ordinal) ? this.plainly(ordinal, plain) : this.oneByOne(ordinal));
    }
  }

  /** One sound address at most, where nobody refused, and nothing beyond a yes: all such people of a place are alike. */
  private isPlain(ordinal: number): boolean {
    return !this.troubled.has(ordinal) && !this.more.has(ordinal) && !this.recent.has(ordinal);
  }

  private plainly(ordinal: number, known: Map<string, Decided>): Decided {
    const kind = this.first[ordinal] === 0 ? 'none' : this.agreed[ordinal] === 1 ? 'yes' : 'never';
    // Of most it is not known where they live, which is a place like any other.
    const key = this.places.has(ordinal) ? `${kind} ${this.placeKey(ordinal)}` : kind;
    let decided = known.get(key);
    if (!decided) known.set(key, (decided = this.oneByOne(ordinal)));
    return decided;
  }

  private oneByOne(ordinal: number): Decided {
    const { channel, scope, rules, now } = this.asking;
    return decideBy(
      {
        supporterId: this.people.ids[ordinal]!,
        channel,
        scope,
        rules,
        now: now.getTime(),
        place: this.placeOf(ordinal),
        addresses: this.addresses(ordinal),
        recent: this.recent.get(ordinal) ?? [],
      },
      (contactPointId) => this.marksAt(ordinal, contactPointId),
    );
  }

  private addresses(ordinal: number): Address[] {
    if (this.first[ordinal] === 0) return [];
    const first: Link = { contactPointId: this.first[ordinal]!, position: this.firstPositions[ordinal]! };
    return [first, ...(this.more.get(ordinal) ?? [])]
      .sort((a, b) => a.position - b.position || a.contactPointId - b.contactPointId)
      .map(({ contactPointId }) => {
        const health = this.health.get(contactPointId) ?? 0;
        return { contactPointId, onHold: (health & ON_HOLD) !== 0, doNotContact: (health & DO_NOT_CONTACT) !== 0 };
      });
  }

  private marksAt(ordinal: number, contactPointId: number): Marks {
    let marks = this.marks.get(`${ordinal}:${contactPointId}`) ?? NO_MARKS;
    if (this.first[ordinal] === contactPointId && this.agreed[ordinal] === 1) marks = joinMarks(marks, yesOf(this.ownYes[ordinal]!));
    const no = this.noAt.get(contactPointId);
    return no === undefined ? marks : joinMarks(marks, { no: { at: no, entryId: 0 } });
  }

  private placeOf(ordinal: number): Place {
    return this.places.get(ordinal) ?? { country: null, region: null };
  }

  private placeKey(ordinal: number): PlaceKey {
    return placeKeyOf(this.asking.rules, this.placeOf(ordinal));
  }

  private async readTroubles(db: Scoped): Promise<void> {
    const texted = this.asking.channel === 'text';
    await db.scan(
      `SELECT id, on_hold, do_not_contact, line <=> 'landline' FROM contact_point WHERE organization_id = :org AND kind = :kind
        AND (on_hold <> 0 OR do_not_contact <> 0 ${texted ? "OR line = 'landline'" : ''})`,
      { kind: kindOf(this.asking.channel) },
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
    if (this.health.has(contactPointId) || this.noAt.has(contactPointId)) this.troubled.add(ordinal);
    if (this.first[ordinal] === 0) {
      this.first[ordinal] = contactPointId;
      this.firstPositions[ordinal] = position;
      return;
    }
    const link: Link = { contactPointId, position };
    const known = this.more.get(ordinal);
    if (known) known.push(link);
    else this.more.set(ordinal, [link]);
  }

  /** Whatever is more than a yes, and every plain yes. */
  private async readSaid(db: Scoped, marks: unknown[][], yes: Triples): Promise<void> {
    const { channel, scope } = this.asking;
    const of: Record<string, Bound> = { channel, scopes: bearingScopes(scope) };
    const said = 'FROM permission_state WHERE organization_id = :org AND channel = :channel AND scope IN (:scopes)';
    // What outweighs a yes, or counts where there is none.
    const plain = 'yes_at IS NOT NULL AND no_at IS NULL AND pause_at IS NULL';
    const columns = MARK_KINDS.map((kind) => `${COLUMN_OF[kind]}_at`);
    await Promise.all([
      db.scan(`SELECT contact_point_id, supporter_id, pause_until, pause_entry, ${columns.join(', ')} ${said} AND NOT (${plain})`, of, (row) =>
        marks.push(row),
      ),
      db.scan(
        `SELECT contact_point_id, supporter_id, CAST(UNIX_TIMESTAMP(own_yes_at) * 1000 AS UNSIGNED) ${said} AND ${plain}`,
        of,
        ([contactPointId, supporterId, own]) => yes.push(Number(contactPointId), Number(supporterId), Number(own ?? 0)),
      ),
    ]);
  }

  private keepMarks(row: unknown[]): void {
    const [point, ordinal] = [Number(row[0]), this.people.ordinalOf(Number(row[1]))];
    const marks: Marks = {};
    MARK_KINDS.forEach((kind, i) => {
      const at = row[4 + i] as Date | null;
      if (!at) return;
      if (kind === 'no') this.noAt.set(point, Math.max(this.noAt.get(point) ?? -Infinity, at.getTime()));
      else if (kind === 'pause')
        marks.pause = { at: at.getTime(), entryId: Number(row[3]), until: (row[2] as Date | null)?.getTime() ?? at.getTime() };
      else marks[kind] = { at: at.getTime(), entryId: 0 };
    });
    if (ordinal !== undefined) this.join(ordinal, point, marks);
  }

  private keepYes(contactPointId: number, supporterId: number, own: number): void {
    const ordinal = this.people.ordinalOf(supporterId);
    if (ordinal === undefined) return;
    if (this.first[ordinal] !== contactPointId) return this.join(ordinal, contactPointId, yesOf(own));
    this.agreed[ordinal] = 1;
    this.ownYes[ordinal] = Math.max(this.ownYes[ordinal]!, own);
  }

  private join(ordinal: number, point: number, marks: Marks): void {
    const key = `${ordinal}:${point}`;
    this.marks.set(key, joinMarks(this.marks.get(key) ?? NO_MARKS, marks));
    this.troubled.add(ordinal);
  }

  private async readRecent(db: Scoped): Promise<void> {
    const { channel, scope, rules, now } = this.asking;
    const days = Object.values(rules.places).map((place) => (scope === 'service' ? 0 : (place.caps[channel]?.days ?? 0)));
    const longest = Math.max(0, ...days);
    if (longest === 0) return;
    const add = (supporterId: unknown, at: number) => {
      const ordinal = this.people.ordinalOf(Number(supporterId));
      if (ordinal !== undefined) this.recent.set(ordinal, [...(this.recent.get(ordinal) ?? []), at]);
    };
    const mine = 'FROM delivery WHERE organization_id = :org AND channel = :channel AND counts = 1';
    await db.scan(
      `SELECT supporter_id, sent_at ${mine} AND sent_at > :since AND state IN ('sent', 'delivered')`,
      { channel, since: new Date(now.getTime() - longest * 86_400_000) },
      ([id, at]) => add(id, (at as Date).getTime()),
    );
    // On its way this very moment.
    await db.scan(`SELECT supporter_id ${mine} AND state IN ('handing', 'unsure')`, { channel }, ([id]) => add(id, now.getTime()));
  }

  private async readPlaces(db: Scoped): Promise<void> {
    await db.scan(
      'SELECT id, country, region FROM supporter WHERE organization_id = :org AND erased_at IS NULL AND country IS NOT NULL',
      {},
      ([id, country, region]) => {
        const ordinal = this.people.ordinalOf(Number(id));
        if (ordinal !== undefined) this.places.set(ordinal, { country: country as string, region: region as string | null });
      },
    );
  }
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
    for (let at = 0; at < this.length; at += 3) take(this.numbers[at]!, this.numbers[at + 1]!, this.numbers[at + 2]!);
  }
}
