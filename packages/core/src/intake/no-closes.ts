import type { Scope } from '../permission';

/**
 * What a no in a consent column closes, from the least to all: what the column is about, all of its channel,
 * every channel.
 */
export const NO_CLOSES = ['agreed', 'channel', 'everything'] as const;
export type NoCloses = (typeof NO_CLOSES)[number];

/**
 * The scopes of its channel that a no in a consent column closes, where `scopes` are what people agreed to
 * there: all of the channel where nobody agreed to anything.
 */
export function closedScopes(no: NoCloses, scopes: readonly Scope[]): readonly Scope[] {
  return no === 'agreed' && scopes.length > 0 ? scopes : ['all'];
}
