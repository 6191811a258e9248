import { Inject, Injectable } from '@nestjs/common';
import { columnKey, linesOf, type Column, type Columns, type Line, type Rule } from '@goodword/core/segment';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { Database } from '../platform/database';
import type { Scope } from '../platform/scope';
import { RollRepository, type People, type Verdicts } from './roll.repository';

interface Kept {
  version: string;
  people: Promise<People>;
  columns: Map<string, Promise<Column>>;
  verdicts: Map<string, Promise<Verdicts>>;
}

/** Permission lapses with the clock alone, so its columns are read anew after this long. */
const FRESH_MS = 10_000;
const MOST_SCOPES = 8;

/** Columns of everybody in a scope, with the ids behind the ordinals. */
export interface Roll extends Columns {
  people: People;
}

/**
 * Columns that answer questions about sets of people. Kept per organization and chapter while the change log shows that
 * nothing was written since, so an answer is exact as of its request; the database stays the only truth.
 */
@Injectable()
export class RollService {
  private readonly kept = new Map<string, Kept>();

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RollRepository) private readonly repository: RollRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
  ) {}

  /** The columns that a rule reads. */
  async columnsFor(scope: Scope, rule: Rule): Promise<Roll> {
    const db = this.database.read(scope);
    const kept = await this.current(scope);
    const around = { rules: await this.houseRules.rules(db), now: new Date() };
    const people = await kept.people;
    const load: Load = {
      column: (line) => this.repository.column(db, people, line, around),
      verdicts: (line) => this.repository.verdicts(db, people, line, around),
    };
    const loaded = new Map<string, Column>();
    for (const line of linesOf(rule)) {
      const key = columnKey(line);
      if (!loaded.has(key)) loaded.set(key, await this.column(kept, key, line, load));
    }
    return {
      size: people.ids.length,
      people,
      get: (key) => {
        const column = loaded.get(key);
        if (!column) throw new Error(`expected the column ${key} to be loaded, got only ${[...loaded.keys()].join(', ')}`);
        return column;
      },
    };
  }

  private async current(scope: Scope): Promise<Kept> {
    const key = `${scope.organizationId}:${scope.chapterId ?? 'all'}`;
    const db = this.database.read(scope);
    const version = await this.repository.version(db);
    const known = this.kept.get(key);
    if (known?.version === version) return known;
    const fresh: Kept = { version, people: this.repository.people(db), columns: new Map(), verdicts: new Map() };
    this.kept.delete(key);
    this.kept.set(key, fresh);
    if (this.kept.size > MOST_SCOPES) this.kept.delete(this.kept.keys().next().value!);
    fresh.people.catch(() => this.kept.delete(key));
    return fresh;
  }

  private column(kept: Kept, key: string, line: Line, load: Load): Promise<Column> {
    switch (line.kind) {
      case 'permission':
      case 'may':
      case 'lapses': {
        // One reading of the verdict gives all three columns; it is of a moment, so it grows old by itself.
        const name = `${line.channel}:${line.scope}@${Math.floor(Date.now() / FRESH_MS)}`;
        return once(kept.verdicts, name, () => load.verdicts(line)).then((verdicts) => verdicts[line.kind]);
      }
      default:
        return once(kept.columns, key, () => load.column(line));
    }
  }
}

interface Load {
  column(line: Line): Promise<Column>;
  verdicts(line: Extract<Line, { kind: 'permission' | 'may' | 'lapses' }>): Promise<Verdicts>;
}

/** What is kept under a name, read when it is first asked for; a reading that failed is forgotten. */
function once<T>(kept: Map<string, Promise<T>>, name: string, read: () => Promise<T>): Promise<T> {
  let value = kept.get(name);
  if (!value) {
    value = read();
    kept.set(name, value);
    value.catch(() => kept.delete(name));
  }
  return value;
}
