import { ChapterFinder, readHomes } from './chapters';

const CHAPTERS = [
  { id: 1, name: 'East Landing', places: 'US-WA, 970' },
  { id: 2, name: 'Pier Überlingen', places: 'Germany; AT' },
  { id: 3, name: 'Mill Race', places: 'Oregon, 97, 98101' },
];
const finder = new ChapterFinder(CHAPTERS, 'US');
const at = (country: string | null, region: string | null, postcode = '') =>
  finder.at({ country, region }, postcode);

test('places are read as countries, regions and beginnings of postcodes; what is none is told', () => {
  expect(readHomes('US-WA, oregon\n97, SW1A; fr, Quebec, Old Canada , Atlantis', 'US')).toEqual({
    homes: [
      { region: 'US-WA' },
      { region: 'US-OR' },
      { postcode: '97' },
      { postcode: 'SW1A' },
      { country: 'FR' },
      { region: 'CA-QC' },
    ],
    unread: ['Old Canada', 'Atlantis'],
  });
  // Washington alone is the state where the house is in the United States, and 'VIC' one of Australia's
  // there.
  expect(readHomes('Washington', 'US').homes).toEqual([{ region: 'US-WA' }]);
  expect(readHomes('vic', 'AU').homes).toEqual([{ region: 'AU-VIC' }]);
  expect([readHomes('CA', 'US').homes, readHomes('CA', 'GB').homes]).toEqual([
    [{ region: 'US-CA' }],
    [{ country: 'CA' }],
  ]);
  expect(readHomes(' , ;', 'US')).toEqual({ homes: [], unread: [] });
});

test('a chapter is known by its name in any case and with any marks', () => {
  expect(['EAST LANDING', 'pier uberlingen', 'West'].map((name) => finder.named(name))).toEqual([1, 2, null]);
});

test('the longest beginning of a postcode goes before the region, and that before the country', () => {
  expect(at('US', 'WA', '98102')).toBe(1);
  expect(at('US', 'WA', '98101-2231')).toBe(3);
  expect(at('US', 'OR', '97015')).toBe(1);
  expect(at('US', 'OR', '97301')).toBe(3);
  expect(at('DE', null, '88662')).toBe(2);
  expect(at('US', 'CA', '90210')).toBeNull();
  expect(at(null, null)).toBeNull();
});
