import type { Instant } from '../common';
import type { Channel } from './channels';
import { foldEntries, marksFor, type Cell, type Mark, type Marks } from './fold';
import { rulePurposeOf, lapseOf, mayWrite, rulesFor, type HouseRules, type PlaceRules } from './house-rules';
import { placeAt, type PastPlace, type Place } from './places';
import { RELATIONSHIPS, type PermissionEntry, type PermissionState, type Scope } from './vocabulary';

const DAY_MS = 86_400_000;

/** The state at one moment and the entry it rests on (null for "never asked"). */
export interface ConsentStatus {
  state: PermissionState;
  entryId: number | null;
  /** Last moment of an implied permission. */
  until?: Instant;
}

/**
 * The rules that bear on one person: of the place where they are, and of the place where they were at a
 * moment.
 */
export interface RulesInForce {
  now: PlaceRules;
  at(moment: Instant): PlaceRules;
}

/** The rules for somebody who has always been where they are. */
export function steady(rules: PlaceRules): RulesInForce {
  return { now: rules, at: () => rules };
}

/** The rules that hold for a question: of the place, and of the places where somebody lived before. */
export function rulesInForce(
  rules: HouseRules,
  place: Place,
  before: readonly PastPlace[] = [],
): RulesInForce {
  const now = rulesFor(rules, place);
  return before.length === 0
    ? steady(now)
    : { now, at: (moment) => rulesFor(rules, placeAt(place, before, moment)) };
}

/**
 * The state that marks come to at a moment. A no stands until the person's own express agreement at the
 * address, strictly later; a STOP also until a later START from the number. Agreement by any source outranks
 * an implied permission, that outranks a question still open.
 */
export function consentStatus(marks: Marks, now: Instant, rules: RulesInForce): ConsentStatus {
  const no = isOptedOut(marks);
  if (no) return { state: 'no', entryId: no.entryId };
  const yes = marks.ownYes ?? marks.yes;
  if (yes) return { state: 'yes', entryId: yes.entryId };
  const implied = impliedBy(marks, rules);
  if (implied && implied.at >= now) return { state: 'implied', entryId: implied.entryId, until: implied.at };
  if (marks.asked) return { state: 'asked', entryId: marks.asked.entryId };
  return { state: 'never', entryId: null };
}

/** The refusal that stands, the newest where there are two; none where it was lifted. */
export function isOptedOut(marks: Marks): Mark | undefined {
  const lifted = marks.ownYes?.at ?? -Infinity;
  const no = marks.no && marks.no.at >= lifted ? marks.no : undefined;
  const stop =
    marks.stop && marks.stop.at >= Math.max(lifted, marks.start?.at ?? -Infinity) ? marks.stop : undefined;
  if (!no || !stop) return no ?? stop;
  return stop.at > no.at ? stop : no;
}

/**
 * The implied permission that lasts longest, its last moment as `at`; the first in the order of the marks
 * among equals. A relationship must count where it began and where the person is now, and lasts as long as
 * the shorter of the two rules.
 */
function impliedBy(marks: Marks, rules: RulesInForce): Mark | undefined {
  let best = marks.stated;
  for (const relationship of RELATIONSHIPS) {
    const mark = marks[relationship];
    if (!mark) continue;
    const [here, there] = [rules.now, rules.at(mark.at)];
    const lapse = lapseBy(here, relationship, mark.at);
    const at = there === here ? lapse : Math.min(lapse, lapseBy(there, relationship, mark.at));
    if (at > (best?.at ?? -Infinity)) best = { at, entryId: mark.entryId };
  }
  return best;
}

/**
 * The last moment of a relationship by the rules of one place; -Infinity where it counts for nothing there.
 */
function lapseBy(rules: PlaceRules, relationship: (typeof RELATIONSHIPS)[number], began: Instant): Instant {
  const months = rules.lasts[relationship];
  if (months === null || (rules.impliedFrom !== null && began < Date.parse(rules.impliedFrom)))
    return -Infinity;
  return lapseOf(began, months);
}

