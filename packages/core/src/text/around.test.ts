import { aroundText, countParts, readIntent } from '.';

const NAME = 'Lantern Ferry Trust';

test.each([
  ['Boots on Saturday.', 'Lantern Ferry Trust: ', ' Reply STOP to end.'],
  ['Lantern Ferry: boots on Saturday. Reply STOP to leave.', '', ''],
  ['lantern ferry trust needs boots', '', ' Reply STOP to end.'],
  ['Lan: boots', 'Lantern Ferry Trust: ', ' Reply STOP to end.'],
  ['Hi Ann: boots. Do not stop now.', 'Lantern Ferry Trust: ', ' Reply STOP to end.'],
  [': boots', 'Lantern Ferry Trust: ', ' Reply STOP to end.'],
])('%s', (body, lead, end) => {
  expect(aroundText(body, NAME, 'en-US')).toEqual({ lead, end });
});

test('whatever the language, the way out works when it is followed, and stays in the small alphabet', () => {
  for (const language of ['en', 'es-MX', 'fr-CA', 'de', 'nl']) {
    const { end } = aroundText('', NAME, language);
    expect(readIntent(/[A-Z]{4}/.exec(end)![0])).toBe('stop');
    expect(countParts(end).alphabet).toBe(countParts('plain').alphabet);
  }
});
