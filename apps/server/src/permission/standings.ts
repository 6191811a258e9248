import {
  bearingScopes,
  isPaused,
  joinMarks,
  standing,
  type Channel,
  type Marks,
  type PermissionState,
  type PlaceRules,
  type Scope,
} from '@goodword/core/permission';
import { marksOf, type StateRow } from './ledger.repository';

export interface PersonStanding {
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

/**
 * How one person stands for every scope that anything is recorded of, at the best of their addresses. `rows` are the
 * state rows that bear on the person.
 */
export function standingsOf(rows: readonly StateRow[], now: number, rules: PlaceRules): PersonStanding[] {
  const out = new Map<string, PersonStanding>();
  for (const [channel, scope, points] of questions(rows)) {
    for (const point of points) {
      const marks = marksAt(rows, point, channel, scope);
      const { state, entryId, until = null } = standing(marks, now, rules);
      const known = out.get(`${channel}:${scope}`);
      if (!known || RANK[state] > RANK[known.state]) {
        const pausedUntil = scope !== 'service' && isPaused(marks, now) ? marks.pause!.until! : null;
        out.set(`${channel}:${scope}`, { channel, scope, state, entryId, until, pausedUntil });
      }
    }
  }
  return [...out.values()];
}

/** How somebody stands at one address for one question. `rows` are the state rows that bear on the person. */
export function standingAt(
  rows: readonly StateRow[],
  at: { contactPointId: number; channel: Channel; scope: Scope },
  now: number,
  rules: PlaceRules,
): { state: PermissionState; marks: Marks } {
  const marks = marksAt(rows, at.contactPointId, at.channel, at.scope);
  return { state: standing(marks, now, rules).state, marks };
}

function marksAt(rows: readonly StateRow[], point: number, channel: Channel, scope: Scope): Marks {
  return rows
    .filter((row) => row.contact_point_id === point && row.channel === channel && bearingScopes(scope).includes(row.scope))
    .map(bearing)
    .reduce<Marks>(joinMarks, {});
}

/** An address-wide row bears only with its no. */
function bearing(row: StateRow): Marks {
  const marks = marksOf(row);
  return row.supporter_id === 0 ? (marks.no ? { no: marks.no } : {}) : marks;
}

function questions(rows: readonly StateRow[]): [Channel, Scope, number[]][] {
  const byQuestion = new Map<string, [Channel, Scope, number[]]>();
  for (const row of rows) {
    const key = `${row.channel}:${row.scope}`;
    const points = [...new Set(rows.filter((other) => other.channel === row.channel).map((other) => other.contact_point_id))];
    if (!byQuestion.has(key)) byQuestion.set(key, [row.channel, row.scope, points]);
  }
  return [...byQuestion.values()];
}

/** The one word for a channel in a table: No where everything is refused, else the best of what any scope allows. */
export function channelWord(standings: readonly PersonStanding[], channel: Channel): PermissionState {
  const own = standings.filter((one) => one.channel === channel);
  if (own.some((one) => one.scope === 'all' && one.state === 'no') && !own.some((one) => one.state === 'yes')) return 'no';
  return own.reduce<PermissionState>((best, one) => (RANK[one.state] > RANK[best] ? one.state : best), 'never');
}
