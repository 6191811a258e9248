import { createHash } from 'node:crypto';

/** A number from 0 to 1 that is the same for the same seed and words: chance that can be repeated. */
export function chance(seed: string, ...words: string[]): number {
  return (
    createHash('sha256')
      .update([seed, ...words].join('\n'))
      .digest()
      .readUInt32BE(0) /
    2 ** 32
  );
}
