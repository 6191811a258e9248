import fc from 'fast-check';
import {
  decideFromEntries,
  foldEntries,
  isRelationship,
  marksFor,
  oneCopyEach,
  PRESETS,
  RELATIONSHIPS,
  COLLECTION_METHODS,
  consentStatus,
  startingRules,
  steady,
  withOption,
  type Cell,
  type PermissionEntry,
  type PermissionQuestion,
  type CollectionMethod,
  type Verdict,
} from '.';

const DAY = 86_400_000;
const US = PRESETS['united-states'].rules;
const WHERE: Pick<PermissionQuestion, 'place' | 'rules' | 'recent'> = {
  place: { country: 'US', region: null },
  rules: startingRules('US'),
  recent: [],
};

/*
 * Entries in a line: "person> email:appeals yes 10" is person 1's own act on day 10, at address 7; "file>" is
 * a third party's about them; "other>" is person 2, who shares the address. "person@9>" acts at another
 * address of theirs, "person@*>" without one; "nobody>" is an address of which nobody knows who spoke.
 * "yes/reply" says how. Days stand for moments.
 */
const LINE =
  /^(person|file|other|nobody)(?:@(\d+|\*))?> (email|text|call):(\S+) (yes|no|asked|implied|pause|start)(?:\/([a-z-]+))? (\d+)(?: until (\d+))?$/;

function entry(line: string, id: number): PermissionEntry {
  const found = LINE.exec(line);
  if (!found) throw new Error(`expected "who> channel:scope state day", got "${line}"`);
  const [, who, at, channel, scope, state, how, day, until] = found;
  return {
    id,
    contactPointId: at === '*' ? null : Number(at ?? 7),
    supporterId: { person: 1, file: 1, other: 2, nobody: null }[who as 'person'],
    channel: channel as 'email',
    scope: scope as 'news',
    state: state as 'yes',
    at: Number(day),
    until: until ? Number(until) : null,
    how: (how as CollectionMethod) ?? (who === 'file' ? 'file' : 'form'),
    byPerson: who !== 'file',
  };
}

const AT_7: PermissionQuestion['addresses'] = [{ contactPointId: 7, onHold: false, doNotContact: false }];

function ask(
  question: string,
  lines: string[],
  address = {},
  more: Partial<PermissionQuestion> = {},
): Verdict {
  const [channel, scope] = question.split(':') as ['email' | 'text', 'appeals'];
  const asked = {
    supporterId: 1,
    channel,
    scope,
    now: 100,
    ...WHERE,
    addresses: [{ ...AT_7[0]!, ...address }],
    ...more,
  };
  return decideFromEntries(
    asked,
    lines.map((line, i) => entry(line, i + 1)),
  ).verdict;
}

/** Whom a message reaches who has the addresses 7 and 9, the first first. */
function reached(question: string, lines: string[]): number | Verdict {
  const [channel, scope] = question.split(':') as ['email', 'appeals'];
  const addresses = [7, 9].map((contactPointId) => ({ contactPointId, onHold: false, doNotContact: false }));
  const entries = lines.map((line, i) => entry(line, i + 1));
  const { verdict, contactPointId } = decideFromEntries(
    { supporterId: 1, channel, scope, now: 100, ...WHERE, addresses },
    entries,
  );
  return verdict === 'send' ? contactPointId! : verdict;
}

