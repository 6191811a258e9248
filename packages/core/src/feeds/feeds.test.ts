import fc from 'fast-check';
import { dayInZone, isoDay } from '../common';
import { closedScopes } from '../intake';
import { speak } from '../words';
import {
  RecordComparison,
  EMPTY_FEED,
  feedFaults,
  intakePlanOf,
  nextRun,
  unusual,
  type Every,
  type FeedPlan,
  type KnownRecord,
} from './index';

const digestOf = (cells: readonly string[]) => JSON.stringify(cells);
const known = (cells: string[], says: string[], supporterId = 7): KnownRecord => ({
  digest: digestOf(cells),
  says: digestOf(says),
  firstOn: '2026-01-02',
  supporterId,
  isGone: false,
  isErased: false,
});
const TODAY = '2026-03-04';

describe('what a source gives', () => {
  test('is new, changed or the same, and gone where it does not come', () => {
    const before = new Map([
      ['a', known(['a@x.test', 'yes'], ['yes'])],
      ['b', known(['b@x.test', 'yes'], ['yes'])],
      ['c', known(['c@x.test', 'yes'], ['yes'])],
    ]);
    const seen = new RecordComparison(before, [1], digestOf, TODAY);
    expect(seen.take('a', ['a@x.test', 'yes'])).toBeNull();
    expect(seen.take('b', ['new@x.test', 'yes'])?.cells).toEqual(['new@x.test', '', '2026-01-02']);
    expect(seen.take(' d ', ['d@x.test', 'no'])?.cells).toEqual(['d@x.test', 'no', TODAY]);
    expect(seen.take('d', ['again@x.test', 'no'])).toBeNull();
    expect(seen.take('  ', ['e@x.test', ''])).toBeNull();
    expect(seen.gone()).toEqual(['c']);
    expect(seen.counts).toEqual({ fresh: 1, changed: 1, same: 1, unkeyed: 1, repeated: 1 });
  });

  test('knows again who was gone, says no standing word anew, and never brings back who was erased', () => {
    const before = new Map([
      ['a', { ...known(['a@x.test', 'no'], ['no']), isGone: true }],
      ['b', { ...known(['b@x.test', 'yes'], ['yes']), isErased: true }],
      ['c', { ...known(['c@x.test', 'yes'], ['yes']), isGone: true }],
    ]);
    const seen = new RecordComparison(before, [1], digestOf, TODAY);
    expect(seen.take('a', ['a@x.test', 'no'])).toMatchObject({ cells: ['a@x.test', '', '2026-01-02'] });
    expect(seen.take('b', ['other@x.test', 'yes'])).toBeNull();
    expect(seen.gone()).toEqual([]);
    expect(seen.counts).toMatchObject({ fresh: 1, changed: 0, same: 1 });
  });

  // The model is the promise: what is said of permission reaches the ledger when it is said, and once.
  test('says a word about permission exactly when it is another than the last', () => {
    const word = fc.constantFrom('yes', 'no', '');
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.string({ maxLength: 3 }), word), { minLength: 1, maxLength: 12 }),
        (days) => {
          const memory = new Map<string, KnownRecord>();
          const told: string[] = [];
          for (const [name, says] of days) {
            const change = new RecordComparison(memory, [1], digestOf, TODAY).take('a', [name, says]);
            if (!change) continue;
            if (change.cells[1] !== '') told.push(change.cells[1]!);
            memory.set('a', { ...change, firstOn: TODAY, supporterId: 1, isGone: false, isErased: false });
          }
          const expected = days
            .map(([, says]) => says)
            .filter((says, i, all) => says !== '' && says !== all[i - 1]);
          expect(told).toEqual(expected);
        },
      ),
    );
  });

  test('reaches the same memory in whatever pieces it comes', () => {
    const record = fc.record({ key: fc.constantFrom('a', 'b', 'c', 'd'), cell: fc.string({ maxLength: 2 }) });
    fc.assert(
      fc.property(fc.array(record, { maxLength: 20 }), (records) => {
        const last = new Map<string, string>();
        const memory = new Map<string, KnownRecord>();
        for (const { key, cell } of records) {
          last.set(key, cell);
          const change = new RecordComparison(memory, [], digestOf, TODAY).take(key, [cell]);
          if (change)
            memory.set(key, { ...change, firstOn: TODAY, supporterId: null, isGone: false, isErased: false });
        }
        expect([...memory].map(([key, { digest }]) => [key, digest])).toEqual(
          [...last].map(([key, cell]) => [key, digestOf([cell])]),
        );
      }),
    );
  });
});

