import { said, type Instant, type Said } from '../common';
import type { Channel } from './channels';

/** What a message can be for. Service is the consequence of a person's own act. */
export const PURPOSES = ['news', 'appeals', 'volunteering', 'service'] as const;
export type Purpose = (typeof PURPOSES)[number];

/**
 * What a permission is for: everything on the channel, everything but service messages (what an objection
 * under GDPR art. 21(2) closes), one purpose, or one public list.
 */
export type Scope = 'all' | 'marketing' | Purpose | `list:${number}`;

/** States of permission, from a yes to a no. */
export const STATES = ['yes', 'implied', 'asked', 'never', 'no'] as const;
export type PermissionState = (typeof STATES)[number];

/**
 * What an entry can record: the states but "never", which is the absence of entries; a pause, which changes
 * no state and holds everything but service messages until its last moment; that a number opens again what
 * its STOP closed; and that an earlier entry is taken back, since entries are never removed.
 */
export const RECORDED_STATES = ['yes', 'implied', 'asked', 'no', 'pause', 'start', 'back'] as const;
export type RecordedState = (typeof RECORDED_STATES)[number];

/** What somebody did that the law of a place may take as agreement for a while. */
export const RELATIONSHIPS = ['gift', 'membership', 'volunteering', 'inquiry'] as const;
export type Relationship = (typeof RELATIONSHIPS)[number];

/** How an entry came about. */
export const COLLECTION_METHODS = [
  'file',
  'paper',
  'form',
  'phone',
  'in-person',
  'reply',
  'one-click',
  'keyword',
  'preferences',
  'objection',
  'complaint',
  ...RELATIONSHIPS,
  'hand',
  'feed',
] as const;
export type CollectionMethod = (typeof COLLECTION_METHODS)[number];

/**
 * Ways in which a person says by hand of a teammate what they agreed to: each is an act of their own, with
 * evidence.
 */
export const HAND_EVIDENCE = [
  'paper',
  'phone',
  'in-person',
  'reply',
  'form',
] as const satisfies readonly CollectionMethod[];

/** Ways in which nobody says anything about themselves: they never lift a no, whoever records them. */
export const THIRD_PARTY = [
  'file',
  'feed',
  'hand',
  'complaint',
  ...RELATIONSHIPS,
] as const satisfies readonly CollectionMethod[];

/**
 * One act of record, never changed once written. `byPerson` is true where the person acted themselves (form,
 * reply, one-click, keyword) or one person was recorded by hand with dated evidence of it; false for files,
 * feeds and gifts.
 */
export interface PermissionEntry {
  id: number;
  /**
   * The address that it was said through; null for what was said without one, which holds at every address.
   */
  contactPointId: number | null;
  /** The person who said it; null where only the address is known. */
  supporterId: number | null;
  channel: Channel;
  scope: Scope;
  state: RecordedState;
  at: Instant;
  /**
   * Last moment of a pause, or of an implied permission that is not a relationship's: how long those last is
   * a house rule, so it is decided when it is asked and not written down.
   */
  until?: Instant | null;
  how: CollectionMethod;
  byPerson: boolean;
}

/** Whether a scope is one list: `list:<id>`. */
export function isListScope(scope: Scope): scope is `list:${number}` {
  return scope.startsWith('list:');
}

/** What a scope is called; lists by their names, which are unknown where they are gone. */
export function scopeSaid(scope: Scope, listName: (id: number) => string | undefined): Said | string {
  if (scope === 'all' || scope === 'marketing') return said(`scope.${scope}`);
  if (!isListScope(scope)) return said(`purpose.${scope}`);
  return listName(Number(scope.slice('list:'.length))) ?? said('scope.deleted');
}

/** Whether a text is a scope: a purpose, `list:<id>`, `marketing` or `all`. */
export function isScope(text: string): text is Scope {
  return (
    text === 'all' ||
    text === 'marketing' ||
    (PURPOSES as readonly string[]).includes(text) ||
    /^list:\d+$/.test(text)
  );
}

/**
 * Whether a collection method is a relationship (a gift, membership, inquiry): it implies, and nobody said
 * it.
 */
export function isRelationship(how: CollectionMethod): how is Relationship {
  return (RELATIONSHIPS as readonly string[]).includes(how);
}

/** The scopes whose entries bear on a question, widest last. */
export function bearingScopes(scope: Scope): Scope[] {
  if (scope === 'all') return ['all'];
  return scope === 'service' || scope === 'marketing' ? [scope, 'all'] : [scope, 'marketing', 'all'];
}
