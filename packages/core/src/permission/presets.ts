import { said, type Said } from '../common';
import type {
  RulePurpose,
  Hours,
  HouseRules,
  RequiredConsent,
  PlaceRules,
  PresetName,
  HourSpan,
} from './house-rules';
import type { Channel } from './channels';

/*
 * Starting points for house rules. They are a program's reading of the sources named, not legal advice: each
 * is shown with "verify with your counsel". Sources are cited from memory where no text could be opened here.
 */

/** A variant of a preset that a house may choose, such as being a registered charity. */
export interface PresetOption {
  id: string;
  words: Said;
  source: string;
  /** The rules with the option switched on. */
  apply(rules: PlaceRules): PlaceRules;
}

/** Rules to begin with for one law: what it wants, its sources, and what a house has to say of itself. */
export interface Preset {
  /** Each rule that follows a text, with the text. */
  sources: { rule: Said; source: string }[];
  options: PresetOption[];
  rules: PlaceRules;
}

function row(marketing: RequiredConsent, service: RequiredConsent): Record<RulePurpose, RequiredConsent> {
  return { news: marketing, appeals: marketing, volunteering: marketing, service, lists: marketing };
}

const STRICT: PlaceRules = {
  preset: 'strict',
  options: [],
  needs: {
    email: row('yes', 'nothing'),
    text: row('yes', 'yes'),
    call: row('yes', 'yes'),
    post: row('yes', 'nothing'),
  },
  lasts: { gift: null, membership: null, volunteering: null, inquiry: null },
  impliedFrom: null,
  hours: { call: { from: 9 * 60, to: 20 * 60 }, text: { from: 9 * 60, to: 20 * 60 } },
  caps: { email: { messages: 6, days: 7 }, text: { messages: 3, days: 7 }, call: null, post: null },
  track: { opens: false, links: true },
  confirm: { email: true, text: true, call: true, withinDays: 30 },
  oldAfterMonths: 24,
};

function needing(
  rules: PlaceRules,
  channel: Channel,
  purposes: RulePurpose[],
  need: RequiredConsent,
): PlaceRules {
  const changed = Object.fromEntries(purposes.map((purpose) => [purpose, need]));
  return { ...rules, needs: { ...rules.needs, [channel]: { ...rules.needs[channel], ...changed } } };
}

const MARKETING: RulePurpose[] = ['news', 'appeals', 'volunteering', 'lists'];

const WEEKEND: HourSpan = { from: 10 * 60, to: 18 * 60 };
const CRTC_HOURS: Hours = { from: 9 * 60, to: 21 * 60 + 30, days: { sat: WEEKEND, sun: WEEKEND } };

const UNITED_STATES: PlaceRules = {
  ...STRICT,
  preset: 'united-states',
  needs: {
    email: row('implied', 'nothing'),
    text: row('yes', 'yes'),
    call: row('implied', 'implied'),
    post: row('nothing', 'nothing'),
  },
  lasts: { gift: 18, membership: 18, volunteering: 18, inquiry: 3 },
  hours: { call: { from: 8 * 60, to: 21 * 60 }, text: { from: 8 * 60, to: 21 * 60 } },
  track: { opens: true, links: true },
  oldAfterMonths: 60,
};

/** A state whose hours end at 8 p.m., with a cap on calls a day where it has one; else as its country. */
function state(preset: PresetName, callsADay: number | null, source: string): Preset {
  const hours: Hours = { from: 8 * 60, to: 20 * 60 };
  const sources = [
    { rule: said('preset.hours-8-20'), source },
    ...(callsADay === null ? [] : [{ rule: said('preset.calls-a-day', { calls: callsADay }), source }]),
    { rule: said('preset.charities-verify'), source: 'our own reading' },
  ];
  const caps = { ...UNITED_STATES.caps, call: callsADay === null ? null : { messages: callsADay, days: 1 } };
  return {
    sources,
    options: [],
    rules: { ...UNITED_STATES, preset, hours: { call: hours, text: hours }, caps },
  };
}

/** From memory, each to be verified. */
const states = {
  florida: state('florida', 3, 'Fla. Stat. 501.616(6), 501.059 (from memory, verify)'),
  oklahoma: state('oklahoma', 3, 'Okla. Stat. tit. 15, 775C.4 (from memory, verify)'),
  washington: state('washington', null, 'RCW 80.36.390, 19.158 (from memory, verify)'),
  maryland: state('maryland', 3, 'Md. Code, Com. Law 14-4501 and following (from memory, verify)'),
};

