import { dayOf, isoDay } from '../common';
import { parseDayWords } from '.';

// Tuesday, 1 December 2026.
const TODAY = dayOf(2026, 12, 1)!;
test.each([
  ['today', '2026-12-01'],
  ['Tomorrow', '2026-12-02'],
  ['in 3 days', '2026-12-04'],
  ['in a week', '2026-12-08'],
  ['in 2 months', '2027-02-01'],
  // The weekday of today is that of next week.
  ['tue', '2026-12-08'],
  ['Friday', '2026-12-04'],
  ['thu 10', '2026-12-10'],
  ['tue 10', null],
  ['dec 4', '2026-12-04'],
  ['4 Dec', '2026-12-04'],
  ['1 december', '2026-12-01'],
  ['November 30th', '2027-11-30'],
  ['feb 29', '2028-02-29'],
  ['feb 30', null],
  ['12/4/2026', '2026-12-04'],
  ['2026-12-04', '2026-12-04'],
  ['soon', null],
  ['', null],
])('%s: %s', (text, day) => {
  const read = parseDayWords(text, TODAY, 'month-first');
  expect(read === null ? null : isoDay(read)).toBe(day);
});
