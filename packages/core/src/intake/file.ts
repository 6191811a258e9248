import Papa from 'papaparse';
import { guessEncoding, type Encoding } from './encoding';

/** Bounds of one file. */
export const FILE_LIMITS = { bytes: 50 * 1024 * 1024, rows: 500_000, columns: 200, cell: 10_000 } as const;

export interface Sheet {
  header: string[];
  /** Cells of each row under the header; a row may be shorter or longer than the header. */
  rows: string[][];
  delimiter: Delimiter;
}

export const DELIMITERS = [',', ';', '\t', '|'] as const;
export type Delimiter = (typeof DELIMITERS)[number];

/** How a file is to be read where what the program finds is wrong: chosen by a person, kept with the plan. */
export interface FileReading {
  encoding?: Encoding;
  delimiter?: Delimiter;
}

export type Read = { ok: true; sheet: Sheet } | { ok: false; reason: string };

function refuse(reason: string): Read {
  return { ok: false, reason };
}

/** Magic numbers of files that are often given a wrong name. */
const SIGNATURES: [string, string][] = [
  ['89504e47', 'a PNG picture'],
  ['ffd8ff', 'a JPEG picture'],
  ['25504446', 'a PDF document'],
  ['504b0304', 'a spreadsheet or zip file'],
  ['d0cf11e0', 'an old Excel workbook'],
];

export type Decoded = { ok: true; text: string; encoding: Encoding; sure: boolean } | { ok: false; reason: string };

/** Reads the bytes of a file as text, in the encoding given or else the one it is most likely in, or says what they are. */
export function decodeFile(bytes: Uint8Array, encoding?: Encoding): Decoded {
  if (bytes.length === 0) return { ok: false, reason: 'The file is empty. Choose a file with one header row and one person a row.' };
  const start = [...bytes.subarray(0, 4)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  const found = encoding ? { encoding, sure: true } : guessEncoding(bytes);
  const binary = !found.encoding.startsWith('utf-16') && bytes.includes(0);
  const kind = SIGNATURES.find(([magic]) => start.startsWith(magic))?.[1] ?? (binary ? 'not a text file' : null);
  if (kind) return { ok: false, reason: `This is ${kind}, not a CSV file. Save the sheet as CSV and drop it here.` };
  return { ok: true, text: new TextDecoder(found.encoding).decode(bytes), ...found };
}

/** A file from its bytes to its rows. */
export function readFile(
  bytes: Uint8Array,
  reading: FileReading = {},
): (Extract<Read, { ok: true }> & { encoding: Encoding; sure: boolean }) | { ok: false; reason: string } {
  const decoded = decodeFile(bytes, reading.encoding);
  if (!decoded.ok) return decoded;
  const read = readSheet(decoded.text, reading.delimiter);
  return read.ok ? { ...read, encoding: decoded.encoding, sure: decoded.sure } : read;
}

/**
 * Reads a whole sheet from text by RFC 4180: quoted cells with separators, line ends and doubled quotes in them; comma,
 * semicolon, tab or pipe, found by itself or named by a first line such as "sep=;" that some programs write. The first line with anything in it is the header. Empty lines before it and after the last row are passed
 * over; one in between stays, so that the numbers of rows are those of the file.
 */
export function readSheet(text: string, delimiter?: Delimiter): Read {
  const whole = text.startsWith('\ufeff') ? text.slice(1) : text;
  const named = /^"?sep=([,;|\t])"?(?:\r\n|\r|\n)/i.exec(whole);
  const body = named ? whole.slice(named[0].length) : whole;
  if (body.trim() === '') return refuse('There is nothing in it. It needs one header row and one person a row.');
  const parsed = Papa.parse<string[]>(body, {
    delimiter: delimiter ?? (named?.[1] as Delimiter | undefined) ?? delimiterOf(body),
    skipEmptyLines: false,
  });
  const quotes = parsed.errors.find((error) => error.type === 'Quotes');
  if (quotes) return refuse(`Row ${quotes.row ?? 1} opens a quote that is never closed. Close it, or take it out, and drop the file again.`);
  const [header, ...rows] = withoutEdges(parsed.data);
  return checkShape(
    header!.map((name) => name.trim()),
    rows,
    parsed.meta.delimiter as Delimiter,
  );
}

/** Without the empty lines at both ends, which spreadsheets leave by the hundred. */
function withoutEdges(rows: string[][]): string[][] {
  const filled = (row: string[]) => row.some((cell) => cell.trim() !== '');
  const last = rows.findLastIndex(filled);
  return rows.slice(Math.max(0, rows.findIndex(filled)), last + 1);
}

function checkShape(header: string[], rows: string[][], delimiter: Delimiter): Read {
  if (header.length > FILE_LIMITS.columns) {
    return refuse(`The sheet has ${header.length} columns; ${FILE_LIMITS.columns} is the most. Leave out the ones you don't need.`);
  }
  if (rows.length === 0) return refuse('There is only a header row and nobody under it.');
  if (rows.length > FILE_LIMITS.rows) {
    return refuse(`The sheet has ${rows.length} rows; ${FILE_LIMITS.rows} is the most in one batch. Split it in two.`);
  }
  return { ok: true, sheet: { header, rows, delimiter } };
}

/** The separator that cuts the first lines into the most cells, counted outside quotes. */
function delimiterOf(body: string): Delimiter {
  const head = body
    .slice(0, 20_000)
    .replace(/"(?:[^"]|"")*"/g, '')
    .split(/\r\n|\r|\n/)
    .slice(0, 10)
    .join('\n');
  const count = (char: string) => head.split(char).length;
  return DELIMITERS.reduce<Delimiter>((best, char) => (count(char) > count(best) ? char : best), ',');
}

/** Writes a sheet by RFC 4180. Cells that a spreadsheet would run as a formula get an apostrophe in front. */
export function writeCsv(header: readonly string[], rows: readonly (readonly string[])[]): string {
  const safe = (cell: string) => (/^[=+\-@\t\r]/.test(cell) && !/^[+-]?[\d\s().-]+$/.test(cell) ? `'${cell}` : cell);
  const fields = [header, ...rows].map((row) => row.map(safe));
  return Papa.unparse(fields, { newline: '\r\n' }) + '\r\n';
}
