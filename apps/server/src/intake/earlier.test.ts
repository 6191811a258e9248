import fc from 'fast-check';
import type { Candidate } from '@goodword/core/intake';
import { EarlierRows, MOST_NEARBY, type Clue } from './earlier';

/** The same in the plainest way: every person at every clue, looked through one by one. */
class Plain {
  private readonly rows: { clue: Clue; id: number; firstName: string; lastName: string }[] = [];

  add(clues: readonly Clue[], id: number, name: { firstName: string; lastName: string }): void {
    for (const clue of clues) {
      const known = this.at(clue);
      if (known.some((one) => one.id === id) || (clue.by === 'nearby' && known.length >= MOST_NEARBY)) continue;
      this.rows.push({ clue, id, ...name });
    }
  }

  at({ by, key }: Clue): Candidate[] {
    return this.rows.filter(({ clue }) => clue.by === by && clue.key === key).map(({ id, firstName, lastName }) => ({ id, firstName, lastName, by }));
  }
}

const clue: fc.Arbitrary<Clue> = fc.record({
  by: fc.constantFrom('email' as const, 'looseEmail' as const, 'nearby' as const),
  // Few keys, so that many rows meet at one; letters of one, two and four bytes, and the empty key.
  key: fc.constantFrom('', 'a', 'b', 'ab', 'é', 'éa', '😀', 'a@example.org', 'A@example.org'),
});
const name = fc.record({ firstName: fc.constantFrom('', 'Zoé', 'Ann'), lastName: fc.constantFrom('', 'Núñez', '李') });

test('whoever was added is found by each clue, in order, once', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.array(clue, { maxLength: 4 }), fc.integer({ min: -60, max: 60 }), name), { maxLength: 200 }), (rows) => {
      const [compact, plain] = [new EarlierRows(), new Plain()];
      for (const [clues, id, who] of rows) {
        expect(clues.map((one) => compact.at(one))).toEqual(clues.map((one) => plain.at(one)));
        compact.add(clues, id, who);
        plain.add(clues, id, who);
      }
    }),
    { numRuns: 200 },
  );
});

test('many keys are kept apart, also past each growth of the table', () => {
  const earlier = new EarlierRows();
  const keyOf = (i: number) => `person.${i}@example.org`;
  for (let i = 1; i <= 20_000; i++) earlier.add([{ by: 'email', key: keyOf(i) }], -i, { firstName: `P${i}`, lastName: 'Lin' });
  const wrong = Array.from({ length: 20_000 }, (_none, i) => i + 1).filter((i) => earlier.at({ by: 'email', key: keyOf(i) })[0]?.id !== -i);
  expect(wrong).toEqual([]);
  expect(earlier.at({ by: 'email', key: keyOf(0) })).toEqual([]);
  expect(earlier.at({ by: 'mobile', key: keyOf(1) })).toEqual([]);
});
