import { parseClock } from './clock';

test.each([
  ['10', 600],
  ['10:05', 605],
  ['7.30', 450],
  ['1430', 870],
  ['930', 570],
  ['10 pm', 1320],
  ['12 am', 0],
  ['12:15 p.m.', 735],
  ['9AM', 540],
  [' 23:59 ', 1439],
  ['noon', 720],
  ['midnight', 0],
])('%s is a time of day', (typed, minutes) => expect(parseClock(typed)).toBe(minutes));

test.each(['', '24:00', '10:60', '13 pm', '0 am', 'soon', '10:5', '-1', '10:00:00', '1'.repeat(100_000)])(
  '%s is none',
  (typed) => expect(parseClock(typed)).toBeNull(),
);
