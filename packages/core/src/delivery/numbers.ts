/**
 * What texts come from (common practice of carriers): an ordinary number, a short code, one free of charge.
 */
export const NUMBER_KINDS = ['long', 'short', 'toll-free', 'name'] as const;

/** How far a number is registered with the carriers for what it sends. */
export const REGISTRATIONS = ['none', 'waiting', 'registered'] as const;

/** A number's kind, registration and rate, as far as the house has said them. */
export interface TextNumber {
  kind: (typeof NUMBER_KINDS)[number] | null;
  registration: (typeof REGISTRATIONS)[number] | null;
  /** Texts a second that the carriers take from it. */
  perSecond: number | null;
}
