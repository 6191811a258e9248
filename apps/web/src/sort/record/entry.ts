import type { ContactPointView } from '@goodword/core/contract';
import {
  RELATIONSHIPS,
  type Channel,
  type RecordedState,
  type CollectionMethod,
} from '@goodword/core/permission';

/** What can be recorded by hand of one person. */
export const HAND_STATES = ['yes', 'no', 'implied', 'pause'] as const satisfies readonly RecordedState[];
export type HandState = (typeof HAND_STATES)[number];

/** Channels of a kind of address; nothing implies a text. */
export function channelsFor(kind: ContactPointView['kind'], state: HandState): readonly Channel[] {
  if (kind === 'email') return ['email'];
  if (kind === 'post') return ['post'];
  return state === 'implied' ? ['call'] : ['text', 'call'];
}

/** How it can have come about: said somehow, or, for an implied permission, by a relationship. */
export function roadsFor(state: HandState): readonly CollectionMethod[] {
  return state === 'implied' ? RELATIONSHIPS : ['phone', 'paper', 'in-person', 'reply'];
}

/** The value as it stands where it is still one of those offered, else the first of them. */
export function kept<T extends string>(value: string, offered: readonly T[]): T {
  return offered.find((one) => one === value) ?? offered[0]!;
}
