import { createWriteStream, readFileSync } from 'node:fs';
import { once } from 'node:events';
import * as XLSX from '@e965/xlsx';
import Papa from 'papaparse';
import { FILE_LIMITS, Unreadable, type Workbook } from '@goodword/core/intake';
import { said, type Said } from '@goodword/core/common';
import { hiddenInOds, type HiddenParts } from './hidden-in-ods';

/*
 * Reads a workbook in a process of its own, which has a cap on its memory and its time: whatever is hostile
 * in a file ends here. Writes the chosen sheet as CSV and says on its output what else the workbook holds.
 */

/** Unpacked, a workbook may be this large; small files that unpack to more are made to do harm. */
const MOST_UNPACKED = 400 * 1024 * 1024;

export type ChildAnswer = { ok: true; workbook: Workbook } | { ok: false; reason: Said };

/** Sum of the unpacked sizes that a zip file's central directory declares (APPNOTE.TXT 4.3.12). */
function unpackedSize(bytes: Buffer): number {
  let sum = 0;
  for (
    let at = bytes.indexOf('PK\u0001\u0002', 0, 'latin1');
    at >= 0 && at + 46 <= bytes.length;
    at = bytes.indexOf('PK\u0001\u0002', at + 46, 'latin1')
  ) {
    sum += bytes.readUInt32LE(at + 24);
  }
  return sum;
}

function read(bytes: Buffer): XLSX.WorkBook {
  if (unpackedSize(bytes) > MOST_UNPACKED) throw new Unreadable('workbook.unpacked');
  try {
    return XLSX.read(bytes, {
      dense: true,
      cellNF: true,
      cellText: false,
      cellDates: false,
      sheetRows: FILE_LIMITS.sheetRows + 40,
      raw: true,
      cellStyles: true,
    });
  } catch (error) {
    const { message } = error as Error;
    if (/password|encrypt/i.test(message)) throw new Unreadable('workbook.locked');
    if (/zip|compress|corrupt|truncat|unexpected|signature|out of (?:range|bounds)/i.test(message))
      throw new Unreadable('workbook.damaged');
    throw new Unreadable('workbook.wrong', { why: message });
  }
}

type Cell = XLSX.CellObject | undefined;
const rowsOf = (sheet: XLSX.WorkSheet): Cell[][] =>
  ((sheet as unknown as { '!data'?: Cell[][] })['!data'] ?? []) as Cell[][];

/** A cell as text: dates as ISO days, whole numbers in full, formulas by their value, faults as nothing. */
function textOf(cell: Cell, date1904: boolean): string {
  if (!cell || cell.v === undefined || cell.v === null) return '';
  switch (cell.t) {
    case 'n':
      return numberText(Number(cell.v), typeof cell.z === 'string' ? cell.z : '', date1904);
    case 'd':
      return (cell.v as Date).toISOString().slice(0, 10);
    case 'b':
      return cell.v ? 'yes' : 'no';
    case 'e':
      return '';
    default:
      return String(cell.v);
  }
}

