import {
  rulePurposeOf,
  changedQuestions,
  isPlaceKey,
  keysFor,
  mayWrite,
  placeKeyOf,
  PRESET_NAMES,
  PRESETS,
  ruleChanges,
  ruleFaults,
  rulesFor,
  startingRules,
  STATES,
  withOption,
  type HouseRules,
  type PlaceRules,
} from '.';
import { explain, spoken } from '../words';

const START = startingRules('US');
const US = PRESETS['united-states'].rules;
const with_ = (key: string, place: PlaceRules): HouseRules => ({
  ...START,
  places: { ...START.places, [key]: place },
});

describe('which rules hold for somebody', () => {
  const rules: HouseRules = { ...with_('US-FL', { ...US, oldAfterMonths: 1 }), charityIn: ['CA'] };
  const rows: [string | null, string | null, string][] = [
    ['US', 'FL', 'US-FL'],
    ['US', 'NY', 'US'],
    ['US', null, 'US'],
    ['CA', 'QC', 'CA'],
    ['FR', 'IDF', 'EU'],
    ['NO', null, 'EU'],
    ['GB', null, 'GB'],
    ['NZ', null, '*'],
    [null, null, 'US'],
    [null, 'FL', 'US'],
  ];
  test.each(rows)('%s %s: %s', (country, region, key) => {
    expect(placeKeyOf(rules, { country, region })).toBe(key);
    expect(rulesFor(rules, { country, region })).toEqual(rules.places[key]);
  });

  test('what counts for registered charities alone counts where the house is one', () => {
    const rules = with_('CA', { ...US, charityOnly: ['gift'] });
    const lasts = (charityIn: string[] | undefined, key = 'CA') =>
      rulesFor({ ...rules, charityIn }, { country: key, region: null }).lasts;
    expect([lasts(undefined).gift, lasts(['US']).gift, lasts(['CA']).gift]).toEqual([
      null,
      null,
      US.lasts.gift,
    ]);
    expect(lasts(undefined).membership).toBe(US.lasts.membership);
    const region = { ...with_('CA-QC', { ...US, charityOnly: ['gift'] }), charityIn: ['CA'] };
    expect(rulesFor(region, { country: 'CA', region: 'QC' }).lasts.gift).toBe(US.lasts.gift);
  });

  test('where a refusal must have been offered, relationships count from the day on which it was', () => {
    const of = (offerNeeded: boolean, impliedFrom: string | null, refusalOfferedSince?: string | null) => {
      const { lasts, impliedFrom: from } = rulesFor(
        { ...with_('GB', { ...US, offerNeeded, impliedFrom }), refusalOfferedSince },
        GB,
      );
      return [lasts.gift, lasts.inquiry, from];
    };
    const GB = { country: 'GB', region: null };
    const [gift, inquiry] = [US.lasts.gift, US.lasts.inquiry];
    expect(of(false, '2026-02-05')).toEqual([gift, inquiry, '2026-02-05']);
    expect([of(true, '2026-02-05'), of(true, null, null)]).toEqual([
      [null, null, '2026-02-05'],
      [null, null, null],
    ]);
    expect(of(true, '2026-02-05', '2026-06-01')).toEqual([gift, inquiry, '2026-06-01']);
    expect(of(true, '2026-02-05', '2025-06-01')).toEqual([gift, inquiry, '2026-02-05']);
    expect(of(true, null, '2025-06-01')).toEqual([gift, inquiry, '2025-06-01']);
  });

  test('rules without a place for everybody are a fault that is named', () => {
    expect(() => rulesFor({ home: 'US', places: { US } }, { country: 'FR', region: null })).toThrow(
      'expected rules for everywhere else ("*"), got none',
    );
  });

  test('what is asked of everything, of marketing and of lists is asked of lists, of a purpose that purpose', () => {
    expect((['all', 'marketing', 'list:4', 'news', 'service'] as const).map(rulePurposeOf)).toEqual([
      'lists',
      'lists',
      'lists',
      'news',
      'service',
    ]);
  });

  test('who may be written to, by what is needed and how they stand', () => {
    const needs = (need: 'yes' | 'implied' | 'nothing') => ({
      ...US,
      needs: { ...US.needs, email: { ...US.needs.email, news: need } },
    });
    const may = (need: 'yes' | 'implied' | 'nothing') =>
      STATES.filter((state) => mayWrite(needs(need), 'email', 'news', state));
    expect([may('yes'), may('implied'), may('nothing')]).toEqual([
      ['yes'],
      ['yes', 'implied'],
      ['yes', 'implied', 'never'],
    ]);
  });

  test('a country of the Union may have rules of its own', () => {
    const own = with_('DE', US);
    expect([
      placeKeyOf(own, { country: 'DE', region: null }),
      placeKeyOf(own, { country: 'AT', region: null }),
    ]).toEqual(['DE', 'EU']);
  });

  test('a home that has no rules falls to everywhere else', () => {
    expect(placeKeyOf({ home: 'ZZ', places: { '*': US } }, { country: null, region: null })).toBe('*');
  });

  test('keys are countries, regions of one, the Union and everywhere else', () => {
    expect(['US', 'US-FL', 'GB-SCT', 'EU', '*'].filter(isPlaceKey)).toEqual([
      'US',
      'US-FL',
      'GB-SCT',
      'EU',
      '*',
    ]);
    expect(['us', 'USA', "US'--", '', 'US-', 'US-FLOR'].filter(isPlaceKey)).toEqual([]);
    expect(keysFor({ country: 'FR', region: 'IDF' })).toEqual(['FR-IDF', 'FR', 'EU', '*']);
  });
});

