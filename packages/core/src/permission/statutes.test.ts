import { withinHours, zonesOf } from '../schedule';
import { readIntent } from '../text';
import {
  decideFromEntries,
  lapseOf,
  mayAskToConfirm,
  PRESETS,
  startingRules,
  withOption,
  type Channel,
  type HouseRules,
  type PermissionEntry,
  type Place,
  type CollectionMethod,
  type Scope,
  type Verdict,
} from '.';

/*
 * Cases from statutes and regulations, each row naming its paragraph. Texts of the law are cited from memory;
 * what each paragraph asks is written in the row's own words.
 */
const START: HouseRules = { ...startingRules('US'), charityIn: ['CA'] };
/** Without a registration under the Income Tax Act. */
const UNREGISTERED = startingRules('US');
const UK_SOFT: HouseRules = {
  ...START,
  refusalOfferedSince: '2026-01-01',
  places: { ...START.places, GB: withOption(PRESETS['united-kingdom'].rules, 'charity-soft-opt-in', true) },
};
const CA_CHARITY: HouseRules = {
  ...START,
  places: { ...START.places, CA: withOption(PRESETS.canada.rules, 'charity-fundraising', true) },
};
const US_UNASKED: HouseRules = {
  ...START,
  places: { ...START.places, US: withOption(PRESETS['united-states'].rules, 'email-unasked', true) },
};

interface Said {
  state: PermissionEntry['state'];
  how: CollectionMethod;
  on: string;
  scope?: Scope;
  byPerson?: boolean;
}

function verdict(
  country: string,
  question: [Channel, Scope],
  on: string,
  said: Said[],
  rules: HouseRules = START,
): Verdict {
  const entries = said.map((one, i) => ({
    id: i + 1,
    contactPointId: 7,
    supporterId: 1,
    channel: question[0],
    scope: one.scope ?? 'marketing',
    state: one.state,
    at: Date.parse(one.on),
    how: one.how,
    byPerson: one.byPerson ?? true,
  }));
  return decideFromEntries(
    {
      supporterId: 1,
      channel: question[0],
      scope: question[1],
      now: Date.parse(on),
      place: { country, region: null },
      addresses: [{ contactPointId: 7, onHold: false, doNotContact: false }],
      recent: [],
      rules,
    },
    entries,
  ).verdict;
}

const related = (how: CollectionMethod, on: string): Said[] => [
  { state: 'implied', how, on, byPerson: false },
];
const APPEAL: [Channel, Scope] = ['email', 'appeals'];

