import { ASKED_FOR, type AskedFor, type Hours, type HouseRules, type Need, type PlaceRules } from './house-rules';
import { CHANNELS, RELATIONSHIPS } from './vocabulary';
import { CHANNEL_WORDS, placeWords, PURPOSE_WORDS, RELATIONSHIP_WORDS } from './words';

export const NEED_WORDS: Record<Need, string> = { yes: 'an express yes', implied: 'at least an implied permission', nothing: 'nothing on record' };

export function askedForWords(purpose: AskedFor): string {
  return purpose === 'lists' ? 'public lists' : PURPOSE_WORDS[purpose];
}

/** "08:00" of minutes after midnight. */
export function clockWords(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

function hoursWords(hours: Hours | null): string {
  return hours ? `from ${clockWords(hours.from)} to ${clockWords(hours.to)}` : 'at any hour';
}

/** What a change of rules says, a sentence for each rule that differs; empty when nothing does. */
export function ruleChangeWords(before: HouseRules, after: HouseRules): string[] {
  const keys = [...new Set([...Object.keys(before.places), ...Object.keys(after.places)])].sort();
  return [
    ...(before.home === after.home ? [] : [`People whose place is not known now count to ${placeWords(after.home)}.`]),
    ...keys.flatMap((key) => {
      const [a, b] = [before.places[key], after.places[key]];
      if (!b) return [`${placeWords(key)} has no rules of its own any more.`];
      if (!a) return [`${placeWords(key)} has rules of its own now.`];
      return placeChanges(a, b).map((words) => `${placeWords(key)}: ${words}.`);
    }),
  ];
}

function placeChanges(a: PlaceRules, b: PlaceRules): string[] {
  const out: string[] = [];
  const differ = (x: unknown, y: unknown, words: string) => {
    if (JSON.stringify(x) !== JSON.stringify(y)) out.push(words);
  };
  for (const channel of CHANNELS) {
    for (const purpose of ASKED_FOR) {
      const [was, is] = [a.needs[channel][purpose], b.needs[channel][purpose]];
      differ(was, is, `${CHANNEL_WORDS[channel].toLowerCase()} for ${askedForWords(purpose)} needs ${NEED_WORDS[is]}, no longer ${NEED_WORDS[was]}`);
    }
    const cap = b.caps[channel];
    differ(a.caps[channel], cap, `${CHANNEL_WORDS[channel].toLowerCase()}: ${cap ? `at most ${cap.messages} in ${cap.days} days` : 'no cap'}`);
  }
  for (const relationship of RELATIONSHIPS) {
    const months = b.lasts[relationship];
    differ(
      a.lasts[relationship],
      months,
      `${RELATIONSHIP_WORDS[relationship]} implies permission ${months === null ? 'no more' : `for ${months} months`}`,
    );
  }
  differ(a.impliedFrom, b.impliedFrom, b.impliedFrom === null ? 'relationships of any age count' : `relationships count from ${b.impliedFrom} on`);
  differ(a.hours.text, b.hours.text, `texts leave ${hoursWords(b.hours.text)}`);
  differ(a.hours.call, b.hours.call, `calls are made ${hoursWords(b.hours.call)}`);
  differ(a.track, b.track, `opens are ${b.track.opens ? '' : 'not '}tracked, links are ${b.track.links ? '' : 'not '}tracked`);
  differ(
    a.confirm,
    b.confirm,
    `forms ${b.confirm.email ? 'ask' : 'do not ask'} to confirm by email and ${b.confirm.text ? 'ask' : 'do not ask'} by text, within ${b.confirm.withinDays} days`,
  );
  differ(a.oldAfterMonths, b.oldAfterMonths, `evidence older than ${b.oldAfterMonths} months is pointed out`);
  return out;
}
