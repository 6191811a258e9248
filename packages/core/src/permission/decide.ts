import type { Instant } from '../common';
import { marksFor, type Mark, type Marks } from './fold';
import { askedFor, lapseOf, mayWrite, rulesFor, type HouseRules, type PlaceRules } from './house-rules';
import type { Place } from './places';
import { RELATIONSHIPS, type Channel, type PermissionEntry, type PermissionState, type Scope } from './vocabulary';

const DAY_MS = 86_400_000;

/** The state at one moment and the entry it rests on (null for "never asked"). */
export interface Standing {
  state: PermissionState;
  entryId: number | null;
  /** Last moment of an implied permission. */
  until?: Instant;
}

/**
 * The state that marks come to at a moment, by the rules of a place. A no stands until the person's own express
 * agreement, strictly later; agreement by any source outranks an implied permission, that outranks a question still open.
 */
export function standing(marks: Marks, now: Instant, rules: PlaceRules): Standing {
  if (marks.no && !(marks.ownYes && marks.ownYes.at > marks.no.at)) return { state: 'no', entryId: marks.no.entryId };
  // After a no, the agreement rests on what the person said themselves; otherwise on the latest agreement.
  const yes = marks.no ? marks.ownYes : marks.yes;
  if (yes) return { state: 'yes', entryId: yes.entryId };
  const implied = impliedBy(marks, rules);
  if (implied && implied.at >= now) return { state: 'implied', entryId: implied.entryId, until: implied.at };
  if (marks.asked) return { state: 'asked', entryId: marks.asked.entryId };
  return { state: 'never', entryId: null };
}

/** The implied permission that lasts longest, its last moment as `at`; the first in the order of the marks among equals. */
function impliedBy(marks: Marks, rules: PlaceRules): Mark | undefined {
  const from = rules.impliedFrom === null ? -Infinity : Date.parse(rules.impliedFrom);
  let best = marks.stated;
  for (const relationship of RELATIONSHIPS) {
    const [mark, months] = [marks[relationship], rules.lasts[relationship]];
    if (!mark || months === null || mark.at < from) continue;
    const at = lapseOf(mark.at, months);
    if (!best || at > best.at) best = { at, entryId: mark.entryId };
  }
  return best;
}

/**
 * Why somebody in the group does not get a message, in the fixed order in which reasons are tried. Each person counts
 * under the first that holds.
 */
