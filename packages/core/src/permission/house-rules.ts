import type { BrakeLimits } from '../delivery';
import { addMonths, type Instant, said, type Said } from '../common';
import { ELSEWHERE, keysFor, type Place, type PlaceKey } from './places';
import { CHANNELS, type Channel, type ConfirmableChannel } from './channels';
import {
  isListScope,
  PURPOSES,
  RELATIONSHIPS,
  type PermissionState,
  type Purpose,
  type Relationship,
  type Scope,
} from './vocabulary';

/** Starting points for a place's rules (see presets.ts). */
export const PRESET_NAMES = [
  'united-states',
  'florida',
  'oklahoma',
  'washington',
  'maryland',
  'canada',
  'united-kingdom',
  'european-union',
  'strict',
] as const;
export type PresetName = (typeof PRESET_NAMES)[number];

/** What a rule is set for: a purpose, or all public lists. */
export const RULE_PURPOSES = [...PURPOSES, 'lists'] as const;
/** What rules are asked by: a purpose, or lists together. */
export type RulePurpose = Purpose | 'lists';

/** The least that must be on record: an express yes, also an implied permission, or nothing at all. */
export const REQUIRED_CONSENTS = ['yes', 'implied', 'nothing'] as const;
export type RequiredConsent = (typeof REQUIRED_CONSENTS)[number];

/** In the order of JavaScript's days of the week. */
export const WEEKDAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'] as const;
export type Weekday = (typeof WEEKDAYS)[number];

/**
 * Minutes after local midnight, both ends allowed: 480 to 1260 is "not before 8 a.m. and not after 9 p.m.";
 * where it begins after it ends it reaches over midnight.
 */
export interface HourSpan {
  from: number;
  to: number;
}

/** The hours of a day; other ones on some weekdays and on holidays, null for none at all. */
export interface Hours extends HourSpan {
  days?: Partial<Record<Weekday, HourSpan | null>>;
  /** Left out: a holiday is a day like any other. */
  holidays?: HourSpan | null;
}

/** At most so many messages to a person on a channel in any so many days; service messages don't count. */
export interface Cap {
  messages: number;
  days: number;
}

/** The rules of one place. */
export interface PlaceRules {
  /** What they were taken from, for its sources. */
  preset: PresetName;
  /** Options of the preset that are switched on. */
  options: string[];
  needs: Record<Channel, Record<RulePurpose, RequiredConsent>>;
  /** Months that a relationship counts as implied permission; null where it never does. */
  lasts: Record<Relationship, number | null>;
  /** Relationships that count only where the house is a registered charity of the place. */
  charityOnly?: Relationship[];
  /**
   * Relationships count only where those who came into them were offered a way to refuse when their address
   * was taken.
   */
  offerNeeded?: boolean;
  /** Relationships count only when they began on this day or later (ISO day); null for all. */
  impliedFrom: string | null;
  /** When something may come; null for at any hour, as emails do where nothing is said of them. */
  hours: { call: Hours | null; text: Hours | null; email?: Hours | null };
  caps: Record<Channel, Cap | null>;
  track: { opens: boolean; links: boolean };
  /**
   * Whether a form asks to confirm by default, and how many days after the act a confirmation may still be
   * asked for.
   */
  confirm: Record<ConfirmableChannel, boolean> & { withinDays: number };
  /** Evidence older than this many months is pointed out. */
  oldAfterMonths: number;
}

/** How long a message that was sent now is taken back without a trace, where the house says nothing else. */
export const UNDO_SECONDS = 60;
/** Most whom automatic messages take up within an hour without a look, where the house says nothing else. */
export const USUAL_PILE = 200;

