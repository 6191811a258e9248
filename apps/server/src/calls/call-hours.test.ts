import { startingRules } from '@goodword/core/permission';
import { callHours, hoursNotes } from './call-hours';

const RULES = startingRules('US');
const HOME = { country: 'US', time_zone: 'America/Los_Angeles' };
const at = (country: string, region: string | null, iso: string) =>
  callHours({ country, region }, RULES, HOME, new Date(iso));

// 47 CFR 64.1200(c)(1): 8 a.m. to 9 p.m. where they are. CRTC Unsolicited Telecommunications Rules, part III,
// s. 23: 9 to 21:30 on weekdays, 10 to 18 at weekends. Cited from memory.
test.each([
  ['US', 'NY', '2026-06-10T12:00Z', null],
  ['US', 'NY', '2026-06-10T11:30Z', '2026-06-10T12:00:00.000Z'],
  ['US', 'CA', '2026-06-10T12:00Z', '2026-06-10T15:00:00.000Z'],
  ['CA', 'NS', '2026-06-13T12:30Z', '2026-06-13T13:00:00.000Z'],
  ['CA', 'NS', '2026-06-12T12:30Z', null],
])('%s %s at %s: from %s', (country, region, iso, from) => {
  expect(at(country, region, iso).from).toBe(from);
});

test('a sheet says the hours of the most, and whose are others', () => {
  expect(hoursNotes([])).toEqual([]);
  expect(
    hoursNotes([
      { number: 1, words: 'from 08:00 to 21:00' },
      { number: 2, words: 'from 09:00 to 21:30' },
      { number: 4, words: 'from 08:00 to 21:00' },
    ]),
  ).toEqual(['Call from 08:00 to 21:00, by the clock where they are.', 'Number 2: from 09:00 to 21:30.']);
});
