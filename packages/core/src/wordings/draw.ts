import { mixed } from '../common';

/** Not drawn: waits for what is decided. */
export const REST = -1;

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
