import fc from 'fast-check';
import {
  decide,
  foldEntry,
  isRelationship,
  mayAskToConfirm,
  mustConfirm,
  oneCopyPerAddress,
  PRESETS,
  RELATIONSHIPS,
  ROADS,
  standing,
  startingRules,
  type Marks,
  type PermissionEntry,
  type Question,
  type Road,
  type Verdict,
} from '.';

const DAY = 86_400_000;
const US = PRESETS['united-states'].rules;
const WHERE: Pick<Question, 'place' | 'rules' | 'recent'> = { place: { country: 'US', region: null }, rules: startingRules('US'), recent: [] };

/*
 * Entries in a line: "person> email:appeals yes 10" is person 1's own act on day 10; "file>" is a third party's;
 * "other>" is the other person at the same address. Days stand for moments.
 */
function entry(line: string, id: number): PermissionEntry {
  const found = /^(person|file|other)> (email|text):(\S+) (yes|no|asked|implied|pause) (\d+)(?: until (\d+))?$/.exec(line);
  if (!found) throw new Error(`expected "who> channel:scope state day", got "${line}"`);
  const [, who, channel, scope, state, at, until] = found;
  return {
    id,
    contactPointId: 7,
    supporterId: who === 'other' ? 2 : 1,
    channel: channel as 'email',
    scope: scope as 'news',
    state: state as 'yes',
    at: Number(at),
    until: until ? Number(until) : null,
    how: who === 'file' ? 'file' : 'form',
    byPerson: who !== 'file',
  };
}

