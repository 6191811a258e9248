import {
  asksToConfirm,
  mayAskToConfirm,
  mustConfirm,
  PRESETS,
  requestStands,
  vouchedState,
  type Marks,
  type ConfirmationRequest,
} from '.';

const DAY = 86_400_000;
const NOW = 100 * DAY;
const US = PRESETS['united-states'].rules;
const OFF = { ...US, confirm: { ...US.confirm, email: false, text: false, call: false } };
const mark = (day: number) => ({ at: day * DAY, entryId: 1 });

describe('whether a form is confirmed', () => {
  const must = (more: Partial<Parameters<typeof mustConfirm>[0]>) =>
    mustConfirm({
      how: 'form',
      channel: 'email',
      states: ['never'],
      proven: false,
      formAsks: false,
      rules: US,
      ...more,
    });

  test('in every preset, for email, texts and calls, since anybody can type an address', () => {
    for (const { rules } of Object.values(PRESETS))
      expect((['email', 'text', 'call'] as const).map((channel) => must({ rules, channel }))).toEqual([
        true,
        true,
        true,
      ]);
    expect(asksToConfirm(US, 'post')).toBe(false);
    const only = (channel: 'email' | 'text' | 'call') => ({
      ...OFF,
      confirm: { ...OFF.confirm, [channel]: true },
    });
    for (const one of ['email', 'text', 'call'] as const)
      expect(
        (['email', 'text', 'call', 'post'] as const).filter((channel) => asksToConfirm(only(one), channel)),
      ).toEqual([one]);
  });

  test('not where the house has turned it off or the visit proves the address, and always after a no', () => {
    expect([
      must({ rules: OFF }),
      must({ rules: OFF, formAsks: true }),
      must({ proven: true }),
      must({ proven: true, formAsks: true }),
    ]).toEqual([false, true, false, false]);
    expect([must({ rules: OFF, states: ['never', 'no'] }), must({ proven: true, states: ['no'] })]).toEqual([
      true,
      true,
    ]);
  });

  test('not where everything was agreed to already, and never by keyword', () => {
    expect([must({ states: ['yes', 'yes'] }), must({ states: ['yes', 'implied'] })]).toEqual([false, true]);
    expect(must({ how: 'keyword', channel: 'text', states: ['no'] })).toBe(false);
  });
});

describe('whether a request may go', () => {
  const may = (more: Partial<ConfirmationRequest>) =>
    mayAskToConfirm({
      channel: 'email',
      address: { onHold: false, doNotContact: false },
      now: NOW,
      marks: {},
      unanswered: [],
      all: [],
      isReminder: false,
      neverAgain: false,
      ...more,
    });
  const sent = (...daysAgo: number[]) => ({
    unanswered: daysAgo.map((n) => NOW - n * DAY),
    all: daysAgo.map((n) => NOW - n * DAY),
  });

  test('twice in all until it is answered, whenever that was', () => {
    expect([may({}), may(sent(3)), may(sent(3, 900)), may({ all: sent(1, 2, 3).all })]).toEqual([
      true,
      true,
      false,
      true,
    ]);
  });

  test('not where nothing can go, nor to who never wants to be asked', () => {
    const address = { onHold: false, doNotContact: false };
    expect([
      may({ address: { ...address, onHold: true } }),
      may({ address: { ...address, doNotContact: true } }),
      may({ neverAgain: true }),
    ]).toEqual([false, false, false]);
  });

  test('after a no once, without a reminder, and not again within 30 days', () => {
    const no: Marks = { no: mark(50) };
    expect(may({ marks: no })).toBe(true);
    expect(may({ marks: no, isReminder: true, ...sent(3) })).toBe(false);
    expect([may({ marks: no, ...sent(29) }), may({ marks: no, ...sent(30) })]).toEqual([false, true]);
    // Answered ones count too: thirty days are thirty days.
    expect(may({ marks: no, all: sent(10).all })).toBe(false);
    expect(may({ marks: { ...no, ownYes: mark(60), yes: mark(60) }, isReminder: true, ...sent(3) })).toBe(
      true,
    );
  });

  test('never by text to a number that has stopped us', () => {
    const stop: Marks = { stop: mark(50) };
    expect([
      may({ channel: 'text', marks: stop }),
      may({ channel: 'call', marks: stop }),
      may({ channel: 'text' }),
    ]).toEqual([false, false, true]);
    expect(may({ channel: 'text', marks: { ...stop, start: mark(51) } })).toBe(true);
  });

  test('whoever says no after it was made has answered it', () => {
    expect(requestStands(50 * DAY, { no: mark(49) })).toBe(true);
    expect(requestStands(50 * DAY, { no: mark(51) })).toBe(false);
    // A no of before that is told once more in the moment of asking does not answer it.
    expect([
      requestStands(50 * DAY, { no: mark(50) }),
      requestStands(50 * DAY, { stop: mark(50) }),
      requestStands(50 * DAY, {}),
    ]).toEqual([true, true, true]);
    expect(requestStands(50 * DAY, { stop: mark(51), start: mark(52) })).toBe(false);
  });
});

describe('what a yes vouched for by a file becomes', () => {
  const becomes = (more: Partial<Parameters<typeof vouchedState>[0]>) =>
    vouchedState({
      toConfirm: true,
      saidAt: NOW - 5 * DAY,
      now: NOW,
      withinDays: 30,
      address: { onHold: false, doNotContact: false },
      marks: {},
      channel: {},
      ...more,
    });

  test('asked, where they signed up lately and are to confirm', () => {
    expect(becomes({})).toBe('asked');
    expect([
      becomes({ toConfirm: false }),
      becomes({ saidAt: NOW - 30 * DAY }),
      becomes({ saidAt: NOW - 30 * DAY - 1 }),
    ]).toEqual(['yes', 'asked', 'yes']);
  });

  test('yes, where nobody is to be asked: agreed before, refused anything, or out of reach', () => {
    const yes = { yes: mark(1) };
    expect(becomes({ marks: yes, channel: yes })).toBe('yes');
    expect([becomes({ channel: { no: mark(1) } }), becomes({ channel: { stop: mark(1) } })]).toEqual([
      'yes',
      'yes',
    ]);
    expect(becomes({ address: { onHold: true, doNotContact: false } })).toBe('yes');
    expect(becomes({ address: { onHold: false, doNotContact: true } })).toBe('yes');
    // Agreed to something else is not agreed to this.
    expect(becomes({ channel: yes })).toBe('asked');
  });
});
