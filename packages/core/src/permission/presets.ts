import type { AskedFor, Hours, HouseRules, Need, PlaceRules, PresetName, Span } from './house-rules';
import type { Channel } from './vocabulary';

/*
 * Starting points for house rules. They are a program's reading of the sources named, not legal advice: each is shown
 * with "verify with your counsel". Sources are cited from memory where no text could be opened here.
 */

export interface PresetOption {
  id: string;
  words: string;
  source: string;
  /** The rules with the option switched on. */
  apply(rules: PlaceRules): PlaceRules;
}

export interface Preset {
  name: string;
  /** Each rule that follows a text, with the text. */
  sources: { rule: string; source: string }[];
  options: PresetOption[];
  rules: PlaceRules;
}

function row(marketing: Need, service: Need): Record<AskedFor, Need> {
  return { news: marketing, appeals: marketing, volunteering: marketing, service, lists: marketing };
}

const STRICT: PlaceRules = {
  preset: 'strict',
  options: [],
  needs: { email: row('yes', 'nothing'), text: row('yes', 'yes'), call: row('yes', 'yes'), post: row('yes', 'nothing') },
  lasts: { gift: null, membership: null, volunteering: null, inquiry: null },
  impliedFrom: null,
  hours: { call: { from: 9 * 60, to: 20 * 60 }, text: { from: 9 * 60, to: 20 * 60 } },
  caps: { email: { messages: 6, days: 7 }, text: { messages: 3, days: 7 }, call: null, post: null },
  track: { opens: false, links: true },
  confirm: { email: true, text: true, call: true, withinDays: 30 },
  oldAfterMonths: 24,
};

function needing(rules: PlaceRules, channel: Channel, purposes: AskedFor[], need: Need): PlaceRules {
  const changed = Object.fromEntries(purposes.map((purpose) => [purpose, need]));
  return { ...rules, needs: { ...rules.needs, [channel]: { ...rules.needs[channel], ...changed } } };
}

const MARKETING: AskedFor[] = ['news', 'appeals', 'volunteering', 'lists'];

const WEEKEND: Span = { from: 10 * 60, to: 18 * 60 };
const CRTC_HOURS: Hours = { from: 9 * 60, to: 21 * 60 + 30, days: { sat: WEEKEND, sun: WEEKEND } };

const UNITED_STATES: PlaceRules = {
  ...STRICT,
  preset: 'united-states',
  needs: { email: row('implied', 'nothing'), text: row('yes', 'yes'), call: row('implied', 'implied'), post: row('nothing', 'nothing') },
  lasts: { gift: 18, membership: 18, volunteering: 18, inquiry: 3 },
  hours: { call: { from: 8 * 60, to: 21 * 60 }, text: { from: 8 * 60, to: 21 * 60 } },
  track: { opens: true, links: true },
  oldAfterMonths: 60,
};

/** A state whose hours end at 8 p.m., with a cap on calls a day where it has one; else as its country. */
function state(preset: PresetName, name: string, callsADay: number | null, source: string): Preset {
  const hours: Hours = { from: 8 * 60, to: 20 * 60 };
  const sources = [
    { rule: 'Calls and texts not before 8 a.m. and not after 8 p.m. where the person is', source },
    ...(callsADay === null ? [] : [{ rule: `At most ${callsADay} calls in 24 hours`, source }]),
    { rule: 'Whether and how far it holds for charities differs: verify', source: 'our own reading' },
  ];
  const caps = { ...UNITED_STATES.caps, call: callsADay === null ? null : { messages: callsADay, days: 1 } };
  return { name, sources, options: [], rules: { ...UNITED_STATES, preset, hours: { call: hours, text: hours }, caps } };
}

