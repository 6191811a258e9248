import { differenceOf, type Difference, type Share } from './difference';

/** Two-sided quantile of a test at 5 %. */
const Z_95 = 1.959964;

/**
 * What a message itself did: how many more gave of those whom it was for than of those who were kept
 * without it by lot, and whether chance alone explains that. Counted as drawn, whatever came of it at each.
 * Null where one of the two is nobody.
 */
export function liftOf(kept: Share, meant: Share): (Difference & { differs: boolean }) | null {
  const difference = differenceOf(kept, meant);
  return difference && { ...difference, differs: Math.abs(difference.z) >= Z_95 };
}
