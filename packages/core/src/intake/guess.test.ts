import type { FieldType } from '../fields';
import { usualOrder } from '../fields';
import { guessAll, guessColumn, type KnownField } from './guess';
import { profileColumn } from './testing';

const FIELDS: KnownField[] = [
  { id: 1, name: 'Volunteer hours', type: 'number' },
  { id: 2, name: 'Birthday', type: 'birthday' },
  { id: 3, name: 'Website', type: 'link' },
  { id: 4, name: 'Ward', type: 'text' },
];
const guess = (header: string, values: string[], country = 'US') =>
  guessColumn(header, profileColumn(values, country), FIELDS).choice;
const made = (name: string, type: FieldType, more = {}) => ({ to: 'newField', name, type, ...more });

test.each<[string, string[], string, object]>([
  [
    'Birthday',
    ['03/14', '12/25', '02/29'],
    'US',
    { to: 'field', fieldId: 2, type: 'birthday', order: 'month-first' },
  ],
  ['Birthday', ['14/03', '25/12'], 'US', { to: 'field', fieldId: 2, type: 'birthday', order: 'day-first' }],
  [
    'Cumpleaños',
    ['29/02/1964', '3/4', '14 de mayo'],
    'MX',
    made('Cumpleaños', 'birthday', { order: 'day-first' }),
  ],
  ['Birthday', ['03/04', '05/06'], 'US', { to: 'field', fieldId: 2, type: 'birthday', order: 'month-first' }],
  ['Birthday', ['03/04', '05/06'], 'GB', { to: 'field', fieldId: 2, type: 'birthday' }],
  ['Date of birth', ['29000', '31234', '18765'], 'GB', made('Date of birth', 'date')],
  ['Ward code', ['007', '012', '003'], 'US', { to: 'field', fieldId: 4, type: 'text' }],
  ['Box', ['007', '012', '103'], 'US', made('Box', 'text')],
  ['Volunteer?', ['Yes', 'No', 'Yes', ''], 'US', made('Volunteer?', 'yesno')],
  ['Volunteer', ['12', '8.5'], 'US', { to: 'field', fieldId: 1, type: 'number' }],
  ['Total given', ['$1,250.00', '$30'], 'US', made('Total given', 'money')],
  ['Pledge', ['25', '50', '100'], 'US', made('Pledge', 'money')],
  ['Spende', ['25 €', '50,00 €'], 'DE', made('Spende', 'money')],
  ['Age', ['34', '56'], 'US', made('Age', 'number')],
  ['Blog', ['https://a.example.org', 'www.example.com/b'], 'US', made('Blog', 'link')],
  ['Mobile', ['07911 123456', '07700 900456', '07400 123456'], 'US', { to: 'mobile' }],
  ['Email', ['ann(at)example.org', 'bo@example', '@cy', 'dan@@example.org'], 'US', { to: 'email' }],
  ['Email', ['blue', 'green'], 'US', made('Email', 'text')],
  ['Email', ['Yes', 'No', 'Yes'], 'US', made('Email', 'yesno')],
  ['Membership no', ['00123', '00456'], 'US', { to: 'externalId' }],
])('"%s" over %j in %s', (header, values, country, choice) => {
  expect(guess(header, values, country)).toEqual(choice);
});

test('a column with both orders in it says so, and goes by the place', () => {
  const profile = profileColumn(['13/04/2026', '04/13/2026'], 'US');
  expect([profile.order, profile.mixed, profile.usual]).toEqual([null, true, 'month-first']);
});

// Unicode CLDR, dateFormats short of the countries' main languages (values from memory).
test.each([
  ['US', 'month-first'],
  ['GB', 'day-first'],
  ['DE', 'day-first'],
  ['FR', 'day-first'],
  ['MX', 'day-first'],
  ['AU', 'day-first'],
  ['JP', 'day-first'],
  ['', 'day-first'],
] as const)('in %s days are usually written %s', (country, order) => {
  expect(usualOrder(country)).toBe(order);
});

describe('days whose own values do not tell', () => {
  const order = (columns: [header: string, values: string[]][], country: string) =>
    guessAll(
      columns.map(([header]) => header),
      columns.map(([, values]) => profileColumn(values, country)),
      [],
    ).map(({ choice }) => ('order' in choice && choice.order ? choice.order : 'day-first'));
  const unsure: [string, string[]] = ['Joined', ['03/04/2019', '05/06/2020']];

  test('are read as the other days of the file', () => {
    expect(order([['Birthday', ['29/02/1964', '13/05/1970']], unsure], 'US')).toEqual([
      'day-first',
      'day-first',
    ]);
    expect(order([unsure, ['Birthday', ['02/29/1964', '05/13/1970']]], 'GB')).toEqual([
      'month-first',
      'month-first',
    ]);
  });

  test('are read as the place does where the others do not agree, or tell nothing', () => {
    const both: [string, string[]][] = [['Birthday', ['29/02/1964']], ['Renews', ['02/29/2028']], unsure];
    expect([order(both, 'US')[2], order(both, 'GB')[2]]).toEqual(['month-first', 'day-first']);
    expect(order([['Email', ['a@example.org']], unsure], 'US')[1]).toBe('month-first');
  });
});
