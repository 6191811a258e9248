import { holidaysOf } from './holidays';

const day = (iso: string) => Date.parse(`${iso}T00:00Z`) / 86_400_000;

// 5 U.S.C. 6103(a) for the United States; Bank Holidays (Scotland) by the Banking and Financial Dealings Act
// 1971, Sch. 1; Feiertagsgesetz of Bavaria, art. 1. Cited from memory.
test.each([
  ['US', null, '2026-11-26', true],
  ['US', 'WA', '2026-12-25', true],
  ['US', 'WA', '2026-11-29', false],
  ['CA', null, '2027-07-01', true],
  ['GB', 'SCT', '2026-11-30', true],
  ['GB', 'ENG', '2026-11-30', false],
  ['DE', 'BY', '2026-01-06', true],
  ['DE', 'BE', '2026-01-06', false],
  ['US', 'ZZ', '2026-07-04', true],
])('%s %s on %s: %s', (country, region, iso, holiday) => {
  expect(holidaysOf({ country, region }, 'US')(day(iso))).toBe(holiday);
});

test('whose country is not known has the holidays of the house, and a country without a calendar has none', () => {
  expect(holidaysOf({ country: null, region: 'BY' }, 'US')(day('2026-11-26'))).toBe(true);
  expect(holidaysOf({ country: 'AQ', region: null }, 'US')(day('2026-11-26'))).toBe(false);
});
