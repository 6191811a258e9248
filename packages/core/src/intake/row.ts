import { coerce, parseYesNo, type FieldValue } from '../fields';
import type { SendingChannel } from '../permission';
import { cleanEmail, cleanMobile, cleanName, type Cleaned } from './clean';
import type { ColumnChoice } from './plan';

/** Something wrong with one cell; the row may still come in without it. */
export interface CellFault {
  column: number;
  reason: string;
}

export interface CleanRow {
  firstName: string;
  lastName: string;
  email: { normal: string; shown: string } | null;
  mobile: { normal: string; shown: string; country?: string } | null;
  values: { column: number; value: FieldValue }[];
  /** What the consent column says, where there is one with a word in it. */
  consent: Partial<Record<SendingChannel, boolean>>;
  faults: CellFault[];
  /** Why the row can't come in at all; null when it can. */
  fatal: string | null;
}

/** Cleans one row by the plan's columns. Pure, and the same in the page's worker and on the server. */
export function cleanRow(cells: readonly string[], columns: readonly ColumnChoice[], country: string): CleanRow {
  const row: CleanRow = { firstName: '', lastName: '', email: null, mobile: null, values: [], consent: {}, faults: [], fatal: null };
  columns.forEach((choice, column) => {
    const cell = cells[column]?.trim() ?? '';
    if (cell !== '') readCell(row, choice, column, cell, country);
  });
  row.fatal = fatalFault(row, cells, columns.length);
  return row;
}

function readCell(row: CleanRow, choice: ColumnChoice, column: number, cell: string, country: string): void {
  const fault = (reason: string) => row.faults.push({ column, reason });
  switch (choice.to) {
    case 'leave':
      return;
    case 'firstName':
    case 'lastName':
      row[choice.to] = cleanName(cell);
      return;
    case 'email':
      row.email = kept(cleanEmail(cell), fault);
      return;
    case 'mobile':
      row.mobile = kept(cleanMobile(cell, country), fault);
      return;
    case 'consent': {
      const yes = parseYesNo(cell);
      if (yes === null) fault(`expected yes or no, got "${cell.slice(0, 40)}"`);
      else row.consent[choice.channel] = yes;
      return;
    }
    case 'field':
    case 'newField': {
      const coerced = coerce(choice.type, cell, choice.order);
      if (coerced.ok) row.values.push({ column, value: coerced.value });
      else fault(coerced.reason);
    }
  }
}

function kept(cleaned: Cleaned, fault: (reason: string) => void): { normal: string; shown: string; country?: string } | null {
  if (cleaned.ok) return { normal: cleaned.normal, shown: cleaned.shown, ...(cleaned.country ? { country: cleaned.country } : {}) };
  fault(cleaned.reason);
  return null;
}

function fatalFault(row: CleanRow, cells: readonly string[], width: number): string | null {
  const extra = cells.slice(width).filter((cell) => cell.trim() !== '').length;
  if (extra > 0) return `the row has ${cells.length} cells under ${width} columns; a separator may stand inside a value without quotes`;
  if (cells.every((cell) => cell.trim() === '')) return 'the row is empty';
  if (row.email || row.mobile) return null;
  const why = row.faults.map((fault) => fault.reason).join('; ');
  return why === '' ? 'no email and no mobile, so this person could never be reached' : why;
}
