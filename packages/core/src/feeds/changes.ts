/** What a feed remembers of one record: what it said last, and when somebody first came by it. */
export interface KnownRecord {
  /** Digest of all cells that are taken. */
  digest: string;
  /** Digest of the cells about permission alone. */
  says: string;
  /** ISO day. */
  firstOn: string;
  /** Whom it is; null where it was not taken. */
  supporterId: number | null;
  /** It was there and is no longer; whoever comes again is known again. */
  isGone: boolean;
  /** Whom it was asked to have everything erased: they are not brought again by what is still over there. */
  isErased: boolean;
}

/** What one record comes to in a run. */
export interface ChangedRecord {
  key: string;
  cells: string[];
  digest: string;
  says: string;
  known: KnownRecord | null;
}

/** Counts of what a source gave. */
export interface SeenCounts {
  fresh: number;
  changed: number;
  same: number;
  /** Records without a key, and further ones of a key. */
  unkeyed: number;
  repeated: number;
}

/**
 * Compares what a source gives with what is known of it, record by record. A word about permission that is
 * the same as before is not said again: a no that still stands over there is no new no, and would otherwise
 * undo what somebody agreed to here in the meantime.
 */
export class RecordComparison {
  readonly counts: SeenCounts = { fresh: 0, changed: 0, same: 0, unkeyed: 0, repeated: 0 };
  private readonly seen = new Set<string>();

  /** @param permissionAt places of the columns about permission among the cells */
  constructor(
    private readonly known: ReadonlyMap<string, KnownRecord>,
    private readonly permissionAt: readonly number[],
    private readonly digestOf: (cells: readonly string[]) => string,
    private readonly today: string,
  ) {}

  /** The record where it is new or says something else than before, with its cells as they are to be read. */
  take(key: string, cells: readonly string[]): ChangedRecord | null {
    const name = key.trim();
    if (name === '') return this.count('unkeyed');
    if (this.seen.has(name)) return this.count('repeated');
    this.seen.add(name);
    const known = this.known.get(name) ?? null;
    const digest = this.digestOf(cells);
    if (known?.isErased || (known?.digest === digest && !known.isGone)) return this.count('same');
    const says = this.digestOf(this.permissionAt.map((at) => cells[at] ?? ''));
    this.count(known && !known.isGone ? 'changed' : 'fresh');
    const told =
      known?.says === says ? cells.map((cell, i) => (this.permissionAt.includes(i) ? '' : cell)) : [...cells];
    return { key: name, cells: [...told, known?.firstOn ?? this.today], digest, says, known };
  }

  /** Keys that were known and did not come; only of a source that was read as a whole. */
  gone(): string[] {
    return [...this.known].flatMap(([key, { isGone }]) => (isGone || this.seen.has(key) ? [] : [key]));
  }

  private count(what: keyof SeenCounts): null {
    this.counts[what] += 1;
    return null;
  }
}