function ask(question: string, lines: string[], address = {}, more: Partial<Question> = {}): Verdict {
  const [channel, scope] = question.split(':') as ['email' | 'text', 'appeals'];
  return decide({
    supporterId: 1,
    channel,
    scope,
    now: 100,
    ...WHERE,
    addresses: [{ contactPointId: 7, onHold: false, doNotContact: false, ...address }],
    entries: lines.map((line, i) => entry(line, i + 1)),
    ...more,
  }).verdict;
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
    ['no for the channel outranks', 'email:news', ['person> email:news yes 10', 'person> email:all no 20'], 'said-no'],
    ['no for one scope leaves the others', 'email:news', ['person> email:all yes 10', 'person> email:appeals no 20'], 'send'],
    ['a later file never lifts a no', 'email:news', ['person> email:news no 10', 'file> email:news yes 20'], 'said-no'],
    ['not even a no from a file', 'email:news', ['file> email:news no 10', 'file> email:news yes 20'], 'said-no'],
    ['the person comes back', 'email:news', ['person> email:news no 10', 'person> email:news yes 20'], 'send'],
    ['coming back at the same moment is not later', 'email:news', ['person> email:news no 10', 'person> email:news yes 10'], 'said-no'],
    ['coming back for news leaves appeals closed', 'email:appeals', ['person> email:all no 10', 'person> email:news yes 20'], 'said-no'],
    ['a no holds for all who share the address', 'email:news', ['person> email:news yes 10', 'other> email:all no 20'], 'said-no'],
    ["a yes is its speaker's alone", 'email:news', ['other> email:news yes 10'], 'no-permission'],
    [
      'another person coming back does not bring me back',
      'email:news',
      ['person> email:news yes 5', 'person> email:all no 10', 'other> email:all yes 20'],
      'said-no',
    ],
    ['implied lasts until its day', 'email:appeals', ['file> email:appeals implied 10 until 100'], 'send'],
    ['and not longer', 'email:appeals', ['file> email:appeals implied 10 until 99'], 'no-permission'],
    ['implied never serves texts', 'text:appeals', ['file> text:appeals implied 10 until 200'], 'no-permission'],
    ['asked waits', 'text:news', ['person> text:news asked 10'], 'asked'],
    ['a pause holds what would go', 'email:news', ['person> email:news yes 10', 'person> email:all pause 20 until 100'], 'paused'],
    ['and ends after its last moment', 'email:news', ['person> email:news yes 10', 'person> email:all pause 20 until 99'], 'send'],
    [
      'a newer pause replaces an older one',
      'email:news',
      ['person> email:news yes 10', 'person> email:all pause 20 until 200', 'person> email:all pause 30 until 31'],
      'send',
    ],
    ['a pause never holds what they set going', 'email:service', ['person> email:all pause 20 until 200'], 'send'],
    ['a pause hides no other reason', 'email:news', ['person> email:all pause 20 until 200'], 'no-permission'],
    ["another person's pause is not mine", 'email:news', ['person> email:news yes 10', 'other> email:all pause 20 until 200'], 'send'],
    ['an objection closes every purpose', 'email:volunteering', ['person> email:all yes 10', 'person> email:marketing no 20'], 'said-no'],
    ['and every list, also one made later', 'email:list:9', ['person> email:list:9 yes 10', 'person> email:marketing no 20'], 'said-no'],
    ['but not the receipt', 'email:service', ['person> email:marketing no 20'], 'send'],
    ['no to everything closes the receipt too', 'email:service', ['person> email:all no 20'], 'said-no'],
    ['a file does not turn yes into asked', 'text:news', ['person> text:news yes 10', 'file> text:news asked 20'], 'send'],
  ];
  test.each(cases)('%s', (_name, question, lines, expected) => {
    expect(ask(question, lines)).toBe(expected);
  });

  test('reasons are tried in their order', () => {
    const no = ['person> email:all no 10'];
    expect(ask('email:news', no, { onHold: true, doNotContact: true })).toBe('do-not-contact');
    expect(ask('email:news', no, { onHold: true })).toBe('said-no');
    expect(ask('email:news', [], { onHold: true })).toBe('on-hold');
  });

  test('a verdict names the entry it rests on', () => {
    const entries = ['file> email:news yes 10', 'person> email:news no 20', 'person> email:news yes 30', 'file> email:news yes 40'];
    const decision = decide({
      supporterId: 1,
      channel: 'email',
      scope: 'news',
      now: 100,
      ...WHERE,
      addresses: [{ contactPointId: 7, onHold: false, doNotContact: false }],
      entries: entries.map((line, i) => entry(line, i + 1)),
    });
    expect(decision).toEqual({ verdict: 'send', contactPointId: 7, state: 'yes', entryId: 3 });
  });

  test('the second address serves when the first may not', () => {
    const decision = decide({
      supporterId: 1,
      channel: 'email',
      scope: 'news',
      now: 100,
      ...WHERE,
      addresses: [
        { contactPointId: 9, onHold: true, doNotContact: false },
        { contactPointId: 7, onHold: false, doNotContact: false },
      ],
      entries: [entry('person> email:news yes 10', 1)],
    });
    expect(decision).toMatchObject({ verdict: 'send', contactPointId: 7 });
  });

  test('the cap counts the days before this moment and never service messages', () => {
    const yes = ['person> email:news yes 10'];
    const now = 100 * DAY;
    const recent = (n: number, daysAgo: number) => ({ now, recent: Array.from({ length: n }, () => now - daysAgo * DAY) });
    expect(ask('email:news', yes, {}, recent(6, 6))).toBe('had-enough');
    expect(ask('email:news', yes, {}, recent(5, 6))).toBe('send');
    expect(ask('email:news', yes, {}, recent(6, 7))).toBe('send');
    expect(ask('email:service', yes, {}, recent(60, 1))).toBe('send');
  });

  test('a confirmation goes once and once more, and never after a STOP', () => {
    const address = { onHold: false, doNotContact: false };
    expect([0, 1, 2].map((sentBefore) => mayAskToConfirm({ channel: 'email', address, saidNo: true, sentBefore }))).toEqual([true, true, false]);
    expect(mayAskToConfirm({ channel: 'text', address, saidNo: true, sentBefore: 0 })).toBe(false);
    expect(mayAskToConfirm({ channel: 'text', address, saidNo: false, sentBefore: 0 })).toBe(true);
    expect(mayAskToConfirm({ channel: 'email', address: { ...address, doNotContact: true }, saidNo: false, sentBefore: 0 })).toBe(false);
    expect(mayAskToConfirm({ channel: 'email', address: { ...address, onHold: true }, saidNo: false, sentBefore: 0 })).toBe(false);
  });

  test('a form is confirmed by rule, by wish, and always after a no; a keyword never', () => {
    const must = (more: Partial<Parameters<typeof mustConfirm>[0]>) =>
      mustConfirm({ how: 'form', channel: 'email', states: ['never'], formAsks: false, rules: US, ...more });
    expect(must({})).toBe(false);
    expect(must({ formAsks: true })).toBe(true);
    expect(must({ rules: PRESETS['european-union'].rules })).toBe(true);
    expect(must({ states: ['never', 'no'] })).toBe(true);
    expect(must({ channel: 'text' })).toBe(true);
    expect(must({ channel: 'call', formAsks: true })).toBe(false);
    expect(must({ channel: 'call', states: ['no'] })).toBe(true);
    expect(must({ formAsks: true, states: ['yes', 'yes'] })).toBe(false);
    expect(must({ how: 'keyword', channel: 'text', states: ['no'] })).toBe(false);
  });

  test('which roads are relationships', () => {
    expect(ROADS.filter(isRelationship)).toEqual([...RELATIONSHIPS]);
  });
});

