import { act, screen, waitFor, within } from '@testing-library/react';
import { EMPTY_PLAN, type ColumnChoice } from '@goodword/core/intake';
import { show } from '../testing';
import { ColumnsStep } from './ColumnsStep';
import { useDraft, type DraftState } from './draft';
import type { Judgement } from './intake.worker';

const { what: _what, ...PARTS } = EMPTY_PLAN;
const HOUSE = {
  ...{ country: 'US', currency: 'USD', today: 20_900, layouts: [] },
  fields: [{ id: 2, name: 'Shirt size', type: 'choice', choices: ['S', 'M'] }],
} as never;
const FOUND = {
  ...{
    kind: 'text',
    encoding: 'utf-8',
    sure: true,
    delimiter: ',',
    headerLine: 1,
    titles: [],
    header: ['E-mail', 'Size', ''],
    rows: 2,
  },
  ...{ unscramble: false, asides: { blank: 0, header: 0, total: 0 }, longer: 0, shorter: 0, doubled: [] },
};
const JUDGED: Judgement = {
  ...{ counted: 2, ready: 1, look: 0, failed: 1, faultsByColumn: [1, 0, 0], hintsByColumn: [0, 0, 0] },
  cells: { '2:0': { words: 'no ending such as .org', hint: false } },
  ...{ first: [], failedRows: [], swapped: [], spellings: [] },
};
const COLUMNS: ColumnChoice[] = [{ to: 'email' }, { to: 'leave' }, { to: 'leave' }];
const ROWS = [
  { row: 1, cells: ['ann@example.org', 'M', 'x'] },
  { row: 2, cells: ['bo@example', 'S', ''] },
];

beforeAll(() => {
  // The worker answers nothing here: what is judged is given.
  const nothing = () => undefined;
  class Worker {
    addEventListener = nothing;
    removeEventListener = nothing;
    postMessage = nothing;
  }
  Object.assign(globalThis, { Worker });
});

async function step(of: Partial<DraftState> = {}, found: object = {}) {
  act(() => {
    useDraft.getState().reset();
    useDraft.setState({
      ...{
        batchId: 7,
        step: 'Columns',
        columns: COLUMNS,
        judgement: JUDGED,
        parts: { what: 'people', ...PARTS },
      },
      analysis: {
        ...{ found: { ...FOUND, ...found }, whole: true, what: 'people', preview: ROWS },
        profiles: COLUMNS.map(() => ({ filled: 2, empty: 0, order: null })),
        guesses: [
          { choice: { to: 'email' }, confidence: 0.5 },
          { choice: { to: 'leave' }, confidence: 0 },
          { choice: { to: 'leave' }, confidence: 0 },
        ],
      } as never,
      ...of,
    });
  });
  const shown = show(<ColumnsStep house={HOUSE} />);
  await screen.findByText('ann@example.org');
  return shown;
}
const now = () => useDraft.getState();
const card = (header: string) => screen.getByRole('button', { name: new RegExp(`^Column ${header}:`) });

test('a column says what it becomes, and that it is a guess where it is a doubtful one', async () => {
  await step();
  expect(card('E-mail').textContent).toContain('a guess');
  expect(card('Size').textContent).toContain('not brought in');
  expect(screen.getByText('(no header)')).toBeTruthy();
  expect(screen.getByRole('status').textContent).toContain('1 ready · 0 come in without a cell · 1 can');
});

test('it is matched to a field of the organization, or left out', async () => {
  const { user } = await step();
  await user.click(card('Size'));
  await user.click(await screen.findByRole('menuitem', { name: 'Shirt size' }));
  expect(now().columns[1]).toEqual({ to: 'field', fieldId: 2, type: 'choice' });
  await user.click(card('E-mail'));
  await user.click(await screen.findByRole('menuitem', { name: 'Leave out' }));
  expect(now().columns[0]).toEqual({ to: 'leave' });
});

