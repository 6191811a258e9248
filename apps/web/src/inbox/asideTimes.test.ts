import { asideTimes } from './asideTimes';

const ZONE = 'America/Los_Angeles';
const times = (now: string) => asideTimes(Date.parse(now), ZONE).map(({ words, at }) => [words, at]);

test('on a Wednesday: tomorrow at nine, on Monday, in a week, by the clocks of the house', () => {
  // Wednesday the 2nd of December 2026, 16:00 in Los Angeles.
  expect(times('2026-12-03T00:00:00Z')).toEqual([
    ['tomorrow', '2026-12-03T17:00:00.000Z'],
    ['monday', '2026-12-07T17:00:00.000Z'],
    ['week', '2026-12-09T17:00:00.000Z'],
  ]);
});

test('on a Sunday and on a Monday the Monday is said once', () => {
  expect(times('2026-12-06T20:00:00Z').map(([words]) => words)).toEqual(['tomorrow', 'week']);
  expect(times('2026-12-07T20:00:00Z').map(([words]) => words)).toEqual(['tomorrow', 'week']);
});

test('over the night in which the clocks go forward it is nine all the same', () => {
  // 14 March 2027: summer time begins in the United States.
  expect(times('2027-03-13T20:00:00Z')[0]).toEqual(['tomorrow', '2027-03-14T16:00:00.000Z']);
});
