import fc from 'fast-check';
import { hasSecond, wantsSecond } from '.';

const asked = { reached: 5000, group: 3, asks: [], sender: 7 };
const said = { by: 8, group: 3, reached: 5000 };

test('above a number another agrees, and to what is still so', () => {
  expect(wantsSecond(asked, 1000)).toBe('many');
  expect([wantsSecond(asked, 5000), wantsSecond(asked, 0)]).toEqual([null, null]);
  expect(hasSecond(said, asked, 1000)).toBe(true);
  expect(hasSecond({ ...said, by: null }, asked, 1000)).toBe(false);
  // Nobody agrees to their own, to another group, or to many more than they saw.
  expect(hasSecond({ ...said, by: 7 }, asked, 1000)).toBe(false);
  expect(hasSecond({ ...said, group: 2 }, asked, 1000)).toBe(false);
  expect(hasSecond({ ...said, reached: 4000 }, asked, 1000)).toBe(false);
  expect(hasSecond({ ...said, reached: 4900 }, asked, 1000)).toBe(true);
});

test('words that ask are read by a second person whatever the group', () => {
  const words = { ...asked, reached: 3, asks: ['give'] };
  expect(wantsSecond(words, 0)).toBe('asks');
  expect(hasSecond({ by: 8, group: null, reached: 0 }, words, 0)).toBe(true);
  expect(hasSecond({ by: 8, group: null, reached: 0 }, { ...words, reached: 5000 }, 1000)).toBe(false);
  expect(hasSecond({ by: 7, group: null, reached: 0 }, words, 0)).toBe(false);
});

test('nobody is ever enough for themselves, and fewer people never ask for more', () => {
  const people = fc.nat(10_000);
  fc.assert(
    fc.property(people, people, people, fc.nat(3), fc.nat(3), (above, reached, saw, group, saidGroup) => {
      const of = { reached, group, asks: [], sender: 1 };
      if (wantsSecond(of, above))
        expect(hasSecond({ by: 1, group: saidGroup, reached: saw }, of, above)).toBe(false);
      const by = { by: 2, group: saidGroup, reached: saw };
      if (hasSecond(by, of, above) && reached > 0)
        expect(hasSecond(by, { ...of, reached: reached - 1 }, above)).toBe(true);
    }),
  );
});
