import type { HouseRules } from '@goodword/core/permission';
import type { Column, ColumnKey } from '@goodword/core/segment';
import type { Scoped } from '../platform/scoped';
import type { ChangeEntry } from './change-log';
import type { Ordinals } from './ordinals';
import { isConsentKind } from './sources';
import { VerdictsColumn, type VerdictQuery } from './verdicts';

const keyOf = ({ channel, scope }: VerdictQuery) => `${channel}:${scope}`;

/** What the ledger says of everybody, for each channel and scope that was asked about. */
export class KeptVerdicts {
  private readonly columns = new Map<string, { column: VerdictsColumn; used: number }>();

  constructor(private readonly people: Ordinals) {}

  get bytes(): number {
    return [...this.columns.values()].reduce((sum, { column }) => sum + column.bytes, 0);
  }

  /** Those that are kept, with when each was last used and how it is dropped. */
  get uses(): { used: number; drop: () => void }[] {
    return [...this.columns].map(([key, { used }]) => ({ used, drop: () => this.columns.delete(key) }));
  }

  find(asked: VerdictQuery): VerdictsColumn | undefined {
    return this.columns.get(keyOf(asked))?.column;
  }

  /** The verdicts of a question; throws where they were not read. */
  get(asked: VerdictQuery): VerdictsColumn {
    const column = this.find(asked);
    if (!column) throw new Error(`expected the verdicts for ${keyOf(asked)} to be read`);
    return column;
  }

  /** The column behind the key of a line about permission; nothing for other keys. */
  columnAt(key: ColumnKey): Column | undefined {
    const [kind = '', ...asked] = key.split(':');
    if (!isConsentKind(kind)) return undefined;
    const kept = this.columns.get(asked.join(':'));
    if (!kept) throw new Error(`expected the verdicts for ${key} to be read`);
    return kept.column.columnOf(kind);
  }

  clear(): void {
    this.columns.clear();
  }

  /** Makes room for people who came. */
  grow(size: number): void {
    for (const { column } of this.columns.values()) column.grow(size);
  }

  /** Reads the verdicts of a question, if they are not here; people are there once `here` has come. */
  async need(
    db: Scoped,
    asked: VerdictQuery,
    rules: () => Promise<HouseRules>,
    here: Promise<void>,
    reading: number,
  ): Promise<void> {
    const known = this.columns.get(keyOf(asked));
    if (known) {
      known.used = reading;
      return;
    }
    const column = new VerdictsColumn(asked);
    await column.readAll(db, this.people, await rules(), here);
    this.columns.set(keyOf(asked), { column, used: reading });
  }

  /** Asks again for the people whom a change touches. */
  async apply(db: Scoped, { what, ids }: ChangeEntry, rules: () => Promise<HouseRules>): Promise<void> {
    if (what !== 'people' && what !== 'reach') return;
    for (const [key, { column }] of this.columns) {
      if (ids === 'everybody' || !(await column.readSome(db, this.people, await rules(), ids)))
        this.columns.delete(key);
    }
  }

  /** Asks again for those whose verdict the clock has changed. */
  async passTime(db: Scoped, rules: () => Promise<HouseRules>): Promise<void> {
    for (const [key, { column }] of this.columns) {
      const due = column.due(Date.now());
      if (due.length > 0 && !(await column.readSome(db, this.people, await rules(), due)))
        this.columns.delete(key);
    }
  }
}
