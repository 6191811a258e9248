import { Injectable } from '@nestjs/common';
import {
  ADDRESS_KIND,
  ANSWERED_WITHIN_DAYS,
  bearingScopes,
  decideFromCells,
  marksFor,
  rulesInForce,
  consentStatus,
  type AddressFlags,
  type Cell,
  type Channel,
  type Decision,
  type HouseRules,
  type Marks,
  type PastPlace,
  type Place,
  type RulesInForce,
  type Scope as PermissionScope,
  type ConsentStatus,
} from '@goodword/core/permission';
import { type Basis } from '@goodword/core/words';
import type { Bound, Scoped } from '../../platform/scoped';
import { cellOf, stateColumns, type StateRow } from './state.sql';
import { isLandline } from '../line.sql';
import type { Tables } from '../../platform/tables/generated';

/** What a verdict is asked for, beside the people. */
export interface EligibilityQuery {
  channel: Channel;
  scope: PermissionScope;
  rules: HouseRules;
  now: Date;
  /** It answers what they have just set going themselves; the cap does not hold it. */
  ownAct?: boolean;
  /** The message that is being sent: it does not count towards the cap of those whom it reaches. */
  messageId?: number;
  /** By person: when messages that are planned will have come to them, which count for the cap then. */
  ahead?: ReadonlyMap<number, readonly number[]>;
}

/** All that is known of one person for a question. */
export interface PersonFacts {
  place: Place;
  before: PastPlace[];
  addresses: AddressFlags[];
  recent: number[];
  cells: Cell[];
}

const NOBODY: PersonFacts = {
  place: { country: null, region: null },
  before: [],
  addresses: [],
  recent: [],
  cells: [],
};
const SLICE = 2000;

/** Of replies, what people wrote to us themselves to be answered: no machine's words, and no stop. */
export const WANTS_AN_ANSWER = "keyword NOT IN ('machine', 'stop')";

/**
 * Facts of permission, read for a handful of people or some thousands in a few statements. Nothing is decided
 * here: the core's `decide` is.
 */
@Injectable()
export class FactsRepository {
  /**
   * Decides for each of these people, in the order of their ids. Erased people are decided like anybody: they
   * have no address.
   */
  async decide(
    db: Scoped,
    supporterIds: readonly number[],
    asking: EligibilityQuery,
  ): Promise<Map<number, Decision>> {
    const out = new Map<number, Decision>();
    const ids = [...supporterIds].sort((a, b) => a - b);
    for (let at = 0; at < ids.length; at += SLICE) {
      const some = ids.slice(at, at + SLICE);
      const facts = await this.of(db, some, asking);
      for (const id of some) out.set(id, decideBy(id, facts.get(id) ?? NOBODY, asking));
    }
    return out;
  }

  /**
   * Decides for deliveries at the very address that each goes to; one that is no longer the person's is no
   * address. Read in the transaction that hands them over.
   */
  async decideAt(
    db: Scoped,
    deliveries: readonly { supporterId: number; contactPointId: number }[],
    asking: EligibilityQuery,
  ): Promise<{ decision: Decision; place: Place }[]> {
    const facts = await this.of(
      db,
      deliveries.map(({ supporterId }) => supporterId),
      asking,
    );
    return deliveries.map(({ supporterId, contactPointId }) => {
      const known = facts.get(supporterId) ?? NOBODY;
      const there = {
        ...known,
        addresses: known.addresses.filter((address) => address.contactPointId === contactPointId),
      };
      return { decision: decideBy(supporterId, there, asking), place: known.place };
    });
  }

  async of(
    db: Scoped,
    supporterIds: readonly number[],
    asking: EligibilityQuery,
  ): Promise<Map<number, PersonFacts>> {
    const ids = [...new Set(supporterIds)];
    const out = new Map<number, PersonFacts>();
    if (ids.length === 0) return out;
    await this.places(db, ids, out);
    await this.addresses(db, ids, asking.channel, out);
    await this.wrote(db, ids, asking, out);
    await this.cells(db, ids, asking, out);
    await this.recent(db, ids, asking, out);
    if (asking.ahead) for (const id of ids) out.get(id)?.recent.push(...(asking.ahead.get(id) ?? []));
    return out;
  }

  private async places(db: Scoped, ids: readonly number[], out: Map<number, PersonFacts>): Promise<void> {
    const [places, before] = [await placesOf(db, ids), await placesBefore(db, ids)];
    for (const [id, place] of places)
      out.set(id, { place, before: before.get(id) ?? [], addresses: [], recent: [], cells: [] });
  }

  /** What was said by some entries, and how. */
  async bases(db: Scoped, entryIds: readonly number[]): Promise<Map<number, Basis>> {
    if (entryIds.length === 0) return new Map();
    const rows = await db.sql<Basis & { id: number }>(
      'SELECT id, state, how FROM permission_entry WHERE organization_id = :org AND id IN (:entryIds)',
      { entryIds },
    );
    return new Map(rows.map(({ id, state, how }) => [id, { state, how }]));
  }

