import { Inject, Injectable } from '@nestjs/common';
import { dayInZone, isoDay } from '@goodword/core/common';
import type {
  CountedStep,
  Page,
  PeopleColumns,
  PeopleGroup,
  SegmentCount,
  SegmentSize,
  SegmentVersion,
  SupporterRow,
} from '@goodword/core/contract';
import {
  expand,
  isGroup,
  segmentLines,
  type Names,
  type EvaluationContext,
  type Rule,
  type NarrowingStep,
} from '@goodword/core/segment';
import { describe, explained, type Explanation } from '@goodword/core/words';
import { audit } from '../platform/audit';
import { Database, type ReadAt } from '../platform/database';
import { isDuplicate } from '../platform/database-errors';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { AccessScope } from '../platform/scope';
import { nextVersion } from '../platform/versions';
import { RollService } from '../roll/roll.service';
import { SupporterRows } from '../supporters/rows.service';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { SegmentsRepository, type SegmentRow } from './segments.repository';
import { sentence } from '../platform/words';
import { RuleNamesService } from './rule-names.service';
import { GONE } from './rule-names.service';

/**
 * What "may be reached" is counted by beside a segment: the permission for appeals, the most asked-for
 * purpose.
 */
const REACH: Rule[] = (['email', 'text'] as const).map((channel) => ({
  kind: 'may',
  channel,
  scope: 'appeals',
  may: true,
}));

/** Nobody passes any of no rules. */
const NOBODY: Rule = { kind: 'any', rules: [] };

