import {
  rulePurposeOf,
  CHANNELS,
  hoursSaid,
  requiredConsentOf,
  REQUIRED_CONSENTS,
  STATES,
  placeKeyOf,
  PRESET_NAMES,
  PURPOSES,
  RECORDED_STATES,
  RELATIONSHIPS,
  COLLECTION_METHODS,
  rulesFor,
  scopeSaid,
  type RulePurpose,
  type Channel,
  type Decision,
  type Hours,
  type HouseRules,
  type Place,
  type Scope,
  type Verdict,
} from '../permission';
import { FALLS } from '../campaigns';
import { each, say, speak } from './speak';

/** States of permission, as tables show them. */
export const STATE_WORDS = each('state', STATES);
/** As states are shown, and a pause. */
export const ENTRY_WORDS = each('entry', RECORDED_STATES);
/** What channels are called. */
export const CHANNEL_WORDS = each('channel', CHANNELS);
/** What purposes are called. */
export const PURPOSE_WORDS = each('purpose', PURPOSES);
/** The ways in which somebody said it, in words. */
export const COLLECTION_METHOD_WORDS = each('road', COLLECTION_METHODS);
/** Relationships that imply permission, in words. */
export const RELATIONSHIP_WORDS = each('relationship', RELATIONSHIPS);
/** What a rule wants on record, in words. */
export const REQUIRED_CONSENT_WORDS = each('need', REQUIRED_CONSENTS);
/** What presets are called. */
export const PRESET_WORDS = each('preset-name', PRESET_NAMES);

/** Why somebody gets it or does not, as it stands in a table. */
export function verdictWords(verdict: Verdict, channel: Channel): string {
  if (verdict === 'shared-address' && channel === 'post') return say('verdict.shared-address.post');
  return verdict === 'no-address' ? say(`verdict.no-address.${channel}`) : say(`verdict.${verdict}`);
}

/** Why somebody gets no more of a campaign. */
export const FALL_WORDS = each('fall', FALLS);

/** The same with what more is known of it: of a campaign that somebody is out of, by what. */
export function heldBackWords(verdict: Verdict, channel: Channel, detail: string | null): string {
  const words = verdictWords(verdict, channel);
  return verdict === 'fell-out' && detail ? say('verdict.fell-out.by', { words, detail }) : words;
}

/** What a scope is called; lists by their names. */
export function scopeWords(scope: Scope, listName: (id: number) => string | undefined): string {
  const words = scopeSaid(scope, listName);
  return typeof words === 'string' ? words : speak(words);
}

/** What the purposes that rules are asked by are called. */
export function rulePurposeWords(purpose: RulePurpose): string {
  return purpose === 'lists' ? say('scope.lists') : PURPOSE_WORDS[purpose];
}

/** "from 09:00 to 21:30, on Saturdays from 10:00 to 18:00, on holidays not at all". */
export const hoursWords = (hours: Hours | null): string => speak(hoursSaid(hours));

/** What is asked, of whom, under which rules. */
interface AskedOf {
  channel: Channel;
  scope: Scope;
  rules: HouseRules;
  place: Place;
}

/**
 * What the rule of somebody's place asks for: "Canada: email asks for at least an implied permission (news)".
 */
export function ruleWords({ channel, scope, rules, place }: AskedOf, scopeName: string): string {
  const need = say(`need.${requiredConsentOf(rulesFor(rules, place), channel, rulePurposeOf(scope))}`);
  return say('rule.asks', {
    place: { place: placeKeyOf(rules, place) },
    channel: say(`channel.in.${channel}`),
    need,
    scope: scopeName,
  });
}

/**
 * Why a decision came out as it did, in one sentence that names the rule of the place where a rule decided.
 */
export function explain(decision: Decision, { channel, scope, rules, place }: AskedOf): string {
  const here = rulesFor(rules, place);
  const where = { place: placeKeyOf(rules, place) };
  const need = say(`need.${requiredConsentOf(here, channel, rulePurposeOf(scope))}`);
  const state = STATE_WORDS[decision.state];
  switch (decision.verdict) {
    case 'send':
      return decision.state === 'yes'
        ? say('explain.yes')
        : say('explain.send', { state, place: where, need });
    case 'no-permission':
      return say('explain.no-permission', { state, place: where, preset: PRESET_WORDS[here.preset], need });
    case 'had-enough':
      return say('explain.had-enough', {
        messages: here.caps[channel]?.messages ?? 0,
        days: here.caps[channel]?.days ?? 0,
        place: where,
      });
    default:
      return say('explain.verdict', { verdict: verdictWords(decision.verdict, channel) });
  }
}
