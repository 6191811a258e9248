import type { PrintAct } from '@goodword/core/contract';
import {
  LABEL_KINDS,
  LABEL_SHEETS,
  paperIn,
  PRINT_FORMS,
  SHEET_COLUMNS,
  type LabelKind,
  type Paper,
  type PrintForm,
} from '@goodword/core/print';
import type { Purpose } from '@goodword/core/permission';
import type { TypedValues } from './parts';

/** What a print begins with, by where the organization is. */
export function printStart(country: string, form: PrintForm = 'call'): TypedValues {
  const paper = paperIn(country);
  return {
    form,
    paper,
    labels: paper === 'LETTER' ? 'letter-30' : 'a4-21',
    purpose: 'appeals',
    columns: 'phone,last-gift',
    noteLines: '1',
    used: '0',
    together: 'yes',
    title: '',
  };
}

/** A column by its name, or a field by its number. */
const columnOf = (one: string): PrintAct['columns'] =>
  /^\d+$/.test(one) ? [Number(one)] : SHEET_COLUMNS.filter((column) => column === one);

/** The print that was typed, or null while something is missing. */
export function printActOf(typed: TypedValues): PrintAct | null {
  const form = PRINT_FORMS.find((one) => one === typed.form);
  const labels = LABEL_KINDS.find((one) => one === typed.labels);
  if (!form || !labels) return null;
  const columns = (typed.columns ?? '').split(',').filter(Boolean);
  const most = LABEL_SHEETS[labels].columns * LABEL_SHEETS[labels].rows - 1;
  return {
    do: 'print',
    form: form satisfies PrintForm,
    paper: (typed.paper ?? 'A4') as Paper,
    labels: labels satisfies LabelKind,
    title: (typed.title ?? '').trim(),
    purpose: (typed.purpose ?? 'appeals') as Purpose,
    columns: form === 'call' || form === 'door' ? columns.flatMap(columnOf).slice(0, 8) : [],
    noteLines: Math.min(6, Math.max(0, Number(typed.noteLines) || 0)),
    used: Math.min(most, Math.max(0, Math.trunc(Number(typed.used) || 0))),
    together: typed.together !== 'no',
    callListId: Number(typed.callListId) || null,
  };
}

/** Puts a column among those chosen, behind the others, or takes it out. */
export function toggled(columns: string, column: string): string {
  const chosen = columns.split(',').filter(Boolean);
  return (chosen.includes(column) ? chosen.filter((one) => one !== column) : [...chosen, column]).join(',');
}
