import { said, type Code, type Said } from '../common';
import Papa from 'papaparse';
import { decoderOf, type Decoder, type Encoding } from './encoding';
import type { Delimiter } from './reading';

/**
 * A line of more characters is none of a table; a quote that is opened and not closed within as many is a
 * mistake.
 */
const LONGEST_LINE = 1_000_000;
const LONGEST_CELL = 100_000;
const MOST_CELLS = 10_000;

/**
 * One mailbox a line (RFC 5322, 3.4), its name in quotes: no cells with separators, though the names have
 * such in them.
 */
const MAILBOX = /^(?:"[^"]{0,200}"|[^"<>]{0,200})\s{0,9}<[^<>\s]{1,320}>[,;]?$/;
const SAMPLE_LINES = 20;

function areMailboxes(text: string, whole: boolean): boolean {
  const all = text.slice(0, 20_000).split(/\r\n|\n|\r/);
  // The last may be cut.
  const lines = (whole && text.length <= 20_000 ? all : all.slice(0, -1))
    .map((line) => line.trim())
    .filter(Boolean)
    .slice(0, SAMPLE_LINES);
  // Without a quote these are read as a table of one column anyway.
  return lines.some((line) => line.startsWith('"')) && lines.every((line) => MAILBOX.test(line));
}

/** A file that can't be read further, in a sentence that says where. */
export class Unreadable extends Error {
  readonly said: Said;

  constructor(code: Code, values: Said['values'] = {}) {
    super(code);
    this.said = said(code, values);
  }
}

interface Parser {
  parse(
    input: string,
    base: number,
    ignoreLast: boolean,
  ): { data: string[][]; errors: { type: string; row?: number }[]; meta: { cursor: number } };
}
const makeParser = (config: object): Parser =>
  new (Papa as unknown as { Parser: new (config: object) => Parser }).Parser(config);

/**
 * Reads records by RFC 4180 from bytes that come in pieces: quoted cells with separators, line ends and
 * doubled quotes in them. Holds no more than a piece and the record that is cut by its end.
 */
export class RecordReader {
  private readonly decoder: Decoder;
  private readonly delimiter: string;
  private parser: Parser | null = null;
  private pending = '';
  private count = 0;
  private first = true;
  private mailboxes = false;

  constructor(reading: { encoding: Encoding; delimiter: Delimiter }) {
    this.decoder = decoderOf(reading.encoding);
    this.delimiter = reading.delimiter;
  }

  push(piece: Uint8Array): string[][] {
    return this.read(this.decoder.decode(piece), false);
  }

  end(): string[][] {
    return this.read(this.decoder.end(), true);
  }

  private read(text: string, last: boolean): string[][] {
    this.pending += text;
    if (this.first) this.pending = withoutSeparatorLine(this.pending);
    if (this.first) this.mailboxes = areMailboxes(this.pending, last);
    if (this.pending === '') return [];
    this.first = false;
    const newline = this.newline();
    // A lone carriage return at the end of a piece may be half of a line end.
    if (!last && this.pending.endsWith('\r')) return [];
    if (this.mailboxes) return this.lines(newline, last);
    this.parser ??= makeParser({ delimiter: this.delimiter, newline, quoteChar: '"' });
    const { data, errors, meta } = this.parser.parse(this.pending, 0, !last);
    this.pending = last ? '' : this.pending.slice(meta.cursor);
    const unclosed = errors.find((error) => error.type === 'Quotes');
    if (unclosed || (this.pending.length > LONGEST_LINE && this.pending.includes('"'))) {
      throw new Unreadable('line.quote', { line: this.count + (unclosed?.row ?? data.length) + 1 });
    }
    if (this.pending.length > LONGEST_LINE)
      throw this.tooLong(data.length, 'line.long', { most: LONGEST_LINE });
    data.forEach((record, i) => this.bound(record, i));
    this.count += data.length;
    if (last && data.length > 0 && data.at(-1)!.length === 1 && data.at(-1)![0] === '') data.pop();
    return newline === '\n' ? data.map(withoutReturn) : data;
  }

  private lines(newline: string, last: boolean): string[][] {
    const lines = this.pending.split(newline);
    this.pending = last ? '' : lines.pop()!;
    if (this.pending.length > LONGEST_LINE)
      throw this.tooLong(lines.length, 'line.long', { most: LONGEST_LINE });
    if (last && lines.at(-1)?.trim() === '') lines.pop();
    const data = lines.map((line) => [line.trim().replace(/[,;]$/, '')]);
    data.forEach((record, i) => this.bound(record, i));
    this.count += data.length;
    return data;
  }

  /** What is no table is told by where it stops being one, before it has cost anything. */
  private bound(record: readonly string[], i: number): void {
    if (record.length > MOST_CELLS) throw this.tooLong(i, 'line.cells', { cells: record.length });
    const long = record.findIndex((cell) => cell.length > LONGEST_CELL);
    if (long >= 0)
      throw this.tooLong(i, 'line.cell-long', { length: record[long]!.length, column: long + 1 });
  }

  private tooLong(i: number, code: Code, values: Said['values']): Unreadable {
    return new Unreadable(code, { ...values, line: this.count + i + 1 });
  }

  private newline(): string {
    return this.pending.includes('\n') || !this.pending.includes('\r') ? '\n' : '\r';
  }
}

/** A first line such as `sep=;` names the separator to some programs and is no record. */
export function withoutSeparatorLine(text: string): string {
  const start = text.startsWith('\ufeff') ? text.slice(1) : text;
  const named = SEPARATOR_LINE.exec(start);
  return named ? start.slice(named[0].length) : start;
}
/** A first line that names the separator, as spreadsheets write it: `sep=;` (common practice). */
export const SEPARATOR_LINE = /^"?sep=([,;|\t])"?(?:\r\n|\r|\n)/i;

function withoutReturn(record: string[]): string[] {
  const end = record.length - 1;
  if (record[end]!.endsWith('\r')) record[end] = record[end]!.slice(0, -1);
  return record;
}
