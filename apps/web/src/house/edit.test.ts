import { PRESETS, startingRules } from '@goodword/core/permission';
import { addPlace, clockOf, minutesOf, placeOrder, withoutPlace, withPlace } from './edit';

const RULES = startingRules('US');

test('a clock is read and written the same, and nothing else is a clock', () => {
  for (const clock of ['00:00', '08:00', '21:30', '24:00']) expect(clockOf(minutesOf(clock)!)).toBe(clock);
  expect(['8', '25:00', '08:60', '', 'noon', '24:01'].map(minutesOf)).toEqual([null, null, null, null, null, null]);
});

test('a place is added once, with the rules of a preset', () => {
  const added = addPlace(RULES, 'us', 'fl', 'united-states');
  expect(added?.key).toBe('US-FL');
  expect(added?.rules.places['US-FL']).toBe(PRESETS['united-states'].rules);
  expect(addPlace(RULES, 'US', '', 'strict')).toBeNull();
  expect(addPlace(RULES, 'Florida', '', 'strict')).toBeNull();
});

test('home and everywhere else can not be taken out', () => {
  expect(withoutPlace(RULES, '*')).toBe(RULES);
  expect(withoutPlace(RULES, 'US')).toBe(RULES);
  expect(Object.keys(withoutPlace(RULES, 'CA').places)).toEqual(['US', 'GB', 'EU', '*']);
});

test('a change touches one place and leaves the others as they are', () => {
  const changed = withPlace(RULES, 'CA', (place) => ({ ...place, oldAfterMonths: 12 }));
  expect([changed.places.CA!.oldAfterMonths, changed.places.US]).toEqual([12, RULES.places.US]);
  expect(withPlace(RULES, 'NZ', () => PRESETS.strict.rules)).toBe(RULES);
});

test('home is read first and everywhere else last', () => {
  expect(placeOrder(RULES, (key) => key)).toEqual(['US', 'CA', 'EU', 'GB', '*']);
});
