import fc from 'fast-check';
import { isNonLatin, isRightToLeft, nameDoubts, ProofFinder, type ProofKind, type ReadBySomebody } from '.';

test.each([
  ['Anna', []],
  ['', []],
  ['AJ', []],
  ['ANNA', ['caps']],
  ['JEAN-LUC', ['caps']],
  ['McDONALD', []],
  ['ann@example.org', ['address']],
  ['Test', ['test']],
  ['Contest', []],
  ['Anna2', ['digits']],
  ['Ann & Bo', ['couple']],
  ['Ann and Bo', ['couple']],
  ['Ana y Luis', ['couple']],
  ['Andy', []],
  ['Sandy-Lou', []],
  ['BOB AND SUE', ['caps', 'couple']],
  ['李', []],
])('%j may be wrong in %j', (name, doubts) => expect(nameDoubts(name)).toEqual(doubts));

test('names by the script that they are written in', () => {
  expect(['עדי', 'سارة', 'Sara'].map(isRightToLeft)).toEqual([true, true, false]);
  expect(['Ωραία', '李', 'José', "O'Hara"].map(isNonLatin)).toEqual([true, true, false, false]);
});

const reader = (id: number, part: Partial<ReadBySomebody> = {}): ReadBySomebody => ({
  id,
  firstName: 'Ann',
  lastName: 'Li',
  subject: 'Hello',
  text: 'Dear Ann',
  holes: [],
  segments: 0,
  passages: null,
  asked: null,
  ...part,
});
function found(...readers: ReadBySomebody[]): Partial<Record<ProofKind, [number, number[], number | null]>> {
  const finder = new ProofFinder();
  readers.forEach((one) => finder.see(one));
  return Object.fromEntries(
    finder.found().map(({ kind, people, ids, measure }) => [kind, [people, ids, measure]]),
  );
}

test('the extremes with all who are as extreme, and the awkward counted', () => {
  expect(
    found(
      reader(1, { holes: ['Mobile'], asked: [100, 5000], passages: 0 }),
      reader(2, { firstName: 'Wilhelmina', subject: 'Hello, Wilhelmina', asked: [], passages: 2 }),
      reader(3, { firstName: '', subject: 'Hi', asked: [100], passages: 2, segments: 3 }),
    ),
  ).toEqual({
    holes: [1, [1], null],
    'no-first-name': [1, [3], null],
    'longest-name': [1, [2], 13],
    'longest-subject': [1, [2], 17],
    'shortest-subject': [1, [3], 2],
    'most-segments': [1, [3], 3],
    'most-passages': [2, [2, 3], 2],
    'fewest-passages': [1, [1], 0],
    'largest-ask': [1, [1], 5000],
    'no-ask': [1, [2], null],
  });
});

test('what is the same of all is no proof, and nobody has none', () => {
  expect(found(reader(1), reader(2))).toEqual({});
  expect(found()).toEqual({});
});

test('letters are counted as people count them', () => {
  const boat = '👩🏽‍🚀';
  expect(
    found(reader(1, { subject: boat.repeat(3) }), reader(2, { subject: 'abcd' }))['longest-subject'],
  ).toEqual([1, [2], 4]);
});

test('whatever comes: each extreme is one, whoever comes first', () => {
  const words = fc.string({ maxLength: 8 });
  const some = fc.record({ firstName: words, lastName: words, subject: words, text: words });
  fc.assert(
    fc.property(fc.array(some, { minLength: 1, maxLength: 20 }), (parts) => {
      const readers = parts.map((part, id) => reader(id, part));
      const forth = found(...readers);
      const back = found(...[...readers].reverse());
      const longest = Math.max(...readers.map(({ text }) => text.length));
      const all = readers.filter(({ text }) => text.length === longest);
      if (all.length < readers.length || readers.length === 1)
        expect(forth['longest-text']).toEqual([all.length, all.map(({ id }) => id).slice(0, 12), longest]);
      for (const [kind, [people, , measure]] of Object.entries(forth))
        expect([kind, back[kind as ProofKind]?.[0], back[kind as ProofKind]?.[2]]).toEqual([
          kind,
          people,
          measure,
        ]);
    }),
  );
});
