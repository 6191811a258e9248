import { said, type Said } from '../common';
import Papa from 'papaparse';
import { decoderOf, guessEncoding, type Encoding } from './encoding';
import type { Delimiter, ParseOptions, FileFindings } from './reading';
import { Unreadable } from './records';
import { emptiness, FileReader, openFile } from './shape';

export interface Sheet {
  header: string[];
  /** Cells of each row under the header; a row may be shorter or longer than the header. */
  rows: string[][];
  delimiter: Delimiter;
}

export type ReadFile = { ok: true; sheet: Sheet; found: FileFindings } | { ok: false; reason: Said };

/** What the first bytes say that a file is, whatever it is called. */
export type FileNature =
  'text' | 'vcard' | 'workbook' | 'empty' | { not: 'png' | 'jpeg' | 'gif' | 'pdf' | 'no-text' };

/** Magic numbers of files that are often given a wrong name. */
const SIGNATURES: [string, FileNature][] = [
  ['89504e47', { not: 'png' }],
  ['ffd8ff', { not: 'jpeg' }],
  ['47494638', { not: 'gif' }],
  ['25504446', { not: 'pdf' }],
  ['504b0304', 'workbook'],
  ['d0cf11e0', 'workbook'],
  ['0904', 'workbook'],
  ['0902', 'workbook'],
];

/** What a file is, from its first kilobytes: a workbook under the name of a text file is still a workbook. */
export function natureOf(start: Uint8Array): FileNature {
  if (start.length === 0) return 'empty';
  const magic = [...start.subarray(0, 4)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  const signed = SIGNATURES.find(([sign]) => magic.startsWith(sign));
  if (signed) return signed[1];
  const sample = start.subarray(0, 64 * 1024);
  const guess = guessEncoding(sample.subarray(0, sample.lastIndexOf(10) + 1 || sample.length)).encoding;
  if (!guess.startsWith('utf-16') && sample.includes(0)) return { not: 'no-text' };
  const text = decoderOf(guess)
    .decode(sample)
    .replace(/^\ufeff/, '')
    .trimStart();
  if (/^BEGIN:VCARD/i.test(text)) return 'vcard';
  // Web pages and XML workbooks saved by other programs under the name of a spreadsheet.
  return /^<(?:!doctype html|html|table|\?xml|meta|style|body)/i.test(text) ? 'workbook' : 'text';
}

export function notASheet(nature: FileNature): Said | null {
  if (nature === 'empty') return said('file.empty');
  if (typeof nature === 'string') return null;
  return said(`file.not.${nature.not}`);
}

export type Decoded =
  { ok: true; text: string; encoding: Encoding; sure: boolean } | { ok: false; reason: Said };

/**
 * Reads the bytes of a text file as text, in the encoding given or else the one it is most likely in, or says
 * what they are.
 */
export function decodeFile(bytes: Uint8Array, encoding?: Encoding): Decoded {
  const nature = natureOf(bytes);
  const fault = nature === 'workbook' ? said('file.workbook') : notASheet(nature);
  if (fault && !encoding) return { ok: false, reason: fault };
  const found = encoding ? { encoding, sure: true } : guessEncoding(bytes);
  const decoder = decoderOf(found.encoding);
  return { ok: true, text: decoder.decode(bytes) + decoder.end(), ...found };
}

/**
 * A whole text file from its bytes to its rows; lines that are no person are left out. For files that fit
 * into memory.
 */
export function readFile(bytes: Uint8Array, reading: ParseOptions = {}): ReadFile {
  const nature = natureOf(bytes);
  const fault = nature === 'workbook' ? said('file.workbook') : notASheet(nature);
  if (fault) return { ok: false, reason: fault };
  try {
    const reader = new FileReader(
      openFile(bytes, true, reading, reading.encoding ? undefined : guessEncoding(bytes)),
    );
    const lines = [...reader.push(bytes), ...reader.end()];
    const found = reader.found();
    const empty = emptiness(found);
    if (empty) return { ok: false, reason: empty };
    const rows = lines
      .filter((line) => line.aside === null || line.aside === 'blank')
      .map((line) => line.cells);
    return { ok: true, sheet: { header: found.header, rows, delimiter: found.delimiter }, found };
  } catch (error) {
    if (error instanceof Unreadable) return { ok: false, reason: error.said };
    throw error;
  }
}

/** As `readFile`, from text. */
export function readSheet(text: string, delimiter?: Delimiter): ReadFile {
  return readFile(new TextEncoder().encode(text), delimiter ? { delimiter } : {});
}

/** Writes a sheet by RFC 4180. Cells that a spreadsheet would run as a formula get an apostrophe in front. */
export function writeCsv(header: readonly string[], rows: readonly (readonly string[])[]): string {
  return (
    Papa.unparse(
      [header, ...rows].map((row) => row.map(defused)),
      { newline: '\r\n' },
    ) + '\r\n'
  );
}

/** A cell that no spreadsheet runs as a formula. */
export function defused(cell: string): string {
  return /^[=+\-@\t\r]/.test(cell) && !/^[+-]?[\d\s().-]+$/.test(cell) ? `'${cell}` : cell;
}
