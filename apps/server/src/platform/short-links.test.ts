import fc from 'fast-check';
import { septets } from '@goodword/core/text';
import { SHORT_LENGTH, SHORT_PATH, ShortLinks } from './short-links';

const links = new ShortLinks('a secret of tests');
const id = fc.integer({ min: 1, max: 2 ** 32 - 1 });
const link = fc.integer({ min: 0, max: 15 });

test('what was made is read, by the secret of today and of before, and is the same each time', () => {
  const after = new ShortLinks('another secret', 'a secret of tests');
  fc.assert(
    fc.property(id, link, (delivery, at) => {
      const made = links.make(delivery, at)!;
      expect(links.make(delivery, at)).toBe(made);
      expect(links.read(made)).toEqual({ id: delivery, extra: at });
      expect(after.read(made)).toEqual({ id: delivery, extra: at });
    }),
  );
});

test('twelve characters behind the host, each of one septet', () => {
  fc.assert(
    fc.property(id, link, (delivery, at) => {
      const path = `/${links.make(delivery, at)}`;
      expect(path).toHaveLength(SHORT_LENGTH);
      expect(path).toMatch(SHORT_PATH);
      for (const char of path) expect(septets(char)).toBe(1);
    }),
  );
});

test('it says nothing by itself: neighbours have nothing in common', () => {
  const made = Array.from({ length: 200 }, (_none, i) => links.make(i + 1, 0)!);
  expect(new Set(made).size).toBe(200);
  expect(new Set(made.map((one) => one.slice(0, 4))).size).toBeGreaterThan(190);
});

test('a character changed, or another secret: nobody’s link, but for one in sixteen million', () => {
  const digit = fc.constantFrom(...'ABCXYZabcxyz0189-_');
  let read = 0;
  fc.assert(
    fc.property(id, link, fc.integer({ min: 1, max: 10 }), digit, (delivery, at, place, char) => {
      const made = links.make(delivery, at)!;
      const changed = made.slice(0, place) + char + made.slice(place + 1);
      if (changed !== made && links.read(changed)) read += 1;
      if (new ShortLinks('another').read(made)) read += 1;
    }),
    { numRuns: 2000 },
  );
  expect(read).toBe(0);
  for (const text of [
    '',
    '-',
    'f',
    '-AAAAAAAAA',
    '-AAAAAAAAAAA',
    '-AAAAAAAAA/',
    '-AAAAAAAAA=',
    `${links.make(1, 1)}x`,
  ])
    expect(links.read(text)).toBeNull();
});

test('no short form where there is no room for the numbers', () => {
  expect(links.make(2 ** 32, 0)).toBeNull();
  expect(links.make(1, 16)).toBeNull();
});
