import { Inject, Injectable } from '@nestjs/common';
import { dayInZone } from '@goodword/core/common';
import type { Page, SegmentCount, SupporterRow } from '@goodword/core/contract';
import { describe, evaluate, explain, isGroup, linesOf, narrow, type Explanation, type Names, type Rule } from '@goodword/core/segment';
import { audit } from '../platform/audit';
import { Database, isDuplicate } from '../platform/database';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { Scope } from '../platform/scope';
import { RollService } from '../roll/roll.service';
import { FieldsRepository } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { SupporterRows } from '../supporters/rows.service';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { SegmentsRepository, type SegmentRow } from './segments.repository';

/** What "may be reached" is counted by beside a segment: the standing for appeals, the most asked-for purpose. */
const REACH: Rule[] = (['email', 'text'] as const).map((channel) => ({ kind: 'may', channel, scope: 'appeals', may: true }));

@Injectable()
export class SegmentsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RollService) private readonly roll: RollService,
    @Inject(SegmentsRepository) private readonly segments: SegmentsRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(SupporterRows) private readonly rows: SupporterRows,
  ) {}

  /** Counts a tree with the narrowing of each of its top rules, exact as of now. */
  async count(scope: Scope, tree: Rule): Promise<SegmentCount> {
    const names = await this.checked(scope, tree);
    const roll = await this.roll.columnsFor(scope, { kind: 'all', rules: [tree, ...REACH] });
    const { bits, steps } = narrow(tree, roll, { today: await this.today(scope) });
    const top = isGroup(tree) ? tree.rules : [tree];
    const [email, text] = REACH.map((rule) => evaluate(rule, roll, { today: 0 }));
    return {
      everybody: roll.size,
      total: bits.count(),
      steps: steps.map((step, i) => ({ ...step, words: describe(top[i]!, names) })),
      reach: { email: bits.and(email!).count(), text: bits.and(text!).count(), neither: bits.and(email!.or(text!).not()).count() },
    };
  }

  /** People of a tree by name, a page at a time. */
  async people(scope: Scope, tree: Rule, after: string | undefined, limit: number): Promise<Page<SupporterRow>> {
    await this.checked(scope, tree);
    const roll = await this.roll.columnsFor(scope, tree);
    const ordinals = evaluate(tree, roll, { today: await this.today(scope) }).ordinals();
    const from = Number(decodeCursor(after, 1)?.[0] ?? -1);
    const slice = ordinals.filter((ordinal) => ordinal > from).slice(0, limit);
    const db = this.database.read(scope);
    const people = await this.supporters.byIds(
      db,
      slice.map((ordinal) => roll.people.ids[ordinal]!),
    );
    return { rows: await this.rows.of(db, people), total: ordinals.length, next: slice.length === limit ? encodeCursor([slice.at(-1)!]) : null };
  }

  /** Ids of everybody who passes, in no promised order. */
  async members(scope: Scope, tree: Rule): Promise<number[]> {
    const roll = await this.roll.columnsFor(scope, tree);
    return evaluate(tree, roll, { today: await this.today(scope) })
      .ordinals()
      .map((ordinal) => roll.people.ids[ordinal]!);
  }

  /** Why one person is in or out, line by line. */
  async explain(scope: Scope, id: number, supporterId: number): Promise<{ name: string } & Explanation> {
    const segment = await this.segment(scope, id);
    const names = await this.names(scope);
    const roll = await this.roll.columnsFor(scope, segment.tree);
    const ordinal = roll.people.ordinalOf(supporterId);
    if (ordinal === undefined) throw new NotFound('supporter');
    return { name: segment.name, ...explain(segment.tree, roll, ordinal, { today: await this.today(scope) }, names) };
  }

  /** The segments that a person is in. */
  async of(scope: Scope, supporterId: number): Promise<{ id: number; name: string }[]> {
    const out: { id: number; name: string }[] = [];
    const today = await this.today(scope);
    for (const segment of await this.segments.all(this.database.read(scope))) {
      const roll = await this.roll.columnsFor(scope, segment.tree);
      const ordinal = roll.people.ordinalOf(supporterId);
      if (ordinal !== undefined && evaluate(segment.tree, roll, { today }).has(ordinal)) out.push({ id: segment.id, name: segment.name });
    }
    return out;
  }

  async list(scope: Scope): Promise<(SegmentRow & { words: string })[]> {
    const names = await this.names(scope);
    return (await this.segments.all(this.database.read(scope))).map((segment) => ({ ...segment, words: describe(segment.tree, names) }));
  }

  async segment(scope: Scope, id: number): Promise<SegmentRow> {
    const segment = await this.segments.find(this.database.read(scope), id);
    if (!segment) throw new NotFound('segment');
    return segment;
  }

  async save(scope: Scope, id: number | null, segment: { name: string; tree: Rule }): Promise<{ id: number }> {
    await this.checked(scope, segment.tree);
    if (id !== null) await this.segment(scope, id);
    try {
      return await this.database.write(scope, async (tx) => {
        const saved = id ?? (await this.segments.make(tx, segment));
        if (id !== null) await this.segments.change(tx, id, segment);
        await audit(tx, { act: id === null ? 'make' : 'change', subject: 'segment', subjectId: saved, words: `Segment ${segment.name} saved` });
        return { id: saved };
      });
    } catch (error) {
      throw isDuplicate(error) ? new Conflict(`There is a segment named ${segment.name} already. Take another name.`) : error;
    }
  }

  async remove(scope: Scope, id: number): Promise<void> {
    await this.segment(scope, id);
    await this.database.write(scope, (tx) => this.segments.remove(tx, id));
  }

  private async today(scope: Scope): Promise<number> {
    return dayInZone(Date.now(), (await this.team.organization(scope)).time_zone);
  }

  /** The names behind the ids, having checked that every id is one of this scope's. */
  private async checked(scope: Scope, tree: Rule): Promise<Names> {
    const names = await this.names(scope);
    for (const line of linesOf(tree)) {
      const known =
        line.kind === 'tag'
          ? names.tag(line.tagId)
          : line.kind === 'list'
            ? names.list(line.listId)
            : line.kind === 'field'
              ? names.field(line.field).name
              : 'known';
      if (known === GONE) throw new Invalid(`A line of this segment asks for a ${line.kind} that is no longer there. Change that line.`);
    }
    return names;
  }

  private async names(scope: Scope): Promise<Names> {
    const db = this.database.read(scope);
    const [organization, fields, tags, lists, batches] = await Promise.all([
      this.team.organization(scope),
      this.fields.all(db),
      this.groups.tags(db),
      this.groups.lists(db),
      db.sql<{ id: number; name: string }>('SELECT id, name FROM batch WHERE organization_id = :org'),
    ]);
    const nameIn = (rows: readonly { id: number; name: string }[]) => (id: number) => rows.find((row) => row.id === id)?.name ?? GONE;
    const standard = {
      firstName: { name: 'First name', type: 'text' },
      lastName: { name: 'Last name', type: 'text' },
      created: { name: 'day of joining us', type: 'date' },
    } as const;
    return {
      locale: organization.locale,
      currency: organization.currency,
      field: (ref) => (typeof ref === 'number' ? (fields.find((field) => field.id === ref) ?? { name: GONE, type: 'text' as const }) : standard[ref]),
      tag: nameIn(tags),
      list: nameIn(lists),
      batch: nameIn(batches),
    };
  }
}

const GONE = 'something since deleted';
