import { PRESETS, startingRules } from '@goodword/core/permission';
import { withHolidays, withWeekend } from './HoursLine';
import { addPlace, clockOf, countriesIn, minutesOf, placeOrder, withoutPlace, withPlace } from './edit';

const RULES = startingRules('US');

test('a clock is read and written the same, and nothing else is a clock', () => {
  for (const clock of ['00:00', '08:00', '21:30', '24:00']) expect(clockOf(minutesOf(clock)!)).toBe(clock);
  expect(['8', '25:00', '08:60', '', 'noon', '24:01'].map(minutesOf)).toEqual([
    null,
    null,
    null,
    null,
    null,
    null,
  ]);
});

test('a place is added once, with the rules of a preset', () => {
  const added = addPlace(RULES, 'us', 'me', 'united-states');
  expect(added?.key).toBe('US-ME');
  expect(added?.rules.places['US-ME']).toBe(PRESETS['united-states'].rules);
  expect(addPlace(RULES, 'US', '', 'strict')).toBeNull();
  expect(addPlace(RULES, 'Florida', '', 'strict')).toBeNull();
});

test('home and everywhere else can not be taken out', () => {
  expect(withoutPlace(RULES, '*')).toBe(RULES);
  expect(withoutPlace(RULES, 'US')).toBe(RULES);
  expect(Object.keys(withoutPlace(RULES, 'CA').places)).toEqual(
    Object.keys(RULES.places).filter((key) => key !== 'CA'),
  );
});

test('a change touches one place and leaves the others as they are', () => {
  const changed = withPlace(RULES, 'CA', (place) => ({ ...place, oldAfterMonths: 12 }));
  expect([changed.places.CA!.oldAfterMonths, changed.places.US]).toEqual([12, RULES.places.US]);
  expect(withPlace(RULES, 'NZ', () => PRESETS.strict.rules)).toBe(RULES);
});

test('home is read first and everywhere else last', () => {
  expect(placeOrder(RULES, (key) => key)).toEqual([
    'US',
    'CA',
    'EU',
    'GB',
    'US-FL',
    'US-MD',
    'US-OK',
    'US-WA',
    '*',
  ]);
});

test('other hours at weekends and on holidays are put in and taken out again', () => {
  const plain = { from: 540, to: 1290 };
  const weekend = withWeekend({ ...plain, days: { fri: null } }, { from: 600, to: 1080 });
  expect(weekend.days).toEqual({ fri: null, sat: { from: 600, to: 1080 }, sun: { from: 600, to: 1080 } });
  expect(withWeekend(weekend, undefined).days).toEqual({ fri: null });
  expect(withHolidays(withHolidays(plain, null), undefined)).toEqual(plain);
  expect(withWeekend(withWeekend(plain, null), undefined)).toEqual(plain);
});

test('countries are read as people write them', () => {
  expect(countriesIn(' ca, GB; ca Canada')).toEqual(['CA', 'GB']);
  expect(countriesIn('')).toEqual([]);
});
