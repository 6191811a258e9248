import { sizeChangeWords, sizePoints } from './sizes';

const plain = [String, (iso: string) => iso] as const;
const sizes = (...people: number[]) => people.map((n, i) => ({ day: `2026-11-0${i + 1}`, people: n }));

test.each([
  [[12], ''],
  [[], ''],
  [[12, 15], '3 more than on 2026-11-01.'],
  [[12, 40, 5], '7 fewer than on 2026-11-01.'],
  [[12, 40, 12], 'As many as on 2026-11-01.'],
])('%j is told as “%s”', (people, words) => expect(sizeChangeWords(sizes(...people), ...plain)).toBe(words));

test('a day is drawn at its noon, so that no zone makes it another', () => {
  expect(sizePoints(sizes(3))).toEqual([{ day: new Date('2026-11-01T12:00:00Z'), people: 3 }]);
});