/** The rules of the house: for each place, and which place somebody counts to whose place isn't known. */
export interface HouseRules {
  home: PlaceKey;
  /** Countries in which the house is a registered charity: what the law lets only those do counts there. */
  charityIn?: string[];
  /**
   * The day (ISO) since which every form and gift page of the house offers a way to refuse; null or left out:
   * not all do.
   */
  refusalOfferedSince?: string | null;
  /** Whether a change that opens anybody needs a second owner before it holds. */
  secondPair?: boolean;
  /** A text says how to end texts at least once in so many days; 0, or left out: each of them does. */
  textEndDays?: number;
  /** Seconds in which a message that was sent now is taken back without a trace; left out: 60. */
  undoSeconds?: number;
  /**
   * A message to more than so many wants a second person's agreement; 0, or left out: none does for its
   * size.
   */
  secondAbove?: number;
  /** Whom one appeal is asking no other asks, until it is over for them; left out: they may. */
  oneAppeal?: boolean;
  /** Most whom automatic messages take up within an hour without anybody's look; left out: 200. */
  pile?: number;
  /** Shares at which a sending pauses itself; left out: those that are usual. */
  brake?: BrakeLimits;
  /** Words that no service message may say unread by a second person; left out: those of `ASKING_WORDS`. */
  askingWords?: string[];
  places: Record<PlaceKey, PlaceRules>;
}

/** The key under which a place's rules stand. */
export function placeKeyOf(rules: HouseRules, place: Place): PlaceKey {
  const known = place.country ? keysFor(place) : [rules.home];
  return [...known, ELSEWHERE].find((key) => rules.places[key]) ?? ELSEWHERE;
}

/**
 * The rules of a place. Looked up once for each place of a set of rules: a million people are in some hundred
 * places.
 */
export function rulesFor(rules: HouseRules, place: Place): PlaceRules {
  let known = placed.get(rules);
  if (!known) placed.set(rules, (known = new Map()));
  const name = `${place.country ?? ''}-${place.region ?? ''}`;
  let found = known.get(name);
  if (found) return found;
  const key = placeKeyOf(rules, place);
  found = rules.places[key];
  if (!found) throw new Error('expected rules for everywhere else ("*"), got none');
  known.set(name, (found = inForce(rules, key, found)));
  return found;
}

/** What the rules of a place come to for this house. */
function inForce(rules: HouseRules, key: PlaceKey, place: PlaceRules): PlaceRules {
  return asOffered(rules, asCharity(rules, key, place));
}

/** Without the relationships that count for registered charities only, where the house is none there. */
function asCharity(rules: HouseRules, key: PlaceKey, place: PlaceRules): PlaceRules {
  const only = place.charityOnly ?? [];
  if (only.length === 0 || rules.charityIn?.includes(key.slice(0, 2))) return place;
  return {
    ...place,
    lasts: { ...place.lasts, ...Object.fromEntries(only.map((relationship) => [relationship, null])) },
  };
}

/** Without relationships of a time when those who came into them could not refuse at once. */
function asOffered(rules: HouseRules, place: PlaceRules): PlaceRules {
  if (!place.offerNeeded) return place;
  const since = rules.refusalOfferedSince ?? null;
  if (since === null)
    return { ...place, lasts: { gift: null, membership: null, volunteering: null, inquiry: null } };
  return {
    ...place,
    impliedFrom: place.impliedFrom !== null && place.impliedFrom > since ? place.impliedFrom : since,
  };
}

const placed = new WeakMap<HouseRules, Map<string, PlaceRules>>();

/** The purpose by which rules are asked for a scope; lists have their own. */
export function rulePurposeOf(scope: Scope): RulePurpose {
  return isListScope(scope) || scope === 'all' || scope === 'marketing' ? 'lists' : scope;
}

/**
 * The least that must be on record for a channel and purpose at a place; for texts a yes, whatever a rule
 * says.
 */
export function requiredConsentOf(
  rules: PlaceRules,
  channel: Channel,
  purpose: RulePurpose,
): RequiredConsent {
  return channel === 'text' ? 'yes' : rules.needs[channel][purpose];
}

/**
 * Whether the house may write to someone in this state. Yes always, No and Asked never, texts only after a
 * yes.
 */
