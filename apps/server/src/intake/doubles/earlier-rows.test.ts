import fc from 'fast-check';
import { nameMatchKey, type Candidate } from '@goodword/core/intake';
import { EarlierRows, MOST_AT_ONE, type MatchClue } from './earlier-rows';

/** The same in the plainest way: every person at every clue, looked through one by one. */
class Plain {
  private readonly rows: { clue: MatchClue; id: number; firstName: string; lastName: string }[] = [];

  add(clues: readonly MatchClue[], id: number, name: { firstName: string; lastName: string }): void {
    for (const clue of clues)
      if (!this.all(clue).some((one) => one.id === id)) this.rows.push({ clue, id, ...name });
  }

  at(clue: MatchClue, name: { firstName: string; lastName: string }): Candidate[] {
    const all = this.all(clue);
    const same = (one: Candidate) =>
      nameMatchKey(`${one.firstName} ${one.lastName}`) === nameMatchKey(`${name.firstName} ${name.lastName}`);
    return [
      ...all.slice(0, MOST_AT_ONE),
      ...(clue.by === 'nearby' ? [] : all.slice(MOST_AT_ONE).filter(same)),
    ];
  }

  private all({ by, key }: MatchClue): Candidate[] {
    return this.rows
      .filter(({ clue }) => clue.by === by && clue.key === key)
      .map(({ id, firstName, lastName }) => ({ id, firstName, lastName, by }));
  }
}

const clue: fc.Arbitrary<MatchClue> = fc.record({
  by: fc.constantFrom('email' as const, 'looseEmail' as const, 'nearby' as const),
  // Few keys, so that many rows meet at one; letters of one, two and four bytes, and the empty key.
  key: fc.constantFrom('', 'a', 'b', 'ab', 'é', 'éa', '😀', 'a@example.org', 'A@example.org'),
});
const name = fc.record({
  firstName: fc.constantFrom('', 'Zoé', 'Ann'),
  lastName: fc.constantFrom('', 'Núñez', '李'),
});

const NOBODY = { firstName: '', lastName: '' };

test('whoever was added is found by each clue, in order, once', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.array(clue, { maxLength: 4 }), fc.integer({ min: -60, max: 60 }), name), {
        maxLength: 300,
      }),
      (rows) => {
        const [compact, plain] = [new EarlierRows(), new Plain()];
        for (const [clues, id, who] of rows) {
          expect(clues.map((one) => compact.at(one, who))).toEqual(clues.map((one) => plain.at(one, who)));
          compact.add(clues, id, who);
          plain.add(clues, id, who);
        }
      },
    ),
    { numRuns: 200 },
  );
});

test('many keys are kept apart, also past each growth of the table', () => {
  const earlier = new EarlierRows();
  const keyOf = (i: number) => `person.${i}@example.org`;
  for (let i = 1; i <= 20_000; i++)
    earlier.add([{ by: 'email', key: keyOf(i) }], -i, { firstName: `P${i}`, lastName: 'Lin' });
  const wrong = Array.from({ length: 20_000 }, (_none, i) => i + 1).filter(
    (i) => earlier.at({ by: 'email', key: keyOf(i) }, NOBODY)[0]?.id !== -i,
  );
  expect(wrong).toEqual([]);
  expect(earlier.at({ by: 'email', key: keyOf(0) }, NOBODY)).toEqual([]);
  expect(earlier.at({ by: 'mobile', key: keyOf(1) }, NOBODY)).toEqual([]);
});

test('thousands who share a telephone are told apart by their names, and none is compared with all', () => {
  const earlier = new EarlierRows();
  const office: MatchClue = { by: 'mobile', key: '+12065550100' };
  for (let i = 1; i <= 5000; i++) earlier.add([office], -i, { firstName: `P${i}`, lastName: 'Lin' });
  const found = earlier.at(office, { firstName: 'P4711', lastName: 'Lin' });
  expect([found.length, found.at(-1)]).toEqual([
    MOST_AT_ONE + 1,
    { id: -4711, firstName: 'P4711', lastName: 'Lin', by: 'mobile' },
  ]);
});
