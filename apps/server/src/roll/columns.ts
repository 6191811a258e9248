import { Bits } from '@goodword/core/common';
import { STATES } from '@goodword/core/permission';
import { narrowAmounts, NO_DAY, runningTotals, type Column } from '@goodword/core/segment';

/** A row of a column's query: the supporter's id, and what is known of them. */
export type ColumnRow = readonly unknown[];

/**
 * A column that is kept: filled row by row, mended for single people, larger when there are more people.
 * After rows were put, `finish` makes it readable again. The version grows with every change, so that what
 * was worked out from the column is known to be old.
 */
export interface MaterializedColumn {
  readonly column: Column;
  version: number;
  readonly bytes: number;
  grow(size: number): void;
  /** Takes away what is known of these, before it is read anew. */
  reset(ordinals: readonly number[]): void;
  put(ordinal: number, row: ColumnRow): void;
  finish(): void;
}

const SLACK = 1 << 12;

/**
 * Versions are never used twice: a column that was dropped and read again must not pass for the one before.
 */
let versions = 0;
export const newVersion = () => ++versions;

type Values = Float64Array | Int32Array | Uint32Array | Uint16Array | Uint8Array;

/** One number for each: how each kind of column keeps it, and what stands for "nothing known". */
abstract class ValuesColumn<A extends Values> implements MaterializedColumn {
  version = newVersion();
  protected values: A;

  constructor(
    private readonly Kind: new (length: number) => A,
    private readonly missing: number,
    size: number,
  ) {
    this.values = this.blank(size + SLACK);
  }

  abstract readonly column: Column;
  protected abstract valueOf(row: ColumnRow): number;

  get bytes(): number {
    return this.values.byteLength;
  }

  grow(size: number): void {
    if (size <= this.values.length) return;
    const larger = this.blank(Math.ceil(size * 1.05) + SLACK);
    larger.set(this.values as never);
    this.values = larger;
  }

  reset(ordinals: readonly number[]): void {
    for (const ordinal of ordinals) this.values[ordinal] = this.missing;
  }

  put(ordinal: number, row: ColumnRow): void {
    this.values[ordinal] = this.valueOf(row);
  }

  finish(): void {
    this.version = newVersion();
  }

  private blank(length: number): A {
    const values = new this.Kind(length);
    return this.missing === 0 ? values : (values.fill(this.missing) as A);
  }
}

export class NumbersColumn extends ValuesColumn<Float64Array> {
  constructor(size: number) {
    super(Float64Array, NaN, size);
  }
  get column(): Column {
    return { kind: 'number', values: this.values };
  }
  protected valueOf(row: ColumnRow): number {
    return row[1] === null ? NaN : Number(row[1]);
  }
}

export class DaysColumn extends ValuesColumn<Int32Array> {
  constructor(size: number) {
    super(Int32Array, NO_DAY, size);
  }
  get column(): Column {
    return { kind: 'day', values: this.values };
  }
  protected valueOf(row: ColumnRow): number {
    return row[1] === null ? NO_DAY : Number(row[1]);
  }
}

export class MonthDaysColumn extends ValuesColumn<Uint16Array> {
  constructor(size: number) {
    super(Uint16Array, 0, size);
  }
  get column(): Column {
    return { kind: 'monthDay', values: this.values };
  }
  protected valueOf(row: ColumnRow): number {
    return Number(row[1] ?? 0);
  }
}

/** Accents and case make no difference. */
export function folded(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}

/** Words by dictionary; one that nobody has any more stays in it, which costs nothing but its letters. */
export class TextsColumn extends ValuesColumn<Uint32Array> {
  readonly dictionary: string[] = [''];
  private readonly foldedWords: string[] = [];
  private readonly codeOf = new Map<string, number>([['', 0]]);

  constructor(size: number) {
    super(Uint32Array, 0, size);
  }
  get column(): Column {
    return { kind: 'text', codes: this.values, dictionary: this.dictionary };
  }
  get codes(): Uint32Array {
    return this.values;
  }
  /** The dictionary without case and accents; made when it is first asked for, and longer as it grows. */
  get plain(): readonly string[] {
    for (let code = this.foldedWords.length; code < this.dictionary.length; code++)
      this.foldedWords.push(folded(this.dictionary[code]!));
    return this.foldedWords;
  }
  override get bytes(): number {
    return this.values.byteLength + this.dictionary.length * 100;
  }
  protected valueOf(row: ColumnRow): number {
    const word = String((row[1] as string | number | null) ?? '')
      .trim()
      .toLowerCase();
    let code = this.codeOf.get(word);
    if (code === undefined) {
      code = this.dictionary.push(word) - 1;
      this.codeOf.set(word, code);
    }
    return code;
  }
}

export class StagesColumn extends ValuesColumn<Uint8Array> {
  private readonly stages: string[] = [];

  constructor(size: number) {
    super(Uint8Array, 0, size);
  }
  get column(): Column {
    return { kind: 'stage', codes: this.values, stages: this.stages };
  }
  protected valueOf(row: ColumnRow): number {
    const stage = String(row[1]);
    const known = this.stages.indexOf(stage);
    return known >= 0 ? known + 1 : this.stages.push(stage);
  }
}

