import type { ColumnChoice, FileFindings } from '@goodword/core/intake';
import type { Note } from '../ui/margin';
import { columnNotes, mendWords } from './columnNotes';
import type { DraftState } from './draft';
import type { Judgement } from './intake.worker';

const FOUND: FileFindings = {
  ...{
    kind: 'text',
    encoding: 'utf-8',
    sure: true,
    delimiter: ',',
    headerLine: 1,
    titles: [],
    header: ['E-mail', 'Cell', 'Signed'],
    rows: 40,
  },
  ...{ unscramble: false, asides: { blank: 0, header: 0, total: 0 }, longer: 0, shorter: 0, doubled: [] },
};
const JUDGED: Judgement = {
  ...{
    counted: 40,
    ready: 40,
    look: 0,
    failed: 0,
    faultsByColumn: [0, 0, 0],
    hintsByColumn: [0, 0, 0],
    cells: {},
  },
  ...{ first: [], failedRows: [], swapped: [], spellings: [] },
};
const COLUMNS: ColumnChoice[] = [{ to: 'email' }, { to: 'mobile' }, { to: 'signedOn' }];

interface Case {
  found?: Partial<FileFindings>;
  judged?: Partial<Judgement>;
  draft?: Partial<DraftState>;
  cells?: string[];
  order?: 'day-first' | 'month-first' | null;
  mixed?: boolean;
}

/** The notes of a sheet, and what pressing their remedies asks for. */
function margin({
  found = {},
  judged = {},
  draft = {},
  cells = ['a@example.org', '206 555 0101', ''],
  order = null,
  mixed = false,
}: Case = {}) {
  const asked: unknown[] = [];
  const tell =
    (what: string) =>
    (...of: unknown[]) =>
      void asked.push([what, ...of]);
  const profile = { order, mixed };
  const state = {
    analysis: {
      found: { ...FOUND, ...found },
      preview: [{ row: 1, cells }],
      profiles: [profile, profile, profile],
      guesses: COLUMNS.map((choice) => ({ choice, confidence: 1 })),
    },
    columns: COLUMNS,
    judgement: { ...JUDGED, ...judged },
    parts: { mends: [] },
    layout: null,
    ...draft,
  } as unknown as DraftState;
  const acts = {
    choose: tell('choose'),
    chooseAll: tell('chooseAll'),
    mend: tell('mend'),
    unmend: tell('unmend'),
    readAgain: tell('readAgain'),
  };
  const notes = columnNotes(state, acts as never);
  return { notes, asked, note: (key: string): Note | undefined => notes.find((one) => one.key === key) };
}

test('a sheet without a doubt says what is taken for headers, and that nothing is changed yet', () => {
  expect(margin().notes.map(({ key }) => key)).toEqual(['header', 'safe']);
});

test('nothing is said before there is something to speak of', () => {
  expect(columnNotes({ analysis: null } as DraftState, {} as never)).toEqual([]);
});

describe('what is wrong comes first, each with its remedy', () => {
  test('cells that have changed places', () => {
    const { notes, note, asked } = margin({ judged: { swapped: [{ a: 0, b: 1, rows: [3, 9], count: 2 }] } });
    expect(notes[0]).toMatchObject({
      key: 'swap-0-1',
      tone: 'fault',
      anchor: 'column-0',
      title: '2 rows have “E-mail” and “Cell” swapped',
    });
    note('swap-0-1')!.remedy!.act();
    expect(asked).toEqual([['mend', { kind: 'swap', a: 1, b: 2 }]]);
  });

  test('one row is spoken of as one', () => {
    const { note } = margin({ judged: { swapped: [{ a: 0, b: 1, rows: [3], count: 1 }] } });
    expect(note('swap-0-1')).toMatchObject({
      title: '1 row has “E-mail” and “Cell” swapped',
      body: 'Row 3: each holds what belongs in the other.',
    });
    expect(note('swap-0-1')!.remedy!.words).toBe('Swap it');
  });

  test('cells that can not be read name their rows and the first reason', () => {
    const first = [
      { row: 5, column: 1, reason: 'not a telephone number', hint: false },
      { row: 7, column: 1, reason: 'another', hint: false },
      { row: 2, column: 0, reason: 'elsewhere', hint: false },
    ];
    const { note, asked } = margin({ judged: { faultsByColumn: [0, 4, 0], first } });
    expect(note('fault-1')).toMatchObject({
      title: "4 cells of “Cell” can't be read",
      body: 'Rows 5, 7 and more: not a telephone number. Edit the cell, or',
    });
    note('fault-1')!.remedy!.act();
    expect(asked).toEqual([['choose', 1, { to: 'leave' }]]);
  });

  test('rows that can not come in', () => {
    const { note } = margin({
      judged: { failed: 1, failedRows: [{ row: 6, reason: 'no email and no mobile' }] },
    });
    expect(note('failed')).toMatchObject({ tone: 'fault', title: "1 row can't come in as it is" });
    expect(note('failed')!.body).toMatch(/^Row 6: no email and no mobile\./);
  });
});

