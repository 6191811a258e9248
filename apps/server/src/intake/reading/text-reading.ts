import { createWriteStream } from 'node:fs';
import { once } from 'node:events';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Papa from 'papaparse';
import {
  CardReader,
  ColumnSampler,
  emptiness,
  FILE_LIMITS,
  FileReader,
  guessAll,
  guessEncoding,
  guessKind,
  natureOf,
  notASheet,
  openFile,
  tableOfCards,
  Unreadable,
  type BatchKind,
  type CardRow,
  type Encoding,
  type ParseOptions,
  type FileFindings,
  type Guess,
  type KnownField,
  type TextLine,
  type Opening,
  type Workbook,
} from '@goodword/core/intake';
import type { Storage } from '../../platform/storage';
import { workbookToCsv } from './workbook';

/** A batch's file as text that is read line by line, and what was found in it. */
export interface TextReading {
  textKey: string;
  found: FileFindings;
  guesses: Guess[];
  what: BatchKind;
}

/** How much of the start tells the encoding where the whole is not valid UTF-8. */
const SAMPLE = 2 << 20;

async function startOf(storage: Storage, key: string, size: number): Promise<Uint8Array> {
  const pieces: Uint8Array[] = [];
  let length = 0;
  for await (const piece of storage.pieces(key)) {
    pieces.push(piece);
    length += piece.length;
    if (length >= size) break;
  }
  return Buffer.concat(pieces).subarray(0, size);
}

/**
 * The encoding of a whole file: valid UTF-8 is looked for to the end, everything else is told from the start.
 */
async function encodingOf(
  storage: Storage,
  key: string,
  start: Uint8Array,
): Promise<{ encoding: Encoding; sure: boolean }> {
  const guessed = guessEncoding(start.length < SAMPLE ? start : start.subarray(0, start.lastIndexOf(10) + 1));
  if (guessed.encoding !== 'utf-8') return guessed;
  const decoder = new TextDecoder('utf-8', { fatal: true });
  try {
    for await (const piece of storage.pieces(key)) decoder.decode(piece, { stream: true });
    decoder.decode();
    return guessed;
  } catch {
    return { encoding: 'mixed', sure: false };
  }
}

/** How a batch's text is opened: as a person chose, else as it is found. */
export async function openingOf(storage: Storage, textKey: string, reading: ParseOptions): Promise<Opening> {
  const start = await startOf(storage, textKey, SAMPLE);
  return openFile(
    start,
    start.length < SAMPLE,
    reading,
    reading.encoding ? undefined : await encodingOf(storage, textKey, start),
  );
}

/** The lines of a batch's text, some thousand at a time. */
export async function* textLines(
  storage: Storage,
  textKey: string,
  opening: Opening,
): AsyncGenerator<TextLine[]> {
  const reader = new FileReader(opening);
  for await (const piece of storage.pieces(textKey)) yield reader.push(piece);
  yield reader.end();
}

/**
 * Reads a file through once: turns a workbook or cards into text, finds out how it is to be read, what its
 * columns are and what it is for.
 * @throws Unreadable with what is to be said.
 */
export async function readThrough(
  storage: Storage,
  file: { storageKey: string; reading: ParseOptions },
  known: { fields: readonly KnownField[]; country: string; what: BatchKind | null },
): Promise<TextReading> {
  const start = await startOf(storage, file.storageKey, 64 * 1024);
  const nature = natureOf(start);
  const refused = notASheet(nature);
  if (refused) throw new Unreadable(refused.code, refused.values);
  const text: { key: string; workbook?: Workbook } =
    nature === 'workbook'
      ? await fromWorkbook(storage, file)
      : nature === 'vcard'
        ? await fromCards(storage, file.storageKey)
        : { key: file.storageKey };
  const own =
    nature === 'text'
      ? file.reading
      : { ...file.reading, encoding: 'utf-8' as const, delimiter: ',' as const };
  const reader = new FileReader(
    await openingOf(storage, text.key, nature === 'vcard' ? { ...own, headerLine: 1 } : own),
  );
  const samplers: ColumnSampler[] = [];
  const take = (lines: TextLine[]) => {
    for (const { cells, aside } of lines) {
      if (aside === null)
        reader.header.forEach((_name, i) => (samplers[i] ??= new ColumnSampler()).add(cells[i]));
    }
  };
  for await (const piece of storage.pieces(text.key)) take(reader.push(piece));
  take(reader.end());
  const found = {
    ...reader.found(nature === 'text' ? 'text' : nature === 'vcard' ? 'vcard' : 'workbook'),
    ...(text.workbook ? { workbook: text.workbook } : {}),
  };
  const empty = emptiness(found);
  if (empty) throw new Unreadable(empty.code, empty.values);
  const profiles = found.header.map((_name, i) =>
    (samplers[i] ?? new ColumnSampler()).profile(known.country),
  );
  const what = known.what ?? guessKind(found.header, profiles);
  return { textKey: text.key, found, guesses: guessAll(found.header, profiles, known.fields, what), what };
}

async function inFolder<T>(work: (folder: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), 'gather-'));
  try {
    return await work(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function write(path: string, pieces: AsyncIterable<Uint8Array> | Iterable<string>): Promise<void> {
  const out = createWriteStream(path);
  for await (const piece of pieces) if (!out.write(piece)) await once(out, 'drain');
  out.end();
  await once(out, 'finish');
}

async function fromWorkbook(storage: Storage, file: { storageKey: string; reading: ParseOptions }) {
  return inFolder(async (folder) => {
    const [input, output] = [join(folder, 'workbook'), join(folder, 'sheet.csv')];
    await write(input, storage.pieces(file.storageKey));
    if ((await stat(input)).size > FILE_LIMITS.sheetBytes) {
      throw new Unreadable('file.workbook-large', {
        most: FILE_LIMITS.sheetBytes / 1024 / 1024,
        text: FILE_LIMITS.bytes / 1024 / 1024,
      });
    }
    const workbook = await workbookToCsv(
      input,
      output,
      file.reading.sheet === undefined ? null : file.reading.sheet - 1,
    );
    return { key: await storage.adopt(output), workbook };
  });
}

/** Cards as a table; read twice, since the header has only the columns that some card fills. */
async function fromCards(storage: Storage, key: string): Promise<{ key: string }> {
  const cards: CardRow[] = [];
  const reader = new CardReader(await startOf(storage, key, 64 * 1024));
  for await (const piece of storage.pieces(key)) cards.push(...reader.push(piece));
  cards.push(...reader.end());
  if (cards.length === 0) throw new Unreadable('card.nothing');
  const { header, rows } = tableOfCards(cards);
  return inFolder(async (folder) => {
    const path = join(folder, 'cards.csv');
    await write(
      path,
      (function* () {
        yield `${Papa.unparse([header])}\r\n`;
        for (let at = 0; at < rows.length; at += 1000)
          yield `${Papa.unparse(rows.slice(at, at + 1000), { newline: '\r\n' })}\r\n`;
      })(),
    );
    return { key: await storage.adopt(path) };
  });
}
