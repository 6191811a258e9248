import fc from 'fast-check';
import { isAskedElsewhere, type Claim } from '.';

const gone = (first: number): Claim => ({ first, gone: true });
const waits = (first: number): Claim => ({ first, gone: false });

test.each([
  ['whom nobody else asks', null, [], false],
  ['whom another one asks', null, [gone(7)], true],
  ['whom another one is about to ask', null, [waits(7)], true],
  ['whom this one asked first', gone(3), [gone(7)], false],
  ['whom another one asked first', gone(9), [gone(7)], true],
  ['whom this one has reached, and the other only wrote down, though before', gone(9), [waits(7)], false],
  ['whom this one only wrote down, though before', waits(3), [gone(7)], true],
  ['whom both wrote down, this one first', waits(3), [waits(7)], false],
])('somebody %s', (_who, mine, others, elsewhere) => {
  expect(isAskedElsewhere(mine, others)).toBe(elsewhere);
});

const claims = fc.uniqueArray(fc.record({ first: fc.integer({ min: 1, max: 50 }), gone: fc.boolean() }), {
  minLength: 1,
  maxLength: 6,
  selector: ({ first }) => first,
});

test('of any number of appeals to one person exactly one may ask: never two, and never none', () => {
  fc.assert(
    fc.property(claims, (all) => {
      const free = all.filter(
        (mine) =>
          !isAskedElsewhere(
            mine,
            all.filter((one) => one !== mine),
          ),
      );
      expect(free).toHaveLength(1);
      // One that has reached them is not overtaken by any that has not.
      if (all.some((claim) => claim.gone)) expect(free[0]!.gone).toBe(true);
    }),
  );
});

test('whoever asks once goes on asking, whatever others write down meanwhile', () => {
  fc.assert(
    fc.property(claims, fc.integer({ min: 51, max: 99 }), (all, later) => {
      const mine = all.find(
        (one) =>
          !isAskedElsewhere(
            one,
            all.filter((other) => other !== one),
          ),
      )!;
      const others = all.filter((one) => one !== mine);
      expect(isAskedElsewhere({ ...mine, gone: true }, [...others, waits(later)])).toBe(
        others.some((one) => one.gone && one.first < mine.first),
      );
    }),
  );
});
