import fc from 'fast-check';
import { dayOf, isoDay } from '../common';
import { coerce, dateOrderOf, formatMoney, formatValue, parseDate, parseNumber } from '.';
import { spoken } from '../words';

describe('dates as people write them', () => {
  test.each([
    ['2027-03-04', '2027-03-04', '2027-03-04'],
    ['3/4/2027', '2027-04-03', '2027-03-04'],
    ['14.02.2027', '2027-02-14', null],
    ['4 March 2027', '2027-03-04', '2027-03-04'],
    ['March 4th, 2027', '2027-03-04', '2027-03-04'],
    ['04-Mar-27', '2027-03-04', '2027-03-04'],
    ['1/2/49', '2049-02-01', '2049-01-02'],
    ['1/2/50', '1950-02-01', '1950-01-02'],
    ['31/4/2027', null, null],
    ['soon', null, null],
  ])('%s', (text, dayFirst, monthFirst) => {
    const shown = (order: 'day-first' | 'month-first') => {
      const day = parseDate(text, order);
      return day === null ? null : isoDay(day);
    };
    expect([shown('day-first'), shown('month-first')]).toEqual([dayFirst, monthFirst]);
  });

  test('a column tells its own order', () => {
    expect(dateOrderOf(['03/04/2027', '14/02/2027'])).toBe('day-first');
    expect(dateOrderOf(['03/04/2027', '02/14/2027'])).toBe('month-first');
    expect(dateOrderOf(['03/04/2027'])).toBeNull();
    expect(dateOrderOf(['13/04/2027', '04/13/2027'])).toBeNull();
  });
});

test.each([
  ['1,250', 1250],
  ['1.250', 1250],
  ['1,250.50', 1250.5],
  ['1.250,50', 1250.5],
  ['12,5', 12.5],
  ['$40', 40],
  ['0.125', 0.125],
  ['-3', -3],
  ['1 000', 1000],
  ['1,234,567', 1234567],
  ['12,34,567', 1234567],
  ["1'250.50", 1250.5],
  ['1250.500', 1250.5],
  ['12.3.4', null],
  ['1,25.00', null],
  ['1,2,3', null],
  ['5..2', null],
  ['12.345.67', null],
  ['206 555 0101', null],
  ['12 5', null],
  ['ten', null],
  ['', null],
  ['12 March', null],
])('number %s', (text, expected) => expect(parseNumber(text)).toBe(expected));

describe('coercing', () => {
  test.each([
    ['money', '$1,250.50', { number: 125050 }],
    ['money', '(25.00)', { number: -2500 }],
    ['money', '-$25.00', { number: -2500 }],
    ['money', '25-', { number: -2500 }],
    ['yesno', 'X', { number: 1 }],
    ['yesno', 'non', { number: 0 }],
    ['birthday', '29 February', { monthDay: 229 }],
    ['birthday', '29/02', { monthDay: 229 }],
    ['birthday', '1980-12-31', { monthDay: 1231 }],
    ['text', '  M ', { text: 'M' }],
  ] as const)('%s %s', (type, text, value) =>
    expect(spoken(coerce(type, text))).toEqual({ ok: true, value }),
  );

  test('a fault names what was expected and what came', () => {
    expect(spoken(coerce('date', 'next week'))).toEqual({
      ok: false,
      reason: 'expected a date, got "next week"',
    });
    expect(spoken(coerce('text', 'x'.repeat(501))).ok).toBe(false);
  });

  test('any date comes back from its own writing', () => {
    fc.assert(
      fc.property(fc.integer({ min: -10000, max: 30000 }), (day) => {
        expect(spoken(coerce('date', isoDay(day)))).toEqual({ ok: true, value: { date: day } });
      }),
    );
  });
});

test('formatting follows locale and currency', () => {
  const manner = { locale: 'en-US', currency: 'USD' };
  expect(formatMoney(4000, manner)).toBe('$40');
  expect(formatMoney(4050, manner)).toBe('$40.50');
  expect(formatValue('date', { date: dayOf(2027, 9, 11)! }, manner)).toBe('Sep 11, 2027');
  expect(formatValue('birthday', { monthDay: 229 }, manner)).toBe('February 29');
  expect(formatValue('yesno', {}, manner)).toBe('');
});
