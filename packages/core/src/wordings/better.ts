import { differenceOf, type Difference, type Share } from '../results';

/** What came of one wording: to how many it came, and how many of them did what counts. */
export type Tried = Share;

/** What a comparison came to. */
export interface Found {
  /** Which wording is the better one, 0 for the first; 0 also where no difference was seen. */
  chosen: number;
  /** Whether a difference was seen between the first and another. */
  differs: boolean;
  /** Each other wording beside the first; null where one of the two came to nobody. */
  besideFirst: (Difference | null)[];
}

/**
 * Two-sided quantiles for a test at 5 %, shared among one, two and three comparisons (C. E. Bonferroni): who
 * looks at more of them finds a difference by chance more often.
 */
const Z_OF = [1.959964, 2.241403, 2.39398];

/**
 * The better of some wordings, each beside the first. Where none differs from the first by more than chance
 * explains, it is the first: no difference was seen, which is not the same as that there is none.
 */
export function better([first, ...others]: readonly [Tried, ...Tried[]]): Found {
  const besideFirst = others.map((one) => differenceOf(first, one));
  const enough = Z_OF[Math.min(others.length, Z_OF.length) - 1] ?? Infinity;
  const seen = besideFirst.map((one) => (one && Math.abs(one.z) >= enough ? one.more : 0));
  const best = seen.reduce((most, more, i) => (more > (seen[most] ?? 0) ? i : most), -1);
  return { chosen: best + 1, differs: seen.some((more) => more !== 0), besideFirst };
}