describe('presets', () => {
  test.each([...PRESET_NAMES])('%s is sound and names its sources', (name) => {
    const preset = PRESETS[name];
    expect(spoken(ruleFaults({ home: '*', places: { '*': preset.rules } }))).toEqual([]);
    expect(preset.rules.preset).toBe(name);
    expect(preset.sources.length).toBeGreaterThan(0);
    for (const source of preset.sources) expect(source.source).not.toBe('');
  });

  test('an option switched on and off again leaves what it was switched on over', () => {
    for (const name of PRESET_NAMES) {
      for (const option of PRESETS[name].options) {
        const changed = { ...PRESETS[name].rules, oldAfterMonths: 7 };
        const on = withOption(changed, option.id, true);
        expect(on.options).toEqual([option.id]);
        expect(on).not.toEqual({ ...changed, options: [option.id] });
        expect(withOption(on, option.id, false)).toEqual(changed);
      }
    }
  });

  test('off takes back only what the option had changed', () => {
    const on = withOption(PRESETS.canada.rules, 'charity-fundraising', true);
    const also = { ...on, needs: { ...on.needs, email: { ...on.needs.email, news: 'yes' as const } } };
    const off = withOption(also, 'charity-fundraising', false);
    expect(off.needs.email).toMatchObject({ news: 'yes', appeals: 'implied' });
  });

  test('an option of another preset is refused', () => {
    expect(() => withOption(US, 'charity-fundraising', true)).toThrow('expected an option of united-states');
  });

  test('texts go only after a yes, whatever is written', () => {
    const loose = { ...US, needs: { ...US.needs, text: { ...US.needs.text, appeals: 'nothing' as const } } };
    expect(STATES.filter((state) => mayWrite(loose, 'text', 'appeals', state))).toEqual(['yes']);
    expect(spoken(ruleFaults(with_('US', loose)))).toEqual([
      'United States: texts go to people who said yes, wherever they are.',
    ]);
  });

  test('hours that end when they begin are none, on any day', () => {
    const none = { from: 600, to: 600 };
    const day = { from: 480, to: 1200 };
    const faults = (hours: PlaceRules['hours']) => spoken(ruleFaults(with_('US', { ...US, hours })));
    const told = ['United States: hours that end when they begin are none; choose others.'];
    expect([
      faults({ call: null, text: none }),
      faults({ call: none, text: null }),
      faults({ call: none, text: none }),
    ]).toEqual([told, told, told]);
    expect(faults({ call: null, text: { ...day, days: { sun: none } } })).toEqual(told);
    expect(faults({ call: null, text: { ...day, holidays: none } })).toEqual(told);
    expect(faults({ call: day, text: { ...day, days: { sun: null, sat: day }, holidays: null } })).toEqual(
      [],
    );
  });

  test('hours that end before they begin go over midnight', () => {
    expect(
      spoken(ruleFaults(with_('US', { ...US, hours: { call: null, text: { from: 1200, to: 480 } } }))),
    ).toEqual([]);
  });

  test('rules for everywhere else are never missing', () => {
    expect(spoken(ruleFaults({ home: 'US', places: { US } }))).toEqual([
      'There must be rules for everywhere else.',
    ]);
  });
});