describe('deciding for one person', () => {
  const cases: [string, string, string[], Verdict][] = [
    ['nobody asked', 'email:appeals', [], 'no-permission'],
    ['a service email needs no asking', 'email:service', [], 'send'],
    ['a service text does', 'text:service', [], 'no-permission'],
    ['yes by file is enough', 'email:appeals', ['file> email:appeals yes 10'], 'send'],
    ['yes for news is not yes for appeals', 'email:appeals', ['file> email:news yes 10'], 'no-permission'],
    ['yes by email is not yes by text', 'text:appeals', ['person> email:all yes 10'], 'no-permission'],
    ['yes to everything covers a list', 'email:list:3', ['person> email:all yes 10'], 'send'],
    [
      'no for the channel outranks',
      'email:news',
      ['person> email:news yes 10', 'person> email:all no 20'],
      'said-no',
    ],
    [
      'no for one scope leaves the others',
      'email:news',
      ['person> email:all yes 10', 'person> email:appeals no 20'],
      'send',
    ],
    [
      'a later file never lifts a no',
      'email:news',
      ['person> email:news no 10', 'file> email:news yes 20'],
      'said-no',
    ],
    [
      'not even a no from a file',
      'email:news',
      ['file> email:news no 10', 'file> email:news yes 20'],
      'said-no',
    ],
    [
      'the person comes back',
      'email:news',
      ['person> email:news no 10', 'person> email:news yes 20'],
      'send',
    ],
    [
      'coming back at the same moment is not later',
      'email:news',
      ['person> email:news no 10', 'person> email:news yes 10'],
      'said-no',
    ],
    [
      'coming back for news leaves appeals closed',
      'email:appeals',
      ['person> email:all no 10', 'person> email:news yes 20'],
      'said-no',
    ],
    [
      'a no holds for all who share the address',
      'email:news',
      ['person> email:news yes 10', 'other> email:all no 20'],
      'said-no',
    ],
    ["a yes is its speaker's alone", 'email:news', ['other> email:news yes 10'], 'no-permission'],
    [
      'another person coming back does not bring me back',
      'email:news',
      ['person> email:news yes 5', 'person> email:all no 10', 'other> email:all yes 20'],
      'said-no',
    ],
    ['implied lasts until its day', 'email:appeals', ['file> email:appeals implied 10 until 100'], 'send'],
    ['and not longer', 'email:appeals', ['file> email:appeals implied 10 until 99'], 'no-permission'],
    [
      'implied never serves texts',
      'text:appeals',
      ['file> text:appeals implied 10 until 200'],
      'no-permission',
    ],
    ['asked waits', 'text:news', ['person> text:news asked 10'], 'asked'],
    [
      'a pause holds what would go',
      'email:news',
      ['person> email:news yes 10', 'person> email:all pause 20 until 100'],
      'paused',
    ],
    [
      'and ends after its last moment',
      'email:news',
      ['person> email:news yes 10', 'person> email:all pause 20 until 99'],
      'send',
    ],
    [
      'a newer pause replaces an older one',
      'email:news',
      [
        'person> email:news yes 10',
        'person> email:all pause 20 until 200',
        'person> email:all pause 30 until 31',
      ],
      'send',
    ],
    [
      'a pause never holds what they set going',
      'email:service',
      ['person> email:all pause 20 until 200'],
      'send',
    ],
    [
      'a pause hides no other reason',
      'email:news',
      ['person> email:all pause 20 until 200'],
      'no-permission',
    ],
    [
      "another person's pause is not mine",
      'email:news',
      ['person> email:news yes 10', 'other> email:all pause 20 until 200'],
      'send',
    ],
    [
      'an objection closes every purpose',
      'email:volunteering',
      ['person> email:all yes 10', 'person> email:marketing no 20'],
      'said-no',
    ],
    [
      'and every list, also one made later',
      'email:list:9',
      ['person> email:list:9 yes 10', 'person> email:marketing no 20'],
      'said-no',
    ],
    ['but not the receipt', 'email:service', ['person> email:marketing no 20'], 'send'],
    ['no to everything closes the receipt too', 'email:service', ['person> email:all no 20'], 'said-no'],
    [
      'a file does not turn yes into asked',
      'text:news',
      ['person> text:news yes 10', 'file> text:news asked 20'],
      'send',
    ],
  ];
  test.each(cases)('%s', (_name, question, lines, expected) => {
    expect(ask(question, lines)).toBe(expected);
  });

  const addresses: [string, string, string[], number | Verdict][] = [
    [
      'a no through one address is a no at the other',
      'email:news',
      ['file@9> email:news yes 5', 'person> email:all no 10'],
      'said-no',
    ],
    [
      'whenever the other came',
      'email:news',
      ['person> email:all no 10', 'file@9> email:all yes 20'],
      'said-no',
    ],
    [
      'a no without an address closes every one',
      'email:news',
      ['file> email:news yes 5', 'file@9> email:news yes 5', 'person@*> email:all no 10'],
      'said-no',
    ],
    [
      'a no of somebody else closes the shared address alone',
      'email:news',
      ['file> email:news yes 5', 'file@9> email:news yes 5', 'other> email:all no 10'],
      9,
    ],
    [
      'and not where it was said without one',
      'email:news',
      ['file> email:news yes 5', 'other@*> email:all no 10'],
      7,
    ],
    [
      'coming back opens where it was said',
      'email:news',
      ['person> email:all no 10', 'person@9> email:news yes 20'],
      9,
    ],
    [
      'an objection outweighs what is agreed to for another address later by others',
      'email:appeals',
      ['person@*> email:marketing no 10', 'file@9> email:appeals yes 20'],
      'said-no',
    ],
    [
      'a no of nobody known holds at the address',
      'email:news',
      ['file> email:news yes 5', 'nobody> email:all no 10', 'file@9> email:news yes 5'],
      9,
    ],
    [
      'a pause is of the person',
      'email:news',
      ['file> email:news yes 5', 'file@9> email:news yes 5', 'person> email:all pause 10 until 200'],
      'paused',
    ],
    [
      'STOP, then START from the number',
      'text:news',
      ['person> text:news yes 5', 'person> text:all no/keyword 10', 'nobody> text:all start/keyword 20'],
      7,
    ],
    [
      'START makes nobody agree',
      'text:news',
      ['person> text:all no/keyword 10', 'nobody> text:all start/keyword 20'],
      'no-permission',
    ],
    [
      'START opens at that number alone',
      'text:news',
      ['person@9> text:news yes 5', 'person> text:all no/keyword 10', 'nobody> text:all start/keyword 20'],
      'no-permission',
    ],
    [
      'START opens nothing that was left otherwise',
      'text:news',
      [
        'person> text:news yes 5',
        'person> text:news no/preferences 8',
        'person> text:all no/keyword 10',
        'nobody> text:all start/keyword 20',
      ],
      'said-no',
    ],
    [
      'a STOP after START',
      'text:news',
      ['person> text:news yes 5', 'nobody> text:all start/keyword 20', 'person> text:all no/keyword 30'],
      'said-no',
    ],
    [
      'START at the moment of the STOP is not later',
      'text:news',
      ['person> text:news yes 5', 'person> text:all no/keyword 10', 'nobody> text:all start/keyword 10'],
      'said-no',
    ],
    [
      'a no read in an answer by text is a STOP',
      'text:news',
      ['person> text:news yes 5', 'person> text:all no/reply 10', 'nobody> text:all start/keyword 20'],
      7,
    ],
    [
      'one to a part is none, though it came in an answer',
      'text:news',
      ['person> text:news yes 5', 'person> text:news no/reply 10', 'nobody> text:all start/keyword 20'],
      'said-no',
    ],
    [
      'one told on the telephone is none',
      'text:news',
      ['person> text:news yes 5', 'person@*> text:all no/phone 10', 'nobody> text:all start/keyword 20'],
      'said-no',
    ],
  ];
  test.each(addresses)('at several addresses: %s', (_name, question, lines, expected) => {
    expect(reached(question, lines)).toBe(expected);
  });

  test('reasons are tried in their order', () => {
    const no = ['person> email:all no 10'];
    expect(ask('email:news', no, { onHold: true, doNotContact: true })).toBe('do-not-contact');
    expect(ask('email:news', no, { onHold: true })).toBe('said-no');
    expect(ask('email:news', [], { onHold: true })).toBe('on-hold');
  });

  test('a verdict names the entry it rests on: the own agreement where there is one', () => {
    const lines = [
      'file> email:news yes 10',
      'person> email:news no 20',
      'person> email:news yes 30',
      'file> email:news yes 40',
    ];
    const asked = {
      supporterId: 1,
      channel: 'email',
      scope: 'news',
      now: 100,
      ...WHERE,
      addresses: AT_7,
    } as const;
    const rests = (some: string[]) =>
      decideFromEntries(
        asked,
        some.map((line, i) => entry(line, i + 1)),
      );
    expect(rests(lines)).toEqual({
      verdict: 'send',
      contactPointId: 7,
      state: 'yes',
      entryId: 3,
      until: null,
    });
    expect(rests(['person> email:news yes 10', 'file> email:news yes 40']).entryId).toBe(1);
    expect(
      rests(['person> email:news yes 10', 'person> email:all no 20', 'person@*> email:news no 15']).entryId,
    ).toBe(2);
  });

  test('the second address serves when the first may not', () => {
    const addresses = [{ contactPointId: 9, onHold: true, doNotContact: false }, ...AT_7];
    const asked = { supporterId: 1, channel: 'email', scope: 'news', now: 100, ...WHERE, addresses } as const;
    expect(decideFromEntries(asked, [entry('person> email:news yes 10', 1)])).toMatchObject({
      verdict: 'send',
      contactPointId: 7,
    });
  });

  test('a relationship counts that began on the first day that counts, and not one of the day before', () => {
    const rules = {
      ...WHERE.rules,
      places: { ...WHERE.rules.places, US: { ...US, impliedFrom: '2026-02-05' } },
    };
    const at = (began: number) =>
      decideFromEntries(
        {
          supporterId: 1,
          channel: 'email',
          scope: 'appeals',
          now: Date.UTC(2026, 3, 1),
          ...WHERE,
          rules,
          addresses: AT_7,
        },
        [{ ...entry('file> email:marketing implied/gift 0', 1), at: began, until: null }],
      ).verdict;
    expect([at(Date.UTC(2026, 1, 5)), at(Date.UTC(2026, 1, 5) - 1)]).toEqual(['send', 'no-permission']);
  });

  test('of several grounds it rests on the one that lasts longest, of a no and a STOP on the later', () => {
    const day = (n: number) => Date.UTC(2026, 0, n);
    const rests = (now: number, entries: [string, number, number | null][]) =>
      decideFromEntries(
        { supporterId: 1, channel: 'email', scope: 'appeals', now, ...WHERE, addresses: AT_7 },
        entries.map(([line, at, until], i) => ({ ...entry(line, i + 1), at, until })),
      );
    const [gift, inquiry, stated] = ['implied/gift', 'implied/inquiry', 'implied'].map(
      (said) => `file> email:appeals ${said} 0`,
    );
    const both = rests(day(2), [
      [inquiry!, day(1), null],
      [gift!, day(1), null],
    ]);
    // 18 months of a gift against three of an inquiry (US preset), through the last day.
    expect([both.entryId, both.until]).toEqual([2, Date.UTC(2027, 6, 2) - 1]);
    expect(
      rests(day(2), [
        [stated!, day(1), day(900)],
        [gift!, day(1), null],
      ]).entryId,
    ).toBe(1);
    expect(
      rests(day(2), [
        [stated!, day(1), day(3)],
        [gift!, day(1), null],
      ]).entryId,
    ).toBe(2);
    const refused = (no: number, stop: number) =>
      rests(day(9), [
        ['person> email:all no/one-click 0', no, null],
        ['person> email:all no/keyword 0', stop, null],
      ]).entryId;
    expect([refused(day(1), day(2)), refused(day(2), day(1))]).toEqual([2, 1]);
  });

  test('a landline is no address for texts, and one for calls', () => {
    const line = { landline: true };
    expect(ask('text:news', ['person> text:news yes 10'], line)).toBe('no-address');
    expect(ask('call:news', ['person> call:news yes 10'], line)).toBe('send');
  });

  test('what began in another place needs the rule of both, and the shorter of the two lasts', () => {
    const months = (n: number) => Date.UTC(2026, 5 + n, 1);
    const gift = { ...entry('file> email:marketing implied/gift 0', 1), at: months(0), until: null };
    const rules = {
      ...startingRules('US'),
      refusalOfferedSince: '2026-01-01',
      places: {
        ...startingRules('US').places,
        GB: withOption(PRESETS['united-kingdom'].rules, 'charity-soft-opt-in', true),
      },
    };
    const at = (now: number, place: string, before: [string, number][]) => {
      const past = before.map(([country, until]) => ({ country, region: null, until }));
      const asked = {
        supporterId: 1,
        channel: 'email',
        scope: 'appeals',
        now,
        rules,
        recent: [],
        addresses: AT_7,
      } as const;
      return decideFromEntries({ ...asked, place: { country: place, region: null }, before: past }, [gift])
        .verdict;
    };
    expect(at(months(1), 'US', [])).toBe('send');
    // Strict places know no implied permission: moving out of one opens nothing, moving into one closes.
    expect([at(months(2), 'US', [['FR', months(1)]]), at(months(2), 'FR', [['US', months(1)]])]).toEqual([
      'no-permission',
      'no-permission',
    ]);
    // It began after the move.
    expect(at(months(2), 'US', [['FR', months(0)]])).toBe('send');
    // 18 months in the one, 24 in the other.
    expect([
      at(months(17), 'GB', [['US', months(1)]]),
      at(months(19), 'GB', [['US', months(1)]]),
      at(months(19), 'GB', []),
    ]).toEqual(['send', 'no-permission', 'send']);
  });

  test('the cap counts the days before this moment, and lets by what answers an act of their own', () => {
    const yes = ['person> email:news yes 10'];
    const now = 100 * DAY;
    const recent = (n: number, daysAgo: number) => ({
      now,
      recent: Array.from({ length: n }, () => now - daysAgo * DAY),
    });
    expect(ask('email:news', yes, {}, recent(6, 6))).toBe('had-enough');
    expect(ask('email:news', yes, {}, recent(5, 6))).toBe('send');
    expect(ask('email:news', yes, {}, recent(6, 7))).toBe('send');
    expect(ask('email:service', yes, {}, recent(60, 1))).toBe('had-enough');
    expect(ask('email:service', yes, {}, { ...recent(60, 1), ownAct: true })).toBe('send');
  });

  describe('an answer to what somebody has just written', () => {
    const now = 100 * DAY;
    const answer = (lines: string[], address: object, more: object = {}) =>
      ask('text:service', lines, address, { now, ownAct: true, ...more });
    const lately = { wroteAt: now - 2 * DAY };

    test('is service, and needs nothing beyond their having asked, for seven days', () => {
      expect(answer([], {})).toBe('no-permission');
      expect(answer([], lately)).toBe('send');
      expect(answer(['file> text:appeals yes 10'], lately)).toBe('send');
      expect(answer([], { wroteAt: now - 7 * DAY })).toBe('send');
      expect(answer([], { wroteAt: now - 7 * DAY - 1 })).toBe('no-permission');
      expect(answer(['person> text:all asked 10'], lately)).toBe('send');
    });

    test('goes to nobody who said no, is on hold or never to be written to, wherever they wrote', () => {
      expect(answer(['person> text:all no 10'], lately)).toBe('said-no');
      expect(answer(['other> text:all no 10'], lately)).toBe('said-no');
      expect(answer([], { ...lately, onHold: true })).toBe('on-hold');
      expect(answer([], { ...lately, doNotContact: true })).toBe('do-not-contact');
      expect(answer([], { ...lately, landline: true })).toBe('no-address');
    });

    test('is nothing else: no appeal, no news, and no service message to a group', () => {
      for (const scope of ['appeals', 'news', 'volunteering', 'list:3'])
        expect(ask(`text:${scope}`, [], lately, { now, ownAct: true })).toBe('no-permission');
      expect(ask('text:service', [], lately, { now })).toBe('no-permission');
    });

    test('goes to the address that they wrote from, and to none of their others', () => {
      const asked = {
        supporterId: 1,
        channel: 'text',
        scope: 'service',
        now,
        ownAct: true,
        ...WHERE,
      } as const;
      const at = (contactPointId: number) => ({ contactPointId, onHold: false, doNotContact: false });
      const addresses = [at(7), { ...at(9), ...lately }];
      expect(decideFromEntries({ ...asked, addresses }, [])).toMatchObject({
        verdict: 'send',
        contactPointId: 9,
      });
    });
  });

  test('which roads are relationships', () => {
    expect(COLLECTION_METHODS.filter(isRelationship)).toEqual([...RELATIONSHIPS]);
  });
});

