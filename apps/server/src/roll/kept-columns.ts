import { dayInZone, type Day } from '@goodword/core/common';
import type { FieldType } from '@goodword/core/fields';
import type { Scoped } from '../platform/scoped';
import type { ChangeEntry } from './change-log';
import type { MaterializedColumn } from './columns';
import type { Ordinals } from './ordinals';
import { fieldSource, type ColumnSource, type TypeOf } from './sources';

interface KeptColumn {
  source: ColumnSource;
  column: MaterializedColumn;
  /** When it was last read, in the order of readings. */
  used: number;
}

/** Columns that come from queries: read when first needed, and mended for the people whom a change names. */
export class KeptColumns {
  private readonly columns = new Map<string, KeptColumn>();
  private readonly types = new Map<number, FieldType>();
  private dayOf: (seconds: number) => Day = (seconds) => Math.floor(seconds / 86_400);

  /** `onMoved` is told whose values in a column are about to be others. */
  constructor(
    private readonly people: Ordinals,
    private readonly onMoved: (column: MaterializedColumn, ordinals: readonly number[]) => void,
  ) {}

  get bytes(): number {
    return [...this.columns.values()].reduce((sum, { column }) => sum + column.bytes, 0);
  }

  /** Those that are kept, with when each was last used and how it is dropped. */
  get uses(): { used: number; drop: () => void }[] {
    return [...this.columns].map(([key, { used }]) => ({ used, drop: () => this.columns.delete(key) }));
  }

  /** The column of a key, if it is here. */
  find(key: string): MaterializedColumn | undefined {
    return this.columns.get(key)?.column;
  }

  /** The column of a key; throws for one that was not read. */
  get(key: string): MaterializedColumn {
    const column = this.find(key);
    if (column) return column;
    const read = [...this.columns.keys()].join(', ');
    throw new Error(`expected the column ${key} to be read, got only ${read}`);
  }

  /** Throws everything away; moments are days of this zone from here on. */
  begin(timeZone: string): void {
    this.columns.clear();
    this.types.clear();
    this.dayOf = daysIn(timeZone);
  }

  /** Makes room for people who came. */
  grow(size: number): void {
    for (const { column } of this.columns.values()) column.grow(size);
  }

  /** Brings the columns that a change touches up to it. */
  async apply(db: Scoped, { what, ref, ids }: ChangeEntry): Promise<void> {
    for (const [key, kept] of this.columns) {
      const { source } = kept;
      const touched = what === 'people' || (source.what === what && (source.ref === ref || ref === 0));
      if (!touched) continue;
      if (ids === 'everybody') this.columns.delete(key);
      else await this.fill(db, kept, ids);
    }
  }

  /** Reads the column of a field, if it is not here. */
  async needField(db: Scoped, ref: string | number, reading: number): Promise<void> {
    await this.need(db, fieldSource(ref, await this.typesWith(db, ref)), reading);
  }

  /** Reads a column, if it is not here; `reading` counts the readings, so that old ones can go. */
  async need(db: Scoped, source: ColumnSource, reading: number): Promise<void> {
    const known = this.columns.get(source.key);
    if (known) {
      known.used = reading;
      return;
    }
    const kept: KeptColumn = { source, column: source.makeColumn(this.people.size), used: reading };
    await this.fill(db, kept, 'everybody');
    this.columns.set(source.key, kept);
  }

  /**
   * Types of fields, that of the one in question among them. Fields are made at any time; a change of type
   * logs that all has changed.
   */
  async typesWith(db: Scoped, ref: string | number): Promise<TypeOf> {
    if (typeof ref === 'number' && !this.types.has(ref)) {
      const [row] = await db.sql<{ type: FieldType }>(
        'SELECT type FROM field WHERE organization_id = :org AND id = :ref',
        { ref },
      );
      this.types.set(ref, row?.type ?? 'text');
    }
    return (id) => this.types.get(id) ?? 'text';
  }

  private async fill(
    db: Scoped,
    { source, column }: KeptColumn,
    ids: readonly number[] | 'everybody',
  ): Promise<void> {
    if (ids !== 'everybody') {
      const ordinals = ids.flatMap((id) => this.people.ordinalOf(id) ?? []);
      column.reset(ordinals);
      this.onMoved(column, ordinals);
    }
    const some = ids === 'everybody' ? '' : ` AND ${source.by} IN (:someIds)`;
    await db.scan(
      `${source.sql}${some} ${source.tail ?? ''}`,
      ids === 'everybody' ? source.bindings : { ...source.bindings, someIds: ids },
      (row) => {
        const ordinal = this.people.ordinalOf(Number(row[0]));
        if (ordinal !== undefined)
          column.put(ordinal, source.moments ? [row[0], this.dayOf(Number(row[1])), ...row.slice(2)] : row);
      },
    );
    column.finish();
  }
}

/**
 * The day that a moment is in a time zone. Zones lie whole quarters of an hour from UTC, so one answer serves
 * a quarter of an hour: Intl is asked for each quarter and not for each of a million moments.
 */
function daysIn(zone: string): (seconds: number) => Day {
  const known = new Map<number, Day>();
  return (seconds) => {
    const quarter = Math.floor(seconds / 900);
    let day = known.get(quarter);
    if (day === undefined) known.set(quarter, (day = dayInZone(quarter * 900_000, zone)));
    return day;
  };
}
