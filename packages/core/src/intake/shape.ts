import { said, type Said } from '../common';
import { parseNumber } from '../fields';
import { nameMatchKey } from './clean';
import { decoderOf, guessEncoding, type Encoding } from './encoding';
import { unscrambled } from './mojibake';
import {
  DELIMITERS,
  FILE_LIMITS,
  type Aside,
  type Delimiter,
  type ParseOptions,
  type FileFindings,
} from './reading';
import { RecordReader, SEPARATOR_LINE, Unreadable, withoutSeparatorLine } from './records';

/** How much of the start of a file its header, separator and line ends are found from, in bytes. */
const START = 256 * 1024;

/** Lines among which the header is looked for. */
const HEADER_WITHIN = 30;

/** One line under the header: its cells, and what it is where it is no person. */
export interface TextLine {
  cells: string[];
  aside: Aside | null;
}

/**
 * The separator that stands in the most of the first lines, and among equals the one that cuts them into the
 * most cells, both outside quotes. A separator stands in the header too, where `a|b|c` in a column of tags,
 * `12,50` or `Doe, Ann` do not.
 */
export function delimiterOf(body: string): Delimiter {
  const lines = body
    .slice(0, 20_000)
    .replace(/"(?:[^"]|"")*"/g, '')
    .split(/\r\n|\r|\n/)
    .slice(0, 10);
  const weigh = (char: Delimiter) => {
    const cuts = lines.map((line) => line.split(char).length - 1);
    return {
      char,
      inLines: cuts.filter((count) => count > 0).length,
      cells: cuts.reduce((sum, count) => sum + count, 0),
    };
  };
  const [first, ...others] = DELIMITERS.map(weigh);
  return others.reduce(
    (best, one) =>
      one.inLines > best.inLines || (one.inLines === best.inLines && one.cells > best.cells) ? one : best,
    first!,
  ).char;
}

