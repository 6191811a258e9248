import type { Instant } from '../common';
import { marksFor, type Mark, type Marks } from './fold';
import { mayWrite, type HouseRules } from './house-rules';
import { isListScope, type Channel, type PermissionEntry, type PermissionState, type Scope } from './vocabulary';

/** The state at one moment and the entry it rests on (null for "never asked"). */
export interface Standing {
  state: PermissionState;
  entryId: number | null;
  /** Last moment of an implied permission. */
  until?: Instant;
}

/**
 * The state that marks come to at a moment. A no stands until the person's own express agreement, strictly later;
 * agreement by any source outranks an implied permission, that outranks a question still open.
 */
export function standing(marks: Marks, now: Instant): Standing {
  if (marks.no && !(marks.ownYes && marks.ownYes.at > marks.no.at)) return { state: 'no', entryId: marks.no.entryId };
  if (marks.yes) return { state: 'yes', entryId: yesEntry(marks).entryId };
  if (marks.implied && marks.implied.at >= now) {
    return { state: 'implied', entryId: marks.implied.entryId, until: marks.implied.at };
  }
  if (marks.asked) return { state: 'asked', entryId: marks.asked.entryId };
  return { state: 'never', entryId: null };
}

/** After a no, the agreement rests on what the person said themselves; otherwise on the latest agreement. */
function yesEntry(marks: Marks): Mark {
  return marks.no ? marks.ownYes! : marks.yes!;
}

/**
 * Why somebody in the group does not get a message, in the fixed order in which reasons are tried. Each person counts
 * under the first that holds.
 */
export const HELD_REASONS = ['no-address', 'do-not-contact', 'said-no', 'on-hold', 'asked', 'no-permission', 'shared-address'] as const;
export type HeldReason = (typeof HELD_REASONS)[number];
export type Verdict = 'send' | HeldReason;

/** One address of a person on the channel in question, best first. */
export interface Address {
  contactPointId: number;
  onHold: boolean;
  doNotContact: boolean;
}

export interface Decision {
  verdict: Verdict;
  contactPointId: number | null;
  state: PermissionState;
  entryId: number | null;
}

/**
 * Decides for a person, a channel, a scope and a moment, and says what the verdict rests on. The first address that
 * may be written to is taken; where there is none, the reason is that of the first address.
 *
 * Whether somebody else in the group already gets the copy of a shared address is not a matter of one person: see
 * {@link oneCopyPerAddress}.
 */
export function decide(input: {
  supporterId: number;
  channel: Channel;
  scope: Scope;
  now: Instant;
  addresses: readonly Address[];
  entries: readonly PermissionEntry[];
  rules: HouseRules;
}): Decision {
  const decisions = input.addresses.map((address) => decideAt(address, input));
  return (
    decisions.find((decision) => decision.verdict === 'send') ??
    decisions[0] ?? { verdict: 'no-address', contactPointId: null, state: 'never', entryId: null }
  );
}

function decideAt(address: Address, input: Parameters<typeof decide>[0]): Decision {
  const { contactPointId } = address;
  const marks = marksFor(input.entries, { contactPointId, supporterId: input.supporterId, channel: input.channel, scope: input.scope });
  const { state, entryId } = standing(marks, input.now);
  return { verdict: verdictOf(address, state, input), contactPointId, state, entryId };
}

function verdictOf(address: Address, state: PermissionState, input: { channel: Channel; scope: Scope; rules: HouseRules }): Verdict {
  if (address.doNotContact) return 'do-not-contact';
  if (state === 'no') return 'said-no';
  if (address.onHold) return 'on-hold';
  const purpose = isListScope(input.scope) || input.scope === 'all' ? 'lists' : input.scope;
  if (mayWrite(input.rules, input.channel, purpose, state)) return 'send';
  return state === 'asked' ? 'asked' : 'no-permission';
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
