import fc from 'fast-check';
import {
  birthColumns,
  cleanRow,
  cutTags,
  fileFaults,
  joinTags,
  withKnownFields,
  type ColumnChoice,
  type RowRules,
} from '.';
import { spoken } from '../words';

/** 2026-11-30. */
const TODAY = 20_787;
const rulesOf = (columns: ColumnChoice[], more: Partial<RowRules> = {}): RowRules => ({
  ...{
    what: 'people',
    columns,
    country: 'US',
    currency: 'USD',
    today: TODAY,
    births: birthColumns(columns, []),
  },
  ...more,
});
const read = (columns: ColumnChoice[], cells: string[], more: Partial<RowRules> = {}) =>
  spoken(cleanRow(cells, rulesOf(columns, more)));

describe('what is too long is told, and never cut', () => {
  const at = (
    to:
      | 'firstName'
      | 'lastName'
      | 'fullName'
      | 'externalId'
      | 'street'
      | 'postcode'
      | 'city'
      | 'region'
      | 'tags'
      | 'signedWords',
    n: number,
  ) => read([{ to: 'email' }, { to }], ['a@example.org', 'x'.repeat(n)]);
  test.each([
    ['firstName', 100],
    ['fullName', 100],
    ['externalId', 80],
    ['street', 200],
    ['postcode', 20],
    ['city', 100],
    ['region', 100],
    ['tags', 120],
    ['signedWords', 2000],
  ] as const)('%s, beyond %d', (to, longest) => {
    expect(at(to, longest).faults).toEqual([]);
    const over = at(to, longest + 1);
    expect(over).toMatchObject({
      fatal: null,
      faults: [{ column: 1, reason: expect.stringContaining(`at most ${longest} characters`) as string }],
    });
    expect([over.firstName, over.lastName, over.externalId, over.post, over.tags, over.signedWords]).toEqual([
      '',
      '',
      null,
      null,
      [],
      null,
    ]);
  });
});

describe('a currency that a field does not keep', () => {
  const pledge: ColumnChoice[] = [{ to: 'email' }, { to: 'field', fieldId: 4, type: 'money' }];
  test.each([
    ['25', 2500],
    ['$25', 2500],
    ['USD 25.00', 2500],
    ['US$25', 2500],
    ['(25.00)', -2500],
    ['-$25.00', -2500],
  ])('%s is ours', (cell, number) =>
    expect(read(pledge, ['a@example.org', cell]).values).toEqual([{ column: 1, value: { number } }]),
  );
  test.each(['€25', '25 EUR', '£25', 'CA$25'])('%s is told and left out', (cell) =>
    expect(read(pledge, ['a@example.org', cell])).toMatchObject({
      values: [],
      faults: [{ column: 1, reason: `expected an amount in USD, got "${cell}"` }],
    }),
  );
  test('a gift is kept in its own', () =>
    expect(
      read([{ to: 'email' }, { to: 'amount' }, { to: 'givenOn' }], ['a@example.org', '€25', '2026-02-03'], {
        what: 'gifts',
      }),
    ).toMatchObject({
      fatal: null,
      gift: { amount: 2500, currency: 'EUR' },
    }));
});

test.each([
  [['refund', '25'], -2500],
  [['single', '25'], 2500],
])('a refund is one whichever column comes first: %j', (cells, amount) => {
  const columns: ColumnChoice[] = [{ to: 'rhythm' }, { to: 'amount' }];
  expect(read(columns, cells).gift.amount).toBe(amount);
  expect(read([...columns].reverse(), [...cells].reverse()).gift.amount).toBe(amount);
});

