import fc from 'fast-check';
import { Bits } from '../common';
import {
  columnKey,
  evaluate,
  narrow,
  NO_DAY,
  trace,
  type Column,
  type Columns,
  type Names,
  type Line,
  type Rule,
} from '.';
import { describe as inWords, explained } from '../words';

/** One person as a reader would know them; every field may be missing. */
interface Person {
  tags: number[];
  shirt: string;
  score: number | null;
  renews: number | null;
  birthday: number | null;
  gifts: { day: number; amount: number }[];
}

/**
 * Days since the epoch, by the platform's own calendar: nothing of the core's is used to say what is expected
 * of it.
 */
const dayNumber = (iso: string) => Date.parse(`${iso}T00:00:00Z`) / 86_400_000;
const TODAY = dayNumber('2026-11-23');
const FIELDS = { shirt: 1, score: 2, renews: 3, birthday: 4 };

function columnsOf(people: Person[]): Columns {
  const tag = (id: number): Column => {
    const bits = new Bits(people.length);
    people.forEach((p, i) => p.tags.includes(id) && bits.add(i));
    return { kind: 'bits', bits };
  };
  const dictionary = ['', ...new Set(people.map((p) => p.shirt.toLowerCase()).filter(Boolean))];
  const starts = new Uint32Array(people.length + 1);
  people.forEach((p, i) => (starts[i + 1] = starts[i]! + p.gifts.length));
  const gifts = people.flatMap((p) => p.gifts);
  const all: Record<string, Column> = {
    'tag:1': tag(1),
    'tag:2': tag(2),
    'field:1': {
      kind: 'text',
      dictionary,
      codes: Uint32Array.from(people, (p) => dictionary.indexOf(p.shirt.toLowerCase())),
    },
    'field:2': { kind: 'number', values: Float64Array.from(people, (p) => p.score ?? NaN) },
    'field:3': { kind: 'day', values: Int32Array.from(people, (p) => p.renews ?? NO_DAY) },
    'field:4': { kind: 'monthDay', values: Uint16Array.from(people, (p) => p.birthday ?? 0) },
    gifts: {
      kind: 'gifts',
      starts,
      days: Int32Array.from(gifts, (g) => g.day),
      amounts: Float64Array.from(gifts, (g) => g.amount),
    },
  };
  return { size: people.length, get: (key) => all[key]! };
}

/**
 * Whole days from today until the day on which a birthday is kept, found by walking on; 29 February is kept
 * on the 28th.
 */
function daysUntil(birthday: number): number {
  for (let n = 0; ; n++) {
    const on = new Date((TODAY + n) * 86_400_000);
    const [month, day] = [on.getUTCMonth() + 1, on.getUTCDate()];
    const isLast = new Date((TODAY + n + 1) * 86_400_000).getUTCMonth() + 1 !== month;
    if (birthday === month * 100 + day || (birthday === 229 && month === 2 && day === 28 && isLast)) return n;
  }
}

/** The naive reading: one person, one line, in plain terms and with nothing shared with the evaluator. */
function passes(person: Person, rule: Rule): boolean {
  switch (rule.kind) {
    case 'all':
      return rule.rules.every((r) => passes(person, r));
    case 'any':
      return rule.rules.length === 0 || rule.rules.some((r) => passes(person, r));
    case 'none':
      return !rule.rules.some((r) => passes(person, r));
    case 'tag':
      return person.tags.includes(rule.tagId) === rule.has;
    case 'gave': {
      const yearOf = (day: number) => new Date(day * 86_400_000).getUTCFullYear();
      const counted = person.gifts.filter(({ day }) =>
        rule.window.over === 'this-year'
          ? yearOf(day) === 2026
          : rule.window.over === 'earlier-years'
            ? yearOf(day) < 2026
            : true,
      );
      const sum = counted.reduce((total, g) => total + g.amount, 0);
      return (rule.atLeast === null ? counted.length > 0 : sum >= rule.atLeast) === rule.did;
    }
    case 'field':
      return passesField(person, rule.field as number, rule.op, rule.value);
    default:
      throw new Error(rule.kind);
  }
}

function passesField(person: Person, field: number, op: string, value: unknown): boolean {
  const kept = [person.shirt.toLowerCase() || null, person.score, person.renews, person.birthday][
    field - 1
  ] as string | number | null;
  if (op === 'empty') return kept === null;
  if (op === 'filled') return kept !== null;
  if (op === 'is-not') return kept !== String(value).toLowerCase();
  if (kept === null) return false;
  switch (op) {
    case 'is':
      return kept === String(value).toLowerCase();
    case 'at-least':
      return (kept as number) >= (value as number);
    case 'at-most':
      return (kept as number) <= (value as number);
    case 'before':
      return (kept as number) < dayNumber(value as string);
    case 'within-next':
      return field === 4
        ? daysUntil(kept as number) <= (value as number)
        : (kept as number) >= TODAY && (kept as number) <= TODAY + (value as number);
    case 'within-last':
      return (kept as number) <= TODAY && (kept as number) >= TODAY - (value as number);
    case 'in-month':
      return Math.floor((kept as number) / 100) === value;
    default:
      throw new Error(op);
  }
}

const optional = <T>(arb: fc.Arbitrary<T>) => fc.option(arb, { nil: null });
const person: fc.Arbitrary<Person> = fc.record({
  tags: fc.subarray([1, 2]),
  shirt: fc.constantFrom('', 'S', 'M', 'xl'),
  score: optional(fc.integer({ min: 0, max: 10 })),
  renews: optional(fc.integer({ min: TODAY - 60, max: TODAY + 60 })),
  birthday: optional(fc.constantFrom(101, 229, 1123, 1124, 1231)),
  gifts: fc.array(
    fc.record({
      day: fc.integer({ min: TODAY - 800, max: TODAY }),
      amount: fc.integer({ min: 1, max: 10_000 }),
    }),
    { maxLength: 4 },
  ),
});