/**
 * Why somebody in the group does not get a message, in the fixed order in which reasons are tried. Each
 * person counts under the first that holds. A new one has its place here and its line in `verdictOf`; then
 * the catalog asks for its words and the last look for its hint.
 */
export const SUPPRESSION_REASONS = [
  // Of a step of a campaign alone, and decided there (campaigns/falling-out.ts).
  'fell-out',
  'no-address',
  'do-not-contact',
  'said-no',
  'on-hold',
  'asked',
  'no-permission',
  'paused',
  'had-enough',
  'shared-address',
] as const;
/** Why somebody in a group does not get a message. */
export type SuppressionReason = (typeof SUPPRESSION_REASONS)[number];
/** Send, or the reason why not. */
export type Verdict = 'send' | SuppressionReason;

/** One address of a person on the channel in question, best first. */
export interface AddressFlags {
  contactPointId: number;
  onHold: boolean;
  doNotContact: boolean;
  /** A line that takes no texts; it is no address at all for them. */
  landline?: boolean;
  /** When this person last wrote to us from it, on the channel in question; a stop does not count. */
  wroteAt?: Instant;
}

/**
 * Whether anything at all may go to an address, such as what somebody asks for who holds a link of theirs.
 * What is asked of a person beyond that is decided by {@link decide}.
 */
export function isOpen({ onHold, doNotContact }: Pick<AddressFlags, 'onHold' | 'doNotContact'>): boolean {
  return !onHold && !doNotContact;
}

/** The verdict of one person for one message: at which address, resting on which entry. */
export interface Decision {
  verdict: Verdict;
  contactPointId: number | null;
  state: PermissionState;
  entryId: number | null;
  /** Last moment of an implied permission. */
  until: Instant | null;
}

/** What is asked: a person, a channel, a scope and a moment, with all that is known of them. */
export interface PermissionQuestion {
  supporterId: number;
  channel: Channel;
  scope: Scope;
  now: Instant;
  place: Place;
  /** Where they were before, oldest first. */
  before?: readonly PastPlace[];
  addresses: readonly AddressFlags[];
  /** Moments of the messages on this channel that the person got already and that count for the cap. */
  recent: readonly Instant[];
  /** It answers what they have just set going themselves; the cap does not hold it. */
  ownAct?: boolean;
  rules: HouseRules;
}

/**
 * Decides for a person, a channel, a scope and a moment, and says what the verdict rests on. The first
 * address that may be written to is taken; where there is none, the reason is that of the first address. The
 * only place where this is worked out: for one person, for a slice at the door, for the rows of a batch, for
 * a million in columns.
 *
 * `marksAt` gives the marks that bear at an address (see {@link marksFor}). Whether somebody else in the
 * group already
 * gets the copy of a shared address is not a matter of one person: see {@link oneCopyEach}.
 */
export function decide(question: PermissionQuestion, marksAt: (contactPointId: number) => Marks): Decision {
  const rules = rulesInForce(question.rules, question.place, question.before);
  const enough = hadEnough(question, rules.now);
  let first: Decision | undefined;
  for (const address of question.addresses) {
    if (address.landline && question.channel === 'text') continue;
    const marks = marksAt(address.contactPointId);
    const { state, entryId, until = null } = consentStatus(marks, question.now, rules);
    const verdict = verdictOf(address, state, marks, question, rules.now, enough);
    const decision = { verdict, contactPointId: address.contactPointId, state, entryId, until };
    if (verdict === 'send') return decision;
    first ??= decision;
  }
  return first ?? { verdict: 'no-address', contactPointId: null, state: 'never', entryId: null, until: null };
}

/** As {@link decide}, from cells of marks: the person's own, and those of everybody at their addresses. */
export function decideFromCells(question: PermissionQuestion, cells: readonly Cell[]): Decision {
  const { supporterId, channel, scope } = question;
  return decide(question, (contactPointId) =>
    marksFor(cells, { contactPointId, supporterId, channel, scope }),
  );
}

