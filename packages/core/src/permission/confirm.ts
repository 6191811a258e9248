import type { Instant } from '../common';
import { isConfirmable, type Channel } from './channels';
import { isOpen, isOptedOut, type AddressFlags } from './decide';
import type { PlaceRules } from './house-rules';
import type { Marks } from './fold';
import type { PermissionState } from './vocabulary';

const DAY_MS = 86_400_000;
/** Requests to one mailbox until it answers, the reminder included. */
export const MOST_REQUESTS = 2;
/** How long after a request nobody who had said no is asked again. */
export const QUIET_DAYS_AFTER_NO = 30;

/**
 * Whether what somebody typed into a form must be confirmed before it counts. Anyone can type anybody's
 * address, so the rule asks for it in every preset unless the visit proves whose it is; after a no always. A
 * keyword comes from the phone itself.
 */
export function mustConfirm(act: {
  how: 'form' | 'keyword';
  channel: Channel;
  states: readonly PermissionState[];
  /** The visit proves that the address is theirs: it was opened from a mail to it, say. */
  proven: boolean;
  formAsks: boolean;
  rules: PlaceRules;
}): boolean {
  if (act.how === 'keyword' || act.states.every((state) => state === 'yes')) return false;
  if (act.states.includes('no')) return true;
  return !act.proven && (act.formAsks || asksToConfirm(act.rules, act.channel));
}

/** Whether the rule of a place asks to confirm what a form says of a channel. */
export function asksToConfirm(rules: PlaceRules, channel: Channel): boolean {
  return isConfirmable(channel) && rules.confirm[channel];
}

/** What is known when a request to confirm is about to go. */
export interface ConfirmationRequest {
  channel: Channel;
  address: Omit<AddressFlags, 'contactPointId'>;
  now: Instant;
  /** Marks of everything on the channel that bear at the address, for this person. */
  marks: Marks;
  /**
   * Moments of requests to this mailbox or number that were not answered, by whatever form, reminders
   * included.
   */
  unanswered: readonly Instant[];
  /** Moments of all requests, answered or not. */
  all: readonly Instant[];
  isReminder: boolean;
  /** They asked never to be asked again. */
  neverAgain: boolean;
}

/**
 * Whether a request to confirm may go to an address. It is the one thing that may go to somebody Asked: at
 * most twice until it is answered, whatever forms were posted. By email also to an address that had left,
 * since acting anew is how people come back: once, without a reminder, and not again within 30 days. Never by
 * text to a number that has stopped us, which only a text from that phone lifts (START).
 */
export function mayAskToConfirm(request: ConfirmationRequest): boolean {
  const { address, now } = request;
  if (!isOpen(address) || request.neverAgain) return false;
  // A call is asked for by text as well.
  if (address.landline && request.channel !== 'email') return false;
  if (request.unanswered.length >= MOST_REQUESTS) return false;
  if (!isOptedOut(request.marks)) return true;
  if (request.channel !== 'email' || request.isReminder) return false;
  return request.all.every((at) => at <= now - QUIET_DAYS_AFTER_NO * DAY_MS);
}

/** Whether a request that was made at a moment still stands: whoever says no after it has answered it. */
export function requestStands(askedAt: Instant, marks: Marks): boolean {
  return Math.max(marks.no?.at ?? -Infinity, marks.stop?.at ?? -Infinity) <= askedAt;
}

/**
 * What a yes that a file vouches for becomes at one address: Asked where the people signed up themselves a
 * short while ago, are to confirm it, and neither agreed to this nor refused anything on the channel; else
 * Yes. Where a no stands the yes is written down and lifts nothing.
 */
export function vouchedState(claim: {
  toConfirm: boolean;
  saidAt: Instant;
  now: Instant;
  withinDays: number;
  address: Pick<AddressFlags, 'onHold' | 'doNotContact'>;
  /** Marks that bear on the scope. */
  marks: Marks;
  /** Marks that bear on anything on the channel. */
  channel: Marks;
}): 'yes' | 'asked' {
  const recent = claim.saidAt >= claim.now - claim.withinDays * DAY_MS;
  const refused = claim.channel.no !== undefined || claim.channel.stop !== undefined;
  return claim.toConfirm && recent && isOpen(claim.address) && !refused && !claim.marks.yes ? 'asked' : 'yes';
}