/** All presets. A reading of the law with its sources, to be verified with counsel; not advice. */
export const PRESETS: Record<PresetName, Preset> = {
  'united-states': {
    sources: [
      {
        rule: said('preset.hours-8-21'),
        source:
          '47 CFR 64.1200(c)(1), applied by choice where we are a tax-exempt nonprofit, which it exempts',
      },
      {
        rule: said('preset.texts-in-writing'),
        source: '47 CFR 64.1200(a)(2), (f)(9), applied by choice where we are a tax-exempt nonprofit',
      },
      {
        rule: said('preset.stop-ends-all'),
        source:
          '47 CFR 64.1200(a)(10): in force from a day that was postponed more than once (11 April 2026, then 31 January 2027; from memory, verify); done at once here',
      },
      { rule: said('preset.any-words-end'), source: '47 CFR 64.1200(a)(10)' },
      { rule: said('preset.one-text-confirms'), source: '47 CFR 64.1200(a)(12)' },
      { rule: said('preset.relationship-18-3'), source: '47 CFR 64.1200(f)(5), applied by choice' },
      {
        rule: said('preset.address-and-way-out'),
        source: 'CAN-SPAM, 15 U.S.C. 7704(a)(3)-(5); 16 CFR 316, applied by choice',
      },
      {
        rule: said('preset.states-stricter'),
        source: 'state telephone solicitation laws',
      },
    ],
    options: [
      {
        id: 'email-unasked',
        words: said('preset.email-unasked'),
        source: 'CAN-SPAM, 15 U.S.C. 7704, asks for no agreement before the first email',
        apply: (rules) => needing(rules, 'email', MARKETING, 'nothing'),
      },
    ],
    rules: UNITED_STATES,
  },
  ...states,
  canada: {
    sources: [
      {
        rule: said('preset.implied-two-years'),
        source: 'CASL, S.C. 2010, c. 23, s. 10(9)-(13)',
      },
      {
        rule: said('preset.leaving-10-days'),
        source: 'CASL s. 11(2)-(3)',
      },
      {
        rule: said('preset.hours-crtc'),
        source: 'CRTC Unsolicited Telecommunications Rules, Part III, s. 23',
      },
    ],
    options: [
      {
        id: 'charity-fundraising',
        words: said('preset.charity-fundraising'),
        source:
          'Electronic Commerce Protection Regulations, SOR/2013-221, s. 3(g); say in House rules that we are one',
        apply: (rules) => needing(rules, 'email', ['appeals'], 'nothing'),
      },
    ],
    rules: {
      ...STRICT,
      preset: 'canada',
      needs: {
        email: row('implied', 'nothing'),
        text: row('yes', 'yes'),
        call: row('implied', 'implied'),
        post: row('nothing', 'nothing'),
      },
      lasts: { gift: 24, membership: 24, volunteering: 24, inquiry: 6 },
      hours: { call: CRTC_HOURS, text: CRTC_HOURS },
      charityOnly: ['gift', 'volunteering'],
      track: { opens: true, links: true },
      oldAfterMonths: 36,
    },
  },
  'united-kingdom': {
    sources: [
      {
        rule: said('preset.only-with-consent'),
        source: 'Privacy and Electronic Communications Regulations 2003, reg. 22',
      },
      {
        rule: said('preset.soft-opt-in-gathered'),
        source: 'PECR reg. 22(3A), added by the Data (Use and Access) Act 2025 (from memory)',
      },
      { rule: said('preset.objection-closes'), source: 'UK GDPR art. 21(2)-(3)' },
    ],
    options: [
      {
        id: 'charity-soft-opt-in',
        words: said('preset.charity-soft-opt-in'),
        source:
          'PECR reg. 22(3A), added by the Data (Use and Access) Act 2025; in force from 5 February 2026 (from memory)',
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
    sources: [
      { rule: said('preset.consent-shown'), source: 'GDPR art. 6, art. 7' },
      { rule: said('preset.leaving-easy'), source: 'GDPR art. 7(3)' },
      { rule: said('preset.objection-closes'), source: 'GDPR art. 21(2)-(3)' },
      { rule: said('preset.email-and-texts-consent'), source: 'ePrivacy Directive 2002/58/EC art. 13' },
      { rule: said('preset.opens-not-tracked'), source: 'ePrivacy Directive art. 5(3)' },
      { rule: said('preset.countries-differ'), source: 'national laws' },
    ],
    options: [],
    rules: { ...STRICT, preset: 'european-union', track: { opens: false, links: false } },
  },
  strict: {
    sources: [{ rule: said('preset.express-yes'), source: 'our own choice' }],
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
  const nested = [now, base, changed].every(
    (one) => typeof one === 'object' && one !== null && !Array.isArray(one),
  );
  if (!nested) return base;
  const keys = [
    ...new Set([...Object.keys(base as object), ...Object.keys(changed as object)]),
  ] as (keyof T)[];
  return Object.fromEntries(keys.map((key) => [key, takenBack(now[key], base[key], changed[key])])) as T;
}
