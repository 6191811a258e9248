/** Not drawn: waits for what is decided. */
export const REST = -1;

/** 32 bits, as if by chance, of two numbers: the last rounds of MurmurHash3 (A. Appleby, public domain). */
function mixed(seed: number, n: number): number {
  let h = Math.imul(n ^ seed, 0x85ebca6b) ^ Math.imul(seed, 0xc2b2ae35);
  for (const by of [0x85ebca6b, 0xc2b2ae35]) {
    h ^= h >>> 16;
    h = Math.imul(h, by);
    h ^= h >>> 13;
  }
  return (h ^ (h >>> 16)) >>> 0;
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
