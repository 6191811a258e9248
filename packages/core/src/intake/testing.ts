/* Whole files and columns at once, for tests: the program reads both in pieces. */
import { said, type Said } from '../common';
import type { ColumnChoice } from './columns';
import { decoderOf, guessEncoding, type Encoding } from './encoding';
import { natureOf, notASheet } from './file';
import { guessAll, type KnownField } from './guess';
import { ColumnSampler, type ColumnProfile } from './column-profile';
import type { Delimiter, FileFindings, ParseOptions } from './reading';
import { Unreadable } from './records';
import type { BatchKind } from './row';
import { emptiness, FileReader, openFile } from './shape';

/** A table of texts, header first where it has one. */
export interface Sheet {
  header: string[];
  /** Cells of each row under the header; a row may be shorter or longer than the header. */
  rows: string[][];
  delimiter: Delimiter;
}

/** A file read whole: its sheet and what was found, or why it cannot be read. */
export type ReadFile = { ok: true; sheet: Sheet; found: FileFindings } | { ok: false; reason: Said };

/** A file's text with the encoding that it was read by. */
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

/** Profiles a column that is wholly there. */
export function profileColumn(values: readonly string[], country: string): ColumnProfile {
  const sampler = new ColumnSampler();
  for (const value of values) sampler.add(value);
  return sampler.profile(country);
}

/** What all columns of a table become, from the header and its rows, without a sampler of one's own. */
export function guessColumns(
  header: readonly string[],
  profiles: readonly ColumnProfile[],
  fields: readonly KnownField[],
  what: BatchKind = 'people',
): ColumnChoice[] {
  return guessAll(header, profiles, fields, what).map(({ choice }) => choice);
}
