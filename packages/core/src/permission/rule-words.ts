import { ASKED_FOR, WEEKDAYS, type AskedFor, type Hours, type HouseRules, type Need, type PlaceRules, type Span, type Weekday } from './house-rules';
import { rulesFor, UNDO_SECONDS } from './house-rules';
import { ELSEWHERE } from './places';
import { CHANNELS, RELATIONSHIPS } from './vocabulary';
import { CHANNEL_WORDS, NEED_WORDS, placeWords, PURPOSE_WORDS, RELATIONSHIP_WORDS } from './words';

export function askedForWords(purpose: AskedFor): string {
  return purpose === 'lists' ? 'public lists' : PURPOSE_WORDS[purpose];
}

/** "08:00" of minutes after midnight. */
export function clockWords(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

const DAY_WORDS: Record<Weekday, string> = {
  sun: 'Sundays',
  mon: 'Mondays',
  tue: 'Tuesdays',
  wed: 'Wednesdays',
  thu: 'Thursdays',
  fri: 'Fridays',
  sat: 'Saturdays',
};

const spanWords = (span: Span | null) => (span ? `from ${clockWords(span.from)} to ${clockWords(span.to)}` : 'not at all');

/** "from 09:00 to 21:30, on Saturdays from 10:00 to 18:00, on holidays not at all". */
export function hoursWords(hours: Hours | null): string {
  if (!hours) return 'at any hour';
  const days = WEEKDAYS.flatMap((day) => (hours.days?.[day] === undefined ? [] : [`on ${DAY_WORDS[day]} ${spanWords(hours.days[day])}`]));
  return [spanWords(hours), ...days, ...(hours.holidays === undefined ? [] : [`on holidays ${spanWords(hours.holidays)}`])].join(', ');
}

const same = (a: readonly string[] = [], b: readonly string[] = []) => JSON.stringify([...a].sort()) === JSON.stringify([...b].sort());

/** What a change of rules says, a sentence for each rule that differs; empty when nothing does. */
export function ruleChangeWords(before: HouseRules, after: HouseRules): string[] {
  const keys = [...new Set([...Object.keys(before.places), ...Object.keys(after.places)])].sort();
  return [
    ...(same(before.charityIn, after.charityIn)
      ? []
      : [
          after.charityIn?.length
            ? `We are a registered charity in ${after.charityIn.map((key) => placeWords(key)).join(', ')}.`
            : 'We are no registered charity anywhere.',
        ]),
    ...((before.refusalOfferedSince ?? null) === (after.refusalOfferedSince ?? null)
      ? []
      : [
          after.refusalOfferedSince
            ? `Our forms and gift pages have all offered a way to refuse since ${after.refusalOfferedSince}.`
            : 'Not all of our forms and gift pages offer a way to refuse.',
        ]),
    ...(same(before.askingWords, after.askingWords) ? [] : ['What counts as asking in a service message is changed.']),
    ...((before.textEndDays ?? 0) === (after.textEndDays ?? 0)
      ? []
      : [`${after.textEndDays ? `A text says how to end texts once in ${after.textEndDays} days` : 'Every text says how to end texts'}.`]),
    ...((before.undoSeconds ?? UNDO_SECONDS) === (after.undoSeconds ?? UNDO_SECONDS)
      ? []
      : [after.undoSeconds ? `A message sent now can be taken back for ${after.undoSeconds} seconds.` : 'A message sent now leaves at once.']),
    ...(Boolean(before.secondPair) === Boolean(after.secondPair)
      ? []
      : [after.secondPair ? 'A change that opens anybody needs a second owner.' : 'A change that opens anybody needs no second owner any more.']),
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
    `forms ${b.confirm.email ? 'ask' : 'do not ask'} to confirm by email, ${b.confirm.text ? 'ask' : 'do not ask'} by text and ${b.confirm.call ? 'ask' : 'do not ask'} for calls, within ${b.confirm.withinDays} days`,
  );
  differ(a.oldAfterMonths, b.oldAfterMonths, `evidence older than ${b.oldAfterMonths} months is pointed out`);
  return out;
}

const NEED_RANK: Record<Need, number> = { yes: 2, implied: 1, nothing: 0 };

/** Minutes of a week in which something may leave; a week is what a span of weekdays is weighed by. */
function openMinutes(hours: Hours | null): number {
  if (!hours) return 7 * 1440;
  const length = (span: Span | null) => (span ? span.to - span.from + (span.from > span.to ? 1440 : 0) : 0);
  return WEEKDAYS.reduce((sum, day) => sum + length(hours.days?.[day] === undefined ? hours : hours.days[day]), 0);
}

/**
 * What a change loosens, a sentence each, whether or not it opens anybody today: less on record, longer relationships,
 * more hours, a higher cap, no confirming, a place that is stricter taken out.
 */
export function loosenings(before: HouseRules, after: HouseRules): string[] {
  const out: string[] = [];
  const keys = [...new Set([...Object.keys(before.places), ...Object.keys(after.places)])].sort();
  for (const key of keys) {
    const was = before.places[key] ?? nearest(before, key);
    const is = after.places[key] ?? nearest(after, key);
    for (const words of loosened(was, is)) out.push(`${placeWords(key)}: ${words}.`);
  }
  if (after.charityIn?.some((country) => !before.charityIn?.includes(country)))
    out.push('What only a registered charity may do counts in more places.');
  if (after.refusalOfferedSince && after.refusalOfferedSince < (before.refusalOfferedSince ?? '9999'))
    out.push('Relationships of more people count where a way to refuse must have been offered.');
  if (before.askingWords?.some((one) => !after.askingWords?.includes(one)) || (!before.askingWords && after.askingWords))
    out.push('Fewer words may count as asking in a service message.');
  if ((after.textEndDays ?? 0) > (before.textEndDays ?? 0)) out.push('Texts say less often how to end them.');
  if (before.secondPair && !after.secondPair) out.push('A change that opens anybody needs no second owner any more.');
  return out;
}

/** The rules that hold where a place has none of its own. */
function nearest(rules: HouseRules, key: string): PlaceRules {
  const [country = '', region = null] = key.split('-');
  return rulesFor(rules, key === ELSEWHERE ? { country: null, region: null } : { country, region });
}

function loosened(a: PlaceRules, b: PlaceRules): string[] {
  const out: string[] = [];
  for (const channel of CHANNELS) {
    const name = CHANNEL_WORDS[channel].toLowerCase();
    const eased = ASKED_FOR.filter((purpose) => NEED_RANK[b.needs[channel][purpose]] < NEED_RANK[a.needs[channel][purpose]]);
    if (eased.length > 0) out.push(`${name} needs less on record (${eased.map(askedForWords).join(', ')})`);
    const rate = (place: PlaceRules) => (place.caps[channel] ? place.caps[channel].messages / place.caps[channel].days : Infinity);
    if (rate(b) > rate(a)) out.push(`${name} may come more often`);
  }
  for (const relationship of RELATIONSHIPS)
    if ((b.lasts[relationship] ?? 0) > (a.lasts[relationship] ?? 0)) out.push(`${RELATIONSHIP_WORDS[relationship]} counts longer`);
  if ((b.impliedFrom ?? '') < (a.impliedFrom ?? '')) out.push('older relationships count');
  for (const channel of ['text', 'call'] as const)
    if (openMinutes(b.hours[channel]) > openMinutes(a.hours[channel]))
      out.push(`${channel === 'text' ? 'texts leave' : 'calls are made'} at more hours`);
  for (const channel of ['email', 'text', 'call'] as const)
    if (a.confirm[channel] && !b.confirm[channel])
      out.push(`whoever types an address into a form is believed, without asking its owner, for ${CHANNEL_WORDS[channel].toLowerCase()}`);
  return out;
}