/** From memory, each to be verified. */
const states = {
  florida: state('florida', 'Florida', 3, 'Fla. Stat. 501.616(6), 501.059 (from memory, verify)'),
  oklahoma: state('oklahoma', 'Oklahoma', 3, 'Okla. Stat. tit. 15, 775C.4 (from memory, verify)'),
  washington: state('washington', 'Washington', null, 'RCW 80.36.390, 19.158 (from memory, verify)'),
  maryland: state('maryland', 'Maryland', 3, 'Md. Code, Com. Law 14-4501 and following (from memory, verify)'),
};

export const PRESETS: Record<PresetName, Preset> = {
  'united-states': {
    name: 'United States',
    sources: [
      {
        rule: 'Calls and texts not before 8 a.m. and not after 9 p.m. where the person is',
        source: '47 CFR 64.1200(c)(1), applied by choice where we are a tax-exempt nonprofit, which it exempts',
      },
      {
        rule: 'Texts only after a yes in writing',
        source: '47 CFR 64.1200(a)(2), (f)(9), applied by choice where we are a tax-exempt nonprofit',
      },
      {
        rule: 'A stop said to one kind of message ends every kind',
        source:
          '47 CFR 64.1200(a)(10): in force from a day that was postponed more than once (11 April 2026, then 31 January 2027; from memory, verify); done at once here',
      },
      { rule: 'Any reasonable words end consent to calls and texts, acted on at once', source: '47 CFR 64.1200(a)(10)' },
      { rule: 'One text confirms leaving, within five minutes, and asks for nothing', source: '47 CFR 64.1200(a)(12)' },
      { rule: 'A gift keeps a relationship for 18 months, an inquiry for 3', source: '47 CFR 64.1200(f)(5), applied by choice' },
      {
        rule: 'Postal address and a way out in every email, acted on at once',
        source: 'CAN-SPAM, 15 U.S.C. 7704(a)(3)-(5); 16 CFR 316, applied by choice',
      },
      {
        rule: 'States may be stricter: Florida, Oklahoma, Washington and Maryland have rules of their own here; add others',
        source: 'state telephone solicitation laws',
      },
    ],
    options: [
      {
        id: 'email-unasked',
        words: 'Email may also go to people who were never asked',
        source: 'CAN-SPAM, 15 U.S.C. 7704, asks for no agreement before the first email',
        apply: (rules) => needing(rules, 'email', MARKETING, 'nothing'),
      },
    ],
    rules: UNITED_STATES,
  },
  ...states,
  canada: {
    name: 'Canada',
    sources: [
      {
        rule: 'Implied for two years by a gift or volunteering, where we are a registered charity; by membership, where we are a club, association or voluntary organization; for six months by an inquiry',
        source: 'CASL, S.C. 2010, c. 23, s. 10(9)-(13)',
      },
      {
        rule: 'Leaving takes effect without delay, within 10 business days at most, and its link works for 60 days at least',
        source: 'CASL s. 11(2)-(3)',
      },
      {
        rule: 'Calls from 9 a.m. to 9:30 p.m. on weekdays, from 10 a.m. to 6 p.m. on Saturdays and Sundays; texts by choice likewise',
        source: 'CRTC Unsolicited Telecommunications Rules, Part III, s. 23',
      },
    ],
    options: [
      {
        id: 'charity-fundraising',
        words: 'We are a registered charity: appeals for funds need no agreement',
        source: 'Electronic Commerce Protection Regulations, SOR/2013-221, s. 3(g); say in House rules that we are one',
        apply: (rules) => needing(rules, 'email', ['appeals'], 'nothing'),
      },
    ],
    rules: {
      ...STRICT,
      preset: 'canada',
      needs: { email: row('implied', 'nothing'), text: row('yes', 'yes'), call: row('implied', 'implied'), post: row('nothing', 'nothing') },
      lasts: { gift: 24, membership: 24, volunteering: 24, inquiry: 6 },
      hours: { call: CRTC_HOURS, text: CRTC_HOURS },
      charityOnly: ['gift', 'volunteering'],
      track: { opens: true, links: true },
      oldAfterMonths: 36,
    },
  },
  'united-kingdom': {
    name: 'United Kingdom',
    sources: [
      { rule: 'Email and text only with consent', source: 'Privacy and Electronic Communications Regulations 2003, reg. 22' },
      {
        rule: 'The option below counts for people whose details were gathered by ourselves in the course of their gift or offer of support, with a refusal offered then and in every mail; bring only those in as relationships',
        source: 'PECR reg. 22(3A), added by the Data (Use and Access) Act 2025 (from memory)',
      },
      { rule: 'Objection to marketing closes it at once', source: 'UK GDPR art. 21(2)-(3)' },
    ],
    options: [
      {
        id: 'charity-soft-opt-in',
        words:
          'Charities may email people who gave or offered support since the rule applies, where these were offered a way to refuse as their address was taken',
        source: 'PECR reg. 22(3A), added by the Data (Use and Access) Act 2025; in force from 5 February 2026 (from memory)',
        apply: (rules) => ({
          ...needing(rules, 'email', MARKETING, 'implied'),
          lasts: { gift: 24, membership: 24, volunteering: 24, inquiry: 24 },
          impliedFrom: '2026-02-05',
          offerNeeded: true,
        }),
      },
    ],
    rules: {
      ...STRICT,
      preset: 'united-kingdom',
      needs: { ...STRICT.needs, post: row('nothing', 'nothing') },
    },
  },
  'european-union': {
    name: 'European Union',
    sources: [
      { rule: 'Only with consent that was freely given, informed and can be shown', source: 'GDPR art. 6, art. 7' },
      { rule: 'Leaving is as easy as joining', source: 'GDPR art. 7(3)' },
      { rule: 'Objection to marketing closes it at once', source: 'GDPR art. 21(2)-(3)' },
      { rule: 'Email and texts only with consent', source: 'ePrivacy Directive 2002/58/EC art. 13' },
      { rule: 'Opens are not tracked', source: 'ePrivacy Directive art. 5(3)' },
      { rule: 'Countries may differ: add a place for each', source: 'national laws' },
    ],
    options: [],
    rules: { ...STRICT, preset: 'european-union', track: { opens: false, links: false } },
  },
  strict: {
    name: 'Strict',
    sources: [{ rule: 'Only with an express yes on record', source: 'our own choice' }],
    options: [],
    rules: STRICT,
  },
};