  /** Addresses of the channel, best first. */
  private async addresses(
    db: Scoped,
    ids: readonly number[],
    channel: Channel,
    out: Map<number, PersonFacts>,
  ): Promise<void> {
    const rows = await db.sql<
      Pick<Tables['contact_point'], 'id' | 'on_hold' | 'do_not_contact'> & {
        landline: number;
        supporter_id: number;
      }
    >(
      `SELECT sc.supporter_id, cp.id, cp.on_hold, cp.do_not_contact, ${isLandline('cp.line')} AS landline
        FROM supporter_contact sc JOIN contact_point cp ON cp.id = sc.contact_point_id
        WHERE sc.organization_id = :org AND sc.kind = :kind AND sc.supporter_id IN (:ids)
        ORDER BY sc.supporter_id, sc.position, cp.id`,
      { ids, kind: ADDRESS_KIND[channel] },
    );
    for (const row of rows) {
      const health = {
        onHold: row.on_hold === 1,
        doNotContact: row.do_not_contact === 1,
        landline: row.landline === 1,
      };
      out.get(row.supporter_id)?.addresses.push({ contactPointId: row.id, ...health });
    }
  }

  /** When they last wrote to us, by address, where an answer to it is asked about. */
  private async wrote(
    db: Scoped,
    ids: readonly number[],
    { ownAct = false, scope, channel, now }: EligibilityQuery,
    out: Map<number, PersonFacts>,
  ): Promise<void> {
    if (!ownAct || scope !== 'service') return;
    const rows = await db.sql<{ supporter_id: number; contact_point_id: number; at: Date }>(
      `SELECT supporter_id, contact_point_id, MAX(COALESCE(received_at, at)) AS at
        FROM reply
        WHERE organization_id = :org AND supporter_id IN (:ids) AND channel = :channel
          AND ${WANTS_AN_ANSWER} AND COALESCE(received_at, at) > :since
        GROUP BY supporter_id, contact_point_id`,
      { ids, channel, since: new Date(now.getTime() - ANSWERED_WITHIN_DAYS * 86_400_000) },
    );
    for (const row of rows)
      for (const address of out.get(row.supporter_id)?.addresses ?? [])
        if (address.contactPointId === row.contact_point_id) address.wroteAt = row.at.getTime();
  }

  /**
   * What was said of the channel in the scopes that bear, by these people and by anybody at their addresses.
   */
  private async cells(
    db: Scoped,
    ids: readonly number[],
    asking: EligibilityQuery,
    out: Map<number, PersonFacts>,
  ): Promise<void> {
    const { channel, scope } = asking;
    const bindings = { ids, channel, kind: ADDRESS_KIND[channel], scopes: bearingScopes(scope) };
    for (const row of await bearingRows(
      db,
      bindings,
      'AND ps.channel = :channel AND ps.scope IN (:scopes)',
      'AND sc.kind = :kind',
    ))
      out.get(row.for_supporter)?.cells.push(cellOf(row));
  }

  /** Messages of the channel that count for the cap, and those on their way this moment. */
  private async recent(
    db: Scoped,
    ids: readonly number[],
    asking: EligibilityQuery,
    out: Map<number, PersonFacts>,
  ): Promise<void> {
    const days = longestCap(asking);
    if (days === 0) return;
    const rows = await db.sql<{ supporter_id: number; sent_at: Date | null; state: string }>(
      `SELECT supporter_id, sent_at, state
        FROM delivery
        WHERE organization_id = :org AND supporter_id IN (:ids) AND channel = :channel
        AND counts = 1 AND NOT (message_id = :messageId AND state IN ('in-flight', 'unsure'))
        AND ((sent_at > :since AND state IN ('sent', 'delivered')) OR state IN ('in-flight', 'unsure'))`,
      {
        ids,
        channel: asking.channel,
        messageId: asking.messageId ?? 0,
        since: new Date(asking.now.getTime() - days * 86_400_000),
      },
    );
    for (const { supporter_id, sent_at, state } of rows) {
      const under = state === 'in-flight' || state === 'unsure' || sent_at === null;
      out.get(supporter_id)?.recent.push(under ? asking.now.getTime() : sent_at.getTime());
    }
  }
}

/** The longest time that a cap of any place looks back over, in days; 0 where none holds this. */
export function longestCap({ channel, ownAct, rules }: EligibilityQuery): number {
  if (ownAct) return 0;
  return Math.max(0, ...Object.values(rules.places).map((place) => place.caps[channel]?.days ?? 0));
}

function decideBy(supporterId: number, facts: PersonFacts, asking: EligibilityQuery): Decision {
  const { channel, scope, rules, now, ownAct = false } = asking;
  return decideFromCells(
    { supporterId, channel, scope, rules, ownAct, now: now.getTime(), ...facts },
    facts.cells,
  );
}

/** What was said of one person on every channel, and the rules that bear on it. */
export class PersonCells {
  constructor(
    readonly supporterId: number,
    readonly cells: readonly Cell[],
    readonly rules: RulesInForce,
  ) {}

  marksAt(at: { contactPointId: number; channel: Channel; scope: PermissionScope }): Marks {
    return marksFor(this.cells, { ...at, supporterId: this.supporterId });
  }

