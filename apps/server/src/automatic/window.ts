import { CAUSES, type Cause } from '@goodword/core/automations';
import { dayInZone } from '@goodword/core/common';
import type { Automation } from '../automations/automations.repository';
import type { LookWindow } from './sources/source';

const HOUR_MS = 3_600_000;
/** What happens on a day is looked for so often: somebody may come in at noon whose day it is. */
const DAILY_MS = HOUR_MS;
/**
 * Rows are seen when their transaction ends, which may be long after they were written: so far back is looked
 * again, and what was taken up then is known by its key.
 */
const AGAIN_MS = HOUR_MS;

/** In what is looked for what happened since the last time; null where it is not time yet. */
export function windowOf(
  { cause, since, lookedAt }: Pick<Automation, 'cause' | 'since' | 'lookedAt'>,
  now: Date,
  zone: string,
): LookWindow | null {
  if (since === null) return null;
  if (CAUSES[cause.kind].daily && lookedAt && now.getTime() - lookedAt.getTime() < DAILY_MS) return null;
  const again = lookedAt ? lookedAt.getTime() - AGAIN_MS : 0;
  return windowSince(new Date(Math.max(since.getTime(), again)), now, zone, { cause, since });
}

/** All that happened between two moments. */
export function windowSince(
  from: Date,
  to: Date,
  zone: string,
  { since }: { cause: Cause; since: Date },
): LookWindow {
  const day = (at: Date) => dayInZone(at.getTime(), zone);
  return { ...{ from, to, zone }, days: { from: day(from), to: day(to) }, since: day(since) };
}
