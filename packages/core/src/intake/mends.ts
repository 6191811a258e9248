import type { ColumnChoice } from './columns';
import { cleanEmail, cleanPhone, recased } from './clean';

/**
 * One correction of the file's cells, made by a person and kept with the plan. Rows and columns count from 1.
 */
export type Mend =
  | { kind: 'edit'; row: number; column: number; value: string }
  /** In rows where each of two cells fits the other's column and not its own, they change places. */
  | { kind: 'swap'; a: number; b: number }
  /** Cells that are one of these are written so. */
  | { kind: 'write'; column: number; from: string[]; to: string }
  /** Takes a piece of text out of every cell. */
  | { kind: 'strip'; column: number; text: string }
  /** Names that are all in one case are written as names are. */
  | { kind: 'recase'; column: number };

/** Puts mends into a row's cells; `row` counts from 1. The same array comes back where there are none. */
export type Mender = (cells: readonly string[], row: number) => readonly string[];

/**
 * All mends as one function over rows; the later ones see what the earlier have done, and edits come last.
 */
export function menderOf(mends: readonly Mend[], columns: readonly ColumnChoice[], country: string): Mender {
  if (mends.length === 0) return (cells) => cells;
  const edits = new Map<number, { column: number; value: string }[]>();
  const steps: ((cells: string[]) => void)[] = [];
  for (const mend of mends) {
    if (mend.kind === 'edit')
      edits.set(mend.row - 1, [
        ...(edits.get(mend.row - 1) ?? []),
        { column: mend.column - 1, value: mend.value },
      ]);
    else steps.push(stepOf(mend, columns, country));
  }
  return (cells, row) => {
    const mended = [...cells];
    for (const step of steps) step(mended);
    for (const { column, value } of edits.get(row) ?? []) {
      while (mended.length < column) mended.push('');
      mended[column] = value;
    }
    return mended;
  };
}

function stepOf(
  mend: Exclude<Mend, { kind: 'edit' }>,
  columns: readonly ColumnChoice[],
  country: string,
): (cells: string[]) => void {
  const at = mend.kind === 'swap' ? 0 : mend.column - 1;
  switch (mend.kind) {
    case 'swap':
      return (cells) => {
        const [a, b] = [mend.a - 1, mend.b - 1];
        if (isSwapped(cells, a, b, columns, country)) [cells[a], cells[b]] = [cells[b] ?? '', cells[a] ?? ''];
      };
    case 'write': {
      const from = new Set(mend.from.map((text) => text.trim()));
      return (cells) => {
        if (from.has(cells[at]?.trim() ?? '')) cells[at] = mend.to;
      };
    }
    case 'recase':
      return (cells) => {
        if (cells[at] !== undefined) cells[at] = recased(cells[at]!.trim());
      };
    case 'strip':
      return (cells) => {
        if (cells[at] !== undefined) cells[at] = cells[at]!.replaceAll(mend.text, '').trim();
      };
  }
}

/** Whether the cells of an address column and a phone column stand in each other's place. */
export function isSwapped(
  cells: readonly string[],
  a: number,
  b: number,
  columns: readonly ColumnChoice[],
  country: string,
): boolean {
  const fits = (column: number, cell: string) =>
    columns[column]?.to === 'email'
      ? cleanEmail(cell).ok
      : columns[column]?.to === 'mobile'
        ? cleanPhone(cell, country).ok
        : false;
  const [inA, inB] = [cells[a]?.trim() ?? '', cells[b]?.trim() ?? ''];
  if (inA === '' && inB === '') return false;
  const misfit = (column: number, cell: string) => cell === '' || !fits(column, cell);
  const wouldFit = (column: number, cell: string) => cell === '' || fits(column, cell);
  return misfit(a, inA) && misfit(b, inB) && wouldFit(a, inB) && wouldFit(b, inA);
}