  standingAt(
    at: { contactPointId: number; channel: Channel; scope: PermissionScope },
    now: number,
  ): ConsentStatus {
    return consentStatus(this.marksAt(at), now, this.rules);
  }
}

/**
 * Facts of single people in full, on every channel and scope: for the record, the preference page, a form.
 */
@Injectable()
export class PersonCellsRepository {
  async of(
    db: Scoped,
    supporterIds: readonly number[],
    rules: HouseRules,
  ): Promise<Map<number, PersonCells>> {
    const out = new Map<number, PersonCells>();
    if (supporterIds.length === 0) return out;
    const ids = [...new Set(supporterIds)];
    const [places, before, rows] = await Promise.all([
      placesOf(db, ids),
      placesBefore(db, ids),
      bearingRows(db, { ids }),
    ]);
    for (const id of ids) {
      const inForce = rulesInForce(
        rules,
        places.get(id) ?? { country: null, region: null },
        before.get(id) ?? [],
      );
      const cells = rows.filter((row) => row.for_supporter === id).map(cellOf);
      out.set(id, new PersonCells(id, cells, inForce));
    }
    return out;
  }

  async one(db: Scoped, supporterId: number, rules: HouseRules): Promise<PersonCells> {
    return (await this.of(db, [supporterId], rules)).get(supporterId)!;
  }

  /** What was said on a channel at some addresses, by anybody, and by some people of all of theirs. */
  async around(
    db: Scoped,
    points: readonly number[],
    supporterIds: readonly number[],
    channel: Channel,
  ): Promise<Cell[]> {
    const said = `SELECT ${stateColumns()} FROM permission_state
        WHERE organization_id = :org AND channel = :channel`;
    const rows = [
      ...(points.length > 0
        ? await db.sql<StateRow>(`${said} AND contact_point_id IN (:points)`, {
            points: [...new Set(points)],
            channel,
          })
        : []),
      ...(supporterIds.length > 0
        ? await db.sql<StateRow>(`${said} AND contact_point_id = 0 AND supporter_id IN (:people)`, {
            people: [...new Set(supporterIds)],
            channel,
          })
        : []),
    ];
    return rows.map(cellOf);
  }

  /** What people said of all their addresses. */
  async everywhere(db: Scoped, supporterIds: readonly number[]): Promise<Cell[]> {
    if (supporterIds.length === 0) return [];
    const rows = await db.sql<StateRow>(
      `SELECT ${stateColumns()}
        FROM permission_state
        WHERE organization_id = :org AND contact_point_id = 0 AND supporter_id IN (:supporterIds)`,
      { supporterIds },
    );
    return rows.map(cellOf);
  }

  /** Whether anybody stands in the way at an address: cells of everybody there, whoever the person is. */
  async atAddress(db: Scoped, contactPointId: number): Promise<Cell[]> {
    const rows = await db.sql<StateRow>(
      `SELECT ${stateColumns()}
        FROM permission_state
        WHERE organization_id = :org AND contact_point_id = :contactPointId`,
      {
        contactPointId,
      },
    );
    return rows.map(cellOf);
  }
}

type BearingRow = StateRow & { for_supporter: number };

/**
 * State rows that bear on people, each with whom it bears on: their own at their addresses, those of
 * everybody there, and their own at every address. `ids` must be bound.
 */
async function bearingRows(
  db: Scoped,
  bindings: Record<string, Bound>,
  about = '',
  links = '',
): Promise<BearingRow[]> {
  return db.sql(
    `SELECT sc.supporter_id AS for_supporter, ${stateColumns('ps')}
      FROM supporter_contact sc JOIN permission_state ps
        ON ps.organization_id = :org AND ps.contact_point_id = sc.contact_point_id
        AND ps.supporter_id IN (0, sc.supporter_id)
      WHERE sc.organization_id = :org AND sc.supporter_id IN (:ids) ${links} ${about}
    UNION ALL SELECT ps.supporter_id, ${stateColumns('ps')} FROM permission_state ps
      WHERE ps.organization_id = :org AND ps.contact_point_id = 0 AND ps.supporter_id IN (:ids) ${about}`,
    bindings,
  );
}

async function placesOf(db: Scoped, ids: readonly number[]): Promise<Map<number, Place>> {
  const rows = await db.sql<Place & { id: number }>(
    `SELECT id, country, region
      FROM supporter
      WHERE organization_id = :org AND erased_at IS NULL AND id IN (:ids)`,
    { ids },
  );
  return new Map(rows.map(({ id, country, region }) => [id, { country, region }]));
}

async function placesBefore(db: Scoped, ids: readonly number[]): Promise<Map<number, PastPlace[]>> {
  const rows = await db.sql<Place & { supporter_id: number; until_at: Date }>(
    `SELECT supporter_id, country, region, until_at FROM place_before
      WHERE organization_id = :org AND supporter_id IN (:ids) ORDER BY until_at, id`,
    { ids },
  );
  const out = new Map<number, PastPlace[]>();
  for (const { supporter_id, country, region, until_at } of rows)
    out.set(supporter_id, [...(out.get(supporter_id) ?? []), { country, region, until: until_at.getTime() }]);
  return out;
}
