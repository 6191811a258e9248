import { cellsOf, foldEntries, joinMarks, marksFor, type PermissionEntry } from '.';

/*
 * Where one entry is kept, written down by hand: a no at the address and with the person, START at the
 * address, a pause with the person, all else with the person at the address.
 */
const ENTRY: PermissionEntry = {
  id: 5,
  contactPointId: 7,
  supporterId: 1,
  channel: 'email',
  scope: 'news',
  state: 'yes',
  at: 100,
  until: null,
  how: 'form',
  byPerson: true,
};
const kept = (more: Partial<PermissionEntry>) =>
  cellsOf({ ...ENTRY, ...more }).map(
    (cell) => `${cell.contactPointId}:${cell.supporterId} ${Object.keys(cell.marks).join()}`,
  );
const nobody = { supporterId: null };
const nowhere = { contactPointId: null };

test.each<[string, Partial<PermissionEntry>, string[]]>([
  ['a yes of their own', {}, ['7:1 ownYes', '7:1 yes']],
  ["a yes of a file's", { byPerson: false }, ['7:1 yes']],
  ['a yes of nobody known, or without an address, is kept nowhere', nobody, []],
  ['nor one without an address', nowhere, []],
  ['a no', { state: 'no' }, ['7:0 no', '0:1 no']],
  ['a no without an address', { state: 'no', ...nowhere }, ['0:1 no']],
  ['a no of nobody known', { state: 'no', ...nobody }, ['7:0 no']],
  ['a no of nobody without an address', { state: 'no', ...nobody, ...nowhere }, []],
  ['a STOP', { state: 'no', how: 'keyword', scope: 'all' }, ['7:0 stop', '0:1 stop']],
  [
    'a STOP told without an address is a no',
    { state: 'no', how: 'reply', scope: 'all', ...nowhere },
    ['0:1 no'],
  ],
  ['a refusal of a part in an answer is a no', { state: 'no', how: 'reply' }, ['7:0 no', '0:1 no']],
  ['START', { state: 'start', how: 'keyword' }, ['7:0 start']],
  ['START without a number', { state: 'start', how: 'keyword', ...nowhere }, []],
  ['a question', { state: 'asked' }, ['7:1 asked']],
  ['a pause', { state: 'pause' }, ['0:1 pause']],
  ['a pause of nobody', { state: 'pause', ...nobody }, []],
  ['a gift', { state: 'implied', how: 'gift' }, ['7:1 gift']],
  ['a gift without an address', { state: 'implied', how: 'gift', ...nowhere }, []],
  ['an implied permission with a day of its own', { state: 'implied', how: 'file' }, ['7:1 stated']],
  ['what takes an entry back makes none', { state: 'back' }, []],
])('%s', (_name, more, cells) => expect(kept(more)).toEqual(cells));

test('what a mark carries: when it was said, until when, and by which entry', () => {
  expect(cellsOf({ ...ENTRY, state: 'pause', until: 140 })[0]!.marks).toEqual({
    pause: { at: 100, entryId: 5, until: 140 },
  });
  expect(cellsOf({ ...ENTRY, state: 'pause' })[0]!.marks).toEqual({
    pause: { at: 100, entryId: 5, until: 100 },
  });
  expect(cellsOf({ ...ENTRY, state: 'implied', how: 'file', until: 140 })[0]!.marks).toEqual({
    stated: { at: 140, entryId: 5 },
  });
  expect(cellsOf({ ...ENTRY, state: 'implied', how: 'file' })[0]!.marks).toEqual({
    stated: { at: 100, entryId: 5 },
  });
  expect(cellsOf({ ...ENTRY, state: 'asked', until: 140 })[0]!.marks).toEqual({
    asked: { at: 100, entryId: 5 },
  });
});

test('of two marks the later counts, of one moment that of the later entry, whichever comes first', () => {
  const mark = (at: number, entryId: number) => ({ no: { at, entryId } });
  for (const [a, b, wins] of [
    [mark(10, 9), mark(20, 1), mark(20, 1)],
    [mark(10, 1), mark(10, 2), mark(10, 2)],
    [mark(10, 3), mark(10, 3), mark(10, 3)],
  ] as const)
    expect([joinMarks(a, b), joinMarks(b, a)]).toEqual([wins, wins]);
  expect(joinMarks(mark(1, 1), { yes: { at: 2, entryId: 2 } })).toEqual({
    ...mark(1, 1),
    yes: { at: 2, entryId: 2 },
  });
});

test('what bears on a question: at the address and at every one, by the person and by everybody, of the scope and wider', () => {
  const entries = [
    { ...ENTRY, id: 1 },
    { ...ENTRY, id: 2, state: 'no' as const, supporterId: 2, scope: 'all' as const },
    { ...ENTRY, id: 3, state: 'no' as const, contactPointId: 9, at: 90 },
    { ...ENTRY, id: 4, state: 'no' as const, channel: 'text' as const, at: 900 },
    { ...ENTRY, id: 6, state: 'no' as const, scope: 'appeals' as const, at: 900 },
    { ...ENTRY, id: 7, supporterId: 2, at: 900 },
  ];
  const asked = { contactPointId: 7, supporterId: 1, channel: 'email', scope: 'news' } as const;
  const mine = { at: 100, entryId: 1 };
  expect(marksFor(foldEntries(entries), asked)).toEqual({
    ownYes: mine,
    yes: mine,
    no: { at: 100, entryId: 2 },
  });
  // At an address of theirs where nobody else spoke, their own no at the other counts.
  expect(marksFor(foldEntries(entries), { ...asked, contactPointId: 8 })).toEqual({
    no: { at: 90, entryId: 3 },
  });
});
