import {
  ADDRESS_KIND,
  isPaused,
  consentStatus,
  type AddressKind,
  type Channel,
  type PermissionState,
  type Scope,
} from '@goodword/core/permission';
import type { PersonCells } from './ledger/facts.repository';

export interface PersonConsentStatus {
  channel: Channel;
  scope: Scope;
  state: PermissionState;
  entryId: number | null;
  /** Last moment of an implied permission. */
  until: number | null;
  /** Last moment of a pause that holds it now. */
  pausedUntil: number | null;
}

const RANK: Record<PermissionState, number> = { yes: 4, implied: 3, asked: 2, no: 1, never: 0 };

/** An address of a person. */
interface Point {
  id: number;
  kind: AddressKind;
}

/** How one person stands at one of their addresses, for every scope that anything is recorded of. */
export interface AddressConsentStatus extends PersonConsentStatus {
  contactPointId: number;
}

/** How one person stands at each address for every scope that anything is recorded of. */
export function statusAtEachAddress(
  person: PersonCells,
  points: readonly Point[],
  now: number,
): AddressConsentStatus[] {
  const asked = new Map(
    person.cells.map(({ channel, scope }) => [`${channel}:${scope}`, { channel, scope }]),
  );
  return [...asked.values()].flatMap(({ channel, scope }) =>
    addressesFor(channel, points).map((contactPointId) => {
      const at = { contactPointId, channel, scope };
      const marks = person.marksAt(at);
      const { state, entryId, until = null } = consentStatus(marks, now, person.rules);
      const pausedUntil = scope !== 'service' && isPaused(marks, now) ? marks.pause!.until! : null;
      return { ...at, state, entryId, until, pausedUntil };
    }),
  );
}

/** Where nothing serves the channel any more, what was said without an address still stands. */
function addressesFor(channel: Channel, points: readonly Point[]): number[] {
  const ids = points.filter(({ kind }) => kind === ADDRESS_KIND[channel]).map(({ id }) => id);
  return ids.length > 0 ? ids : [0];
}

/** As `standingsAtEach`, at the best of their addresses for each channel and scope. */
export function statusByScope(
  person: PersonCells,
  points: readonly Point[],
  now: number,
): PersonConsentStatus[] {
  const out = new Map<string, PersonConsentStatus>();
  for (const { contactPointId: _at, ...one } of statusAtEachAddress(person, points, now)) {
    const key = `${one.channel}:${one.scope}`;
    const known = out.get(key);
    if (!known || RANK[one.state] > RANK[known.state]) out.set(key, one);
  }
  return [...out.values()];
}

/**
 * The one word for a channel in a table: No where everything is refused, else the best of what any scope
 * allows.
 */
export function channelWord(consent: readonly PersonConsentStatus[], channel: Channel): PermissionState {
  const own = consent.filter((one) => one.channel === channel);
  if (own.some((one) => one.scope === 'all' && one.state === 'no') && !own.some((one) => one.state === 'yes'))
    return 'no';
  return own.reduce<PermissionState>(
    (best, one) => (RANK[one.state] > RANK[best] ? one.state : best),
    'never',
  );
}
