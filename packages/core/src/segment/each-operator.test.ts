import { Bits } from '../common';
import { evaluate, NO_DAY, trace, type Column, type FieldLine, type Line } from '.';

/*
 * Every operator on values that lie right at its edges, with who passes written down by hand. Each line is
 * asked of all at once and of each alone.
 */
const day = (iso: string) => Date.parse(`${iso}T00:00:00Z`) / 86_400_000;
const READING = { today: day('2026-11-23'), fiscalMonth: 7 };

function passing(line: Line, column: Column, size: number): number[] {
  const columns = { size, get: () => column };
  const all = evaluate(line, columns, READING).ordinals();
  const alone = Array.from({ length: size }, (_none, i) => i).filter(
    (i) => trace(line, columns, i, READING).holds,
  );
  expect(alone).toEqual(all);
  return all;
}
const field = (op: FieldLine['op'], rest: Partial<FieldLine> = {}): FieldLine => ({
  kind: 'field',
  field: 1,
  op,
  ...rest,
});

const TEXTS = ['', 'oak', 'oak plank', 'a plank of oak', 'planks; oars', 'plank'];
test.each<[FieldLine, number[]]>([
  [field('is', { value: ' Oak ' }), [1]],
  [field('is-not', { value: 'oak' }), [0, 2, 3, 4, 5]],
  [field('contains', { value: 'oak' }), [1, 2, 3]],
  [field('begins', { value: 'oak' }), [1, 2]],
  [field('has', { value: 'plank' }), [5]],
  [field('has', { value: 'oars' }), [4]],
  [field('has-not', { value: 'oars' }), [0, 1, 2, 3, 5]],
  [field('empty'), [0]],
  [field('filled'), [1, 2, 3, 4, 5]],
  [field('contains'), [0, 1, 2, 3, 4, 5]],
])('texts: %j', (line, expected) => {
  const column: Column = { kind: 'text', dictionary: TEXTS, codes: Uint32Array.from(TEXTS.keys()) };
  expect(passing(line, column, TEXTS.length)).toEqual(expected);
});

test('places: the distance itself is near enough, and a place without a point never is', () => {
  const places = ['', '0, 0', '0, 1', 'nowhere'];
  const column: Column = { kind: 'text', dictionary: places, codes: Uint32Array.from(places.keys()) };
  // A degree of the equator, by the mean radius of GRS 80 (6371.0088 km, from memory): 111.195 km.
  expect(passing(field('within-km', { value: 111.1, to: '0, 0' }), column, 4)).toEqual([1]);
  expect(passing(field('within-km', { value: 111.2, to: '0, 0' }), column, 4)).toEqual([1, 2]);
  expect(passing(field('within-km', { value: 0, to: '0, 0' }), column, 4)).toEqual([1]);
  expect(passing(field('within-km', { value: 500, to: 'nowhere' }), column, 4)).toEqual([]);
  expect(passing(field('within-km', { value: 500 }), column, 4)).toEqual([]);
});

const NUMBERS = [NaN, -1, 0, 1, 2.5, 3];
test.each<[FieldLine, number[]]>([
  [field('equals', { value: 2.5 }), [4]],
  [field('at-least', { value: 1 }), [3, 4, 5]],
  [field('at-most', { value: 1 }), [1, 2, 3]],
  [field('between', { value: 0, to: 2.5 }), [2, 3, 4]],
  [field('between', { value: 3, to: 1 }), []],
  [field('yes'), [3]],
  [field('no'), [2]],
  [field('empty'), [0]],
  [field('filled'), [1, 2, 3, 4, 5]],
])('numbers: %j', (line, expected) => {
  expect(passing(line, { kind: 'number', values: Float64Array.from(NUMBERS) }, NUMBERS.length)).toEqual(
    expected,
  );
});

const DAYS = [null, '2026-11-22', '2026-11-23', '2026-11-24', '2026-11-30', '2026-12-23', '1969-12-31'];
test.each<[FieldLine, number[]]>([
  [field('on', { value: '2026-11-23' }), [2]],
  [field('before', { value: '2026-11-23' }), [1, 6]],
  [field('after', { value: '2026-11-23' }), [3, 4, 5]],
  [field('between', { value: '2026-11-23', to: '2026-11-30' }), [2, 3, 4]],
  [field('between', { value: '2026-11-30', to: '2026-11-23' }), []],
  [field('within-next', { value: 1 }), [2, 3]],
  [field('within-next', { value: 0 }), [2]],
  [field('within-next', { value: 1, unit: 'months' }), [2, 3, 4, 5]],
  [field('within-last', { value: 1 }), [1, 2]],
  [field('ahead', { value: 1, unit: 'weeks' }), [4]],
  [field('ago', { value: 1 }), [1]],
  [field('empty'), [0]],
  [field('filled'), [1, 2, 3, 4, 5, 6]],
  [field('during', { value: 'next-month' }), [5]],
  // A date that is none asks for nobody.
  [field('on', { value: '2026-02-30' }), []],
  [field('before', { value: 'soon' }), []],
  [field('after', { value: 7 }), []],
  [field('between', { value: '2026-11-23', to: 'later' }), []],
  [field('between', { value: 'before', to: '2026-11-23' }), []],
])('dates: %j', (line, expected) => {
  const values = Int32Array.from(DAYS, (iso) => (iso === null ? NO_DAY : day(iso)));
  expect(passing(line, { kind: 'day', values }, DAYS.length)).toEqual(expected);
});

