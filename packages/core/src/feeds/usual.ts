import { said, type Said } from '../common';

/** What a run comes to, before anything is written. */
export interface RunSize {
  /** New and changed. */
  came: number;
  gone: number;
}

/** A run that is no larger than this stops nobody, whatever is usual. */
export const NEVER_UNUSUAL = { came: 50, gone: 10 } as const;
/** So many times what is usual is far more. */
const FAR = 5;
/** Fewer runs than these say nothing of what is usual for those who come. */
const ENOUGH = 3;

/**
 * Why a run is so far from what is usual that somebody is to look before it writes; null where it is not.
 * Usual is the middle of the last runs that wrote. That people are gone needs no runs before it: half of
 * them at once is never usual.
 */
export function unusual(size: RunSize, before: readonly RunSize[], known: number): Said | null {
  const usual = {
    came: middle(before.map(({ came }) => came)),
    gone: middle(before.map(({ gone }) => gone)),
  };
  const [came, gone] = [size.came > NEVER_UNUSUAL.came, size.gone > NEVER_UNUSUAL.gone];
  if (gone && (size.gone * 2 > known || (before.length >= ENOUGH && size.gone > FAR * usual.gone)))
    return said('feed.unusual-gone', { n: size.gone, usual: usual.gone });
  if (came && before.length >= ENOUGH && size.came > FAR * usual.came)
    return said('feed.unusual-came', { n: size.came, usual: usual.came });
  return null;
}

/** The middle value, the lower of two; 0 of none. */
function middle(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor((sorted.length - 1) / 2)] ?? 0;
}

/** Failures in a row after which a feed stops by itself. */
export const MOST_FAILURES = 3;
/** Minutes after which a run that failed is tried again, by how many failed before it. */
export const TRY_AGAIN_MINUTES = [1, 5] as const;
