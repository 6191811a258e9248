import type { Channel } from '../permission';

/** By what the better of some wordings is told: what people did once it had come to them. */
export const COMPARE_MEASURES = ['clicked', 'gave', 'replied', 'opened'] as const;
export type CompareMeasure = (typeof COMPARE_MEASURES)[number];

/** By what wordings on a channel can be compared: nobody can tell whether a text was opened. */
export const measuresOn = (channel: Channel): CompareMeasure[] =>
  COMPARE_MEASURES.filter((measure) => measure !== 'opened' || channel === 'email');

/** How wordings are compared before the better one goes to the rest. */
export interface Comparison {
  /** Of a hundred people so many get one of the wordings first, as many of each; 100: everybody. */
  share: number;
  measure: CompareMeasure;
  /** So many hours after the last of them has left it is decided. */
  hours: number;
}

/** Bounds of a comparison: wordings beside the first, percent, hours. */
export const COMPARISON_LIMITS = { wordings: 4, share: [2, 100], hours: [1, 336] } as const;

/** As it is where nobody said otherwise: common practice, no source. */
export const USUAL_COMPARISON: Comparison = { share: 20, measure: 'clicked', hours: 24 };
