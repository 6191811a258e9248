import type { Instant } from '../common';

export const CHANNELS = ['email', 'text', 'call', 'post'] as const;
export type Channel = (typeof CHANNELS)[number];

/** Channels that this program hands messages over on. */
export const SENDING_CHANNELS = ['email', 'text'] as const;
export type SendingChannel = (typeof SENDING_CHANNELS)[number];

export const PURPOSES = ['news', 'appeals', 'volunteering', 'service'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** What a permission is for: everything on the channel, one purpose, or one public list. */
export type Scope = 'all' | Purpose | `list:${number}`;

export const STATES = ['yes', 'implied', 'asked', 'never', 'no'] as const;
export type PermissionState = (typeof STATES)[number];

/** States that an entry can record; "never" is the absence of entries. */
export const RECORDED_STATES = ['yes', 'implied', 'asked', 'no'] as const;
export type RecordedState = (typeof RECORDED_STATES)[number];

/** How an entry came about. */
export const ROADS = ['file', 'paper', 'form', 'phone', 'in-person', 'reply', 'one-click', 'keyword', 'complaint', 'gift', 'hand', 'feed'] as const;
export type Road = (typeof ROADS)[number];

/**
 * One act of record, never changed once written. `byPerson` is true where the person acted themselves (form, reply,
 * one-click, keyword) or one person was recorded by hand with dated evidence; false for files, feeds and gifts.
 */
export interface PermissionEntry {
  id: number;
  contactPointId: number;
  /** The person who said it; null where only the address is known. */
  supporterId: number | null;
  channel: Channel;
  scope: Scope;
  state: RecordedState;
  at: Instant;
  /** Last moment of an implied permission. */
  until?: Instant | null;
  byPerson: boolean;
}

export function isListScope(scope: Scope): scope is `list:${number}` {
  return scope.startsWith('list:');
}

export function isScope(text: string): text is Scope {
  return text === 'all' || (PURPOSES as readonly string[]).includes(text) || /^list:\d+$/.test(text);
}
