import fc from 'fast-check';
import { spoken } from '../words';
import { compile, formatNames, rawKey, registryOf, render, slotsOf, STANDARD_NAMES, withFormats } from '.';

const registry = registryOf([
  ...STANDARD_NAMES,
  { name: 'Hours', key: 'field:5', group: 'Supporter', kind: 'number' },
]);
const RAW = {
  firstName: 'élodie',
  [rawKey('lastGift.date')]: '2026-03-04',
  [rawKey('lastGift.amount')]: '123450',
  'lastGift.date': 'Mar 4, 2026',
  'field:5': '12.5',
};
function fill(source: string, locale = 'en-US', currency = 'USD'): string {
  const compiled = compile(source, registry);
  expect(compiled.faults).toEqual([]);
  return render(compiled, withFormats(RAW, slotsOf(compiled), { locale, currency }));
}
// A space in amounts and dates may be a narrow one (CLDR 42 and later).
const plain = (text: string) => text.replace(/[\u00a0\u202f]/g, ' ');

// Written out as the Unicode CLDR has these locales (by Intl; from memory where it stands beside in words).
test.each([
  ['{Last gift: date}', 'en-US', 'USD', 'Mar 4, 2026'],
  ['{Last gift: date, as long}', 'en-US', 'USD', 'March 4, 2026'],
  ['{Last gift: date, as LONG}', 'de-DE', 'EUR', '4. März 2026'],
  ['{Last gift: date, as day and month}', 'fr-FR', 'EUR', '4 mars'],
  ['{Last gift: date, as month and year}', 'es-MX', 'MXN', 'marzo de 2026'],
  ['{Last gift: date, as  weekday}', 'en-GB', 'GBP', 'Wednesday'],
  ['{Last gift: date, as year}', 'en-US', 'USD', '2026'],
  ['{Last gift: amount, as whole}', 'en-US', 'USD', '$1,235'],
  ['{Last gift: amount, as with cents}', 'de-DE', 'EUR', '1.234,50 €'],
  ['{Last gift: amount, as with code}', 'en-US', 'USD', 'USD 1,234.50'],
  ['{Hours, as whole}', 'en-US', 'USD', '13'],
  ['{Hours, as two decimals}', 'fr-FR', 'EUR', '12,50'],
  ['{First name, as capitals, or "you"}', 'fr-FR', 'EUR', 'ÉLODIE'],
  ['{First name, as initial}', 'en-US', 'USD', 'É.'],
])('%s in %s and %s', (source, locale, currency, expected) =>
  expect(plain(fill(source, locale, currency))).toBe(expected),
);

test('Turkish capitals are Turkish', () => {
  const compiled = compile('{First name, as capitals}', registry);
  const values = withFormats({ firstName: 'idil' }, slotsOf(compiled), { locale: 'tr-TR', currency: 'TRY' });
  expect(render(compiled, values)).toBe('İDİL');
});

test('nothing stays nothing, whatever it would be written as', () => {
  const compiled = compile('{Last gift: date, as long, or "once"}', registry);
  expect(render(compiled, withFormats({}, slotsOf(compiled), { locale: 'en-US', currency: 'USD' }))).toBe(
    'once',
  );
});

test.each([
  [
    '{Last gift: date, as shiny}',
    "Last gift: date can't be written as “shiny”. It can as: short, long, full, day and month, month and year, month, year, weekday.",
  ],
  ['{Email, as capitals}', 'Email is written in one way alone. Leave “as …” out.'],
])('a format that there is none of is told, with those that there are: %s', (source, sentence) => {
  expect(spoken(compile(source, registry).faults).map((one) => one.said)).toEqual([sentence]);
  expect(render(compile(source, registry), RAW)).toBe(source);
});

test.each(['{First name, as}', '{First name, as , or "x"}', '{First name, as capitals, }', '{First name,}'])(
  'half a clause is told: %s',
  (source) => expect(compile(source, registry).faults).toHaveLength(1),
);

test('every format of every kind writes every value without throwing', () => {
  const dates = fc
    .date({ min: new Date('0001-01-01'), max: new Date('9999-12-31'), noInvalidDate: true })
    .map((date) => date.toISOString().slice(0, 10));
  fc.assert(
    fc.property(dates, fc.integer(), fc.string(), (date, minor, name) => {
      const values = {
        [rawKey('lastGift.date')]: date,
        [rawKey('lastGift.amount')]: String(minor),
        firstName: name,
        'field:5': String(minor / 10),
      };
      const fields = {
        date: 'Last gift: date',
        money: 'Last gift: amount',
        name: 'First name',
        number: 'Hours',
      };
      for (const [kind, field] of Object.entries(fields))
        for (const as of formatNames(kind as keyof typeof fields)) {
          const compiled = compile(`{${field}, as ${as}, or "-"}`, registry);
          const manner = { locale: 'de-AT', currency: 'EUR' };
          expect(render(compiled, withFormats(values, slotsOf(compiled), manner)).length).toBeGreaterThan(0);
        }
    }),
  );
});
