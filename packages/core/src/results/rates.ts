/** A share of a whole with the range that its true value lies in with 95 % confidence, all 0 to 1. */
export interface Rate {
  rate: number;
  low: number;
  high: number;
}

const Z = 1.959964;

/**
 * The Wilson score interval (E. B. Wilson, "Probable inference, the law of succession, and statistical
 * inference", JASA 22, 1927): honest also for few people and for rates near 0 or 1. Null when there is nobody
 * to count.
 */
export function wilson(count: number, of: number): Rate | null {
  if (of <= 0) return null;
  const p = count / of;
  const z2 = (Z * Z) / of;
  const middle = (p + z2 / 2) / (1 + z2);
  const half = (Z / (1 + z2)) * Math.sqrt((p * (1 - p)) / of + z2 / (4 * of));
  return { rate: p, low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}
