import { said, type Said } from '../common';
import Papa from 'papaparse';
import { decoderOf, guessEncoding } from './encoding';

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

/** Why a file of this nature is no table; null where it may be one. */
export function notASheet(nature: FileNature): Said | null {
  if (nature === 'empty') return said('file.empty');
  if (typeof nature === 'string') return null;
  return said(`file.not.${nature.not}`);
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