describe('who may be written to', () => {
  const rows: [string, () => Verdict, Verdict][] = [
    [
      'CASL s. 10(9)(a), 10(13): a gift implies for two years, on its last day',
      () => verdict('CA', APPEAL, '2026-03-05T20:00Z', related('gift', '2024-03-05T12:00Z')),
      'send',
    ],
    [
      'CASL s. 10(13): and not on the day after',
      () => verdict('CA', APPEAL, '2026-03-06T00:00Z', related('gift', '2024-03-05T12:00Z')),
      'no-permission',
    ],
    [
      'CASL s. 10(13)(a): a gift to somebody who is no registered charity implies nothing',
      () => verdict('CA', APPEAL, '2026-03-05T20:00Z', related('gift', '2026-03-05T12:00Z'), UNREGISTERED),
      'no-permission',
    ],
    [
      'CASL s. 10(13)(b): volunteering implies for two years',
      () => verdict('CA', APPEAL, '2026-03-04T12:00Z', related('volunteering', '2024-03-05T12:00Z')),
      'send',
    ],
    [
      'CASL s. 10(13)(c): so does membership',
      () => verdict('CA', APPEAL, '2026-03-04T12:00Z', related('membership', '2024-03-05T12:00Z')),
      'send',
    ],
    [
      'CASL s. 10(10)(e): an inquiry implies for six months',
      () => verdict('CA', APPEAL, '2026-02-28T12:00Z', related('inquiry', '2025-08-31T12:00Z')),
      'send',
    ],
    [
      'CASL s. 10(10)(e): and no longer; 31 August ends with February',
      () => verdict('CA', APPEAL, '2026-03-01T00:00Z', related('inquiry', '2025-08-31T12:00Z')),
      'no-permission',
    ],
    [
      'CASL s. 6(1)(a): without consent nothing',
      () => verdict('CA', APPEAL, '2026-03-01T00:00Z', []),
      'no-permission',
    ],
    [
      'SOR/2013-221 s. 3(g): a registered charity may ask for funds, once switched on',
      () => verdict('CA', APPEAL, '2026-03-01T00:00Z', [], CA_CHARITY),
      'send',
    ],
    [
      'SOR/2013-221 s. 3(g): but not send its news',
      () => verdict('CA', ['email', 'news'], '2026-03-01T00:00Z', [], CA_CHARITY),
      'no-permission',
    ],
    [
      'CASL s. 11: and a no still closes',
      () =>
        verdict(
          'CA',
          APPEAL,
          '2026-03-01T00:00Z',
          [{ state: 'no', how: 'one-click', on: '2026-01-01' }],
          CA_CHARITY,
        ),
      'said-no',
    ],
    [
      'PECR reg. 22(2): email in the United Kingdom wants consent',
      () => verdict('GB', APPEAL, '2026-06-01T00:00Z', related('gift', '2026-03-01')),
      'no-permission',
    ],
    [
      'PECR reg. 22(3A): the charities’ soft opt-in, switched on, for a gift since it applies',
      () => verdict('GB', APPEAL, '2026-06-01T00:00Z', related('gift', '2026-03-01'), UK_SOFT),
      'send',
    ],
    [
      'PECR reg. 22(3A): not for a contact gathered before it applied',
      () => verdict('GB', APPEAL, '2026-06-01T00:00Z', related('gift', '2026-02-04'), UK_SOFT),
      'no-permission',
    ],
    [
      'PECR reg. 22(3A)(c): of somebody who could not refuse as the address was taken, nothing follows',
      () =>
        verdict('GB', APPEAL, '2026-06-01T00:00Z', related('gift', '2026-03-01'), {
          ...UK_SOFT,
          refusalOfferedSince: null,
        }),
      'no-permission',
    ],
    [
      'PECR reg. 22(3A)(c): nor of a gift before the day since which a refusal is offered',
      () =>
        verdict('GB', APPEAL, '2026-06-01T00:00Z', related('gift', '2026-03-01'), {
          ...UK_SOFT,
          refusalOfferedSince: '2026-03-02',
        }),
      'no-permission',
    ],
    [
      'GDPR art. 7(1): in the Union only an express yes',
      () => verdict('FR', APPEAL, '2026-06-01T00:00Z', related('gift', '2026-05-01')),
      'no-permission',
    ],
    [
      'GDPR art. 6(1)(a): and that is enough',
      () => verdict('FR', APPEAL, '2026-06-01T00:00Z', [{ state: 'yes', how: 'form', on: '2026-05-01' }]),
      'send',
    ],
    [
      'GDPR art. 7(3): which may be withdrawn at any time',
      () =>
        verdict('FR', APPEAL, '2026-06-01T00:00Z', [
          { state: 'yes', how: 'form', on: '2026-05-01' },
          { state: 'no', how: 'preferences', on: '2026-05-02' },
        ]),
      'said-no',
    ],
    [
      'GDPR art. 21(2)-(3): an objection closes marketing',
      () =>
        verdict('DE', ['email', 'list:4'], '2026-06-01T00:00Z', [
          { state: 'yes', how: 'form', on: '2026-05-01', scope: 'list:4' },
          { state: 'no', how: 'objection', on: '2026-05-02' },
        ]),
      'said-no',
    ],
    [
      'GDPR art. 21: and not the receipt',
      () =>
        verdict('DE', ['email', 'service'], '2026-06-01T00:00Z', [
          { state: 'no', how: 'objection', on: '2026-05-02' },
        ]),
      'send',
    ],
    [
      'EEA Agreement, Annex XI: Norway counts to the Union',
      () => verdict('NO', APPEAL, '2026-06-01T00:00Z', related('gift', '2026-05-01')),
      'no-permission',
    ],
    [
      '47 CFR 64.1200(f)(5)(i): a gift keeps a relationship for 18 months',
      () => verdict('US', APPEAL, '2026-09-10T12:00Z', related('gift', '2025-03-10T12:00Z')),
      'send',
    ],
    [
      '47 CFR 64.1200(f)(5)(i): and no longer',
      () => verdict('US', APPEAL, '2026-09-11T00:00Z', related('gift', '2025-03-10T12:00Z')),
      'no-permission',
    ],
    [
      '47 CFR 64.1200(f)(5)(ii): an inquiry for three',
      () => verdict('US', APPEAL, '2026-06-10T12:00Z', related('inquiry', '2026-03-10T12:00Z')),
      'send',
    ],
    [
      '47 CFR 64.1200(a)(1): a text wants express consent, a gift is none',
      () => verdict('US', ['text', 'appeals'], '2026-06-10T12:00Z', related('gift', '2026-06-01')),
      'no-permission',
    ],
    [
      '15 U.S.C. 7704(a)(4): leaving closes',
      () =>
        verdict(
          'US',
          APPEAL,
          '2026-06-10T12:00Z',
          [{ state: 'no', how: 'one-click', on: '2026-06-09' }],
          US_UNASKED,
        ),
      'said-no',
    ],
    [
      '15 U.S.C. 7704: no agreement is asked before the first mail, once switched on',
      () => verdict('US', APPEAL, '2026-06-10T12:00Z', [], US_UNASKED),
      'send',
    ],
    [
      'our own: switched off, somebody never asked gets nothing',
      () => verdict('US', APPEAL, '2026-06-10T12:00Z', []),
      'no-permission',
    ],
  ];
  test.each(rows)('%s', (_law, ask, expected) => {
    expect(ask()).toBe(expected);
  });
});

