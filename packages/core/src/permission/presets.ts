import type { AskedFor, HouseRules, Need, PlaceRules, PresetName } from './house-rules';
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

export const PRESETS: Record<PresetName, Preset> = {
  'united-states': {
    name: 'United States',
    sources: [
      { rule: 'Calls and texts not before 8 a.m. and not after 9 p.m. where the person is', source: '47 CFR 64.1200(c)(1)' },
      { rule: 'Any reasonable words end consent to calls and texts, acted on at once', source: '47 CFR 64.1200(a)(10)' },
      { rule: 'One text confirms leaving, within five minutes, and asks for nothing', source: '47 CFR 64.1200(a)(12)' },
      { rule: 'A gift keeps a relationship for 18 months, an inquiry for 3', source: '47 CFR 64.1200(f)(5), applied by choice' },
      {
        rule: 'Postal address and a way out in every email, acted on at once',
        source: 'CAN-SPAM, 15 U.S.C. 7704(a)(3)-(5); 16 CFR 316, applied by choice',
      },
      { rule: 'States may be stricter: add a place for each, for example for its hours', source: 'state telephone solicitation laws' },
    ],
    options: [
      {
        id: 'email-unasked',
        words: 'Email may also go to people who were never asked',
        source: 'CAN-SPAM, 15 U.S.C. 7704, asks for no agreement before the first email',
        apply: (rules) => needing(rules, 'email', MARKETING, 'nothing'),
      },
    ],
    rules: {
      ...STRICT,
      preset: 'united-states',
      needs: { email: row('implied', 'nothing'), text: row('yes', 'yes'), call: row('implied', 'implied'), post: row('nothing', 'nothing') },
      lasts: { gift: 18, membership: 18, volunteering: 18, inquiry: 3 },
      hours: { call: { from: 8 * 60, to: 21 * 60 }, text: { from: 8 * 60, to: 21 * 60 } },
      track: { opens: true, links: true },
      oldAfterMonths: 60,
    },
  },
  canada: {
    name: 'Canada',
    sources: [
      {
        rule: 'Implied for two years by a gift, volunteering or membership, for six months by an inquiry',
        source: 'CASL, S.C. 2010, c. 23, s. 10(9)-(13)',
      },
      {
        rule: 'Leaving takes effect without delay, within 10 business days at most, and its link works for 60 days at least',
        source: 'CASL s. 11(2)-(3)',
      },
      {
        rule: 'Telemarketing hours, weekdays',
        source: 'CRTC Unsolicited Telecommunications Rules, Part III, s. 23: 9 a.m. to 9:30 p.m., narrowed to 9 p.m.',
      },
    ],
    options: [
      {
        id: 'charity-fundraising',
        words: 'We are a registered charity: appeals for funds need no agreement',
        source: 'Electronic Commerce Protection Regulations, SOR/2013-221, s. 3(g)',
        apply: (rules) => needing(rules, 'email', ['appeals'], 'nothing'),
      },
    ],
    rules: {
      ...STRICT,
      preset: 'canada',
      needs: { email: row('implied', 'nothing'), text: row('yes', 'yes'), call: row('implied', 'implied'), post: row('nothing', 'nothing') },
      lasts: { gift: 24, membership: 24, volunteering: 24, inquiry: 6 },
      hours: { call: { from: 9 * 60, to: 21 * 60 }, text: { from: 9 * 60, to: 21 * 60 } },
      track: { opens: true, links: true },
      oldAfterMonths: 36,
    },
  },
  'united-kingdom': {
    name: 'United Kingdom',
    sources: [
      { rule: 'Email and text only with consent', source: 'Privacy and Electronic Communications Regulations 2003, reg. 22' },
      { rule: 'Objection to marketing closes it at once', source: 'UK GDPR art. 21(2)-(3)' },
    ],
    options: [
      {
        id: 'charity-soft-opt-in',
        words: 'Charities may email people who gave or offered support, gathered since the rule applies',
        source: 'PECR reg. 22(3A), added by the Data (Use and Access) Act 2025; in force from 5 February 2026 (from memory)',
        apply: (rules) => ({
          ...needing(rules, 'email', MARKETING, 'implied'),
          lasts: { gift: 24, membership: 24, volunteering: 24, inquiry: 24 },
          impliedFrom: '2026-02-05',
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
  const keys = Object.keys(base as object) as (keyof T)[];
  return Object.fromEntries(keys.map((key) => [key, takenBack(now[key], base[key], changed[key])])) as T;
}
