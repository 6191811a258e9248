import { screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { show } from '../testing';
import { SheetGrid, widthOf } from './SheetGrid';

const ROWS = Array.from({ length: 300 }, (_none, i) => ({
  row: i + 1,
  cells: [`p${i + 1}@example.org`, `Person ${i + 1}`, ''],
}));
const LEFT = (column: number) => column === 2;

/** A sheet whose edits are kept, as the draft keeps them. */
function Sheet({ told }: { told: [number, number, string][] }) {
  const [edits, setEdits] = useState<Record<string, string>>({});
  return (
    <SheetGrid
      header={['E-mail', 'Name', 'Notes']}
      rows={ROWS}
      cellsOf={({ row, cells }) => cells.map((cell, column) => edits[`${row}:${column}`] ?? cell)}
      wordOf={(row, column) =>
        row === 2 && column === 0 ? { words: 'no ending such as .org', hint: false } : undefined
      }
      isLeft={LEFT}
      head={(column) => <b>{`Column ${column}`}</b>}
      onEdit={(row, column, value) => {
        told.push([row, column, value]);
        setEdits({ ...edits, [`${row}:${column}`]: value });
      }}
    />
  );
}

async function sheet() {
  const told: [number, number, string][] = [];
  const shown = show(<Sheet told={told} />);
  const grid = screen.getByRole('grid');
  await screen.findByText('Person 1');
  grid.focus();
  const at = () => document.getElementById(grid.getAttribute('aria-activedescendant')!)?.textContent;
  return { ...shown, told, grid, at };
}

test('thousands of rows are not all drawn', async () => {
  const { grid } = await sheet();
  expect(grid.getAttribute('aria-rowcount')).toBe('301');
  expect(within(grid).getAllByRole('row').length).toBeLessThan(60);
});

test('arrows move over cells and stop at the edges', async () => {
  const { user, at } = await sheet();
  expect(at()).toBe('p1@example.org');
  await user.keyboard('{ArrowLeft}{ArrowUp}');
  expect(at()).toBe('p1@example.org');
  await user.keyboard('{ArrowRight}{ArrowDown}');
  expect(at()).toBe('Person 2');
  await user.keyboard('{PageDown}');
  expect(at()).toBe('Person 14');
  await user.keyboard('{PageUp}{PageUp}{Home}');
  expect(at()).toBe('p1@example.org');
  await user.keyboard('{End}');
  expect(at()).toBe('');
});

test('Enter edits a cell and Enter keeps it; Escape leaves it; either way the keys are on the sheet again', async () => {
  const { user, told, grid } = await sheet();
  await user.keyboard('{ArrowRight}{Enter}');
  const input = await screen.findByLabelText<HTMLInputElement>('Row 1, Name');
  expect(input.value).toBe('Person 1');
  await user.clear(input);
  await user.type(input, 'Ann Réyes{Enter}');
  expect(told).toEqual([[1, 1, 'Ann Réyes']]);
  await waitFor(() => expect(document.activeElement).toBe(grid));
  await screen.findByText('Ann Réyes');
  await user.keyboard('{F2}');
  await user.type(await screen.findByLabelText('Row 1, Name'), ' and more{Escape}');
  expect(told).toHaveLength(1);
  expect(screen.queryByLabelText('Row 1, Name')).toBeNull();
});

test('what was typed is kept when the cell is left, and nothing is told where nothing changed', async () => {
  const { user, told } = await sheet();
  await user.dblClick(screen.getByText('Person 3'));
  await screen.findByLabelText('Row 3, Name');
  await user.tab();
  expect(told).toEqual([]);
  await user.dblClick(screen.getByText('Person 3'));
  await user.type(await screen.findByLabelText('Row 3, Name'), 'x');
  await user.click(screen.getByText('Column 0'));
  expect(told).toEqual([[3, 1, 'Person 3x']]);
});

test('a cell that cannot be read says why', async () => {
  await sheet();
  expect(screen.getByTitle('no ending such as .org').textContent).toBe('p2@example.org');
});

test.each([
  ['', [], 132],
  ['Email', ['a@b.org'], 132],
  ['Email', ['somebody.long@example.org'], 213],
  ['Notes', ['x'.repeat(400)], 340],
])('a column %s is as wide as what stands in it, within bounds', (header, sample, width) =>
  expect(widthOf(header, sample)).toBe(width),
);