export const HELD_REASONS = [
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
export type HeldReason = (typeof HELD_REASONS)[number];
export type Verdict = 'send' | HeldReason;

/** One address of a person on the channel in question, best first. */
export interface Address {
  contactPointId: number;
  onHold: boolean;
  doNotContact: boolean;
  /** A line that takes no texts; it is no address at all for them. */
  landline?: boolean;
}

export interface Decision {
  verdict: Verdict;
  contactPointId: number | null;
  state: PermissionState;
  entryId: number | null;
}

/** What is asked: a person, a channel, a scope and a moment, with all that is known of them. */
export interface Question {
  supporterId: number;
  channel: Channel;
  scope: Scope;
  now: Instant;
  place: Place;
  addresses: readonly Address[];
  entries: readonly PermissionEntry[];
  /** Moments of the messages on this channel that the person got already and that count for the cap. */
  recent: readonly Instant[];
  rules: HouseRules;
}

/**
 * Decides for a person, a channel, a scope and a moment, and says what the verdict rests on. The first address that
 * may be written to is taken; where there is none, the reason is that of the first address.
 *
 * Whether somebody else in the group already gets the copy of a shared address is not a matter of one person: see
 * {@link oneCopyPerAddress}.
 */
export function decide(question: Question): Decision {
  const { supporterId, channel, scope, entries } = question;
  const { until: _until, ...decision } = decideBy(question, (contactPointId) => marksFor(entries, { contactPointId, supporterId, channel, scope }));
  return decision;
}

/** As {@link decide}, from the marks that bear at each address, where they were folded before; with the last moment of an implied permission. */
export function decideBy(question: Omit<Question, 'entries'>, marksAt: (contactPointId: number) => Marks): Decision & { until: Instant | null } {
  const rules = rulesFor(question.rules, question.place);
  const enough = hadEnough(question, rules);
  let first: (Decision & { until: Instant | null }) | undefined;
  for (const address of question.addresses) {
    if (address.landline && question.channel === 'text') continue;
    const marks = marksAt(address.contactPointId);
    const { state, entryId, until = null } = standing(marks, question.now, rules);
    const verdict = verdictOf(address, state, marks, question, rules, enough);
    const decision = { verdict, contactPointId: address.contactPointId, state, entryId, until };
    if (verdict === 'send') return decision;
    first ??= decision;
  }
  return first ?? { verdict: 'no-address', contactPointId: null, state: 'never', entryId: null, until: null };
}

/** Whether the cap of the place is reached. It counts from exactly so many days before this moment, that moment left out. */
function hadEnough(question: Omit<Question, 'entries'>, rules: PlaceRules): boolean {
  const cap = question.scope === 'service' ? null : rules.caps[question.channel];
  if (!cap) return false;
  const since = question.now - cap.days * DAY_MS;
  return question.recent.filter((at) => at > since).length >= cap.messages;
}

function verdictOf(
  address: Address,
  state: PermissionState,
  marks: Marks,
  question: Omit<Question, 'entries'>,
  rules: PlaceRules,
  enough: boolean,
): Verdict {
  if (address.doNotContact) return 'do-not-contact';
  if (state === 'no') return 'said-no';
  if (address.onHold) return 'on-hold';
  if (!mayWrite(rules, question.channel, askedFor(question.scope), state)) return state === 'asked' ? 'asked' : 'no-permission';
  if (question.scope !== 'service' && isPaused(marks, question.now)) return 'paused';
  return enough ? 'had-enough' : 'send';
}

/** A pause lasts through its last moment; a newer one that ends earlier ends it. */
export function isPaused(marks: Marks, now: Instant): boolean {
  return (marks.pause?.until ?? -Infinity) >= now;
}

/**
 * Whether what somebody typed into a form must be confirmed before it counts: where the rule or the form asks for it,
 * and wherever an address has said no, since somebody else may have typed it. A keyword comes from the phone itself.
 */
export function mustConfirm(act: {
  how: 'form' | 'keyword';
  channel: Channel;
  states: readonly PermissionState[];
  formAsks: boolean;
  rules: PlaceRules;
}): boolean {
  if (act.how === 'keyword' || act.states.every((state) => state === 'yes')) return false;
  const byRule = (act.channel === 'email' && (act.formAsks || act.rules.confirm.email)) || (act.channel === 'text' && act.rules.confirm.text);
  return byRule || act.states.includes('no');
}

/**
 * Whether a request to confirm may go to an address: only after the person has just acted, once and one reminder. A
 * confirmation is the one thing that may go to somebody Asked. By email also to an address that had left, since acting
 * anew is how people come back; by text never after a STOP, which only a text from that phone lifts (START).
 */
export function mayAskToConfirm(ask: {
  channel: Channel;
  address: Pick<Address, 'onHold' | 'doNotContact'>;
  saidNo: boolean;
  sentBefore: number;
}): boolean {
  if (ask.address.onHold || ask.address.doNotContact || ask.sentBefore >= 2) return false;
  return ask.channel === 'email' || (ask.channel === 'text' && !ask.saidNo);
}

/**
 * One copy per address: of the people who would be written to at the same address, the one with the lowest id keeps
 * the message and the others are held back as sharing it. Expects decisions in rising order of supporter id.
 */
export function oneCopyPerAddress<T extends Decision>(decisions: readonly T[]): T[] {
  const taken = new Set<number>();
  return decisions.map((decision) => {
    if (decision.verdict !== 'send' || decision.contactPointId === null) return decision;
    if (taken.has(decision.contactPointId)) return { ...decision, verdict: 'shared-address' as const };
    taken.add(decision.contactPointId);
    return decision;
  });
}
