import { dayInZone, type Instant } from '../common';
import { momentOf } from '../schedule';
import { CAUSES, type CauseKind } from './causes';
import { momentAfter, type Wait } from './waits';

/** When what happens on a day is taken to happen, where no time of the day is said: in the morning. */
export const MORNING = 600;

/** The moment of the first message, so long after what happened; of a day, after its morning. */
export function firstMoment(kind: CauseKind, happened: Instant, wait: Wait, zone: string): Instant {
  if (!CAUSES[kind].daily || wait.at !== null) return momentAfter(happened, wait, zone);
  const morning = momentOf({ day: dayInZone(happened, zone), minutes: MORNING }, zone).at;
  return momentAfter(morning, wait, zone);
}