test('47 CFR 64.1200(a)(10)(i): each of the words named ends consent by itself, in any dress', () => {
  for (const word of ['stop', 'quit', 'end', 'revoke', 'opt out', 'cancel', 'unsubscribe']) {
    for (const dress of [word, word.toUpperCase(), `${word}!`, ` ${word}. `, `"${word}"`])
      expect([dress, readIntent(dress)]).toEqual([dress, 'stop']);
  }
});

test('47 CFR 64.1200(a)(10)(ii): other reasonable words are seen too, and people who only speak of stopping are left alone', () => {
  const stops = [
    'Please stop texting me',
    'do not contact me again',
    "Don't text me anymore",
    'Take me off your list',
    'REMOVE ME PLEASE',
    'pls stop',
    'Stop it already',
    'I no longer want these messages',
    'leave me alone!!',
    'wrong number',
    'opt me out of this',
    'Ne m’envoyez plus de messages',
    'arrêtez de m’écrire',
    'Denme de baja por favor',
    'no me envíen más mensajes',
    'Bitte keine Nachrichten mehr',
    'Ich möchte mich abmelden',
  ];
  const others = [
    "I'll stop by on Saturday",
    'Which bus stop is nearest to the landing?',
    "Don't stop, I love these",
    'Can we end the evening run at eight?',
    'See you there',
    'Is it over yet?',
    'Never been happier',
    'How do I get on the list?',
    '',
  ];
  expect(stops.filter((text) => !['stop', 'hold'].includes(readIntent(text)))).toEqual([]);
  expect(others.filter((text) => readIntent(text) !== 'none')).toEqual([]);
});

