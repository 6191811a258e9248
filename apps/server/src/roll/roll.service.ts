import { Inject, Injectable } from '@nestjs/common';
import { columnKey, linesOf, type Column, type Columns, type Line, type Rule } from '@goodword/core/segment';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { Database } from '../platform/database';
import type { Scope } from '../platform/scope';
import { RollRepository, type People } from './roll.repository';

interface Kept {
  version: string;
  people: Promise<People>;
  columns: Map<string, Promise<Column>>;
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
    const loaded = new Map<string, Column>();
    for (const line of linesOf(rule)) {
      const key = columnKey(line);
      if (!loaded.has(key)) loaded.set(key, await this.column(kept, key, line, () => this.repository.column(db, people, line, around)));
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
    const fresh: Kept = { version, people: this.repository.people(db), columns: new Map() };
    this.kept.delete(key);
    this.kept.set(key, fresh);
    if (this.kept.size > MOST_SCOPES) this.kept.delete(this.kept.keys().next().value!);
    fresh.people.catch(() => this.kept.delete(key));
    return fresh;
  }

  private async column(kept: Kept, key: string, line: Line, load: () => Promise<Column>): Promise<Column> {
    const name = line.kind === 'permission' || line.kind === 'may' || line.kind === 'lapses' ? `${key}@${Math.floor(Date.now() / FRESH_MS)}` : key;
    let column = kept.columns.get(name);
    if (!column) {
      column = load();
      kept.columns.set(name, column);
      column.catch(() => kept.columns.delete(name));
    }
    return column;
  }
}
