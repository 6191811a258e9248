import { nextDecentMoment, zonesOf } from '@goodword/core/schedule';
import { rulesFor, type HouseRules, type Place } from '@goodword/core/permission';
import { holidaysOf } from './holidays';

/** The first moment from one on at which a message or a call may come to a place, by the rules there. */
export function decentMoment(
  channel: 'email' | 'text' | 'call',
  place: Place,
  { rules, homeZone }: { rules: HouseRules; homeZone: string },
  from: number,
): number {
  const hours = rulesFor(rules, place).hours[channel];
  if (!hours) return from;
  return nextDecentMoment(hours, zonesOf(place, homeZone), from, holidaysOf(place, rules.home.slice(0, 2)));
}