test('an implied permission lapses from today through so many days on', () => {
  const values = Int32Array.from(
    ['2026-11-22', '2026-11-23', '2026-11-30', '2026-12-01'].map(day).concat(NO_DAY),
  );
  const line: Line = { kind: 'lapses', channel: 'email', scope: 'appeals', days: 7 };
  expect(passing(line, { kind: 'day', values }, 5)).toEqual([1, 2]);
});

// Kept on 23 November, the day before and after, in the month after, on the first of the year, and none.
const BIRTHDAYS = [1123, 1122, 1124, 1223, 101, 0, 1231];
test.each<[FieldLine, number[]]>([
  [field('within-next', { value: 0 }), [0]],
  [field('within-next', { value: 1 }), [0, 2]],
  [field('within-next', { value: 1, unit: 'months' }), [0, 2, 3]],
  [field('within-last', { value: 0 }), [0]],
  [field('within-last', { value: 1 }), [0, 1]],
  [field('ahead', { value: 1 }), [2]],
  [field('ahead', { value: 39 }), [4]],
  [field('in-month', { value: 11 }), [0, 1, 2]],
  [field('in-month', { value: 12 }), [3, 6]],
  [field('empty'), [5]],
  [field('filled'), [0, 1, 2, 3, 4, 6]],
])('birthdays: %j', (line, expected) => {
  expect(passing(line, { kind: 'monthDay', values: Uint16Array.from(BIRTHDAYS) }, BIRTHDAYS.length)).toEqual(
    expected,
  );
});

test('sets: those in them, or those outside', () => {
  const bits = new Bits(3);
  bits.add(1);
  const column: Column = { kind: 'bits', bits };
  const wants: [Line, Line][] = [
    [
      { kind: 'tag', tagId: 1, has: true },
      { kind: 'tag', tagId: 1, has: false },
    ],
    [
      { kind: 'list', listId: 1, on: true },
      { kind: 'list', listId: 1, on: false },
    ],
    [
      { kind: 'batch', batchId: 1, in: true },
      { kind: 'batch', batchId: 1, in: false },
    ],
    [
      { kind: 'may', channel: 'text', scope: 'appeals', may: true },
      { kind: 'may', channel: 'text', scope: 'appeals', may: false },
    ],
  ];
  for (const [inside, outside] of wants)
    expect([passing(inside, column, 3), passing(outside, column, 3)]).toEqual([[1], [0, 2]]);
});

test('states of permission are chosen by name', () => {
  // In the order in which they are kept: yes, implied, asked, never, no.
  const column: Column = { kind: 'state', codes: Uint8Array.from([0, 1, 2, 3, 4]) };
  const of = (states: Extract<Line, { kind: 'permission' }>['states']) =>
    passing({ kind: 'permission', channel: 'email', scope: 'appeals', states }, column, 5);
  expect([of(['yes']), of(['no', 'never']), of([])]).toEqual([[0], [3, 4], []]);
});

test('an operator that is none of its field is a fault that is named', () => {
  const columns: [string, Column, FieldLine][] = [
    ['text', { kind: 'text', dictionary: [''], codes: Uint32Array.of(0) }, field('at-least')],
    ['number', { kind: 'number', values: Float64Array.of(1) }, field('begins')],
    ['date', { kind: 'day', values: Int32Array.of(1) }, field('begins')],
    ['birthday', { kind: 'monthDay', values: Uint16Array.of(101) }, field('begins')],
  ];
  for (const [kind, column, line] of columns)
    expect(() => evaluate(line, { size: 1, get: () => column }, READING)).toThrow(
      `expected an operator for a ${kind} field, got "${line.op}"`,
    );
  const set: Column = { kind: 'bits', bits: new Bits(1) };
  expect(() => evaluate(field('is'), { size: 1, get: () => set }, READING)).toThrow(
    'expected a column of values for a field line',
  );
  const roster: Column = { kind: 'stage', codes: Uint8Array.of(0), stages: [] };
  expect(() => evaluate(field('is'), { size: 1, get: () => roster }, READING)).toThrow(
    'expected a column of values for a field line, got one of stage',
  );
});
