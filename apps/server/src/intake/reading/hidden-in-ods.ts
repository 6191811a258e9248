import * as XLSX from '@e965/xlsx';

/**
 * Columns of one table that a repetition may stand for; LibreOffice lets the last one reach to the end of the
 * sheet.
 */
const MOST_COLUMNS = 1024;

export interface HiddenParts {
  /** Places of hidden columns, from 0. */
  columns: number[];
  rows: number;
}

/**
 * What is hidden in a sheet of an OpenDocument spreadsheet, which the reader of workbooks leaves out:
 * elements `table:table-column` and `table:table-row` with a visibility of `collapse` or `filter`
 * (OpenDocument 1.3, part 3, 19.749). Null where the file is none.
 */
export function hiddenInOds(bytes: Buffer, sheet: number): HiddenParts | null {
  const content = contentOf(bytes);
  if (content === null) return null;
  let start = -1;
  for (let i = 0; i <= sheet; i++) {
    start = content.indexOf('<table:table ', start + 1);
    if (start < 0) return null;
  }
  const end = content.indexOf('</table:table>', start);
  const table = content.slice(start, end < 0 ? content.length : end);
  const columns: number[] = [];
  let at = 0;
  for (const [tag] of table.matchAll(/<table:table-column\b[^>]*>/g)) {
    const times = Math.min(repeated(tag, 'columns'), MOST_COLUMNS - at);
    if (isHidden(tag)) for (let i = 0; i < times; i++) columns.push(at + i);
    at += times;
  }
  let rows = 0;
  for (const [tag] of table.matchAll(/<table:table-row\b[^>]*>/g))
    if (isHidden(tag)) rows += repeated(tag, 'rows');
  return { columns, rows };
}

function contentOf(bytes: Buffer): string | null {
  if (bytes.toString('latin1', 0, 2) !== 'PK') return null;
  const entry = XLSX.CFB.find(XLSX.CFB.read(bytes, { type: 'buffer' }), '/content.xml');
  return entry ? Buffer.from(entry.content as Uint8Array).toString('utf8') : null;
}

const isHidden = (tag: string): boolean => /\btable:visibility="(?:collapse|filter)"/.test(tag);
const repeated = (tag: string, what: 'columns' | 'rows'): number =>
  Number(new RegExp(`\\btable:number-${what}-repeated="(\\d{1,7})"`).exec(tag)?.[1] ?? 1);
