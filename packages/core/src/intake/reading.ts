import type { Encoding } from './encoding';

/** Bounds of one file. */
export const FILE_LIMITS = {
  bytes: 100 * 1024 * 1024,
  rows: 500_000,
  columns: 200,
  cell: 10_000,
  sheetRows: 100_000,
  sheetBytes: 25 * 1024 * 1024,
} as const;

/** What stands between cells of a line (RFC 4180 has the comma; the others are common practice). */
export const DELIMITERS = [',', ';', '\t', '|'] as const;
export type Delimiter = (typeof DELIMITERS)[number];

/** How a file is to be read where what the program finds is wrong: chosen by a person, kept with the plan. */
export interface ParseOptions {
  encoding?: Encoding;
  delimiter?: Delimiter;
  /** Which sheet of a workbook, counted from 1. */
  sheet?: number;
  /**
   * Which line is the header, counted from 1 over the lines that are not empty; null where the file has none.
   */
  headerLine?: number | null;
  /** Whether text that was decoded wrongly once is put right. */
  unscramble?: boolean;
  /** Whether lines that look like a total, or like the header once more, are people after all. */
  keepAside?: boolean;
}

/** What a line is that is no person. */
export type Aside = 'blank' | 'header' | 'total';

/** What was found out about a file while it was read. */
export interface FileFindings {
  kind: 'text' | 'workbook' | 'vcard';
  encoding: Encoding;
  /** Whether the encoding is known; a guess is shown as one. */
  sure: boolean;
  delimiter: Delimiter;
  /** A first line such as `sep=;` says which. */
  separatorLine?: true;
  headerLine: number | null;
  /** Lines over the header, as they stand. */
  titles: string[];
  header: string[];
  rows: number;
  unscramble: boolean;
  asides: Record<Aside, number>;
  /** Rows with more cells than the header, and with fewer. */
  longer: number;
  shorter: number;
  /** Headers that stand over more than one column. */
  doubled: string[];
  workbook?: Workbook;
}

/** What a workbook holds beside the cells of the sheet that is read. */
export interface Workbook {
  sheets: { name: string; rows: number; hidden: boolean }[];
  sheet: number;
  /** Columns that the sheet hides, counted from 1. */
  hiddenColumns: number[];
  hiddenRows: number;
  mergedCells: number;
  formulas: number;
}