test('one copy per address goes to the lowest id', () => {
  const base = { state: 'yes' as const, entryId: 1 };
  const verdicts = oneCopyEach('email', [
    { ...base, verdict: 'send', contactPointId: 7 },
    { ...base, verdict: 'said-no', contactPointId: 7 },
    { ...base, verdict: 'send', contactPointId: 7 },
    { ...base, verdict: 'send', contactPointId: 8 },
  ]).map((decision) => decision.verdict);
  expect(verdicts).toEqual(['send', 'said-no', 'shared-address', 'send']);
});

test('by post a household gets one, wherever its people get their post, and neighbours one each', () => {
  const at = (contactPointId: number, householdId: number | null, verdict: 'send' | 'said-no' = 'send') => ({
    contactPointId,
    householdId,
    verdict,
  });
  const people = [at(7, 1, 'said-no'), at(7, 1), at(8, 1), at(7, null), at(7, null), at(8, 2)];
  const verdicts = (channel: 'post' | 'email') => oneCopyEach(channel, people).map(({ verdict }) => verdict);
  expect(verdicts('post')).toEqual(['said-no', 'send', 'shared-address', 'send', 'send', 'send']);
  // An email goes to an address, whoever lives with whom.
  expect(verdicts('email')).toEqual([
    'said-no',
    ...['send', 'send', 'shared-address', 'shared-address', 'shared-address'],
  ]);
});

