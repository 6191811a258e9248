import fc from 'fast-check';
import { better, COMPARISON_LIMITS, drawnFor, isKept, KEPT_LIMITS, REST } from '.';

const seed = fc.integer({ min: 0, max: 2 ** 32 - 1 });
const share = fc.integer({ min: COMPARISON_LIMITS.share[0], max: COMPARISON_LIMITS.share[1] });
const wordings = fc.integer({ min: 2, max: COMPARISON_LIMITS.wordings });

describe('the draw', () => {
  test('is kept: asked again, in another order, it is the same', () => {
    fc.assert(
      fc.property(seed, share, wordings, fc.uniqueArray(fc.nat(2 ** 32 - 1)), (...[s, part, n, ids]) => {
        const asked = { seed: s, share: part, wordings: n };
        const once = new Map(ids.map((id) => [id, drawnFor(id, asked)]));
        for (const id of [...ids].reverse()) expect(drawnFor(id, asked)).toBe(once.get(id));
      }),
    );
  });

  test('gives each wording as many as the others, and all of them the share, within chance', () => {
    fc.assert(
      fc.property(seed, share, wordings, (s, part, n) => {
        const people = 6_000;
        const counts = Array<number>(n).fill(0);
        let rest = 0;
        for (let id = 1; id <= people; id++) {
          const which = drawnFor(id, { seed: s, share: part, wordings: n });
          if (which === REST) rest++;
          else counts[which]!++;
        }
        // Five standard deviations of a binomial: one in a million tries.
        const each = part / 100 / n;
        const far = 5 * Math.sqrt(people * each * (1 - each));
        for (const count of counts) expect(Math.abs(count - people * each)).toBeLessThanOrEqual(far);
        if (part === 100) expect(rest).toBe(0);
      }),
    );
  });

  test('differs with the seed, and does not go by whether a number is even', () => {
    const ids = Array.from({ length: 4000 }, (_none, i) => i + 1);
    const draw = (s: number) => ids.map((id) => drawnFor(id, { seed: s, share: 100, wordings: 2 }));
    const [one, other] = [draw(1), draw(2)];
    const same = one.filter((which, i) => which === other[i]).length;
    expect(Math.abs(same - 2000)).toBeLessThan(160);
    const evenFirst = ids.filter((id, i) => id % 2 === 0 && one[i] === 0).length;
    expect(Math.abs(evenFirst - 1000)).toBeLessThan(115);
  });
});

describe('who is kept without it', () => {
  const kept = fc.integer({ min: KEPT_LIMITS.least, max: KEPT_LIMITS.most });

  test('is the share, within chance, and the same whenever it is asked', () => {
    fc.assert(
      fc.property(seed, kept, (s, part) => {
        const ids = Array.from({ length: 6_000 }, (_none, i) => i + 1);
        const drawn = ids.filter((id) => isKept(id, { seed: s, share: part }));
        const far = 5 * Math.sqrt(ids.length * (part / 100) * (1 - part / 100));
        expect(Math.abs(drawn.length - (ids.length * part) / 100)).toBeLessThanOrEqual(far);
        expect(drawn.every((id) => isKept(id, { seed: s, share: part }))).toBe(true);
        // With a larger share they are among those who are kept.
        expect(drawn.every((id) => isKept(id, { seed: s, share: 100 }))).toBe(true);
      }),
    );
  });

  test('says nothing of which wording the others get: as many of each', () => {
    const ids = Array.from({ length: 8_000 }, (_none, i) => i + 1);
    const rest = ids.filter((id) => !isKept(id, { seed: 7, share: 50 }));
    const first = rest.filter((id) => drawnFor(id, { seed: 70_001, share: 100, wordings: 2 }) === 0);
    expect(Math.abs(first.length - rest.length / 2)).toBeLessThan(5 * Math.sqrt(rest.length / 4));
  });
});

describe('the better one', () => {
  test('is another only where chance does not explain it; else it is the first', () => {
    expect(
      better([
        { count: 20, of: 1000 },
        { count: 24, of: 1000 },
      ]),
    ).toMatchObject({
      ...{ chosen: 0, differs: false },
    });
    expect(
      better([
        { count: 20, of: 1000 },
        { count: 45, of: 1000 },
      ]),
    ).toMatchObject({
      ...{ chosen: 1, differs: true },
    });
    expect(
      better([
        { count: 45, of: 1000 },
        { count: 20, of: 1000 },
      ]),
    ).toMatchObject({
      ...{ chosen: 0, differs: true },
    });
  });

  test('of nobody nothing is said', () => {
    expect(
      better([
        { count: 0, of: 0 },
        { count: 3, of: 3 },
      ]),
    ).toEqual({
      ...{ chosen: 0, differs: false, besideFirst: [null] },
    });
    expect(
      better([
        { count: 0, of: 50 },
        { count: 0, of: 50 },
      ]),
    ).toMatchObject({ chosen: 0, differs: false });
  });

  test('of several it is the best of those that differ, and more is asked of each', () => {
    // z is 2.1: enough for one comparison, not for two.
    const [first, near] = [
      { count: 100, of: 2000 },
      { count: 131, of: 2000 },
    ];
    expect(better([first, near]).chosen).toBe(1);
    expect(better([first, near, first]).chosen).toBe(0);
    expect(better([first, { count: 160, of: 2000 }, { count: 190, of: 2000 }]).chosen).toBe(2);
  });

  test('where both are alike, one in twenty is taken for another at most', () => {
    // By a seeded chance, so that it comes out the same each time.
    let state = 7;
    const chance = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
    const tried = () => ({
      count: Array.from({ length: 400 }, chance).filter((n) => n < 0.1).length,
      of: 400,
    });
    const runs = 2000;
    const seen = Array.from({ length: runs }, () => better([tried(), tried()])).filter((one) => one.differs);
    expect(seen.length / runs).toBeLessThan(0.065);
    expect(seen.length / runs).toBeGreaterThan(0.035);
  });
});