describe('a change of rules', () => {
  const email = (need: 'yes' | 'implied' | 'nothing') => ({
    ...US,
    needs: { ...US.needs, email: { ...US.needs.email, appeals: need } },
  });

  test('names what it must be counted for', () => {
    expect(changedQuestions(START, START)).toEqual([]);
    expect(changedQuestions(START, with_('US', email('nothing')))).toEqual([
      { channel: 'email', askedFor: 'appeals' },
    ]);
    const longer = with_('CA', {
      ...PRESETS.canada.rules,
      lasts: { ...PRESETS.canada.rules.lasts, gift: 12 },
    });
    // Gifts count in Canada for its registered charities alone: for any other house their length changes
    // nothing.
    expect(changedQuestions(START, longer)).toEqual([]);
    const charity = { charityIn: ['CA'] };
    expect(
      changedQuestions({ ...START, ...charity }, { ...longer, ...charity }).map(
        (one) => `${one.channel} ${one.askedFor}`,
      ),
    ).toEqual([
      ...['news', 'appeals', 'volunteering', 'lists'].map((purpose) => `email ${purpose}`),
      ...['news', 'appeals', 'volunteering', 'service', 'lists'].map((purpose) => `call ${purpose}`),
    ]);
    expect(changedQuestions(START, with_('US', { ...US, track: { opens: false, links: false } }))).toEqual(
      [],
    );
  });

  test('what counts only for charities, or where a refusal was offered, counts when that changes', () => {
    const gb = { ...PRESETS['united-kingdom'].rules, offerNeeded: false };
    const implied = {
      ...gb,
      needs: { ...gb.needs, email: { ...gb.needs.email, appeals: 'implied' as const } },
      lasts: { ...gb.lasts, gift: 24 },
    };
    const asked = (before: PlaceRules, after: PlaceRules) =>
      changedQuestions(with_('GB', before), with_('GB', after)).map(
        (one) => `${one.channel} ${one.askedFor}`,
      );
    expect(asked(implied, { ...implied, offerNeeded: true })).toContain('email appeals');
    expect(asked(implied, { ...implied, charityOnly: ['gift'] })).toContain('email appeals');
    expect(changedQuestions(START, { ...START, charityIn: ['CA'] })).toContainEqual({
      channel: 'email',
      askedFor: 'appeals',
    });
    expect(changedQuestions(START, { ...START, refusalOfferedSince: '2026-01-01' })).toContainEqual({
      channel: 'email',
      askedFor: 'appeals',
    });
    expect(changedQuestions({ ...START, charityIn: [] }, { ...START, refusalOfferedSince: null })).toEqual(
      [],
    );
  });

  test('caps count for each purpose of their channel, service too, and a home elsewhere for everything', () => {
    const capped = with_('US', { ...US, caps: { ...US.caps, email: { messages: 1, days: 30 } } });
    const all = ['news', 'appeals', 'volunteering', 'service', 'lists'];
    expect(changedQuestions(START, capped).map((one) => `${one.channel} ${one.askedFor}`)).toEqual(
      all.map((purpose) => `email ${purpose}`),
    );
    expect(changedQuestions(START, { ...START, home: 'EU' })).toHaveLength(4 * all.length);
  });

  test('a place of its own that says what held there before changes nothing, and another does', () => {
    const { EU, '*': elsewhere } = START.places;
    expect([
      changedQuestions(START, with_('AT', EU!)),
      changedQuestions(START, with_('NZ', elsewhere!)),
    ]).toEqual([[], []]);
    expect(changedQuestions(START, with_('AT', { ...EU!, needs: US.needs }))).toContainEqual({
      channel: 'email',
      askedFor: 'news',
    });
    expect(changedQuestions(with_('US-FL', US), with_('US-FL', EU!))).toContainEqual({
      channel: 'email',
      askedFor: 'news',
    });
    const { '*': _gone, ...places } = START.places;
    expect(changedQuestions(START, { ...START, places: { ...places, '*': US } })).toContainEqual({
      channel: 'email',
      askedFor: 'news',
    });
  });

  test('a place taken out falls back, and that counts too', () => {
    const { CA: _gone, ...places } = START.places;
    expect(changedQuestions(START, { ...START, places })).toContainEqual({
      channel: 'email',
      askedFor: 'news',
    });
  });

  test('is said in sentences', () => {
    expect(spoken(ruleChanges(START, with_('US', email('nothing'))))).toEqual([
      'United States: email for appeals needs nothing on record, no longer at least an implied permission.',
    ]);
    expect(spoken(ruleChanges(START, with_('US-ME', US)))).toEqual([
      'United States, ME has rules of its own now.',
    ]);
    expect(spoken(ruleChanges(START, { ...START, home: 'EU' }))).toEqual([
      'People whose place is not known now count to European Union.',
    ]);
    expect(
      spoken(
        ruleChanges(START, with_('US', { ...US, hours: { ...US.hours, text: { from: 600, to: 1110 } } })),
      ),
    ).toEqual(['United States: texts leave from 10:00 to 18:30.']);
    expect(spoken(ruleChanges(START, START))).toEqual([]);
  });
});

test('a refusal names the place and what its rule asks for', () => {
  const decision = {
    verdict: 'no-permission' as const,
    contactPointId: 7,
    state: 'never' as const,
    entryId: null,
    until: null,
  };
  const asked = { channel: 'email' as const, scope: 'appeals' as const, rules: START };
  expect(explain(decision, { ...asked, place: { country: 'FR', region: null } })).toBe(
    'Never asked, and for this the rule of the place (European Union, from “European Union”) asks for an express yes.',
  );
  expect(
    explain(
      { ...decision, verdict: 'send', state: 'implied' },
      { ...asked, place: { country: 'US', region: null } },
    ),
  ).toBe(
    'Implied, and for this the rule of the place (United States) asks for at least an implied permission.',
  );
  expect(
    explain(
      { ...decision, verdict: 'had-enough', state: 'yes' },
      { ...asked, place: { country: 'US', region: null } },
    ),
  ).toContain('Has had 6 in the last 7 days');
  expect(
    explain(
      { ...decision, verdict: 'said-no', state: 'no' },
      { ...asked, place: { country: 'US', region: null } },
    ),
  ).toBe('Opted out.');
});