const line: fc.Arbitrary<Line> = fc.oneof(
  fc.record({ kind: fc.constant('tag' as const), tagId: fc.constantFrom(1, 2), has: fc.boolean() }),
  fc.record({
    kind: fc.constant('field' as const),
    field: fc.constant(1),
    op: fc.constantFrom('is' as const, 'is-not' as const, 'empty' as const, 'filled' as const),
    value: fc.constantFrom('m', 'S', 'zz'),
  }),
  fc.record({
    kind: fc.constant('field' as const),
    field: fc.constant(2),
    op: fc.constantFrom('at-least' as const, 'at-most' as const, 'empty' as const),
    value: fc.integer({ min: 0, max: 10 }),
  }),
  fc.record({
    kind: fc.constant('field' as const),
    field: fc.constant(3),
    op: fc.constantFrom('within-next' as const, 'within-last' as const, 'filled' as const),
    value: fc.integer({ min: 0, max: 60 }),
  }),
  fc.record({
    kind: fc.constant('field' as const),
    field: fc.constant(3),
    op: fc.constant('before' as const),
    value: fc.constantFrom('2026-11-23', '2026-12-01'),
  }),
  fc.record({
    kind: fc.constant('field' as const),
    field: fc.constant(4),
    op: fc.constantFrom('within-next' as const, 'in-month' as const, 'empty' as const),
    value: fc.integer({ min: 1, max: 12 }),
  }),
  fc.record({
    kind: fc.constant('gave' as const),
    did: fc.boolean(),
    atLeast: optional(fc.integer({ min: 1, max: 12_000 })),
    window: fc.constantFrom(
      { over: 'ever' as const },
      { over: 'this-year' as const },
      { over: 'earlier-years' as const },
    ),
  }),
);
const { rule } = fc.letrec<{ rule: Rule }>((tie) => ({
  rule: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    line,
    fc.record({
      kind: fc.constantFrom('all' as const, 'any' as const, 'none' as const),
      rules: fc.array(tie('rule'), { maxLength: 3 }),
    }),
  ),
}));

test('the evaluator agrees with a one-line-per-rule reading of the same people', () => {
  fc.assert(
    fc.property(fc.array(person, { maxLength: 40 }), rule, (people, tree) => {
      const expected = people.map((p, i) => (passes(p, tree) ? i : -1)).filter((i) => i >= 0);
      expect(evaluate(tree, columnsOf(people), { today: TODAY }).ordinals()).toEqual(expected);
    }),
    { numRuns: 400 },
  );
});

test('narrowing ends where evaluating does, and never grows under "all"', () => {
  fc.assert(
    fc.property(fc.array(person, { maxLength: 40 }), fc.array(rule, { maxLength: 4 }), (people, rules) => {
      const columns = columnsOf(people);
      const { bits, steps } = narrow({ kind: 'all', rules }, columns, { today: TODAY });
      expect(bits.ordinals()).toEqual(evaluate({ kind: 'all', rules }, columns, { today: TODAY }).ordinals());
      steps.forEach((step, i) =>
        expect(step.left).toBeLessThanOrEqual(i === 0 ? people.length : steps[i - 1]!.left),
      );
    }),
  );
});

const NAMES: Names = {
  locale: 'en-US',
  currency: 'USD',
  field: (ref) => ({
    name: ['', 'Shirt size', 'Score', 'Membership renews', 'Birthday'][ref as number]!,
    type: (['text', 'choice', 'number', 'date', 'birthday'] as const)[ref as number]!,
  }),
  tag: () => 'plank menders',
  list: () => 'Ferry news',
  batch: () => 'winter fair',
  campaign: () => 'Winter hull appeal',
  chapter: () => 'Upriver',
  message: () => 'Boots on Saturday',
  segment: () => 'Lapsed donors',
};
const SEGMENT: Rule = {
  kind: 'all',
  rules: [
    { kind: 'gave', did: true, atLeast: 1000, window: { over: 'earlier-years' } },
    { kind: 'gave', did: false, atLeast: null, window: { over: 'this-year' } },
    {
      kind: 'any',
      rules: [
        { kind: 'tag', tagId: 1, has: true },
        { kind: 'field', field: FIELDS.renews, op: 'within-next', value: 30 },
      ],
    },
  ],
};

test('a segment reads as a sentence', () => {
  expect(inWords(SEGMENT, NAMES)).toBe(
    'gave at least $10 in any earlier year and did not give anything in this calendar year and (either have the tag plank menders or have Membership renews within the next 30 days)',
  );
  expect(columnKey({ kind: 'permission', channel: 'text', scope: 'list:4', states: ['yes'] })).toBe(
    'permission:text:list:4',
  );
});

test('one person is explained line by line', () => {
  const someone: Person = {
    tags: [],
    shirt: '',
    score: null,
    renews: TODAY + 3,
    birthday: null,
    gifts: [{ day: TODAY - 700, amount: 4000 }],
  };
  const told = explained(SEGMENT, trace(SEGMENT, columnsOf([someone]), 0, { today: TODAY }), NAMES);
  expect(told.holds).toBe(true);
  expect(told.inner.map((line) => line.holds)).toEqual([true, true, true]);
  expect(told.inner[2]!.inner.map((line) => line.holds)).toEqual([false, true]);
});
