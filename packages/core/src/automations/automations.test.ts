import fc from 'fast-check';
import { causeWords, type CauseNames } from '../words';
import { wallTimeOf } from '../schedule';
import {
  CAUSE_KINDS,
  CAUSES,
  comesAgain,
  endOf,
  firstMoment,
  momentAfter,
  takeUp,
  type Cause,
  type Occurrence,
  type Wait,
} from '.';

const ZONE = 'America/Los_Angeles';
const at = (iso: string) => Date.parse(iso);
const after = (iso: string, wait: Wait, zone = ZONE) =>
  new Date(momentAfter(at(iso), wait, zone)).toISOString();

describe('how long after', () => {
  test.each<[string, string, Wait, string]>([
    ['two hours', '2026-12-01T18:00:00Z', { n: 2, unit: 'hours', at: null }, '2026-12-01T20:00:00.000Z'],
    [
      'no time at all',
      '2026-12-01T18:00:00Z',
      { n: 0, unit: 'minutes', at: null },
      '2026-12-01T18:00:00.000Z',
    ],
    // Ten in the morning stays ten when clocks go back on 1 November 2026 (IANA, America/Los_Angeles).
    [
      'a day over the end of summer time',
      '2026-10-31T17:00:00Z',
      { n: 1, unit: 'days', at: null },
      '2026-11-01T18:00:00.000Z',
    ],
    [
      '24 hours over it',
      '2026-10-31T17:00:00Z',
      { n: 24, unit: 'hours', at: null },
      '2026-11-01T17:00:00.000Z',
    ],
    [
      'three days, at ten',
      '2026-12-01T23:30:00Z',
      { n: 3, unit: 'days', at: 600 },
      '2026-12-04T18:00:00.000Z',
    ],
    [
      'the same day at ten, before it',
      '2026-12-01T16:00:00Z',
      { n: 0, unit: 'days', at: 600 },
      '2026-12-01T18:00:00.000Z',
    ],
    [
      'the same day at ten, after it',
      '2026-12-01T19:00:00Z',
      { n: 0, unit: 'days', at: 600 },
      '2026-12-02T18:00:00.000Z',
    ],
    // 2:30 is left out on 8 March 2026: it comes at what is 3:30 then (RFC 5545 §3.3.5).
    [
      'at a time that is left out',
      '2026-03-07T18:00:00Z',
      { n: 1, unit: 'days', at: 150 },
      '2026-03-08T10:30:00.000Z',
    ],
  ])('%s', (_name, from, wait, expected) => expect(after(from, wait)).toBe(expected));

  test('it is never before what it waits for, nor more than two days later than asked', () => {
    const waits = fc.record({
      n: fc.integer({ min: 0, max: 60 }),
      unit: fc.constantFrom('minutes' as const, 'hours' as const, 'days' as const),
      at: fc.option(fc.integer({ min: 0, max: 1439 }), { nil: null }),
    });
    const zones = fc.constantFrom(ZONE, 'Europe/Berlin', 'Asia/Kathmandu', 'Pacific/Apia');
    const moments = fc.integer({ min: at('2020-01-01T00:00:00Z'), max: at('2030-01-01T00:00:00Z') });
    fc.assert(
      fc.property(waits, zones, moments, (wait, zone, from) => {
        const minute = from - (from % 60_000);
        const then = momentAfter(minute, wait, zone);
        const length = { minutes: 60_000, hours: 3_600_000, days: 86_400_000 }[wait.unit];
        expect(then).toBeGreaterThanOrEqual(minute);
        expect(then).toBeLessThanOrEqual(minute + wait.n * length + 2 * 86_400_000);
        // A clock there shows the time, but for an hour that clocks leave out.
        const shown = wallTimeOf(then, zone).minutes;
        if (wait.at !== null) expect([0, 60]).toContain((shown - wait.at + 1440) % 1440);
      }),
    );
  });
});

test('what happens on a day without a time of it is told in its morning, not at midnight', () => {
  const midnight = at('2026-12-01T08:00:00Z');
  const first = (wait: Wait, kind: Cause['kind'] = 'date') =>
    new Date(firstMoment(kind, midnight, wait, ZONE)).toISOString();
  expect(first({ n: 0, unit: 'minutes', at: null })).toBe('2026-12-01T18:00:00.000Z');
  expect(first({ n: 2, unit: 'hours', at: null })).toBe('2026-12-01T20:00:00.000Z');
  expect(first({ n: 3, unit: 'days', at: null })).toBe('2026-12-04T18:00:00.000Z');
  expect(first({ n: 0, unit: 'days', at: 480 })).toBe('2026-12-01T16:00:00.000Z');
  expect(first({ n: 0, unit: 'minutes', at: null }, 'gift')).toBe('2026-12-01T08:00:00.000Z');
});

