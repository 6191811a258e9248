import { nameMatchKey } from './clean';
import type { ColumnChoice } from './columns';
import { consentHeader } from './consents';
import type { KnownField } from './guess';
import type { BatchKind } from './row';

/** What was decided for the columns of a file, kept for the next file of the same source. */
export interface Layout {
  header: string[];
  columns: ColumnChoice[];
  what: BatchKind;
}

/** The key under which a layout is found at once: the headers and their order. */
export function layoutKey(header: readonly string[]): string {
  return header.map(nameMatchKey).join('|');
}

/** From this share of headers on, a layout is offered. */
const LIKE_ENOUGH = 0.6;

/** How well a remembered layout fits a header, with the columns that it gives. */
export interface LayoutFit<L extends Layout> {
  layout: L;
  /** How many headers of the file the layout knows. */
  known: number;
  /** The same headers in the same order. */
  exact: boolean;
}

/** The remembered layout that fits a header best; null where none knows enough of it. */
export function bestLayout<L extends Layout>(
  header: readonly string[],
  layouts: readonly L[],
): LayoutFit<L> | null {
  const keys = header.map(nameMatchKey);
  const fits = layouts.map((layout) => {
    const has = new Set(layout.header.map(nameMatchKey));
    return {
      layout,
      known: keys.filter((key) => key !== '' && has.has(key)).length,
      exact: layoutKey(layout.header) === keys.join('|'),
    };
  });
  const best = fits.sort((a, b) => Number(b.exact) - Number(a.exact) || b.known - a.known)[0];
  if (!best) return null;
  return best.exact || best.known >= Math.max(2, header.length * LIKE_ENOUGH) ? best : null;
}

/**
 * The layout's choices for this file's columns, by header; columns that it does not know keep what was
 * guessed. One that took a refusal for an agreement is not followed there: layouts are older than the
 * knowledge of such headers.
 */
export function applyLayout(
  header: readonly string[],
  guess: readonly ColumnChoice[],
  layout: Layout,
): ColumnChoice[] {
  const byKey = new Map(layout.header.map((name, i) => [nameMatchKey(name), layout.columns[i]!]));
  return header.map((name, i) => {
    const kept = byKey.get(nameMatchKey(name));
    const turned = kept?.to === 'consent' && consentHeader(name)?.sense === 'refuses';
    return kept === undefined || turned ? guess[i]! : kept;
  });
}

/**
 * Choices of another day as the fields are today: a field that has gone is what is guessed now, and one that
 * takes another type is read as that. Where nothing differs, the choice itself.
 */
export function withFieldsNow(
  columns: readonly ColumnChoice[],
  guess: readonly ColumnChoice[],
  fields: readonly KnownField[],
): ColumnChoice[] {
  return columns.map((choice, i) => {
    if (choice.to !== 'field') return choice;
    const field = fields.find(({ id }) => id === choice.fieldId);
    if (!field) return guess[i] ?? { to: 'leave' };
    return field.type === choice.type ? choice : { to: 'field', fieldId: field.id, type: field.type };
  });
}
