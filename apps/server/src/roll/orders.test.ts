import fc from 'fast-check';
import { DaysColumn, MonthDaysColumn, NumbersColumn, TextsColumn, type MaterializedColumn } from './columns';
import { mendedOrder, orderBy } from './orders';

const MOST = 60;
const words = fc.constantFrom(null, 'Abara', 'abara', 'Ábara', 'Berg', 'van Berg', '');
const days = fc.option(fc.integer({ min: -5, max: 5 }), { nil: null });

interface Values {
  last: string | null;
  first: string | null;
  day: number | null;
  number: number | null;
  birthday: number | null;
}
const someone: fc.Arbitrary<Values> = fc.record({
  last: words,
  first: words,
  day: days,
  number: fc.option(fc.constantFrom(0, -1.5, 2, 2.5), { nil: null }),
  birthday: fc.option(fc.constantFrom(101, 229, 1231), { nil: null }),
});

/** The columns of these people, filled as the roll fills them. */
function columnsOf() {
  return {
    last: new TextsColumn(MOST),
    first: new TextsColumn(MOST),
    day: new DaysColumn(MOST),
    number: new NumbersColumn(MOST),
    birthday: new MonthDaysColumn(MOST),
  };
}
function fill(columns: ReturnType<typeof columnsOf>, ordinal: number, values: Values): void {
  for (const [name, held] of Object.entries(columns) as [keyof Values, MaterializedColumn][]) {
    held.reset([ordinal]);
    if (values[name] !== null) held.put(ordinal, [ordinal, values[name]]);
    held.finish();
  }
}

const by = fc.constantFrom<(keyof Values)[]>(
  ['last', 'first'],
  ['day', 'last', 'first'],
  ['number', 'last'],
  ['birthday', 'first'],
);

test('an order that is mended is the order made anew, whoever changed and whoever came', () => {
  fc.assert(
    fc.property(
      fc.array(someone, { minLength: 1, maxLength: 30 }),
      fc.array(fc.tuple(fc.nat(29), someone), { maxLength: 12 }),
      fc.array(someone, { maxLength: 8 }),
      by,
      fc.boolean(),
      fc.shuffledSubarray(
        Array.from({ length: MOST }, (_none, i) => i + 1),
        { minLength: MOST, maxLength: MOST },
      ),
      (people, changes, newcomers, names, descending, shuffled) => {
        const ids = Uint32Array.from(shuffled);
        const columns = columnsOf();
        people.forEach((values, i) => fill(columns, i, values));
        const keys = names.map((name) => columns[name]);
        const before = orderBy(keys, ids, people.length, descending);
        const changed = new Set<number>();
        for (const [at, values] of changes) {
          const ordinal = at % people.length;
          fill(columns, ordinal, values);
          changed.add(ordinal);
        }
        newcomers.forEach((values, i) => fill(columns, people.length + i, values));
        const size = people.length + newcomers.length;
        expect([...mendedOrder(before, keys, ids, size, descending, changed)]).toEqual([
          ...orderBy(keys, ids, size, descending),
        ]);
      },
    ),
    { numRuns: 600 },
  );
});

test('missing values stand last in both directions', () => {
  const columns = columnsOf();
  [3, null, 1].forEach((day, i) =>
    fill(columns, i, { last: null, first: null, day, number: null, birthday: null }),
  );
  const ids = Uint32Array.of(10, 11, 12);
  expect([...orderBy([columns.day], ids, 3, false)]).toEqual([2, 0, 1]);
  expect([...orderBy([columns.day], ids, 3, true)]).toEqual([0, 2, 1]);
});
