/** From which shares on a sending pauses itself, in percent of those who were tried. */
export interface BrakeLimits {
  /** Addresses that nobody is at. */
  unknown: number;
  /** People who called it spam. */
  complaints: number;
}

/** Where the house says nothing (common practice: large mailbox providers warn at these shares). */
export const USUAL_BRAKE: BrakeLimits = { unknown: 2, complaints: 0.3 };

/** What a sending has met so far, since it began or was gone on with. */
export interface BrakeCounts {
  tried: number;
  unknown: number;
  complaints: number;
}

/** So many were tried, and so many of them are at fault, before a share says anything. */
const LEAST = { tried: 100, faulty: 3 };

/**
 * What makes a sending pause itself: the share of complaints, or that of unknown addresses, lies above its
 * limit; null where neither does. A limit of 0 is none.
 */
export function brakeAt(
  { tried, unknown, complaints }: BrakeCounts,
  limits: BrakeLimits = USUAL_BRAKE,
): keyof BrakeLimits | null {
  const above = (count: number, percent: number) =>
    percent > 0 && tried >= LEAST.tried && count >= LEAST.faulty && (count * 100) / tried > percent;
  if (above(complaints, limits.complaints)) return 'complaints';
  return above(unknown, limits.unknown) ? 'unknown' : null;
}
