import { imprintOf, isCurrency, isLocale, isTimeZone } from '.';

test('what is known: zones, languages with a country, currencies', () => {
  for (const zone of ['America/Los_Angeles', 'Europe/Berlin', 'Asia/Kolkata', 'UTC'])
    expect([zone, isTimeZone(zone)]).toEqual([zone, true]);
  for (const zone of ['', 'America/Port_Alder', '+02:00', '-0500', 'Europe'])
    expect([zone, isTimeZone(zone)]).toEqual([zone, false]);
  for (const tag of ['en-US', 'fr-CA', 'de-AT', 'es-MX']) expect([tag, isLocale(tag)]).toEqual([tag, true]);
  for (const tag of ['', 'en', 'en_US', 'english', 'x']) expect([tag, isLocale(tag)]).toEqual([tag, false]);
  // ISO 4217.
  for (const code of ['USD', 'EUR', 'JPY', 'KWD']) expect([code, isCurrency(code)]).toEqual([code, true]);
  for (const code of ['', 'usd', 'DOLLAR', 'ZZZ']) expect([code, isCurrency(code)]).toEqual([code, false]);
});

test('who sends and where they live stand in one line, whatever was left empty or broken over lines', () => {
  const ferry = { name: 'Lantern Ferry Trust', legalName: '' };
  expect(imprintOf(ferry, '14 Slip Lane, Port Alder')).toBe('Lantern Ferry Trust, 14 Slip Lane, Port Alder');
  expect(
    imprintOf({ ...ferry, legalName: 'Lantern Ferry Trust, Inc.' }, '14 Slip Lane\r\n\r\n Port Alder '),
  ).toBe('Lantern Ferry Trust, Inc., 14 Slip Lane, Port Alder');
  expect(imprintOf(ferry, '')).toBe('Lantern Ferry Trust');
});