function numberText(value: number, format: string, date1904: boolean): string {
  if (format && XLSX.SSF.is_date(format)) {
    const parts = XLSX.SSF.parse_date_code(value, { date1904 }) as {
      y: number;
      m: number;
      d: number;
      H: number;
      M: number;
      S: number;
    } | null;
    if (!parts) return String(value);
    const pad = (part: number) => String(part).padStart(2, '0');
    const day = `${String(parts.y).padStart(4, '0')}-${pad(parts.m)}-${pad(parts.d)}`;
    if (/^\[?h|^m+:s/i.test(format) && value < 1) return `${pad(parts.H)}:${pad(parts.M)}`;
    return parts.H + parts.M + parts.S > 0
      ? `${day} ${pad(parts.H)}:${pad(parts.M)}:${pad(Math.floor(parts.S))}`
      : day;
  }
  // Postcodes and the like that are kept as numbers and shown with leading zeros.
  if (/^0{2,}$/.test(format)) return XLSX.SSF.format(format, value) as string;
  if (Number.isInteger(value)) return Math.abs(value) < 1e21 ? BigInt(value).toString() : String(value);
  return String(Number(value.toPrecision(15)));
}

/** Which sheet is read where nobody chose: the first that can be seen and holds more than a line. */
function guessSheet(book: XLSX.WorkBook): number {
  const at = book.SheetNames.findIndex(
    (name, i) =>
      !isHidden(book, i) &&
      rowsOf(book.Sheets[name]!).filter((row) => row?.some((cell) => cell?.v !== undefined)).length > 1,
  );
  return Math.max(0, at);
}

function isHidden(book: XLSX.WorkBook, sheet: number): boolean {
  return (book.Workbook?.Sheets?.[sheet]?.Hidden ?? 0) !== 0;
}

/** A cell merged downwards stands in each of its rows; one merged sideways stands in its first column. */
function spreadMerges(rows: Cell[][], merges: readonly XLSX.Range[]): void {
  for (const { s, e } of merges) {
    const cell = rows[s.r]?.[s.c];
    if (!cell || e.c > s.c) continue;
    for (let r = s.r + 1; r <= Math.min(e.r, rows.length - 1); r++) {
      rows[r] ??= [];
      rows[r]![s.c] = cell;
    }
  }
}

async function convert(input: string, output: string, chosen: number | null): Promise<Workbook> {
  const bytes = readFileSync(input);
  const book = read(bytes);
  if (book.SheetNames.length === 0) throw new Unreadable('workbook.empty');
  const at = chosen ?? guessSheet(book);
  const name = book.SheetNames[at];
  if (name === undefined)
    throw new Unreadable('workbook.sheet', {
      sheets: said('workbook.sheets', { n: book.SheetNames.length }),
      sheet: at + 1,
    });
  const sheet = book.Sheets[name]!;
  const rows = rowsOf(sheet);
  if (rows.length > FILE_LIMITS.sheetRows + 35) {
    throw new Unreadable('workbook.rows', { most: FILE_LIMITS.sheetRows });
  }
  const merges = sheet['!merges'] ?? [];
  spreadMerges(rows, merges);
  const date1904 = book.Workbook?.WBProps?.date1904 ?? false;
  const out = createWriteStream(output);
  for (let from = 0; from < rows.length; from += 5000) {
    const slice = Array.from({ length: Math.min(5000, rows.length - from) }, (_none, i) =>
      Array.from(rows[from + i] ?? [], (cell) => textOf(cell, date1904)),
    );
    if (!out.write(`${Papa.unparse(slice, { newline: '\r\n' })}\r\n`)) await once(out, 'drain');
  }
  out.end();
  await once(out, 'finish');
  return describe(book, at, rows, merges.length, hiddenInOds(bytes, at) ?? hiddenIn(sheet));
}

function hiddenIn(sheet: XLSX.WorkSheet): HiddenParts {
  return {
    columns: (sheet['!cols'] ?? []).flatMap((column, i) => (column?.hidden ? [i] : [])),
    rows: (sheet['!rows'] ?? []).filter((row) => row?.hidden).length,
  };
}

function describe(
  book: XLSX.WorkBook,
  at: number,
  rows: Cell[][],
  mergedCells: number,
  hidden: HiddenParts,
): Workbook {
  return {
    sheets: book.SheetNames.map((name, i) => ({
      name,
      rows: rowsOf(book.Sheets[name]!).length,
      hidden: isHidden(book, i),
    })),
    sheet: at + 1,
    // Past the last column with anything in it there is nothing to tell of.
    hiddenColumns: hidden.columns
      .filter((column) => rows.some((row) => row?.[column]?.v !== undefined))
      .map((column) => column + 1),
    hiddenRows: hidden.rows,
    mergedCells,
    formulas: rows.reduce((sum, row) => sum + (row ?? []).filter((cell) => cell?.f !== undefined).length, 0),
  };
}

const [input, output, chosen] = process.argv.slice(2);
const answer = (what: ChildAnswer) => void process.stdout.write(JSON.stringify(what));
convert(input!, output!, chosen === undefined || chosen === '' ? null : Number(chosen)).then(
  (workbook) => answer({ ok: true, workbook }),
  (error: unknown) =>
    answer({
      ok: false,
      reason:
        error instanceof Unreadable ? error.said : said('workbook.wrong', { why: (error as Error).message }),
    }),
);
