/** 32 bits, as if by chance, of two numbers: the last rounds of MurmurHash3 (A. Appleby, public domain). */
export function mixed(seed: number, n: number): number {
  let h = Math.imul(n ^ seed, 0x85ebca6b) ^ Math.imul(seed, 0xc2b2ae35);
  for (const by of [0x85ebca6b, 0xc2b2ae35]) {
    h ^= h >>> 16;
    h = Math.imul(h, by);
    h ^= h >>> 13;
  }
  return (h ^ (h >>> 16)) >>> 0;
}
