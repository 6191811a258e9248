/**
 * A value that carries its meaning in its type, so that two ids of different things can't be swapped by
 * mistake.
 */
export type Brand<T, Name extends string> = T & { readonly __brand: Name };

export type SupporterId = Brand<number, 'SupporterId'>;
export type ContactPointId = Brand<number, 'ContactPointId'>;
export type EntryId = Brand<number, 'EntryId'>;

/** Milliseconds since 1970-01-01T00:00Z. */
export type Instant = number;

/** Whole days since 1970-01-01 in the calendar of the organization; has no time zone of its own. */
export type Day = number;

/** A day of the year without a year, as month * 100 + day, 101 to 1231. */
export type MonthDay = number;
