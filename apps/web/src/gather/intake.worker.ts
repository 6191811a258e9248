import {
  cleanRow,
  guessColumns,
  profileColumn,
  readFile,
  type ColumnChoice,
  type ColumnProfile,
  type Delimiter,
  type Encoding,
  type FileReading,
  type KnownField,
} from '@goodword/core/intake';

/** Rows that are shown under the columns. */
const PREVIEW = 200;

export interface Analysis {
  header: string[];
  rows: number;
  delimiter: Delimiter;
  encoding: Encoding;
  /** Whether the encoding is known; a guess is shown as one. */
  sure: boolean;
  preview: string[][];
  profiles: ColumnProfile[];
  guess: ColumnChoice[];
}

export interface Judgement {
  ready: number;
  look: number;
  failed: number;
  /** Cells that can't be read, by column. */
  faultsByColumn: number[];
  /** Of the preview: what is wrong with a cell, under "row:column". */
  cells: Record<string, string>;
  /** The first faults with their rows, for the Margin. */
  first: { row: number; column: number; reason: string }[];
  failedRows: { row: number; reason: string }[];
}

export type Ask =
  | { kind: 'read'; id: number; source: Blob; reading: FileReading; fields: KnownField[]; country: string }
  | { kind: 'judge'; id: number; columns: ColumnChoice[]; country: string };

export type Answer = { id: number; ok: true; analysis?: Analysis; judgement?: Judgement } | { id: number; ok: false; reason: string };

let sheet: { header: string[]; rows: string[][] } | null = null;

async function read(ask: Extract<Ask, { kind: 'read' }>): Promise<Answer> {
  const result = readFile(new Uint8Array(await ask.source.arrayBuffer()), ask.reading);
  if (!result.ok) return { id: ask.id, ok: false, reason: result.reason };
  sheet = result.sheet;
  const { header, rows, delimiter } = result.sheet;
  const { encoding, sure } = result;
  const profiles = header.map((_name, column) =>
    profileColumn(
      rows.map((row) => row[column] ?? ''),
      ask.country,
    ),
  );
  return {
    id: ask.id,
    ok: true,
    analysis: {
      header,
      rows: rows.length,
      delimiter,
      encoding,
      sure,
      preview: rows.slice(0, PREVIEW),
      profiles,
      guess: guessColumns(header, profiles, ask.fields),
    },
  };
}

function judge(ask: Extract<Ask, { kind: 'judge' }>): Answer {
  const out: Judgement = { ready: 0, look: 0, failed: 0, faultsByColumn: ask.columns.map(() => 0), cells: {}, first: [], failedRows: [] };
  (sheet?.rows ?? []).forEach((cells, i) => {
    const row = cleanRow(cells, ask.columns, ask.country);
    if (row.fatal) out.failed += 1;
    else if (row.faults.length > 0) out.look += 1;
    else out.ready += 1;
    if (row.fatal && out.failedRows.length < 5) out.failedRows.push({ row: i + 1, reason: row.fatal });
    for (const fault of row.faults) {
      out.faultsByColumn[fault.column]! += 1;
      if (i < PREVIEW) out.cells[`${i}:${fault.column}`] = fault.reason;
      if (out.first.filter((one) => one.column === fault.column).length < 3)
        out.first.push({ row: i + 1, column: fault.column, reason: fault.reason });
    }
  });
  return { id: ask.id, ok: true, judgement: out };
}

self.onmessage = (event: MessageEvent<Ask>) => {
  const ask = event.data;
  if (ask.kind === 'judge') return self.postMessage(judge(ask));
  void read(ask).then(
    (answer) => self.postMessage(answer),
    (error: unknown) =>
      self.postMessage({ id: ask.id, ok: false, reason: `The file could not be read: ${(error as Error).message}` } satisfies Answer),
  );
};
