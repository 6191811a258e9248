import { coerce, fileOf, fileText, formatValue, isoValue, readRegion, regionName, regionsOf } from '.';

const MANNER = { locale: 'en-US', currency: 'USD' };

describe('regions', () => {
  // ISO 3166-2: Canada has 10 provinces and 3 territories, Germany 16 Länder, Mexico 32 entities, Austria 9
  // and Switzerland 26.
  test.each([
    ['CA', 13],
    ['DE', 16],
    ['MX', 32],
    ['AT', 9],
    ['CH', 26],
  ])('%s has %i', (country, many) => expect(regionsOf(country)).toHaveLength(many));

  test('every code is one of ISO 3166-2: the country, a dash, and up to three letters or digits', () => {
    for (const country of ['US', 'CA', 'GB', 'FR', 'ES', 'DK'])
      for (const { code } of regionsOf(country))
        expect(code).toMatch(new RegExp(`^${country}-[A-Z0-9]{1,3}$`));
    expect(regionsOf('US').map(({ code }) => code)).toEqual(
      expect.arrayContaining(['US-WA', 'US-DC', 'US-FL']),
    );
    expect(regionsOf('ZZ')).toEqual([]);
  });

  test.each([
    ['US-WA', 'US-WA'],
    ['us wa', 'US-WA'],
    ['Washington', 'US-WA'],
    ['WA, USA', 'US-WA'],
    ['Québec', 'CA-QC'],
    ['quebec (Canada)', 'CA-QC'],
    ['Bayern, Germany', 'DE-BY'],
    ['US-ZZ', null],
    ['WA', null],
    ['Washington, France', null],
    ['nowhere at all', null],
    ['', null],
  ])('%s is %s', (text, code) => expect(readRegion(text)).toBe(code));

  test('is told with its country', () => {
    expect(regionName('US-WA')).toBe('Washington, United States');
    expect(formatValue('region', { text: 'CA-QC' }, { locale: 'fr-CA', currency: 'CAD' })).toContain(
      'Canada',
    );
    expect(regionName('US-??')).toBe('US-??');
  });
});

describe('a date and a time', () => {
  test.each([
    ['2027-03-04 18:30', '2027-03-04 18:30'],
    ['2027-03-04T18:30', '2027-03-04 18:30'],
    ['2027-03-04T18:30:15Z', '2027-03-04 18:30'],
    ['3/4/2027 6:30 PM', '2027-03-04 18:30'],
    ['March 4, 2027 at 12 am', '2027-03-04 00:00'],
    ['4 March 2027, 12:05 p.m.', '2027-03-04 12:05'],
    ['2027-03-04', null],
    ['2027-03-04 25:00', null],
    ['2027-03-04 10:75', null],
    ['half past six', null],
  ])('%s', (text, told) => {
    const read = coerce('datetime', text, { order: 'month-first' });
    expect(read.ok ? isoValue('datetime', read.value) : null).toBe(told);
  });

  test('is written as the locale writes it', () => {
    expect(formatValue('datetime', { date: 20_881, number: 1110 }, MANNER).replace(/\s/g, ' ')).toBe(
      'Mar 4, 2027, 6:30 PM',
    );
  });
});

test('a long text keeps its lines up to 4,000 characters', () => {
  expect(coerce('longtext', 'One\n\nTwo')).toEqual({ ok: true, value: { text: 'One\n\nTwo' } });
  expect(coerce('longtext', 'x'.repeat(4001)).ok).toBe(false);
});

test('a file is kept by its id and told by its name', () => {
  expect(fileOf(fileText(12, 'lease 2027.pdf'))).toEqual({ id: 12, name: 'lease 2027.pdf' });
  expect(fileOf(fileText(3, '../etc/passwd'))).toEqual({ id: 3, name: '.. etc passwd' });
  expect(formatValue('file', { text: '12/lease.pdf' }, MANNER)).toBe('lease.pdf');
  expect(fileOf('lease.pdf')).toBeNull();
  expect(coerce('file', 'lease.pdf').ok).toBe(false);
});