test('one copy per address goes to the lowest id', () => {
  const base = { state: 'yes' as const, entryId: 1 };
  const verdicts = oneCopyPerAddress([
    { ...base, verdict: 'send', contactPointId: 7 },
    { ...base, verdict: 'said-no', contactPointId: 7 },
    { ...base, verdict: 'send', contactPointId: 7 },
    { ...base, verdict: 'send', contactPointId: 8 },
  ]).map((decision) => decision.verdict);
  expect(verdicts).toEqual(['send', 'said-no', 'shared-address', 'send']);
});

const anyEntry = fc.record({
  id: fc.integer({ min: 1, max: 500 }),
  contactPointId: fc.constant(7),
  supporterId: fc.constant(1),
  how: fc.constantFrom<Road>(...ROADS),
  channel: fc.constant('email' as const),
  scope: fc.constant('news' as const),
  state: fc.constantFrom('yes' as const, 'no' as const, 'asked' as const, 'implied' as const, 'pause' as const),
  at: fc.integer({ min: 0, max: 50 }),
  until: fc.integer({ min: 0, max: 150 }),
  byPerson: fc.boolean(),
});

describe('properties of the ledger', () => {
  const fold = (entries: PermissionEntry[]) => entries.reduce<Marks>(foldEntry, {});

  test('the order and number of arrivals do not matter', () => {
    fc.assert(
      fc.property(fc.uniqueArray(anyEntry, { selector: (e) => e.id, maxLength: 12 }), fc.infiniteStream(fc.nat()), (entries, keys) => {
        const order = new Map(entries.map((e) => [e.id, keys.next().value as number]));
        const shuffled = [...entries, ...entries].sort((a, b) => order.get(a.id)! - order.get(b.id)!);
        expect(fold(shuffled)).toEqual(fold(entries));
      }),
    );
  });

  test('nothing a third party adds opens what a no has closed', () => {
    fc.assert(
      fc.property(fc.array(anyEntry, { maxLength: 10 }), fc.array(anyEntry, { maxLength: 10 }), (before, added) => {
        fc.pre(standing(fold(before), 100, US).state === 'no');
        const third = added.map((e) => ({ ...e, byPerson: false }));
        expect(standing(fold([...before, ...third]), 100, US).state).toBe('no');
      }),
    );
  });

  test('a no after everything else always closes', () => {
    fc.assert(
      fc.property(fc.array(anyEntry, { maxLength: 10 }), (entries) => {
        const no = { ...entry('person> email:news no 99', 999) };
        expect(standing(fold([...entries, no]), 100, US)).toEqual({ state: 'no', entryId: 999 });
      }),
    );
  });

  test('adding a no never adds a recipient', () => {
    fc.assert(
      fc.property(fc.array(anyEntry, { maxLength: 10 }), anyEntry, (entries, one) => {
        const verdict = (all: PermissionEntry[]) =>
          decide({
            ...WHERE,
            supporterId: 1,
            channel: 'email',
            scope: 'news',
            now: 100,
            addresses: [{ contactPointId: 7, onHold: false, doNotContact: false }],
            entries: all,
          }).verdict;
        fc.pre(verdict(entries) !== 'send');
        expect(verdict([...entries, { ...one, id: 900, state: 'no' }])).not.toBe('send');
      }),
    );
  });
});