describe('the clock of a feed', () => {
  const at = (iso: string) => Date.parse(iso);
  const next = (every: Every, zone: string, after: string) =>
    new Date(nextRun(every, zone, at(after))).toISOString();

  test.each<[Every, string, string, string]>([
    [{ unit: 'minutes', n: 15 }, 'UTC', '2026-03-01T10:07:00Z', '2026-03-01T10:22:00.000Z'],
    [{ unit: 'hours', n: 6 }, 'UTC', '2026-03-01T22:00:00Z', '2026-03-02T04:00:00.000Z'],
    [
      { unit: 'days', n: 1, at: 120 },
      'America/Los_Angeles',
      '2026-06-01T08:00:00Z',
      '2026-06-01T09:00:00.000Z',
    ],
    [
      { unit: 'days', n: 1, at: 120 },
      'America/Los_Angeles',
      '2026-06-01T09:00:00Z',
      '2026-06-02T09:00:00.000Z',
    ],
    [{ unit: 'days', n: 3, at: 120 }, 'UTC', '2026-06-01T02:00:00Z', '2026-06-04T02:00:00.000Z'],
    // 8 March 2026, 2:30 is left out in Los Angeles (IANA, tzdata): it comes at what is 3:30 there.
    [
      { unit: 'days', n: 1, at: 150 },
      'America/Los_Angeles',
      '2026-03-08T08:00:00Z',
      '2026-03-08T10:30:00.000Z',
    ],
    // 1 November 2026, 1:30 comes twice: the first.
    [
      { unit: 'days', n: 1, at: 90 },
      'America/Los_Angeles',
      '2026-11-01T07:30:00Z',
      '2026-11-01T08:30:00.000Z',
    ],
    // 2026-12-02 is a Wednesday (ISO 8601: 3).
    [{ unit: 'weekdays', days: [1, 3], at: 60 }, 'UTC', '2026-12-02T00:30:00Z', '2026-12-02T01:00:00.000Z'],
    [{ unit: 'weekdays', days: [1, 3], at: 60 }, 'UTC', '2026-12-02T01:00:00Z', '2026-12-07T01:00:00.000Z'],
  ])('%j in %s after %s is %s', (every, zone, after, expected) => {
    expect(next(every, zone, after)).toBe(expected);
  });

  test('always comes later, and on a day that was asked for', () => {
    const every: fc.Arbitrary<Every> = fc.oneof(
      fc.record({ unit: fc.constant('days' as const), n: fc.integer({ min: 1, max: 31 }), at: fc.nat(1439) }),
      fc.record({
        unit: fc.constant('weekdays' as const),
        days: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
        at: fc.nat(1439),
      }),
    );
    const zones = fc.constantFrom(
      'America/Los_Angeles',
      'Europe/Berlin',
      'Asia/Kathmandu',
      'Australia/Lord_Howe',
    );
    const moments = fc.date({
      min: new Date('2024-01-01'),
      max: new Date('2030-01-01'),
      noInvalidDate: true,
    });
    fc.assert(
      fc.property(every, zones, moments, (often, zone, from) => {
        const then = nextRun(often, zone, from.getTime());
        expect(then).toBeGreaterThan(from.getTime());
        if (often.unit !== 'weekdays') return;
        // Intl's own weekday is the second reading.
        const name = new Intl.DateTimeFormat('en', { weekday: 'short', timeZone: 'UTC' }).format(
          new Date(isoDay(dayInZone(then, zone))),
        );
        expect(often.days.map((day) => ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'][day - 1])).toContain(
          name,
        );
      }),
    );
  });
});

describe('what is far from usual', () => {
  const quiet = [0, 2, 3, 1].map((came) => ({ came, gone: 2 }));
  const words = (size: { came: number; gone: number }, known = 3200, before = quiet) => {
    const why = unusual(size, before, known);
    return why && speak(why);
  };

  test('is told, and what is small never is', () => {
    expect(words({ came: 0, gone: 3190 })).toBe('3190 people are gone at once, where 2 are usual');
    expect(words({ came: 3000, gone: 0 })).toBe('3000 people are new or changed at once, where 1 are usual');
    expect(words({ came: 50, gone: 10 })).toBeNull();
  });

  test('needs no runs before it where half are gone, and some where many come', () => {
    expect(unusual({ came: 0, gone: 60 }, [], 100)).not.toBeNull();
    expect(unusual({ came: 0, gone: 50 }, [], 100)).toBeNull();
    expect(unusual({ came: 100_000, gone: 0 }, [], 0)).toBeNull();
  });
});

describe('a feed', () => {
  const whole: FeedPlan = {
    ...EMPTY_FEED,
    take: { type: { key: 'members', name: 'Members' }, filter: null },
    columns: [
      { name: 'id', choice: { to: 'externalId' } },
      { name: 'mail', choice: { to: 'email' } },
      { name: 'news', choice: { to: 'consent', channel: 'email' } },
    ],
    key: 'id',
    permission: {
      email: {
        said: 'yes',
        from: 'column',
        scopes: ['news'],
        words: 'They ticked news on the form',
        voucher: 'Idris',
      },
      text: { said: 'nothing' },
    },
  };
  const lacking = (part: Partial<FeedPlan>) =>
    feedFaults({ ...whole, ...part }).map(({ sentence }) => sentence);

  test('says what is missing, sentence by sentence', () => {
    expect(lacking({})).toEqual([]);
    expect(feedFaults(EMPTY_FEED).map(({ sentence }) => sentence)).toEqual(['take', 'columns', 'permission']);
    expect(lacking({ key: 'gone' })).toEqual(['columns']);
    expect(lacking({ columns: [{ name: 'id', choice: { to: 'externalId' } }] })).toEqual([
      'columns',
      'permission',
    ]);
    expect(lacking({ gone: { do: 'leave' } })).toEqual(['gone']);
    expect(lacking({ when: { atOnce: false, every: null, zone: null } })).toEqual(['when']);
  });

  test('is a batch whose people said it by a feed, on the day they first came', () => {
    const { columns, permission, feed } = intakePlanOf(whole, TODAY);
    expect(columns.map(({ to }) => to)).toEqual(['externalId', 'email', 'consent', 'signedOn']);
    expect(permission.email).toMatchObject({ said: 'yes', how: 'feed', on: TODAY });
    expect(feed).toEqual({ no: 'agreed' });
    const dated = {
      ...whole,
      columns: [...whole.columns, { name: 'day', choice: { to: 'signedOn' as const } }],
    };
    expect(intakePlanOf(dated, TODAY).columns.map(({ to }) => to)).toEqual([
      ...['externalId', 'email', 'consent', 'signedOn', 'leave'],
    ]);
  });

  test('closes no less by a no than was agreed to', () => {
    expect(closedScopes('agreed', ['news', 'list:3'])).toEqual(['news', 'list:3']);
    expect(closedScopes('agreed', [])).toEqual(['all']);
    expect(closedScopes('channel', ['news'])).toEqual(['all']);
  });
});
