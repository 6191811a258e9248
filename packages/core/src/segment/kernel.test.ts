import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import wabtTools from 'wabt';
import { KERNEL_BYTES } from './kernel-bytes';
import { bytesWithin, sharesWithin, sumsWithin, wholeWithin, type Weight } from './kernel';
import { runningTotals } from './columns';

/**
 * Numbers that come out the same for the same seed, without keeping a list of a million in the test's own
 * tools.
 */
function drawn(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

/** Around the ends of words and of blocks. */
const size = fc.constantFrom(0, 1, 3, 31, 32, 33, 64, 100, 8191, 8192, 8193, 8225, 20_000);
const seed = fc.integer({ min: 1, max: 2 ** 31 });

const asWords = (count: number, passes: (i: number) => boolean) => {
  const words = new Uint32Array((count + 31) >>> 5);
  for (let i = 0; i < count; i++) if (passes(i)) words[i >>> 5]! |= 1 << (i & 31);
  return words;
};
const blank = (count: number) => new Uint32Array((count + 31) >>> 5);

test('the bytes are those of the text beside them', async () => {
  const tools = await wabtTools();
  const { buffer } = tools
    .parseWat('kernel.wat', readFileSync(join(__dirname, 'kernel.wat'), 'utf8'), { simd: true })
    .toBinary({});
  expect(KERNEL_BYTES).toBe(Buffer.from(buffer).toString('base64'));
});

test('whole numbers and codes within bounds', () => {
  const bound = fc.constantFrom(-0x80000000, -5, 0, 1, 3, 9, 200, 255, 0x7fffffff);
  fc.assert(
    fc.property(size, seed, bound, bound, (count, from, low, high) => {
      const draw = drawn(from);
      // Longer than there are people: what lies behind them is nobody's.
      const values = Int32Array.from(
        { length: count + 40 },
        () => [draw(12) - 6, -0x80000000, 0x7fffffff][draw(20) < 18 ? 0 : draw(3)]!,
      );
      const words = blank(count);
      wholeWithin(words, values, low, high, count);
      expect(words).toEqual(asWords(count, (i) => values[i]! >= low && values[i]! <= high));
      const codes = Uint32Array.from(values, (v) => Math.abs(v) % 12);
      wholeWithin(words, codes.subarray(3), Math.max(0, low), high, count);
      expect(words).toEqual(asWords(count, (i) => codes[i + 3]! >= low && codes[i + 3]! <= high));
      const bytes = Uint8Array.from({ length: count + 40 }, () => draw(256));
      const [least, most] = [Math.max(0, Math.min(255, low)), Math.max(0, Math.min(255, high))];
      bytesWithin(words, bytes, least, most, count);
      expect(words).toEqual(asWords(count, (i) => bytes[i]! >= least && bytes[i]! <= most));
    }),
    { numRuns: 60 },
  );
});

test('sums over gifts, of some days or of all, one person with very many of them', () => {
  const weight = fc.constantFrom<Weight>('amounts', 'given', 'each');
  const bound = fc.constantFrom(-(2 ** 30), -1, 0, 1, 2, 500, 999, 1000, 2 ** 30);
  fc.assert(
    fc.property(
      size,
      seed,
      weight,
      bound,
      bound,
      fc.constantFrom(0, 1, 3, 70_000),
      (count, from, weigh, least, most, many) => {
        const draw = drawn(from);
        const starts = new Uint32Array(count + 1);
        const rich = draw(Math.max(1, count));
        for (let i = 0; i < count; i++) starts[i + 1] = starts[i]! + (i === rich ? many : draw(4));
        const gifts = starts[count]!;
        const days = Int32Array.from({ length: gifts }, () => draw(10) - 5);
        const amounts = Int32Array.from({ length: gifts }, () => [500, 500, 1, -500, 2 ** 20][draw(5)]!);
        const [low, high] = [draw(6) - 5, draw(6)];
        const told = {
          amounts: (k: number) => amounts[k]!,
          given: (k: number) => Number(amounts[k]! > 0),
          each: () => 1,
        }[weigh];
        const sum = (i: number, all: boolean) => {
          let total = 0;
          for (let k = starts[i]!; k < starts[i + 1]!; k++)
            if (all || (days[k]! >= low && days[k]! <= high)) total += told(k);
          return total | 0;
        };
        const words = blank(count);
        sumsWithin(words, { kind: 'gifts', starts, days, amounts }, weigh, { low, high, least, most }, count);
        expect(words).toEqual(asWords(count, (i) => sum(i, false) >= least && sum(i, false) <= most));
        if (weigh !== 'amounts') return;
        sharesWithin(words, starts, runningTotals(amounts), { least, most }, count);
        expect(words).toEqual(asWords(count, (i) => sum(i, true) >= least && sum(i, true) <= most));
      },
    ),
    { numRuns: 60 },
  );
});
