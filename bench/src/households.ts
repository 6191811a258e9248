import type {
  PermissionEntry,
  Place,
  RecordedState,
  CollectionMethod,
  Scope,
} from '@goodword/core/permission';

/** One person of an invented household, with all that a decision about them needs. */
export interface Member {
  id: number;
  place: Place;
  /** Contact points, best first. */
  points: number[];
}

export interface BenchHousehold {
  members: Member[];
  points: { id: number; onHold: boolean; doNotContact: boolean }[];
  entries: PermissionEntry[];
}

const DAY = 86_400_000;
const PLACES: Place[] = [
  { country: null, region: null },
  { country: 'US', region: null },
  { country: 'US', region: 'FL' },
  { country: 'CA', region: 'QC' },
  { country: 'GB', region: null },
  { country: 'FR', region: null },
  { country: 'NZ', region: null },
];
const SCOPES: Scope[] = ['appeals', 'appeals', 'appeals', 'news', 'marketing', 'all'];
const SAYINGS: [RecordedState, CollectionMethod, boolean][] = [
  ['yes', 'file', false],
  ['yes', 'form', true],
  ['yes', 'paper', true],
  ['no', 'one-click', true],
  ['no', 'file', false],
  // Said without an address, so that it holds at every one.
  ['no', 'phone', true],
  ['no', 'reply', true],
  ['asked', 'form', true],
  ['implied', 'gift', false],
  ['implied', 'gift', false],
  ['implied', 'membership', false],
  ['implied', 'inquiry', false],
  ['implied', 'file', false],
  ['pause', 'preferences', true],
];

/** A small generator (mulberry32): the same numbers for the same seed. */
function chance(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Invented households one after the other, with ids that count up; at least `people` people in all. */
export function* households(people: number, now: number, seed = 1847): Generator<BenchHousehold> {
  const next = chance(seed);
  const pick = <T>(list: readonly T[]) => list[Math.floor(next() * list.length)]!;
  let [person, point, entry] = [0, 0, 0];
  while (person < people) {
    const size = next() < 0.9 ? 1 : 2;
    const points = Array.from({ length: next() < 0.03 ? 0 : next() < 0.95 ? 1 : 2 }, () => ({
      id: (point += 1),
      onHold: next() < 0.02,
      doNotContact: next() < 0.01,
    }));
    const members = Array.from({ length: size }, () => ({
      id: (person += 1),
      place: pick(PLACES),
      points: points.map((one) => one.id),
    }));
    const entries: PermissionEntry[] = [];
    for (const { id } of points) {
      for (const member of members) {
        for (let n = Math.floor(next() * 3.2); n > 0; n--) {
          const [state, how, byPerson] = pick(SAYINGS);
          // Days about which gifts and inquiries lapse, and few enough that moments meet.
          const at = now - Math.floor(next() * 800) * DAY - Math.floor(next() * 3) * 1000;
          entries.push({
            id: (entry += 1),
            contactPointId: how === 'phone' ? null : id,
            supporterId: member.id,
            channel: 'email',
            scope: pick(SCOPES),
            state,
            at,
            until: state === 'implied' || state === 'pause' ? now + Math.floor(next() * 60 - 30) * DAY : null,
            how,
            byPerson,
          });
        }
      }
    }
    yield { members, points, entries };
  }
}
