import {
  allColumns,
  type BatchKind,
  birthColumns,
  cleanRow,
  type ColumnProfile,
  ColumnSampler,
  emptiness,
  FileReader,
  type ParseOptions,
  type FileFindings,
  type SpellingGroup,
  gatherSpellings,
  type Guess,
  guessAll,
  guessEncoding,
  guessKind,
  type IntakePlan,
  isSwapped,
  type KnownField,
  type TextLine,
  menderOf,
  openFile,
  Unreadable,
  withConstants,
} from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { FIRST_BYTES, PREVIEW } from './measures';

/** Rows of the very first look: each that is handed over costs the page a moment. */
const GLIMPSE = 200;
/** Rows up to which a file stays in memory; a longer one is read again for each judgement. */
const KEPT = 100_000;
const PIECE = 4 << 20;
/** Rows judged before looking whether a newer question has come. */
const BREATH = 2000;

export interface Analysis {
  found: FileFindings;
  /** Whether the whole file has been read, or only its start. */
  whole: boolean;
  what: BatchKind;
  /** Rows of the preview with their numbers in the file. */
  preview: { row: number; cells: string[] }[];
  profiles: ColumnProfile[];
  guesses: Guess[];
}

export interface Judgement {
  counted: number;
  ready: number;
  look: number;
  failed: number;
  /** Cells that can't be read, and cells of which there is something to tell, by column. */
  faultsByColumn: number[];
  hintsByColumn: number[];
  /** Of the preview: what is to be said of a cell, under "row:column", rows counted from 1 as in the file. */
  cells: Record<string, { words: string; hint: boolean }>;
  /** The first faults and hints of each column with their rows, for the Margin. */
  first: { row: number; column: number; reason: string; hint: boolean }[];
  failedRows: { row: number; reason: string }[];
  /** Rows in which an address and a number have changed places. */
  swapped: { a: number; b: number; rows: number[]; count: number }[];
  /** Near spellings, by column of choices. */
  spellings: { column: number; gatherings: SpellingGroup[] }[];
}

export type JudgedPlan = Pick<IntakePlan, 'what' | 'columns' | 'constants' | 'mends' | 'phoneCountry'>;

interface House {
  fields: (KnownField & { choices?: string[] | null })[];
  country: string;
  currency: string;
  /** The house's day. */
  today: number;
}

interface Read {
  id: number;
  source: Blob;
  reading: ParseOptions;
  what: BatchKind | null;
  house: House;
}

export type Ask =
  /** The start of a long file, for a preview at once; a file that is soon read has none. */
  ({ kind: 'glimpse' } & Read) | ({ kind: 'read' } & Read) | { kind: 'judge'; id: number; plan: JudgedPlan };

export type WorkerReply =
  | { id: number; ok: true; analysis?: Analysis; judgement?: Judgement; done: boolean }
  | { id: number; ok: false; reason: string };

let newest = 0;
let source: Blob | null = null;
let reading: ParseOptions = {};
let house: House = { fields: [], country: 'US', currency: 'USD', today: 0 };
let kept: TextLine[] | null = null;

const bytesOf = async (blob: Blob) => new Uint8Array(await blob.arrayBuffer());
const breath = () => new Promise<void>((done) => setTimeout(done));

async function* linesOf(
  blob: Blob,
  how: ParseOptions,
): AsyncGenerator<{ reader: FileReader; lines: TextLine[] }> {
  const start = await bytesOf(blob.slice(0, FIRST_BYTES));
  const reader = new FileReader(
    openFile(start, blob.size <= FIRST_BYTES, how, how.encoding ? undefined : await encodingOf(blob, start)),
  );
  for (let at = 0; at < blob.size; at += PIECE)
    yield { reader, lines: reader.push(await bytesOf(blob.slice(at, at + PIECE))) };
  yield { reader, lines: reader.end() };
}

