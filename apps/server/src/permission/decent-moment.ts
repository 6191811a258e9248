import { nextDecentMoment, zonesOf } from '@goodword/core/schedule';
import { rulesFor, type HouseRules, type Place } from '@goodword/core/permission';
import { holidaysOf } from './holidays';

/** The first moment from one on at which a text or a call may come to a place, by the rules there. */
export function decentMoment(
  channel: 'text' | 'call',
  place: Place,
  { rules, homeZone }: { rules: HouseRules; homeZone: string },
  from: number,
): number {
  const holidays = holidaysOf(place, rules.home.slice(0, 2));
  return nextDecentMoment(rulesFor(rules, place).hours[channel], zonesOf(place, homeZone), from, holidays);
}