describe('47 CFR 64.1200(c)(1): not before 8 a.m. and not after 9 p.m. where the person is', () => {
  const hours = PRESETS['united-states'].rules.hours.text!;
  const at = (place: Place, moment: string) =>
    withinHours(hours, zonesOf(place, 'America/Los_Angeles'), Date.parse(moment));
  const rows: [string, Place, string, boolean][] = [
    ['New York, 08:00:00', { country: 'US', region: 'NY' }, '2026-01-15T13:00:00.000Z', true],
    ['New York, 07:59:59.999', { country: 'US', region: 'NY' }, '2026-01-15T12:59:59.999Z', false],
    ['New York, 21:00:00', { country: 'US', region: 'NY' }, '2026-01-16T02:00:00.000Z', true],
    ['New York, 21:00:00.001', { country: 'US', region: 'NY' }, '2026-01-16T02:00:00.001Z', false],
    ['New York in summer time, 08:00', { country: 'US', region: 'NY' }, '2026-07-15T12:00:00.000Z', true],
    [
      'Arizona keeps no summer time, but the Navajo Nation does: 20:30 in Phoenix is 21:30 there',
      { country: 'US', region: 'AZ' },
      '2026-07-16T03:30:00.000Z',
      false,
    ],
    [
      'Arizona in winter, when both keep the same time: 20:30 in Phoenix',
      { country: 'US', region: 'AZ' },
      '2026-01-16T03:30:00.000Z',
      true,
    ],
    ['Arizona, 08:00 in Phoenix', { country: 'US', region: 'AZ' }, '2026-07-15T15:00:00.000Z', true],
    ['Hawaii, 08:00', { country: 'US', region: 'HI' }, '2026-01-15T18:00:00.000Z', true],
    [
      'Florida, two zones: 08:00 Eastern is too early in the Panhandle',
      { country: 'US', region: 'FL' },
      '2026-01-15T13:00:00.000Z',
      false,
    ],
    ['Florida, 08:00 Central', { country: 'US', region: 'FL' }, '2026-01-15T14:00:00.000Z', true],
    [
      'a state not known: not before it is 08:00 in Honolulu',
      { country: 'US', region: null },
      '2026-01-15T17:59:59.000Z',
      false,
    ],
    [
      'a state not known: not after 21:00 in New York',
      { country: 'US', region: null },
      '2026-01-16T02:00:00.001Z',
      false,
    ],
    ['a state not known, between the two', { country: 'US', region: null }, '2026-01-15T20:00:00.000Z', true],
  ];
  test.each(rows)('%s', (_words, place, moment, expected) => {
    expect(at(place, moment)).toBe(expected);
  });
});

test('a stricter state has rules of its own: hours to 8 p.m. (Fla. Stat. 501.059(8)(a), from memory)', () => {
  const florida = {
    ...PRESETS['united-states'].rules,
    hours: { call: { from: 480, to: 1200 }, text: { from: 480, to: 1200 } },
  };
  const rules: HouseRules = { ...START, places: { ...START.places, 'US-FL': florida } };
  const zones = zonesOf({ country: 'US', region: 'FL' }, 'America/Los_Angeles');
  expect(withinHours(rules.places['US-FL']!.hours.text, zones, Date.parse('2026-01-16T01:00:00Z'))).toBe(
    true,
  );
  expect(withinHours(rules.places['US-FL']!.hours.text, zones, Date.parse('2026-01-16T01:00:01Z'))).toBe(
    false,
  );
});

test('47 CFR 64.1200(a)(12): after a STOP no second question goes to the phone', () => {
  const stop = { at: 1, entryId: 1 };
  const request = {
    now: 2,
    unanswered: [],
    all: [],
    isReminder: false,
    neverAgain: false,
    address: { onHold: false, doNotContact: false },
  };
  expect(mayAskToConfirm({ ...request, channel: 'text', marks: { stop } })).toBe(false);
  expect(mayAskToConfirm({ ...request, channel: 'text', marks: {} })).toBe(true);
});

test('a lapse falls on the last day of a month that has no such day', () => {
  const day = (iso: string) => new Date(lapseOf(Date.parse(iso), 6)).toISOString();
  expect(day('2025-08-31T09:00Z')).toBe('2026-02-28T23:59:59.999Z');
  expect(day('2023-08-29T23:59Z')).toBe('2024-02-29T23:59:59.999Z');
  expect(new Date(lapseOf(Date.parse('2024-02-29T00:00Z'), 24)).toISOString()).toBe(
    '2026-02-28T23:59:59.999Z',
  );
});