/** As the server does it: valid UTF-8 is looked for to the end. */
async function encodingOf(blob: Blob, start: Uint8Array): Promise<ReturnType<typeof guessEncoding>> {
  const guessed = guessEncoding(
    blob.size <= FIRST_BYTES ? start : start.subarray(0, start.lastIndexOf(10) + 1),
  );
  if (guessed.encoding !== 'utf-8' || blob.size <= FIRST_BYTES) return guessed;
  const decoder = new TextDecoder('utf-8', { fatal: true });
  try {
    for (let at = 0; at < blob.size; at += PIECE)
      decoder.decode(await bytesOf(blob.slice(at, at + PIECE)), { stream: true });
    decoder.decode();
    return guessed;
  } catch {
    return { encoding: 'mixed', sure: false };
  }
}

class Survey {
  private readonly samplers: ColumnSampler[] = [];
  readonly preview: Analysis['preview'] = [];
  private row = 0;

  constructor(private readonly most = PREVIEW) {}

  take(reader: FileReader, lines: readonly TextLine[]): void {
    for (const { cells, aside } of lines) {
      this.row += 1;
      if (aside !== null) continue;
      if (this.preview.length < this.most) this.preview.push({ row: this.row, cells });
      reader.header.forEach((_name, i) => (this.samplers[i] ??= new ColumnSampler()).add(cells[i]));
    }
  }

  analysis(reader: FileReader, whole: boolean, chosen: BatchKind | null): Analysis {
    const found = reader.found();
    const profiles = found.header.map((_name, i) =>
      (this.samplers[i] ?? new ColumnSampler()).profile(house.country),
    );
    const what = chosen ?? guessKind(found.header, profiles);
    return {
      found,
      whole,
      what,
      preview: this.preview,
      profiles,
      guesses: guessAll(found.header, profiles, house.fields, what),
    };
  }
}

async function read(ask: Read): Promise<void> {
  [source, reading, house, kept] = [ask.source, ask.reading, ask.house, []];
  const survey = new Survey();
  let last: FileReader | null = null;
  for await (const { reader, lines } of linesOf(ask.source, ask.reading)) {
    if (ask.id !== newest) return;
    last = reader;
    survey.take(reader, lines);
    if (kept) kept = kept.length + lines.length > KEPT ? null : [...kept, ...lines];
  }
  const analysis = survey.analysis(last!, true, ask.what);
  const empty = emptiness(analysis.found);
  self.postMessage(
    empty ? { id: ask.id, ok: false, reason: speak(empty) } : { id: ask.id, ok: true, analysis, done: true },
  );
}

async function glimpse(ask: Read): Promise<void> {
  house = ask.house;
  const start = await bytesOf(ask.source.slice(0, FIRST_BYTES));
  const reader = new FileReader(openFile(start, false, ask.reading));
  const survey = new Survey(GLIMPSE);
  survey.take(reader, reader.push(start.subarray(0, start.lastIndexOf(10) + 1)));
  const analysis = reader.header.length > 0 ? survey.analysis(reader, false, ask.what) : undefined;
  self.postMessage({ id: ask.id, ok: true, ...(analysis ? { analysis } : {}), done: true });
}

async function* keptOrRead(): AsyncGenerator<TextLine[]> {
  if (kept) for (let at = 0; at < kept.length; at += BREATH) yield kept.slice(at, at + BREATH);
  else if (source)
    for await (const { lines } of linesOf(source, reading))
      for (let at = 0; at < lines.length; at += BREATH) yield lines.slice(at, at + BREATH);
}

/**
 * Judges every row by the plan; stops as soon as a newer question has come, and says how far it is on the
 * way.
 */
async function judge(ask: Extract<Ask, { kind: 'judge' }>): Promise<void> {
  const { plan } = ask;
  const judge = new Judge(plan);
  let told = Date.now();
  for await (const lines of keptOrRead()) {
    for (const line of lines) judge.take(line);
    await breath();
    if (ask.id !== newest) return;
    if (Date.now() - told > 700) {
      told = Date.now();
      self.postMessage({ id: ask.id, ok: true, judgement: judge.result(), done: false });
    }
  }
  self.postMessage({ id: ask.id, ok: true, judgement: judge.result(), done: true });
}

class Judge {
  private readonly columns;
  private readonly country;
  private readonly births;
  private readonly mend;
  private readonly pairs: Judgement['swapped'];
  private readonly choices: { column: number; counts: Map<string, number> }[];
  private row = 0;
  /** Cells that something is said of, so far. */
  private told = 0;
  private readonly out: Judgement;