test('a field is made on the spot, with the choices that stand in the column', async () => {
  const { user } = await step();
  await user.click(card('Size'));
  await user.click(await screen.findByRole('menuitem', { name: 'Name, section, choices…' }));
  const drawer = within(await screen.findByRole('dialog'));
  await user.clear(drawer.getByLabelText(/^Name/));
  await user.type(drawer.getByLabelText(/^Name/), 'Shirt, "new"');
  await user.type(drawer.getByLabelText(/^Section/), 'On the water');
  await user.selectOptions(drawer.getByLabelText('Type'), 'choice');
  expect(drawer.getByLabelText<HTMLTextAreaElement>(/^Choices/).value).toBe('M\nS');
  await user.click(drawer.getByRole('button', { name: 'Match the column to it' }));
  // What a name can't be spelled with in a message is left out of it.
  expect(now().columns[1]).toMatchObject({
    to: 'newField',
    name: 'Shirt new',
    section: 'On the water',
    type: 'choice',
    choices: ['M', 'S'],
  });
});

test('a text is taken out of every cell, which the Margin can undo', async () => {
  const { user } = await step();
  await user.click(card('E-mail'));
  await user.click(await screen.findByRole('menuitem', { name: 'Take a text out of every cell…' }));
  await user.type(await screen.findByLabelText(/^The text/), 'mailto:');
  await user.click(screen.getByRole('button', { name: 'Take it out of every cell' }));
  expect(now().parts.mends).toEqual([{ kind: 'strip', column: 1, text: 'mailto:' }]);
});

test('what is mended shows in the sheet at once', async () => {
  await step();
  act(() => now().mend({ kind: 'edit', row: 2, column: 1, value: 'bo@example.org' }));
  expect(await screen.findByText('bo@example.org')).toBeTruthy();
});

test('how the file is read can be said: what it is, its letters, its separator, its header', async () => {
  const asked: unknown[] = [];
  const { user } = await step({ readAgain: async (...of) => void asked.push(of.slice(0, 2)) });
  await user.selectOptions(screen.getByLabelText('What the file is'), 'Gifts');
  await user.selectOptions(screen.getByLabelText('Separator'), 'semicolons');
  const line = screen.getByLabelText(/with headers in line/);
  await user.clear(line);
  await user.type(line, '3x{Enter}');
  await user.clear(line);
  await user.tab();
  expect(asked).toEqual([
    [{}, 'gifts'],
    [{ delimiter: ';' }, null],
    [{ headerLine: 3 }, null],
    [{ headerLine: null }, null],
  ]);
});

test('a workbook has its sheets to choose from, hidden ones said to be so, and no letters to read', async () => {
  const sheets = [
    { name: 'Read me', rows: 1, hidden: true },
    { name: 'Sign-ups', rows: 65, hidden: false },
  ];
  const asked: unknown[] = [];
  const workbook = { sheet: 2, sheets, hiddenColumns: [], hiddenRows: 0, mergedCells: 0, formulas: 0 };
  const { user } = await step(
    { readAgain: async (change) => void asked.push(change) },
    { kind: 'workbook', workbook },
  );
  expect(screen.queryByLabelText('Encoding')).toBeNull();
  await user.selectOptions(screen.getByLabelText('Sheet'), 'Read me (hidden), 1 line');
  expect(asked).toEqual([{ sheet: 1 }]);
});

test('what holds for every row is given to everyone, and taken back', async () => {
  const { user } = await step();
  await user.selectOptions(screen.getByLabelText(/Numbers without a country code/), 'Canada');
  expect(now().parts.phoneCountry).toBe('CA');
  await user.click(screen.getByRole('button', { name: 'Give everyone a value' }));
  await user.selectOptions(screen.getByLabelText('Field for everyone'), 'Shirt size');
  await user.type(screen.getByLabelText('Value for everyone'), ' M {Enter}');
  expect(now().parts.constants).toEqual([
    { choice: { to: 'field', fieldId: 2, type: 'choice' }, value: 'M' },
  ]);
  await user.click(screen.getByRole('button', { name: 'No longer give everyone Shirt size M' }));
  expect(now().parts.constants).toEqual([]);
});

test('there is no way on before the whole file was read', async () => {
  const { user } = await step();
  act(() => useDraft.setState({ analysis: { ...now().analysis!, whole: false } }));
  const next = screen.getByRole<HTMLButtonElement>('button', { name: 'Next: where they go' });
  expect(next.disabled).toBe(true);
  act(() => useDraft.setState({ analysis: { ...now().analysis!, whole: true } }));
  await user.click(next);
  await waitFor(() => expect(now().step).toBe('Where they go'));
});