describe('nobody was born tomorrow', () => {
  const born = (type: 'date' | 'birthday', name: string): ColumnChoice[] => [
    { to: 'email' },
    { to: 'newField', name, type, order: 'month-first' },
  ];
  const of = (columns: ColumnChoice[], cell: string) => read(columns, ['a@example.org', cell]);
  test.each([
    ['11/30/2026', 20_787],
    ['3/14/62', -2850],
    ['3/14/1962', -2850],
    ['22719', -2850],
  ])('%s is read', (cell, date) => {
    expect(of(born('date', 'Date of birth'), cell).values).toEqual([{ column: 1, value: { date } }]);
    expect(of(born('birthday', 'Geburtstag'), cell).values).toMatchObject([
      { column: 1, value: { monthDay: expect.any(Number) as number } },
    ]);
  });
  test.each(['12/1/2026', '3/14/2062'])('%s is a fault', (cell) => {
    for (const columns of [born('date', 'Fecha de nacimiento'), born('birthday', 'Birthday')])
      expect(of(columns, cell)).toMatchObject({
        values: [],
        faults: [{ column: 1, reason: `expected a birthday that is not still to come, got "${cell}"` }],
      });
  });
  test('any other day may be still to come', () =>
    expect(of(born('date', 'Renews on'), '3/14/2062').faults).toEqual([]));
});

describe('tags in one cell', () => {
  test.each([
    ['rowers, bakers; menders|crew\nflags', ['rowers', 'bakers', 'menders', 'crew', 'flags']],
    ['"Friends, old"; rowers', ['Friends, old', 'rowers']],
    ['"said ""yes"", twice"', ['said "yes", twice']],
    ['5" planks, rope', ['5" planks', 'rope']],
    ['"unclosed, rope', ['"unclosed', 'rope']],
    [' ; , ', []],
  ])('%j', (cell, tags) => expect(cutTags(cell)).toEqual(tags));

  test('what is written out is read back, whatever the tags', () => {
    const tag = fc
      .string({ minLength: 1, maxLength: 20 })
      .map((text) => text.trim())
      .filter((text) => text !== '');
    fc.assert(
      fc.property(fc.array(tag, { maxLength: 6 }), (tags) => expect(cutTags(joinTags(tags))).toEqual(tags)),
    );
  });
});

describe('a plan that does not fit its file', () => {
  const columns: ColumnChoice[] = [{ to: 'email' }, { to: 'firstName' }, { to: 'leave' }];
  const faults = (more: Partial<Parameters<typeof fileFaults>[0]>) =>
    spoken(fileFaults({ columns, mends: [], ...more }, { columns: 3, rows: 10 }));
  test('one that does', () => {
    expect(faults({})).toEqual([]);
    expect(faults({ mends: [{ kind: 'edit', row: 10, column: 3, value: '' }] })).toEqual([]);
  });
  test.each([
    [{ columns: columns.slice(1) }, 'columns', 'The file has 3 columns, and the plan says of 2'],
    [{ columns: [...columns, ...columns] }, 'columns', 'of 6'],
    [{ mends: [{ kind: 'edit', row: 11, column: 1, value: '' }] }, 'mends[0]', 'no row 11'],
    [
      {
        mends: [
          { kind: 'recase', column: 2 },
          { kind: 'strip', column: 4, text: 'x' },
        ],
      },
      'mends[1]',
      'no column 4',
    ],
    [{ mends: [{ kind: 'swap', a: 1, b: 6 }] }, 'mends[0]', 'no column 6'],
  ] as const)('%j', (more, field, words) =>
    expect(faults(more as never)).toEqual([{ field, said: expect.stringContaining(words) as string }]),
  );
});

test('a new field that is here already under its name is that field, where it takes the same', () => {
  const fields = [
    { id: 4, name: 'Pledge', type: 'money' as const },
    { id: 5, name: 'Boat', type: 'choice' as const },
  ];
  const plan = {
    columns: [
      { to: 'newField', name: 'pledge', type: 'money' },
      { to: 'newField', name: 'Boat', type: 'text' },
    ] as ColumnChoice[],
    constants: [{ choice: { to: 'newField', name: 'boat', type: 'choice' } as ColumnChoice, value: 'punt' }],
  };
  expect(withKnownFields(plan, fields, (name) => name.toLowerCase())).toEqual({
    columns: [{ to: 'field', fieldId: 4, type: 'money' }, plan.columns[1]],
    constants: [{ choice: { to: 'field', fieldId: 5, type: 'choice' }, value: 'punt' }],
  });
});