/** Permission states by their place in STATES; of whom nothing is said was never asked. */
export class StatesColumn extends ValuesColumn<Uint8Array> {
  constructor(size: number) {
    super(Uint8Array, STATES.indexOf('never'), size);
  }
  get column(): Column {
    return { kind: 'state', codes: this.values };
  }
  protected valueOf(row: ColumnRow): number {
    return Number(row[1]);
  }
}

export class BitsColumn implements MaterializedColumn {
  version = newVersion();
  private bits: Bits;

  constructor(size: number) {
    this.bits = new Bits(size);
  }
  get column(): Column {
    return { kind: 'bits', bits: this.bits };
  }
  get bytes(): number {
    return this.bits.words.byteLength;
  }
  grow(size: number): void {
    if (size > this.bits.size) this.bits = this.bits.grown(size);
  }
  /** Sets that were handed out stay as they were: lines over this column are kept as results. */
  reset(ordinals: readonly number[]): void {
    this.bits = this.bits.grown(this.bits.size);
    for (const ordinal of ordinals) this.bits.remove(ordinal);
  }
  put(ordinal: number): void {
    this.bits.add(ordinal);
  }
  finish(): void {
    this.version = newVersion();
  }
}

/** A growing list of three numbers a row: whose, and two facts. */
class Facts {
  length = 0;
  ordinals = new Uint32Array(SLACK);
  days = new Int32Array(SLACK);
  others = new Float64Array(SLACK);

  push(ordinal: number, day: number, other: number): void {
    if (this.length === this.ordinals.length) this.enlarge();
    this.ordinals[this.length] = ordinal;
    this.days[this.length] = day;
    this.others[this.length++] = other;
  }

  private enlarge(): void {
    const grown = <A extends Values>(old: A): A => {
      const larger = new (old.constructor as new (length: number) => A)(old.length * 2);
      larger.set(old as never);
      return larger;
    };
    [this.ordinals, this.days, this.others] = [grown(this.ordinals), grown(this.days), grown(this.others)];
  }
}

/** Any number of facts for each, one behind the other: gifts (day, amount) and messages (day, which). */
export class RunsColumn implements MaterializedColumn {
  version = newVersion();
  private starts: Uint32Array;
  private days = new Int32Array(0);
  private others: Float64Array | Int32Array | Uint32Array;
  /** Running totals of amounts that are kept in 32 bits. */
  private running: Int32Array | undefined;
  private fresh = new Facts();
  private readonly anew = new Set<number>();

  constructor(
    private readonly kind: 'gifts' | 'messages',
    private size: number,
  ) {
    this.starts = new Uint32Array(size + 1);
    this.others = this.blank(0);
  }

  get column(): Column {
    return this.kind === 'gifts'
      ? {
          kind: 'gifts',
          starts: this.starts,
          days: this.days,
          amounts: this.others as Float64Array | Int32Array,
          ...(this.running ? { running: this.running } : {}),
        }
      : { kind: 'messages', starts: this.starts, days: this.days, messageIds: this.others as Uint32Array };
  }

  get bytes(): number {
    return (
      this.starts.byteLength + this.days.byteLength + this.others.byteLength + (this.running?.byteLength ?? 0)
    );
  }

  grow(size: number): void {
    if (size <= this.size) return;
    const starts = new Uint32Array(size + 1).fill(this.starts[this.size]!);
    starts.set(this.starts);
    [this.starts, this.size] = [starts, size];
  }

  reset(ordinals: readonly number[]): void {
    for (const ordinal of ordinals) this.anew.add(ordinal);
  }

  put(ordinal: number, row: ColumnRow): void {
    this.fresh.push(ordinal, Number(row[1]), Number(row[2]));
  }

  /**
   * Writes the runs anew: those of people who were read again from what was read, all others as they were.
   */
  finish(): void {
    const { fresh, anew } = this;
    const counts = new Uint32Array(this.size + 1);
    for (let i = 0; i < this.size; i++)
      if (!anew.has(i)) counts[i + 1] = this.starts[i + 1]! - this.starts[i]!;
    for (let f = 0; f < fresh.length; f++) counts[fresh.ordinals[f]! + 1]!++;
    for (let i = 0; i < this.size; i++) counts[i + 1]! += counts[i]!;
    const total = counts[this.size]!;
    const [days, others, at] = [new Int32Array(total), this.blank(total), counts.slice()];
    for (let i = 0; i < this.size && this.days.length > 0; i++) {
      if (anew.has(i)) continue;
      for (let k = this.starts[i]!; k < this.starts[i + 1]!; k++) {
        const to = at[i]!++;
        days[to] = this.days[k]!;
        others[to] = this.others[k]!;
      }
    }
    for (let f = 0; f < fresh.length; f++) {
      const to = at[fresh.ordinals[f]!]!++;
      days[to] = fresh.days[f]!;
      others[to] = fresh.others[f]!;
    }
    const kept = others instanceof Float64Array ? narrowAmounts(counts, others) : others;
    this.running = kept instanceof Int32Array ? runningTotals(kept) : undefined;
    [this.starts, this.days, this.others, this.fresh] = [counts, days, kept, new Facts()];
    anew.clear();
    this.version = newVersion();
  }

  private blank(length: number): Float64Array | Uint32Array {
    return this.kind === 'gifts' ? new Float64Array(length) : new Uint32Array(length);
  }
}