const filled = (record: readonly string[]) => record.filter((cell) => cell.trim() !== '').length;
const looksLikeValue = (cell: string) =>
  /@[^@]+\./.test(cell) || /^[+(]?\d[\d\s().+/-]{4,}$/.test(cell.trim()) || parseNumber(cell) !== null;

/**
 * How wide the lines are: a single line of values that is wider than all others has a separator inside a
 * value.
 */
function widthOf(records: readonly (readonly string[])[]): number {
  const widths = records.map(filled).sort((a, b) => b - a);
  const [most = 0, next = 0] = widths;
  const isSlip =
    records.length > 1 &&
    most > next &&
    records.find((record) => filled(record) === most)!.some(looksLikeValue);
  return isSlip ? next : most;
}

/**
 * Which of the first lines is the header: the first that is nearly as wide as the widest and holds words
 * only. Narrow lines over it are titles. A file whose first wide line holds an address or a number has no
 * header.
 */
export function guessHeader(records: readonly (readonly string[])[]): number | null {
  const some = records.slice(0, HEADER_WITHIN);
  const widest = widthOf(some);
  const at = some.findIndex((record) => filled(record) >= Math.max(1, Math.ceil(widest * 0.6)));
  return at < 0 || some[at]!.some(looksLikeValue) ? null : at;
}

const TOTAL =
  /^\s*(?:(?:grand|sub)[\s-]?total|total(?:es|s|e)?|sum(?:me|a)?|somme|gesamt(?:summe|anzahl)?|anzahl|count|number of (?:rows|people)|nombre(?: total)?|recuento|end of (?:list|file|report))\b/i;

/** A line that sums up what stands over it: such a word first, no address, and hardly anything else. */
function isTotal(cells: readonly string[]): boolean {
  const full = cells.filter((cell) => cell.trim() !== '');
  return (
    full.length > 0 &&
    TOTAL.test(full[0]!) &&
    full.slice(1).every((cell) => parseNumber(cell) !== null || TOTAL.test(cell))
  );
}

/**
 * The encoding, separator, header and the like of a file, from its start; the rest is found out as it is
 * read.
 */
export function openFile(
  start: Uint8Array,
  whole: boolean,
  reading: ParseOptions,
  encoding?: { encoding: Encoding; sure: boolean },
): Opening {
  const head = start.subarray(0, START);
  // Cut at a line end: half a letter at the end would make valid UTF-8 look broken.
  const cut =
    whole && start.length <= START ? head : head.subarray(0, head.lastIndexOf(10) + 1 || head.length);
  const guessed = reading.encoding
    ? { encoding: reading.encoding, sure: true }
    : (encoding ?? guessEncoding(cut));
  const text = decoderOf(guessed.encoding).decode(cut);
  const named = SEPARATOR_LINE.exec(text.startsWith('\ufeff') ? text.slice(1) : text)?.[1] as
    Delimiter | undefined;
  const delimiter = reading.delimiter ?? named ?? delimiterOf(withoutSeparatorLine(text));
  const records = recordsOf(cut, guessed.encoding, delimiter, whole).filter((record) => filled(record) > 0);
  const headerLine = reading.headerLine !== undefined ? reading.headerLine : lineOf(guessHeader(records));
  const unscramble =
    reading.unscramble ?? records.some((record) => record.some((cell) => unscrambled(cell) !== null));
  return {
    ...guessed,
    delimiter,
    ...(named ? { separatorLine: true } : {}),
    headerLine,
    unscramble,
    keepAside: reading.keepAside ?? false,
  };
}

/** People count lines from 1. */
const lineOf = (at: number | null) => (at === null ? null : at + 1);

/** How a text begins: its separator, header and line endings, found from its first part. */
export interface Opening {
  encoding: Encoding;
  sure: boolean;
  delimiter: Delimiter;
  separatorLine?: true;
  headerLine: number | null;
  unscramble: boolean;
  keepAside: boolean;
}

function recordsOf(bytes: Uint8Array, encoding: Encoding, delimiter: Delimiter, whole: boolean): string[][] {
  const reader = new RecordReader({ encoding, delimiter });
  try {
    const records = reader.push(bytes);
    return whole ? [...records, ...reader.end()] : records;
  } catch (error) {
    if (error instanceof Unreadable) return [];
    throw error;
  }
}

/**
 * Turns the bytes of a file, coming in pieces, into lines under a header, and counts what it meets on the
 * way. Pure and incremental: the page's worker and the server read with the same code, however long the file
 * is.
 */
export class FileReader {
  header: string[] = [];
  readonly titles: string[] = [];
  rows = 0;
  readonly asides: Record<Aside, number> = { blank: 0, header: 0, total: 0 };
  longer = 0;
  shorter = 0;
  private readonly records: RecordReader;
  private seen = 0;
  private headerKey: string | null = null;
  /**
   * Blank lines are given out only when a line follows: spreadsheets leave them by the hundred at the end.
   */
  private blanks: string[][] = [];

  constructor(private readonly opening: Opening) {
    this.records = new RecordReader(opening);
  }

  push(piece: Uint8Array): TextLine[] {
    return this.lines(this.records.push(piece));
  }

  end(): TextLine[] {
    return this.lines(this.records.end());
  }

  private lines(records: string[][]): TextLine[] {
    const lines: TextLine[] = [];
    for (const record of records) this.take(record, lines);
    return lines;
  }

  private take(record: string[], lines: TextLine[]): void {
    const blank = filled(record) === 0;
    if (blank && this.headerKey === null) return;
    const cells = this.opening.unscramble ? record.map((cell) => unscrambled(cell) ?? cell) : record;
    if (this.headerKey === null) {
      if (this.opening.headerLine === null) this.startWithoutHeader(cells.length);
      else return this.above(cells);
    }
    if (blank) return void this.blanks.push(cells);
    for (const passed of this.blanks.splice(0)) lines.push(this.counted(passed, 'blank'));
    lines.push(this.counted(cells, this.opening.keepAside ? null : this.asideOf(cells)));
  }

  private above(cells: string[]): void {
    if (++this.seen < this.opening.headerLine!)
      return void this.titles.push(cells.filter((cell) => cell.trim() !== '').join(' '));
    const width = cells.findLastIndex((cell) => cell.trim() !== '') + 1;
    this.setHeader(cells.slice(0, Math.max(1, width)).map((cell) => cell.trim()));
  }

  private startWithoutHeader(width: number): void {
    this.setHeader(Array.from({ length: width }, (_none, i) => `Column ${i + 1}`));
  }

  private setHeader(header: string[]): void {
    if (header.length > FILE_LIMITS.columns) {
      throw new Unreadable('file.columns', { columns: header.length, most: FILE_LIMITS.columns });
    }
    this.header = header;
    this.headerKey = keyOf(header);
  }

  private asideOf(cells: string[]): Aside | null {
    if (this.opening.headerLine !== null && keyOf(cells) === this.headerKey) return 'header';
    return isTotal(cells) ? 'total' : null;
  }

  private counted(cells: string[], aside: Aside | null): TextLine {
    this.rows += 1;
    if (this.rows > FILE_LIMITS.rows) {
      throw new Unreadable('file.rows', { most: FILE_LIMITS.rows });
    }
    if (aside) this.asides[aside] += 1;
    else if (
      cells.length > this.header.length &&
      cells.slice(this.header.length).some((cell) => cell.trim() !== '')
    )
      this.longer += 1;
    else if (cells.length < this.header.length) this.shorter += 1;
    return { cells, aside };
  }

  /** What was found; complete after `end`. */
  found(kind: FileFindings['kind'] = 'text'): FileFindings {
    const keys = this.header.map(nameMatchKey);
    const doubled = [
      ...new Set(this.header.filter((name, i) => name !== '' && keys.indexOf(keys[i]!) !== i)),
    ];
    const { encoding, sure, delimiter, separatorLine, headerLine, unscramble } = this.opening;
    const { header, titles, rows, asides, longer, shorter } = this;
    return {
      kind,
      encoding,
      sure,
      delimiter,
      ...(separatorLine ? { separatorLine } : {}),
      headerLine,
      titles,
      header,
      rows,
      unscramble,
      asides,
      longer,
      shorter,
      doubled,
    };
  }
}

function keyOf(cells: readonly string[]): string {
  let filledTo = cells.length;
  while (filledTo > 0 && cells[filledTo - 1]!.trim() === '') filledTo -= 1;
  return cells
    .slice(0, filledTo)
    .map((cell) => cell.trim().toLowerCase())
    .join('\u0000');
}

/** What is said of a file without anybody in it; null where there is somebody. */
export function emptiness(found: Pick<FileFindings, 'header' | 'rows'>): Said | null {
  if (found.header.length === 0) return said('file.nothing');
  return found.rows === 0 ? said('file.nobody') : null;
}