const anyEntry = fc.record({
  id: fc.integer({ min: 1, max: 500 }),
  contactPointId: fc.constantFrom(7, 7, 9, null),
  supporterId: fc.constantFrom(1, 1, 2, null),
  how: fc.constantFrom<CollectionMethod>(...COLLECTION_METHODS),
  channel: fc.constant('email' as const),
  scope: fc.constantFrom('news' as const, 'all' as const),
  state: fc.constantFrom(
    'yes' as const,
    'no' as const,
    'asked' as const,
    'implied' as const,
    'pause' as const,
    'start' as const,
  ),
  at: fc.integer({ min: 0, max: 50 }),
  until: fc.integer({ min: 0, max: 150 }),
  byPerson: fc.boolean(),
});
const history = (maxLength: number) => fc.array(anyEntry, { maxLength });

describe('properties of the ledger', () => {
  const asked = { contactPointId: 7, supporterId: 1, channel: 'email', scope: 'news' } as const;
  const stateOf = (entries: PermissionEntry[]) =>
    consentStatus(marksFor(foldEntries(entries), asked), 100, steady(US));
  const sorted = (cells: Cell[]) =>
    cells.map((cell) => JSON.stringify(cell, Object.keys(cell).sort())).sort();

  test('the order and number of arrivals do not matter', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(anyEntry, { selector: (e) => e.id, maxLength: 12 }),
        fc.infiniteStream(fc.nat()),
        (entries, keys) => {
          const order = new Map(entries.map((e) => [e.id, keys.next().value as number]));
          const shuffled = [...entries, ...entries].sort((a, b) => order.get(a.id)! - order.get(b.id)!);
          expect(sorted(foldEntries(shuffled))).toEqual(sorted(foldEntries(entries)));
        },
      ),
    );
  });

  test('nothing a third party adds opens what a no has closed', () => {
    fc.assert(
      fc.property(history(10), history(10), (before, added) => {
        fc.pre(stateOf(before).state === 'no');
        const third = added.filter((e) => e.state !== 'start').map((e) => ({ ...e, byPerson: false }));
        expect(stateOf([...before, ...third]).state).toBe('no');
      }),
    );
  });

  test('nothing said by another person or at another address opens what a no has closed', () => {
    fc.assert(
      fc.property(history(10), history(10), (before, added) => {
        fc.pre(stateOf(before).state === 'no');
        const elsewhere = added.filter(
          (e) => e.state !== 'start' && (e.supporterId !== 1 || e.contactPointId !== 7),
        );
        expect(stateOf([...before, ...elsewhere]).state).toBe('no');
      }),
    );
  });

  test('START lifts what STOP closed and nothing else', () => {
    fc.assert(
      fc.property(history(10), (before) => {
        const stops = (e: PermissionEntry) =>
          e.state === 'no' &&
          ['keyword', 'reply'].includes(e.how) &&
          e.contactPointId !== null &&
          e.scope === 'all';
        const start = entry('nobody> email:all start/keyword 99', 999);
        const otherwise = before.filter((e) => !stops(e) && e.state !== 'start');
        expect(stateOf([...before, start]).state).toBe(stateOf(otherwise).state);
      }),
    );
  });

  test('a no after everything else always closes, whether by the person or at the address', () => {
    fc.assert(
      fc.property(
        history(10),
        fc.constantFrom('person> ', 'person@*> ', 'person@9> ', 'other> ', 'nobody> '),
        (entries, who) => {
          const no = entry(`${who}email:news no 99`, 999);
          expect(stateOf([...entries, no])).toEqual({ state: 'no', entryId: 999 });
        },
      ),
    );
  });

  test('adding a no never adds a recipient', () => {
    fc.assert(
      fc.property(history(10), anyEntry, (entries, one) => {
        const question = {
          ...WHERE,
          supporterId: 1,
          channel: 'email',
          scope: 'news',
          now: 100,
          addresses: AT_7,
        } as const;
        const verdict = (all: PermissionEntry[]) => decideFromEntries(question, all).verdict;
        fc.pre(verdict(entries) !== 'send');
        expect(verdict([...entries, { ...one, id: 900, state: 'no' }])).not.toBe('send');
      }),
    );
  });
});