describe('taking up', () => {
  const happened = fc.array(
    fc.record({
      supporterId: fc.integer({ min: 1, max: 5 }),
      key: fc.constantFrom('a', 'b', 'c'),
      at: fc.integer({ min: 0, max: 20 }),
    }),
    { maxLength: 30 },
  );

  /** Told round after round, with everything told again now and then, as a scan over an hour does. */
  function rounds(told: readonly Occurrence[][], again: boolean) {
    const all: Occurrence[] = [];
    for (const found of told) {
      const before = {
        people: new Set(all.map(({ supporterId }) => supporterId)),
        occurrences: new Set(all.map(({ supporterId, key }) => `${supporterId} ${key}`)),
        lately: 0,
      };
      all.push(...takeUp(found, before, { again, pile: 1000 }).taken);
    }
    return all;
  }

  test('each thing that happened is taken up once, however often it is told; each person once', () => {
    fc.assert(
      fc.property(fc.array(happened, { maxLength: 6 }), fc.boolean(), (told, again) => {
        const taken = rounds(told, again);
        const key = (one: Occurrence) => (again ? `${one.supporterId}/${one.key}` : `${one.supporterId}`);
        const everything = new Set(told.flat().map(key));
        expect(taken).toHaveLength(everything.size);
        expect(new Set(taken.map(key))).toEqual(everything);
      }),
    );
  });

  test('one over the number of the house waits, all of it; so many do not', () => {
    const found = [1, 2, 3].map((supporterId) => ({ supporterId, key: 'x', at: 0 }));
    const none = { people: new Set<number>(), occurrences: new Set<string>(), lately: 0 };
    const rule = { again: false, pile: 3 };
    expect(takeUp(found, none, rule).held).toBe(false);
    expect(takeUp(found, { ...none, lately: 1 }, rule)).toEqual({ taken: found, held: true });
    expect(takeUp(found, { ...none, people: new Set([1]), lately: 1 }, rule).held).toBe(false);
  });
});

test('what ends it: first what set it going, then what somebody did, then what is excepted', () => {
  const all = { stands: true, gave: true, replied: true, left: true, excepted: true };
  expect(endOf(['gave', 'replied', 'left'], { ...all, stands: false })).toBe('cause-gone');
  expect(endOf(['gave', 'replied', 'left'], all)).toBe('left');
  expect(endOf(['gave', 'replied'], all)).toBe('gave');
  expect(endOf([], all)).toBe('excepted');
  expect(endOf([], { ...all, excepted: false })).toBeNull();
});

test('a link is followed by programs too: it sets a message going once for each person, whatever is said', () => {
  expect(comesAgain({ kind: 'click', messageId: 1 }, true)).toBe(false);
  expect(comesAgain({ kind: 'gift', which: 'any', atLeast: null }, true)).toBe(true);
  expect(comesAgain({ kind: 'gift', which: 'any', atLeast: null }, false)).toBe(false);
});

describe('a cause in words', () => {
  const names: CauseNames = {
    list: () => 'Ferry friends',
    form: () => 'Sign up at the pier',
    tag: () => 'pledged',
    field: () => 'Birthday',
    campaign: () => 'Winter hull',
    message: () => 'Two planks',
    teammate: () => 'June',
    money: (amount) => `$${amount / 100}`,
  };
  const ONE_OF_EACH: Record<Cause['kind'], [Cause, string]> = {
    list: [{ kind: 'list', listId: 1 }, 'somebody joins “Ferry friends”'],
    form: [{ kind: 'form', formId: 1 }, 'somebody joins by “Sign up at the pier”'],
    gift: [{ kind: 'gift', which: 'any', atLeast: 100 }, 'a gift of at least $1 arrives'],
    tag: [{ kind: 'tag', tagId: 1, by: 3 }, 'the tag “pledged” is put on by June'],
    date: [{ kind: 'date', fieldId: 1, days: -3, yearly: true }, 'it is 3 days before “Birthday”, each year'],
    lapses: [
      { kind: 'lapses', channel: 'email', scope: 'appeals', days: 30 },
      'an implied permission for appeals by email lapses within 30 days',
    ],
    stage: [{ kind: 'stage', campaignId: 1, stage: 'gave' }, 'somebody comes to “gave” in “Winter hull”'],
    quiet: [{ kind: 'quiet', months: 1 }, 'somebody has done nothing for 1 month'],
    keyword: [{ kind: 'keyword', word: 'FERRY' }, 'somebody texts FERRY'],
    click: [{ kind: 'click', messageId: 1 }, 'somebody clicks a link in “Two planks”'],
  };
  test.each(CAUSE_KINDS)('%s', (kind) => {
    const [cause, words] = ONE_OF_EACH[kind];
    expect(causeWords(cause, names)).toBe(words);
    expect(CAUSES[kind]).toBeDefined();
  });

  test('what was deleted is told', () => {
    const words = causeWords({ kind: 'tag', tagId: 1, by: null }, { ...names, tag: () => undefined });
    expect(words).toBe('the tag something that was deleted is put on');
  });
});
