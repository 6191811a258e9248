import Joi from 'joi';
import type { FormDefinition } from '../forms';
import type { Channel } from '../permission';
import type { EntryView, ConsentStatusView } from './generated';

/** An entry with all that shows it: a teammate's view of it, and what stood around it. */
export interface EvidenceEntry extends EntryView {
  /**
   * Said by somebody else who has this address: what they said in their own words is not in this person's
   * file.
   */
  byAnother: boolean;
  recordedAt: string;
  /** Address of origin on the web. */
  origin: string | null;
  /** Address of the page it was said on. */
  page: string | null;
  /** The form and its version; how it looked stands in `forms`. */
  form: { id: number; version: number } | null;
  /** Where the person was then, and what the rule of that place asked for, then. */
  place: string;
  rule: string;
  sentOnItsStrength: { message: string; channel: Channel; at: string | null; outcome: string }[];
}

/** One message to the person: what it rested on where it left, and why not where it did not. */
export interface EvidenceDelivery {
  message: string;
  channel: Channel;
  address: string | null;
  at: string | null;
  outcome: string;
  entryId: number | null;
  why: string;
}

/**
 * One person's file of permission, for anyone who asks: each thing they said, with its words and all that
 * stood around it, what they were sent and what that rested on, and what changed meanwhile. Moments are ISO
 * 8601 in UTC. It holds nothing of others who share an address, but that it was closed there.
 */
export interface PermissionReport {
  organization: string;
  madeAt: string;
  supporter: {
    id: number;
    name: string;
    place: string;
    erasedAt: string | null;
    /** Of somebody erased: a keyed hash in place of each address. */
    addresses: { kind: 'email' | 'mobile' | 'post'; shown: string; onHold: boolean }[];
  };
  /** At each address on its own. */
  consent: (ConsentStatusView & { address: string | null })[];
  entries: EvidenceEntry[];
  forms: { id: number; version: number; name: string; madeAt: string; definition: FormDefinition }[];
  sent: EvidenceDelivery[];
  notSent: EvidenceDelivery[];
  confirmations: { channel: Channel; address: string; at: string; words: string; outcome: string }[];
  paper: { what: string; at: string; by: string | null }[];
  calls: {
    list: string;
    at: string | null;
    outcome: string | null;
    by: string | null;
    suppressed: string | null;
  }[];
  replies: { channel: Channel; at: string; words: string; readAs: string }[];
  holds: {
    address: string;
    at: string;
    reason: string;
    releasedAt: string | null;
    releasedBy: string | null;
    why: string | null;
  }[];
  questions: {
    words: string;
    at: string;
    settledAt: string | null;
    settledBy: string | null;
    outcome: string | null;
  }[];
  places: { place: string; until: string; by: string | null }[];
  addressChanges: { from: string; to: string; at: string }[];
}

/** Query: an address or number to look up, as somebody typed it. */
export const addressQuery = Joi.object({ address: Joi.string().trim().min(3).max(254).required() });
