import { said, type Said } from '../common';
import { kinship, type NameKinship, type PersonName } from './names';

/**
 * What may say by itself that a row is somebody already here (or earlier in the file), where the names agree;
 * the order can be chosen. A name and a postcode alone never do: two people may have both.
 */
export const MATCH_KEYS = ['email', 'mobile', 'externalId'] as const;
export type MatchKey = (typeof MATCH_KEYS)[number];

/**
 * Found by an exact key, by the email without dots and plus part, or in the same postcode under a like name.
 */
export type FoundBy = MatchKey | 'looseEmail' | 'nearby';

/** Someone at something that the row has too. People of earlier rows go under minus their row number. */
export interface Candidate extends PersonName {
  id: number;
  by: FoundBy;
}

/** Why a row may be someone, for settling all of a kind in one stroke. */
export const DOUBT_KINDS = [
  'two-people',
  'other-name-same-id',
  'same-name',
  'short-form',
  'initial',
  'transposed',
  'alike',
  'loose-email',
] as const;
export type DoubtKind = (typeof DOUBT_KINDS)[number];

/** Somebody whom a row may be, by what they were found and how surely. */
export interface Scored {
  id: number;
  /** 0 to 100. */
  score: number;
  reasons: Said[];
}

/** What a row meets: one person surely, several perhaps, or people who only share an address. */
export type Match =
  | { kind: 'new' }
  /** A new person at an address that others have: a household. */
  | { kind: 'shares' }
  | { kind: 'same'; id: number; by: MatchKey }
  /** Perhaps one of these; a person decides. Best first. */
  | { kind: 'look'; why: DoubtKind; candidates: Scored[] };

/**
 * How much each thing in common counts; an own weighing, made so that a shared address with a misspelt name
 * (45 + 36) stands over a shared postcode with the same name (15 + 50), and neither postcode nor address
 * alone says anything.
 */
const POINTS_BY: Record<FoundBy, number> = {
  externalId: 60,
  email: 45,
  mobile: 40,
  looseEmail: 35,
  nearby: 15,
};
const POINTS_NAME: Record<NameKinship, number> = {
  same: 50,
  transposed: 40,
  'short-form': 38,
  alike: 36,
  initial: 30,
  partly: 25,
  other: -30,
};

/** From here on a likely double is worth a look. */
const WORTH_A_LOOK = 50;

interface Person extends PersonName {
  id: number;
  by: Set<FoundBy>;
  kinship: NameKinship;
  score: number;
}

function people(row: PersonName, candidates: readonly Candidate[]): Person[] {
  const found = new Map<number, Person>();
  for (const candidate of candidates) {
    const known = found.get(candidate.id);
    if (known) known.by.add(candidate.by);
    else
      found.set(candidate.id, {
        ...candidate,
        by: new Set([candidate.by]),
        kinship: kinship(row, candidate),
        score: 0,
      });
  }
  for (const person of found.values()) person.score = scoreOf(person);
  return [...found.values()].sort(
    (a, b) => b.score - a.score || fullness(row, b) - fullness(row, a) || a.id - b.id,
  );
}

/** What was found by the exact form of something counts once. */
function waysOf(by: ReadonlySet<FoundBy>): FoundBy[] {
  return [...by].filter((one) => !(one === 'looseEmail' && by.has('email')));
}

function scoreOf({ by, kinship: name }: Person): number {
  const points = waysOf(by).reduce((sum, one) => sum + POINTS_BY[one], 0) + POINTS_NAME[name];
  return Math.max(0, Math.min(100, points));
}

/** An agreeing full name beats an agreeing part. */
function fullness(row: PersonName, person: PersonName): number {
  return (
    Number(person.firstName !== '' && row.firstName !== '') +
    Number(person.lastName !== '' && row.lastName !== '')
  );
}

function scored(some: readonly Person[]): Scored[] {
  return some.slice(0, 5).map(({ id, by, kinship: name, score }) => ({
    id,
    score,
    reasons: [...waysOf(by).map((one) => said(`same.${one}`)), said(`name.${name}`)],
  }));
}

/** Whether an exact key with this name settles that it is the same person. */
function settles(key: MatchKey, { by, kinship: name }: Person): boolean {
  return by.has(key) && (name === 'same' || name === 'partly');
}

/**
 * Who a row is, given everybody found by what it has. The first key of the order that finds somebody with an
 * agreeing name decides; the same address under a plainly different name is someone who shares it. Whatever
 * lies between is never decided by itself: two keys that find two people, a short form, an initial, changed
 * places, a misspelling.
 */
export function matchRow(
  row: PersonName,
  candidates: readonly Candidate[],
  order: readonly MatchKey[] = MATCH_KEYS,
): Match {
  if (candidates.length === 0) return { kind: 'new' };
  const found = people(row, candidates);
  const settled = order.flatMap((key) =>
    found
      .filter((person) => settles(key, person))
      .slice(0, 1)
      .map((person) => ({ key, person })),
  );
  const first = settled[0];
  if (first) {
    const ids = new Set(settled.map(({ person }) => person.id));
    if (ids.size === 1) return { kind: 'same', id: first.person.id, by: first.key };
    // Somebody whom every key finds is meant, also where an address is shared with a namesake.
    const all = found.find((person) => settled.every(({ key }) => settles(key, person)));
    if (all) return { kind: 'same', id: all.id, by: first.key };
    return {
      kind: 'look',
      why: 'two-people',
      candidates: scored(found.filter((person) => ids.has(person.id))),
    };
  }
  return unsettled(found, order);
}

function unsettled(found: readonly Person[], order: readonly MatchKey[]): Match {
  const sameId = order.includes('externalId')
    ? found.find((person) => person.by.has('externalId'))
    : undefined;
  if (sameId)
    return {
      kind: 'look',
      why: 'other-name-same-id',
      candidates: scored([sameId, ...found.filter((one) => one !== sameId)]),
    };
  const likely = found.filter((person) => person.score >= WORTH_A_LOOK && person.kinship !== 'other');
  const best = likely[0];
  if (best) return { kind: 'look', why: whyLook(best), candidates: scored(likely) };
  const shares = found.some((person) => person.by.has('email') || person.by.has('mobile'));
  return { kind: shares ? 'shares' : 'new' };
}

function whyLook({ kinship: name, by }: Person): DoubtKind {
  if (name !== 'same' && name !== 'partly' && name !== 'other') return name;
  return by.has('looseEmail') ? 'loose-email' : 'same-name';
}