describe('permission in a column', () => {
  const told = (header: string, choice: object) =>
    margin({
      found: { header: ['E-mail', 'Cell', header] } as never,
      draft: { columns: [...COLUMNS.slice(0, 2), choice], parts: { what: 'people', mends: [] } } as never,
    });

  test('a refusal is told with what it closes', () => {
    expect(told('Do Not Email', { to: 'refusal', channel: 'email' }).note('refusal-2')).toMatchObject({
      tone: 'good',
      title: '“Do Not Email” is a column of refusals',
      body: 'No email to whoever has a yes or a day in it, whatever else the file says.',
    });
  });

  test('one that can be read in two ways is asked', () => {
    expect(told('No mail', { to: 'refusal', channel: 'post' }).note('refusal-2')).toMatchObject({
      tone: 'doubt',
      title: '“No mail”: what does a yes in it mean?',
      body: 'It is taken for “No post” until you choose otherwise.',
    });
    expect(told('Mobile opt-in', { to: 'leave' }).note('refusal-2')).toMatchObject({
      tone: 'doubt',
      title: '“Mobile opt-in”: to what did they agree?',
    });
    expect(told('Status', { to: 'refusal', channel: 'email' }).note('refusal-2')).toMatchObject({
      title: '“Status” names people who left',
    });
  });

  test('a refusal that somebody reads as a permission is a fault, with the way to mend it', () => {
    const { note, asked } = told('Newsletter opt-out', { to: 'consent', channel: 'email' });
    expect(note('refusal-2')).toMatchObject({
      tone: 'fault',
      title: '“Newsletter opt-out” is read as a permission',
    });
    note('refusal-2')!.remedy!.act();
    expect(asked).toEqual([['choose', 2, { to: 'refusal', channel: 'email' }]]);
  });

  test('left out it is told in a file of any kind, with the way to read it', () => {
    const { note, asked } = margin({
      found: { header: ['E-mail', 'Cell', 'Do Not Email'] } as never,
      draft: {
        columns: [...COLUMNS.slice(0, 2), { to: 'leave' }],
        parts: { what: 'gifts', mends: [] },
      } as never,
    });
    expect(note('refusal-2')).toMatchObject({ tone: 'doubt', title: '“Do Not Email” is left out' });
    note('refusal-2')!.remedy!.act();
    expect(asked).toEqual([['choose', 2, { to: 'refusal', channel: 'email' }]]);
  });

  test('a permission is none of this', () => {
    expect(told('Newsletter', { to: 'consent', channel: 'email' }).note('refusal-2')).toBeUndefined();
  });
});

describe('the order of day and month', () => {
  test('is a doubt where no value tells', () => {
    const { note, asked } = margin({ cells: ['', '', '03/04/2026'] });
    expect(note('order-2')).toMatchObject({
      tone: 'doubt',
      body: 'Nothing in the values tells. They are read day first.',
    });
    note('order-2')!.remedy!.act();
    expect(asked).toEqual([['choose', 2, { to: 'signedOn', order: 'month-first' }]]);
  });

  test('is a doubt where both orders stand in one column', () => {
    const { note } = margin({ cells: ['', '', '13/04/2026'], mixed: true });
    expect(note('order-2')).toMatchObject({ tone: 'doubt' });
    expect(note('order-2')!.body).toMatch(
      /^Some values work only day first, others only month first\. They are read day first/,
    );
  });

  test('is told where one does', () => {
    const { note } = margin({
      cells: ['', '', '13/04/2026'],
      order: 'day-first',
      draft: { columns: [...COLUMNS.slice(0, 2), { to: 'signedOn', order: 'day-first' }] },
    });
    expect(note('order-2')).toMatchObject({
      tone: 'good',
      body: 'The values only work day first, so all are read that way.',
    });
  });

  test('is not asked of days that leave no doubt', () =>
    expect(margin({ cells: ['', '', '2026-04-03'] }).note('order-2')).toBeUndefined());
});

test('near spellings are gathered with one stroke, at most three of a column', () => {
  const gatherings = ['M', 'L', 'S', 'XL'].map((to) => ({ to, from: [to.toLowerCase()] }));
  const { notes, note, asked } = margin({
    judged: { spellings: [{ column: 1, gatherings: gatherings as never }] },
  });
  expect(notes.filter(({ key }) => key.startsWith('spelling'))).toHaveLength(3);
  note('spelling-1-M')!.remedy!.act();
  expect(asked).toEqual([['mend', { kind: 'write', column: 2, from: ['m'], to: 'M' }]]);
});