/** Segments: counted as they are written, kept with their versions and sizes, and said why line by line. */
@Injectable()
export class SegmentsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RollService) private readonly roll: RollService,
    @Inject(SegmentsRepository) private readonly segments: SegmentsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(SupporterRows) private readonly rows: SupporterRows,
    @Inject(RuleNamesService) private readonly ruleNames: RuleNamesService,
  ) {}

  /** Counts a tree with the narrowing of each of its rules, exact as of now. */
  async count(scope: AccessScope, tree: Rule, withReach: boolean): Promise<SegmentCount> {
    const names = await this.ruleNames.checked(scope, tree);
    const rule = await this.expanded(scope, tree);
    const beside = withReach ? [...REACH, { kind: 'any' as const, rules: REACH }] : [];
    const counted = await this.roll.ask(scope, 'count', { rule, reading: await this.reading(scope), beside });
    const [email, text, either] = counted.beside;
    return {
      everybody: counted.everybody,
      total: counted.total,
      steps: inWords(isGroup(tree) ? tree.rules : [tree], counted.steps, names),
      reach: withReach ? { email: email!, text: text!, neither: counted.total - either! } : null,
    };
  }

  /** People of a tree in an order, a page at a time. */
  async people(
    scope: AccessScope,
    tree: Rule,
    list: PeopleColumns & { after?: string; limit: number },
  ): Promise<Page<SupporterRow>> {
    const names = await this.ruleNames.checked(scope, tree);
    // The order would tell what a sensitive field holds.
    if (typeof list.by === 'number' && names.field(list.by).name === GONE)
      throw new Invalid(sentence('segment.no-order'));
    const from = decodeCursor(list.after, 1)?.[0];
    const { ids, total } = await this.roll.ask(scope, 'page', {
      rule: await this.expanded(scope, tree),
      reading: await this.reading(scope),
      by: list.by,
      descending: list.descending,
      after: from === undefined ? null : Number(from),
      limit: list.limit,
    });
    const db = this.database.read(scope);
    const rows = await this.rows.of(db, await this.supporters.byIds(db, ids), list.fields);
    return { rows, total, next: ids.length === list.limit ? encodeCursor([ids.at(-1)!]) : null };
  }

  /** Ids of everybody who passes, in no promised order. */
  async members(scope: AccessScope, tree: Rule): Promise<number[]> {
    return [
      ...(await this.roll.ask(scope, 'members', {
        rule: await this.expanded(scope, tree),
        reading: await this.reading(scope),
      })),
    ];
  }

  /**
   * Which of these people each rule takes in now, in the order of the rules. A rule that asks for something
   * that is gone takes in nobody.
   */
  async among(scope: AccessScope, trees: readonly Rule[], ids: readonly number[]): Promise<Set<number>[]> {
    const rules = await Promise.all(trees.map((tree) => this.expanded(scope, tree).catch(() => NOBODY)));
    const asked = { rules, reading: await this.reading(scope), ids: Uint32Array.from(ids) };
    const passing = await this.roll.ask(scope, 'among', asked);
    return passing.map((bytes) => new Set(ids.filter((_id, at) => bytes[at] === 1)));
  }

  /**
   * Who is meant by a group: those named whom the caller may see, or everybody whom the rule takes in now.
   */
  async peopleIn(scope: AccessScope, group: PeopleGroup): Promise<number[]> {
    if ('ids' in group)
      return (await this.supporters.byIds(this.database.read(scope), group.ids))
        .map(({ id }) => id)
        .sort((a, b) => a - b);
    const without = new Set(group.without);
    return (await this.members(scope, group.tree)).filter((id) => !without.has(id)).sort((a, b) => a - b);
  }

  /** Why one person is in or out, line by line. */
  async explain(
    scope: AccessScope,
    id: number,
    supporterId: number,
  ): Promise<{ name: string } & Explanation> {
    const segment = await this.segment(scope, id);
    const rules = [await this.expanded(scope, segment.tree)];
    const [trace] = await this.roll.ask(scope, 'trace', {
      rules,
      reading: await this.reading(scope),
      supporterId,
    });
    if (!trace) throw new NotFound('supporter');
    return {
      name: segment.name,
      ...explained(segment.tree, trace, await this.ruleNames.names(scope, [segment.tree])),
    };
  }

  /** The segments that a person is in. */
  async of(scope: AccessScope, supporterId: number): Promise<{ id: number; name: string }[]> {
    const all = await this.segments.all(this.database.read(scope));
    const treeOf = (id: number) => all.find((segment) => segment.id === id)?.tree;
    const sound = all.flatMap((segment) => {
      const expanded = expand(segment.tree, treeOf, [segment.id]);
      return expanded.ok ? [{ ...segment, rule: expanded.rule }] : [];
    });
    const rules = sound.map(({ rule }) => rule);
    const traces = await this.roll.ask(scope, 'trace', {
      rules,
      reading: await this.reading(scope),
      supporterId,
    });
    return sound.filter((_one, i) => traces[i]?.holds).map(({ id, name }) => ({ id, name }));
  }

  async list(scope: AccessScope): Promise<(SegmentRow & { words: string })[]> {
    const all = await this.segments.all(this.database.read(scope));
    const trees = all.map(({ tree }) => tree);
    const names = await this.ruleNames.names(scope, trees);
    return all.map((segment) => ({ ...segment, words: describe(segment.tree, names) }));
  }

  /** Some rules in words, '' where there is none. */
  async wordsOf(scope: AccessScope, rules: readonly (Rule | null)[]): Promise<string[]> {
    const names = await this.ruleNames.names(
      scope,
      rules.filter((rule) => rule !== null),
    );
    return rules.map((rule) => (rule ? describe(rule, names) : ''));
  }

  /** Those of every chapter, for what must hold of all; nothing of them is shown. */
  everywhere(scope: AccessScope): Promise<SegmentRow[]> {
    return this.segments.all(this.database.read(scope).ofAll());
  }

  async segment(scope: AccessScope, id: number): Promise<SegmentRow> {
    const segment = await this.segments.find(this.database.read(scope), id);
    if (!segment) throw new NotFound('segment');
    return segment;
  }

  /** `basedOn` is the version that a change was begun from; a new one has none. */
  async save(
    scope: AccessScope,
    id: number | null,
    segment: { name: string; tree: Rule; basedOn?: number },
  ): Promise<{ id: number; version: number }> {
    await this.ruleNames.checked(scope, segment.tree);
    if (id !== null) await this.segment(scope, id);
    await this.expanded(scope, segment.tree, id === null ? [] : [id]);
    const people = (await this.count(scope, segment.tree, false)).total;
    const { today } = await this.reading(scope);
    try {
      return await this.database.write(scope, async (tx) => {
        tx.unchanged();
        await tx.lockOrganization();
        // Once more: somebody may have put this one inside the other meanwhile.
        await this.expanded(tx, segment.tree, id === null ? [] : [id]);
        const version =
          id === null ? 0 : await nextVersion(tx, 'segment', id, segment.basedOn ?? 0, 'segment');
        const saved = id ?? (await this.segments.make(tx, segment));
        if (id !== null) await this.segments.change(tx, id, segment);
        await this.segments.keepVersion(tx, saved, segment, people);
        await this.segments.keepSize(tx, saved, today, people);
        await audit(tx, id === null ? 'make' : 'change', { segment: saved }, `Segment ${segment.name} saved`);
        return { id: saved, version };
      });
    } catch (error) {
      throw isDuplicate(error) ? new Conflict(sentence('segment.name-taken', { name: segment.name })) : error;
    }
  }

  /** As it was saved, the newest first; each can be saved again. */
  async versions(scope: AccessScope, id: number): Promise<SegmentVersion[]> {
    const db = this.database.read(scope);
    await this.segment(scope, id);
    const rows = await this.segments.versions(db, id);
    const trees = rows.map(({ tree }) => tree);
    const names = await this.ruleNames.names(scope, trees);
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      tree: row.tree,
      words: describe(row.tree, names),
      people: row.people,
      by: row.saved_name ?? 'the program',
      at: row.saved_at.toISOString(),
    }));
  }

  /** How many it took in day by day, today counted now. */
  async sizes(scope: AccessScope, id: number): Promise<SegmentSize[]> {
    const segment = await this.segment(scope, id);
    await this.measure(scope, segment);
    return (await this.segments.sizes(this.database.read(scope), id)).map(({ day, people }) => ({
      day: isoDay(day),
      people,
    }));
  }

  /** Counts those segments of an organization that nobody has counted today. Returns how many there were. */
  async measureAll(scope: AccessScope): Promise<number> {
    const { today } = await this.reading(scope);
    const due = await this.segments.unsized(this.database.read(scope), today);
    for (const segment of due) await this.measure(scope, segment);
    return due.length;
  }

  private async measure(scope: AccessScope, segment: SegmentRow): Promise<void> {
    const reading = await this.reading(scope);
    // A segment that asks for something gone is counted as empty: it takes in nobody until it is mended.
    const rule = await this.expanded(scope, segment.tree).catch(() => null);
    const total =
      rule === null ? 0 : (await this.roll.ask(scope, 'count', { rule, reading, beside: [] })).total;
    await this.database.writeUnlogged(scope, (tx) =>
      this.segments.keepSize(tx, segment.id, reading.today, total),
    );
  }

  async remove(scope: AccessScope, id: number): Promise<void> {
    await this.segment(scope, id);
    await this.database.writeUnlogged(scope, (tx) => this.segments.remove(tx, id));
  }

  private async reading(scope: AccessScope): Promise<EvaluationContext> {
    const { time_zone, fiscal_month } = await this.team.organization(scope);
    return { today: dayInZone(Date.now(), time_zone), fiscalMonth: fiscal_month };
  }

  /** The tree with those of other segments in their places. */
  private async expanded(at: ReadAt, tree: Rule, path: readonly number[] = []): Promise<Rule> {
    if (!segmentLines(tree).some((line) => line.kind === 'segment')) return tree;
    const all = await this.segments.all(this.database.read(at));
    const expanded = expand(tree, (id) => all.find((segment) => segment.id === id)?.tree, path);
    if (expanded.ok) return expanded.rule;
    const name = all.find((segment) => segment.id === expanded.segmentId)?.name;
    throw new Invalid(
      expanded.why === 'gone'
        ? sentence('segment.segment-gone')
        : sentence('segment.itself', { name: name! }),
    );
  }
}

/** Puts words to counted rules; a segment inside another is counted as one line. */
function inWords(rules: readonly Rule[], steps: readonly NarrowingStep[], names: Names): CountedStep[] {
  return rules.map((rule, i) => {
    const { alone, left, inner } = steps[i]!;
    return {
      words: describe(rule, names),
      alone,
      left,
      inner: isGroup(rule) ? inWords(rule.rules, inner, names) : [],
    };
  });
}