/** The rules a new organization starts with, every place by its preset and the rest of the world strictly. */
export function startingRules(home: string): HouseRules {
  const places = {
    US: PRESETS['united-states'].rules,
    'US-FL': PRESETS.florida.rules,
    'US-OK': PRESETS.oklahoma.rules,
    'US-WA': PRESETS.washington.rules,
    'US-MD': PRESETS.maryland.rules,
    CA: PRESETS.canada.rules,
    GB: PRESETS['united-kingdom'].rules,
    EU: PRESETS['european-union'].rules,
    '*': PRESETS.strict.rules,
  };
  return { home, places };
}

/** Switches an option of a preset on; or off, by taking back only what the option had changed. */
export function withOption(rules: PlaceRules, id: string, on: boolean): PlaceRules {
  const preset = PRESETS[rules.preset];
  const option = preset.options.find((one) => one.id === id);
  if (!option) throw new Error(`expected an option of ${rules.preset}, got "${id}"`);
  const options = rules.options.filter((one) => one !== id);
  if (on) return { ...option.apply(rules), options: [...options, id] };
  return { ...takenBack(rules, preset.rules, option.apply(preset.rules)), options };
}

/** `now` with the parts that `changed` changed in `base` as they are in `base`. */
function takenBack<T>(now: T, base: T, changed: T): T {
  if (JSON.stringify(base) === JSON.stringify(changed)) return now;
  const nested = [now, base, changed].every((one) => typeof one === 'object' && one !== null && !Array.isArray(one));
  if (!nested) return base;
  const keys = [...new Set([...Object.keys(base as object), ...Object.keys(changed as object)])] as (keyof T)[];
  return Object.fromEntries(keys.map((key) => [key, takenBack(now[key], base[key], changed[key])])) as T;
}
