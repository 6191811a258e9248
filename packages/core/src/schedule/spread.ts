import { mixed } from '../common';

/** A message is spread over so many hours at the most. */
export const MOST_SPREAD_HOURS = 336;
const HOUR_MS = 3_600_000;

/**
 * How long after a message begins somebody gets it, in milliseconds below `hours`, where it is spread over
 * these: as if by chance, evenly over all, and the same whenever it is asked.
 */
export const spreadOf = (messageId: number, personId: number, hours: number): number =>
  Math.floor((mixed(messageId, personId) / 2 ** 32) * hours * HOUR_MS);