/** As {@link decide}, from entries that were not taken back. */
export function decideFromEntries(
  question: PermissionQuestion,
  entries: Iterable<PermissionEntry>,
): Decision {
  return decideFromCells(question, foldEntries(entries));
}

/**
 * Whether the cap of the place is reached. It counts from exactly so many days before this moment, that
 * moment left out.
 */
function hadEnough(question: PermissionQuestion, rules: PlaceRules): boolean {
  const cap = question.ownAct ? null : rules.caps[question.channel];
  if (!cap) return false;
  if (question.recent.length < cap.messages) return false;
  const since = question.now - cap.days * DAY_MS;
  return question.recent.filter((at) => at > since).length >= cap.messages;
}

function verdictOf(
  address: AddressFlags,
  state: PermissionState,
  marks: Marks,
  question: PermissionQuestion,
  rules: PlaceRules,
  enough: boolean,
): Verdict {
  if (address.doNotContact) return 'do-not-contact';
  if (state === 'no') return 'said-no';
  if (address.onHold) return 'on-hold';
  const allowed = mayWrite(rules, question.channel, rulePurposeOf(question.scope), state);
  if (!allowed && !isAnswer(address, question)) return state === 'asked' ? 'asked' : 'no-permission';
  if (question.scope !== 'service' && isPaused(marks, question.now)) return 'paused';
  return enough ? 'had-enough' : 'send';
}

/** So many days after somebody wrote to us an answer is one to what they have just asked. */
export const ANSWERED_WITHIN_DAYS = 7;

/** Whether what somebody wrote is so lately that what goes to them now may be an answer to it. */
export function hasJustWritten(wroteAt: Instant, now: Instant): boolean {
  return now - wroteAt <= ANSWERED_WITHIN_DAYS * DAY_MS;
}

/**
 * Whether it answers what the person has just written from this address: that is service, and needs no
 * permission beyond their asking. A no, a hold and do-not-contact come before it.
 */
function isAnswer({ wroteAt }: AddressFlags, { ownAct, scope, now }: PermissionQuestion): boolean {
  return Boolean(ownAct) && scope === 'service' && wroteAt !== undefined && hasJustWritten(wroteAt, now);
}

/** A pause lasts through its last moment; a newer one that ends earlier ends it. */
export function isPaused(marks: Marks, now: Instant): boolean {
  return (marks.pause?.until ?? -Infinity) >= now;
}

/** Where a copy goes: the address, and the household where one piece of paper is for all of it. */
export interface CopyPlace {
  contactPointId: number | null;
  /** Of a letter that is for a whole household; null where each gets their own. */
  householdId?: number | null;
}

/**
 * One copy: of the people who would be written to at the same address, or as one household by post, the one
 * with the lowest id keeps the message and the others are held back as sharing it. A household's letter is
 * for all of it wherever they get their post, and people at one address who are no household get one each: by
 * post an address alone says nothing of who lives with whom. `taken` holds the places that a copy goes to
 * already (households below zero); that of this verdict is added. To be asked in rising order of supporter
 * id.
 */
export function firstCopy(taken: Set<number>, channel: Channel, verdict: Verdict, place: CopyPlace): Verdict {
  const at = channel === 'post' ? -(place.householdId ?? 0) : place.contactPointId;
  if (verdict !== 'send' || !at) return verdict;
  if (taken.has(at)) return 'shared-address';
  taken.add(at);
  return 'send';
}

/** As {@link firstCopy}, for decisions in rising order of supporter id. */
export function oneCopyEach<T extends Pick<Decision, 'verdict'> & CopyPlace>(
  channel: Channel,
  decisions: readonly T[],
  taken = new Set<number>(),
): T[] {
  return decisions.map((decision) => ({
    ...decision,
    verdict: firstCopy(taken, channel, decision.verdict, decision),
  }));
}
