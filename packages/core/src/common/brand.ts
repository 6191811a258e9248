/**
 * A value that carries its meaning in its type, so that two ids of different things can't be swapped by
 * mistake.
 */
export type Brand<T, Name extends string> = T & { readonly __brand: Name };

/** The id of a supporter, which no other number is taken for. */
export type SupporterId = Brand<number, 'SupporterId'>;
/** The id of a contact point: an address, number or postal address, however many share it. */
export type ContactPointId = Brand<number, 'ContactPointId'>;
/** The id of an entry of the ledger. */
export type EntryId = Brand<number, 'EntryId'>;

/** Milliseconds since 1970-01-01T00:00Z. */
export type Instant = number;

/** Whole days since 1970-01-01 in the calendar of the organization; has no time zone of its own. */
export type Day = number;

/** A day of the year without a year, as month * 100 + day, 101 to 1231. */
export type MonthDay = number;
