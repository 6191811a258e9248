import { USUAL_BRAKE } from '../delivery';
import { said, type Said } from '../common';
import { RULE_PURPOSES, rulesFor, UNDO_SECONDS, USUAL_PILE, WEEKDAYS } from './house-rules';
import type { RulePurpose, Hours, HouseRules, RequiredConsent, PlaceRules, HourSpan } from './house-rules';
import { ELSEWHERE } from './places';
import { CHANNELS } from './channels';
import { RELATIONSHIPS } from './vocabulary';

/** "08:00" of minutes after midnight. */
export function clockWords(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

const spanSaid = (span: HourSpan | null): Said =>
  span ? said('hours.span', { from: clockWords(span.from), to: clockWords(span.to) }) : said('hours.none');

/** Hours, then the days that differ from them, then holidays. */
export function hoursSaid(hours: Hours | null): Said {
  if (!hours) return said('hours.any');
  const days = WEEKDAYS.flatMap((day) =>
    hours.days?.[day] === undefined ? [] : [said(`hours.${day}`, { span: spanSaid(hours.days[day]) })],
  );
  const holidays =
    hours.holidays === undefined ? [] : [said('hours.holidays', { span: spanSaid(hours.holidays) })];
  return said('hours.parts', { parts: [spanSaid(hours), ...days, ...holidays] });
}

const same = (a: readonly string[] = [], b: readonly string[] = []) =>
  JSON.stringify([...a].sort()) === JSON.stringify([...b].sort());
const asked = (purpose: RulePurpose): Said =>
  purpose === 'lists' ? said('scope.lists') : said(`purpose.${purpose}`);
const yes = (holds: boolean) => (holds ? 'yes' : 'no');

/** What a change of rules says, one for each rule that differs; empty when nothing does. */
export function ruleChanges(before: HouseRules, after: HouseRules): Said[] {
  const keys = [...new Set([...Object.keys(before.places), ...Object.keys(after.places)])].sort();
  const { charityIn = [], refusalOfferedSince = null, textEndDays = 0, undoSeconds = UNDO_SECONDS } = after;
  return [
    ...(same(before.charityIn, charityIn)
      ? []
      : [
          charityIn.length > 0
            ? said('change.charity', { places: charityIn.map((place) => ({ place })) })
            : said('change.no-charity'),
        ]),
    ...((before.refusalOfferedSince ?? null) === refusalOfferedSince
      ? []
      : [
          refusalOfferedSince
            ? said('change.refusal-offered', { since: refusalOfferedSince })
            : said('change.refusal-not-offered'),
        ]),
    ...(same(before.askingWords, after.askingWords) ? [] : [said('change.asking-words')]),
    ...((before.textEndDays ?? 0) === textEndDays
      ? []
      : [textEndDays ? said('change.text-end-days', { days: textEndDays }) : said('change.text-end-each')]),
    ...((before.undoSeconds ?? UNDO_SECONDS) === undoSeconds
      ? []
      : [undoSeconds ? said('change.undo', { seconds: undoSeconds }) : said('change.no-undo')]),
    ...((before.secondAbove ?? 0) === (after.secondAbove ?? 0)
      ? []
      : [
          after.secondAbove
            ? said('change.second-above', { people: after.secondAbove })
            : said('change.no-second-above'),
        ]),
    ...(Boolean(before.oneAppeal) === Boolean(after.oneAppeal)
      ? []
      : [said(after.oneAppeal ? 'change.one-appeal' : 'change.any-appeals')]),
    ...((before.pile ?? USUAL_PILE) === (after.pile ?? USUAL_PILE)
      ? []
      : [said('change.pile', { people: after.pile ?? USUAL_PILE })]),
    ...brakeChange(before.brake, after.brake),
    ...(Boolean(before.secondPair) === Boolean(after.secondPair)
      ? []
      : [said(after.secondPair ? 'change.second-pair' : 'change.no-second-pair')]),
    ...(before.home === after.home ? [] : [said('change.home', { place: { place: after.home } })]),
    ...keys.flatMap((place) => {
      const [a, b] = [before.places[place], after.places[place]];
      if (!b) return [said('change.place-gone', { place: { place } })];
      if (!a) return [said('change.place-new', { place: { place } })];
      return placeChanges(a, b).map((change) => said('change.in-place', { place: { place }, change }));
    }),
  ];
}

function brakeChange(before = USUAL_BRAKE, after = USUAL_BRAKE): Said[] {
  if (before.unknown === after.unknown && before.complaints === after.complaints) return [];
  return [said('change.brake', { unknown: after.unknown, complaints: after.complaints })];
}

function placeChanges(a: PlaceRules, b: PlaceRules): Said[] {
  const out: Said[] = [];
  const differ = (x: unknown, y: unknown, change: () => Said) => {
    if (JSON.stringify(x) !== JSON.stringify(y)) out.push(change());
  };
  for (const name of CHANNELS) {
    const channel = said(`channel.in.${name}`);
    for (const purpose of RULE_PURPOSES) {
      const [was, is] = [a.needs[name][purpose], b.needs[name][purpose]];
      differ(was, is, () =>
        said('change.need', {
          channel,
          asked: asked(purpose),
          is: said(`need.${is}`),
          was: said(`need.${was}`),
        }),
      );
    }
    const cap = b.caps[name];
    differ(a.caps[name], cap, () =>
      cap
        ? said('change.cap', { channel, messages: cap.messages, days: cap.days })
        : said('change.no-cap', { channel }),
    );
  }
  for (const one of RELATIONSHIPS) {
    const [months, relationship] = [b.lasts[one], said(`relationship.${one}`)];
    differ(a.lasts[one], months, () =>
      months === null
        ? said('change.no-relationship', { relationship })
        : said('change.relationship', { relationship, months }),
    );
  }
  const { impliedFrom, track, confirm } = b;
  differ(a.impliedFrom, impliedFrom, () =>
    impliedFrom === null ? said('change.implied-any') : said('change.implied-from', { day: impliedFrom }),
  );
  for (const channel of ['email', 'text', 'call'] as const)
    differ(a.hours[channel] ?? null, b.hours[channel] ?? null, () =>
      said(`change.hours.${channel}`, { hours: hoursSaid(b.hours[channel] ?? null) }),
    );
  differ(a.track, track, () => said('change.track', { opens: yes(track.opens), links: yes(track.links) }));
  differ(a.confirm, confirm, () =>
    said('change.confirm', {
      email: yes(confirm.email),
      text: yes(confirm.text),
      call: yes(confirm.call),
      days: confirm.withinDays,
    }),
  );
  differ(a.oldAfterMonths, b.oldAfterMonths, () => said('change.old', { months: b.oldAfterMonths }));
  return out;
}

const NEED_RANK: Record<RequiredConsent, number> = { yes: 2, implied: 1, nothing: 0 };

/** Minutes of a week in which something may leave; a week is what a span of weekdays is weighed by. */
function openMinutes(hours: Hours | null): number {
  if (!hours) return 7 * 1440;
  const length = (span: HourSpan | null) =>
    span ? span.to - span.from + (span.from > span.to ? 1440 : 0) : 0;
  return WEEKDAYS.reduce(
    (sum, day) => sum + length(hours.days?.[day] === undefined ? hours : hours.days[day]),
    0,
  );
}

/**
 * What a change loosens, each by itself, whether or not it opens anybody today: less on record, longer
 * relationships, more hours, a higher cap, no confirming, a place that is stricter taken out.
 */
export function loosenings(before: HouseRules, after: HouseRules): Said[] {
  const out: Said[] = [];
  const keys = [...new Set([...Object.keys(before.places), ...Object.keys(after.places)])].sort();
  for (const key of keys) {
    const was = before.places[key] ?? nearest(before, key);
    const is = after.places[key] ?? nearest(after, key);
    for (const change of loosened(was, is))
      out.push(said('change.in-place', { place: { place: key }, change }));
  }
  if (after.charityIn?.some((country) => !before.charityIn?.includes(country)))
    out.push(said('loosen.charity'));
  if (after.refusalOfferedSince && after.refusalOfferedSince < (before.refusalOfferedSince ?? '9999'))
    out.push(said('loosen.refusal-offered'));
  if (
    before.askingWords?.some((one) => !after.askingWords?.includes(one)) ||
    (!before.askingWords && after.askingWords)
  )
    out.push(said('loosen.asking-words'));
  if ((after.textEndDays ?? 0) > (before.textEndDays ?? 0)) out.push(said('loosen.text-end'));
  if (before.secondPair && !after.secondPair) out.push(said('change.no-second-pair'));
  return out;
}

/** The rules that hold where a place has none of its own. */
function nearest(rules: HouseRules, key: string): PlaceRules {
  const [country = '', region = null] = key.split('-');
  return rulesFor(rules, key === ELSEWHERE ? { country: null, region: null } : { country, region });
}

function loosened(a: PlaceRules, b: PlaceRules): Said[] {
  const out: Said[] = [];
  for (const channel of CHANNELS) {
    const name = said(`channel.in.${channel}`);
    const eased = RULE_PURPOSES.filter(
      (purpose) => NEED_RANK[b.needs[channel][purpose]] < NEED_RANK[a.needs[channel][purpose]],
    );
    if (eased.length > 0) out.push(said('loosen.need', { channel: name, asked: eased.map(asked) }));
    const rate = (place: PlaceRules) =>
      place.caps[channel] ? place.caps[channel].messages / place.caps[channel].days : Infinity;
    if (rate(b) > rate(a)) out.push(said('loosen.cap', { channel: name }));
  }
  for (const relationship of RELATIONSHIPS)
    if ((b.lasts[relationship] ?? 0) > (a.lasts[relationship] ?? 0))
      out.push(said('loosen.relationship', { relationship: said(`relationship.${relationship}`) }));
  if ((b.impliedFrom ?? '') < (a.impliedFrom ?? '')) out.push(said('loosen.implied'));
  for (const channel of ['email', 'text', 'call'] as const)
    if (openMinutes(b.hours[channel] ?? null) > openMinutes(a.hours[channel] ?? null))
      out.push(said(`loosen.hours.${channel}`));
  for (const channel of ['email', 'text', 'call'] as const)
    if (a.confirm[channel] && !b.confirm[channel])
      out.push(said('loosen.confirm', { channel: said(`channel.in.${channel}`) }));
  return out;
}
