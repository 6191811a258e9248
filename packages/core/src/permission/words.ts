import type { Channel, PermissionState, Purpose, RecordedState, Relationship, Road, Scope } from './vocabulary';
import type { Decision, Verdict } from './decide';
import { askedFor, needOf, placeKeyOf, rulesFor, type HouseRules, type Need } from './house-rules';
import type { Place, PlaceKey } from './places';
import { PRESETS } from './presets';

export const STATE_WORDS: Record<PermissionState, string> = {
  yes: 'Opted in',
  implied: 'Implied',
  asked: 'Asked',
  never: 'Never asked',
  no: 'Opted out',
};

/** As states are shown, and a pause. */
export const ENTRY_WORDS: Record<RecordedState, string> = {
  yes: 'Yes',
  implied: 'Implied',
  asked: 'Asked',
  no: 'No',
  pause: 'Pause',
  start: 'Open again by START',
  back: 'Taken back',
};

export const CHANNEL_WORDS: Record<Channel, string> = { email: 'Email', text: 'Text', call: 'Phone call', post: 'Post' };

export const PURPOSE_WORDS: Record<Purpose, string> = {
  news: 'news',
  appeals: 'appeals',
  volunteering: 'volunteering',
  service: 'service',
};

export const ROAD_WORDS: Record<Road, string> = {
  file: 'from a file',
  paper: 'on paper, signed',
  form: 'on a sign-up form',
  phone: 'by phone',
  'in-person': 'said in person',
  reply: 'by a reply',
  'one-click': 'by one click',
  keyword: 'by a keyword texted to us',
  preferences: 'on the preference page',
  objection: 'by objecting to all marketing',
  complaint: 'by a complaint',
  gift: 'with a gift',
  membership: 'as a member',
  volunteering: 'by volunteering',
  inquiry: 'by asking us something',
  hand: 'recorded by hand',
  feed: 'from another system',
};

const VERDICT_WORDS: Record<Exclude<Verdict, 'no-address'>, string> = {
  send: 'Will get it',
  'do-not-contact': 'On do-not-contact',
  'said-no': 'Opted out',
  'on-hold': 'Address is on hold',
  asked: 'Asked, and have not confirmed yet',
  'no-permission': 'Never opted in to this',
  paused: 'Asked us to pause',
  'had-enough': 'Has had as many messages as the house rules allow',
  'shared-address': 'Same address as someone else in the group',
};

const NO_ADDRESS: Record<Channel, string> = {
  email: 'No email address',
  text: 'No mobile',
  call: 'No phone number',
  post: 'No postal address',
};

/** Why somebody gets it or does not, as it stands in a table. */
export function verdictWords(verdict: Verdict, channel: Channel): string {
  return verdict === 'no-address' ? NO_ADDRESS[channel] : VERDICT_WORDS[verdict];
}

export const RELATIONSHIP_WORDS: Record<Relationship, string> = {
  gift: 'a gift',
  membership: 'a membership',
  volunteering: 'volunteering',
  inquiry: 'an inquiry',
};

const PLACE_WORDS: Record<PlaceKey, string> = { '*': 'Everywhere else', EU: 'European Union' };

/** A place's name as a reader of the language knows it: "Canada", "Florida (US-FL)" stays "US-FL". */
export function placeWords(key: PlaceKey, language = 'en'): string {
  if (PLACE_WORDS[key]) return PLACE_WORDS[key];
  const [country = '', region] = key.split('-');
  const name = new Intl.DisplayNames([language], { type: 'region' }).of(country) ?? country;
  return region ? `${name}, ${region}` : name;
}

export function scopeWords(scope: Scope, listName: (id: number) => string | undefined): string {
  if (scope === 'all') return 'everything';
  if (scope === 'marketing') return 'everything but service messages';
  return scope.startsWith('list:') ? (listName(Number(scope.slice(5))) ?? 'a list since deleted') : PURPOSE_WORDS[scope as Purpose];
}

export const NEED_WORDS: Record<Need, string> = { yes: 'an express yes', implied: 'at least an implied permission', nothing: 'nothing on record' };

/** What the rule of somebody's place asks for: "Canada: email asks for at least an implied permission (news)". */
export function ruleWords(asked: { channel: Channel; scope: Scope; rules: HouseRules; place: Place }, scopeName: string): string {
  const need = needOf(rulesFor(asked.rules, asked.place), asked.channel, askedFor(asked.scope));
  const where = placeWords(placeKeyOf(asked.rules, asked.place));
  return `${where}: ${CHANNEL_WORDS[asked.channel].toLowerCase()} asks for ${NEED_WORDS[need]} (${scopeName})`;
}

/** Why a decision came out as it did, in one sentence that names the rule of the place where a rule decided. */
export function explain(decision: Decision, asked: { channel: Channel; scope: Scope; rules: HouseRules; place: Place }): string {
  const rules = rulesFor(asked.rules, asked.place);
  const where = placeWords(placeKeyOf(asked.rules, asked.place));
  const rule = NEED_WORDS[needOf(rules, asked.channel, askedFor(asked.scope))];
  switch (decision.verdict) {
    case 'send':
      return decision.state === 'yes'
        ? 'They said yes.'
        : `${STATE_WORDS[decision.state]}, and for this the rule of the place (${where}) asks for ${rule}.`;
    case 'no-permission':
      return `${STATE_WORDS[decision.state]}, and for this the rule of the place (${where}, from “${PRESETS[rules.preset].name}”) asks for ${rule}.`;
    case 'had-enough': {
      const cap = rules.caps[asked.channel];
      return `Has had ${cap?.messages ?? 0} in the last ${cap?.days ?? 0} days, as many as the house rules allow (${where}).`;
    }
    default:
      return `${verdictWords(decision.verdict, asked.channel)}.`;
  }
}