export function mayWrite(
  rules: PlaceRules,
  channel: Channel,
  purpose: RulePurpose,
  state: PermissionState,
): boolean {
  const need = requiredConsentOf(rules, channel, purpose);
  switch (state) {
    case 'yes':
      return true;
    case 'no':
    case 'asked':
      return false;
    case 'implied':
      return need !== 'yes';
    case 'never':
      return need === 'nothing';
  }
}

/**
 * The last moment of a relationship's implied permission: the end (UTC) of the day so many months later, the
 * last day of a shorter month where there is no such day. CASL s. 10(10) counts "the two-year period
 * immediately before the day on which the message was sent", so a gift of 5 March still serves on 5 March two
 * years on, and not on the 6th.
 */
export function lapseOf(began: Instant, months: number): Instant {
  return (addMonths(Math.floor(began / 86_400_000), months) + 1) * 86_400_000 - 1;
}

/**
 * Faults of rules that come from outside, each once. What is left out of a preset's shape is caught by the
 * schema.
 */
export function ruleFaults(rules: HouseRules): Said[] {
  const faults: Said[] = [];
  if (!rules.places[ELSEWHERE]) faults.push(said('rules.elsewhere'));
  for (const [key, place] of Object.entries(rules.places)) {
    if (RULE_PURPOSES.some((asked) => place.needs.text[asked] !== 'yes'))
      faults.push(said('rules.texts', { place: { place: key } }));
    const { call, text, email } = place.hours;
    const spans = [call, text, email].flatMap((hours) => (hours ? spansOf(hours) : []));
    if (spans.some((span) => span.from === span.to))
      faults.push(said('rules.hours', { place: { place: key } }));
  }
  return faults;
}

/** All spans that hours name. */
export function spansOf(hours: Hours): HourSpan[] {
  return [hours, ...Object.values(hours.days ?? {}), hours.holidays].flatMap((span) => span ?? []);
}

/** The channel and purposes where two sets of rules differ for anybody: what a change must be counted for. */
export function changedQuestions(
  before: HouseRules,
  after: HouseRules,
): { channel: Channel; askedFor: RulePurpose }[] {
  const keys = [...new Set([...Object.keys(before.places), ...Object.keys(after.places)])];
  const at = (rules: HouseRules, key: PlaceKey) =>
    rulesFor(rules, key === ELSEWHERE ? { country: null, region: null } : placeOf(key));
  const bearing = (rules: PlaceRules, channel: Channel, purpose: RulePurpose) => {
    const need = rules.needs[channel][purpose];
    return JSON.stringify([
      need,
      need === 'implied' ? [RELATIONSHIPS.map((r) => rules.lasts[r]), rules.impliedFrom] : null,
      // A service message that answers no act of theirs is held by the cap like any other.
      rules.caps[channel],
    ]);
  };
  const moved =
    before.home !== after.home ||
    JSON.stringify(before.charityIn ?? []) !== JSON.stringify(after.charityIn ?? []) ||
    (before.refusalOfferedSince ?? null) !== (after.refusalOfferedSince ?? null);
  return CHANNELS.flatMap((channel) =>
    RULE_PURPOSES.filter(
      (purpose) =>
        moved ||
        keys.some(
          (key) =>
            bearing(ofKey(before, key, at), channel, purpose) !==
            bearing(ofKey(after, key, at), channel, purpose),
        ),
    ).map((purpose) => ({ channel, askedFor: purpose })),
  );
}

function ofKey(
  rules: HouseRules,
  key: PlaceKey,
  at: (rules: HouseRules, key: PlaceKey) => PlaceRules,
): PlaceRules {
  const own = rules.places[key];
  return own ? inForce(rules, key, own) : at(rules, key);
}

function placeOf(key: PlaceKey): Place {
  const [country = '', region = null] = key.split('-');
  // Any member stands for the Union; rules of a region of it are looked up by their own key before this.
  return { country: country === 'EU' ? 'AT' : country, region };
}