  constructor(private readonly plan: JudgedPlan) {
    this.columns = allColumns(plan);
    this.country = plan.phoneCountry ?? house.country;
    this.mend = menderOf(plan.mends, plan.columns, this.country);
    this.births = birthColumns(this.columns, house.fields);
    const at = (to: string) => plan.columns.flatMap((choice, i) => (choice.to === to ? [i] : []));
    this.pairs = at('email').flatMap((a) => at('mobile').map((b) => ({ a, b, rows: [], count: 0 })));
    this.choices = plan.columns.flatMap((choice, column) =>
      (choice.to === 'field' || choice.to === 'newField') && choice.type === 'choice'
        ? [{ column, counts: new Map<string, number>() }]
        : [],
    );
    const none = () => this.columns.map(() => 0);
    this.out = {
      ...{
        counted: 0,
        ready: 0,
        look: 0,
        failed: 0,
        faultsByColumn: none(),
        hintsByColumn: none(),
        cells: {},
      },
      ...{ first: [], failedRows: [], swapped: [], spellings: [] },
    };
  }

  take({ cells: raw, aside }: TextLine): void {
    this.row += 1;
    if (aside !== null) return;
    const { out, row } = this;
    const cells = this.mend(raw, row - 1);
    const clean = cleanRow(withConstants(cells, this.plan), {
      what: this.plan.what,
      columns: this.columns,
      country: this.country,
      currency: house.currency,
      today: house.today,
      births: this.births,
    });
    out.counted += 1;
    if (clean.fatal) out.failed += 1;
    else if (clean.faults.length > 0) out.look += 1;
    else out.ready += 1;
    if (clean.fatal && out.failedRows.length < 5) out.failedRows.push({ row, reason: speak(clean.fatal) });
    for (const fault of clean.faults) this.tell(fault.column, speak(fault.reason), false);
    for (const hint of clean.hints) this.tell(hint.column, speak(hint.reason), true);
    if (clean.faults.length > 0) this.seek(cells);
    for (const { column, counts } of this.choices) {
      const word = cells[column]?.trim() ?? '';
      if (word !== '' && (counts.size < 300 || counts.has(word)))
        counts.set(word, (counts.get(word) ?? 0) + 1);
    }
  }

  private tell(column: number, reason: string, hint: boolean): void {
    const { out, row } = this;
    (hint ? out.hintsByColumn : out.faultsByColumn)[column]! += 1;
    if (this.told < 4000 && !(`${row}:${column}` in out.cells)) {
      this.told += 1;
      out.cells[`${row}:${column}`] = { words: reason, hint };
    }
    if (out.first.filter((one) => one.column === column && one.hint === hint).length < 3)
      out.first.push({ row, column, reason, hint });
  }

  private seek(cells: readonly string[]): void {
    for (const pair of this.pairs) {
      if (!isSwapped(cells, pair.a, pair.b, this.plan.columns, this.country)) continue;
      pair.count += 1;
      if (pair.rows.length < 5) pair.rows.push(this.row);
    }
  }

  result(): Judgement {
    const known = (column: number) => {
      const choice = this.plan.columns[column]!;
      return choice.to === 'field'
        ? (house.fields.find((field) => field.id === choice.fieldId)?.choices ?? [])
        : [];
    };
    const spellings = this.choices
      .map(({ column, counts }) => ({ column, gatherings: gatherSpellings(counts, known(column)) }))
      .filter(({ gatherings }) => gatherings.length > 0);
    return { ...this.out, swapped: this.pairs.filter(({ count }) => count > 0), spellings };
  }
}

self.onmessage = (event: MessageEvent<Ask>) => {
  const ask = event.data;
  newest = ask.id;
  const work = { glimpse, read, judge }[ask.kind] as (ask: Ask) => Promise<void>;
  work(ask).catch((error: unknown) =>
    self.postMessage({
      id: ask.id,
      ok: false,
      reason: error instanceof Unreadable ? speak(error.said) : (error as Error).message,
    } satisfies WorkerReply),
  );
};
