import { mixed } from '../common';

/** Not drawn: waits for what is decided. */
export const REST = -1;

/** Of a hundred people at least and at most so many can be kept without a message. */
export const KEPT_LIMITS = { least: 1, most: 50 } as const;

/**
 * Whether somebody is kept without a message, so that it is seen what the message itself did: `share` of a
 * hundred are. The same person is always drawn alike with the same seed.
 */
export function isKept(personId: number, { seed, share }: { seed: number; share: number }): boolean {
  return (mixed(seed, personId) / 2 ** 32) * 100 < share;
}

/**
 * Which of so many wordings somebody gets first, 0 for the first, or `REST`. The same person is always drawn
 * alike with the same seed, whenever and in whatever order it is asked.
 */
export function drawnFor(
  personId: number,
  { seed, share, wordings }: { seed: number; share: number; wordings: number },
): number {
  const at = (mixed(seed, personId) / 2 ** 32) * 100;
  return at < share ? Math.min(wordings - 1, Math.floor((at / share) * wordings)) : REST;
}