describe('a remembered layout', () => {
  const layout = {
    name: 'Fair',
    header: ['E-mail', 'Signed'],
    columns: [{ to: 'nameEmail' }, { to: 'leave' }],
  };

  test('of the same headers was applied, and can be left', () => {
    const { note, asked } = margin({ draft: { layout: { layout, exact: true, known: 3 } as never } });
    expect(note('layout')!.remedy!.words).toBe('Start clean');
    note('layout')!.remedy!.act();
    expect(asked).toEqual([['chooseAll', COLUMNS, null]]);
  });

  test('of some of them is offered, and what it does not know stays as guessed', () => {
    const { note, asked } = margin({ draft: { layout: { layout, exact: false, known: 2 } as never } });
    expect(note('layout')!.body).toBe('2 of 3 headers match its remembered layout.');
    note('layout')!.remedy!.act();
    expect((asked[0] as [string, ColumnChoice[]])[1]).toEqual([
      { to: 'nameEmail' },
      { to: 'mobile' },
      { to: 'leave' },
    ]);
  });
});

test.each<[string, Partial<FileFindings>, string, unknown[] | null]>([
  [
    'lines over the header',
    { titles: ['Winter fair'], headerLine: 2 },
    'titles',
    ['readAgain', { headerLine: 1 }],
  ],
  ['no header', { headerLine: null }, 'no-header', ['readAgain', { headerLine: 1 }]],
  ['a header', {}, 'header', ['readAgain', { headerLine: null }]],
  ['a header twice', { doubled: ['Cell'] }, 'doubled', null],
  [
    'totals and repeats',
    { asides: { blank: 2, header: 1, total: 1 } },
    'asides',
    ['readAgain', { keepAside: true }],
  ],
  ['blank lines alone', { asides: { blank: 2, header: 0, total: 0 } }, 'asides', null],
  ['rows too long', { longer: 3 }, 'longer', null],
  ['rows too short', { shorter: 1 }, 'shorter', null],
  ['letters broken once', { unscramble: true }, 'unscramble', ['readAgain', { unscramble: false }]],
  ['two encodings', { encoding: 'mixed' }, 'mixed', null],
  ['a line that names the separator', { separatorLine: true }, 'separator', null],
])('the file itself: %s', (_name, found, key, asks) => {
  const { note, asked } = margin({ found });
  expect(note(key)).toBeDefined();
  note(key)!.remedy?.act();
  expect(asked).toEqual(asks ? [asks] : []);
});

test('a workbook tells what was hidden, merged and worked out', () => {
  const workbook = { sheet: 1, sheets: [], hiddenColumns: [2], hiddenRows: 1, mergedCells: 2, formulas: 1 };
  const { notes, note, asked } = margin({ found: { kind: 'workbook', workbook } });
  expect(notes.map(({ key }) => key)).toEqual(
    expect.arrayContaining(['hidden', 'hidden-rows', 'merged', 'formulas']),
  );
  expect(note('hidden')!.body).toMatch(/^“Cell”: hidden in the sheet/);
  note('hidden')!.remedy!.act();
  expect(asked).toEqual([['chooseAll', [{ to: 'email' }, { to: 'leave' }, { to: 'signedOn' }], null]]);
  const left: ColumnChoice[] = [{ to: 'email' }, { to: 'leave' }, { to: 'signedOn' }];
  expect(
    margin({ found: { kind: 'workbook', workbook }, draft: { columns: left } }).note('hidden'),
  ).toBeUndefined();
});

test('what was mended can be undone, the last first, six at most', () => {
  const mends = Array.from({ length: 8 }, (_none, row) => ({
    kind: 'edit' as const,
    row: row + 1,
    column: 1,
    value: `v${row}`,
  }));
  const { notes, asked } = margin({ draft: { parts: { mends } as never } });
  const told = notes.filter(({ key }) => key.startsWith('mend-'));
  expect(told.map(({ key }) => key)).toEqual(['mend-7', 'mend-6', 'mend-5', 'mend-4', 'mend-3', 'mend-2']);
  told[0]!.remedy!.act();
  expect(asked).toEqual([['unmend', 7]]);
});

test.each<[Parameters<typeof mendWords>[0], string]>([
  [{ kind: 'edit', row: 5, column: 2, value: 'x' }, 'Row 5: “Cell” is now “x”'],
  [{ kind: 'swap', a: 1, b: 2 }, 'Swapped “E-mail” and “Cell” where they were wrong'],
  [{ kind: 'write', column: 2, from: ['m', 'med'], to: 'M' }, '“M” for 2 spellings of “Cell”'],
  [{ kind: 'strip', column: 1, text: 'mailto:' }, '“mailto:” taken out of “E-mail”'],
  [{ kind: 'recase', column: 1 }, '“E-mail” written as names'],
])('a mend in words: %j', (mend, words) =>
  expect(mendWords(mend, { analysis: { found: FOUND } } as never)).toBe(words),
);
