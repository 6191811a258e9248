import { Inject, Injectable } from '@nestjs/common';
import { asksOf } from '@goodword/core/fields';
import {
  segmentLines,
  lineKindOf,
  NAMED_KINDS,
  STANDARD_FIELD_TYPES,
  type Names,
  type NamedKind,
  type Rule,
} from '@goodword/core/segment';
import { STANDARD_FIELD_WORDS } from '@goodword/core/words';
import { Database } from '../platform/database';
import { Invalid } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { FieldsRepository } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { TeamRepository } from '../team/team.repository';
import { SegmentsRepository } from './segments.repository';
import { sentence } from '../platform/words';

/** Something for each kind that lines name. */
const namedBy = <T>(of: (kind: NamedKind) => T) =>
  Object.fromEntries(NAMED_KINDS.map((kind) => [kind, of(kind)])) as Record<NamedKind, T>;

export const GONE = 'something since deleted';

/** The names behind the ids of rules, and whether all that they ask for is still there. */
@Injectable()
export class RuleNamesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SegmentsRepository) private readonly segments: SegmentsRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** The names behind the ids, having checked that every id is one of this scope's. */
  async checked(scope: AccessScope, tree: Rule): Promise<Names> {
    const names = await this.names(scope, [tree]);
    for (const line of segmentLines(tree)) {
      const field = line.kind === 'field' ? names.field(line.field) : null;
      if (
        field?.name === GONE ||
        (!('scope' in line) &&
          lineKindOf(line)
            .named(line)
            .some(({ kind, id }) => names[kind](id) === GONE))
      )
        throw new Invalid(sentence('segment.gone', { kind: line.kind }));
      if (line.kind !== 'field') continue;
      const { name, type } = field!;
      if (!asksOf(type).includes(line.op))
        throw new Invalid(sentence('segment.op', { name, op: line.op, type }));
    }
    return names;
  }

  /** Words for some rules: of what can be asked for, only that is read which they ask for. */
  async names(scope: AccessScope, rules: readonly Rule[]): Promise<Names> {
    const db = this.database.read(scope);
    const things = rules.flatMap(segmentLines).flatMap((line) => lineKindOf(line).named(line));
    const idsOf = (kind: NamedKind) => [
      ...new Set(things.filter((thing) => thing.kind === kind).map(({ id }) => id)),
    ];
    const read = async (kind: NamedKind): Promise<{ id: number; name: string }[]> => {
      const ids = idsOf(kind);
      if (ids.length === 0) return [];
      if (kind === 'tag') return this.groups.tags(db);
      return kind === 'list' ? this.groups.lists(db) : this.segments.named(db, kind, ids);
    };
    const [organization, fields, ...named] = await Promise.all([
      this.team.organization(scope),
      this.fields.all(db),
      ...NAMED_KINDS.map(read),
    ]);
    const nameIn = (kind: NamedKind) => (id: number) =>
      named[NAMED_KINDS.indexOf(kind)]!.find((row) => row.id === id)?.name ?? GONE;
    return {
      locale: organization.locale,
      currency: organization.currency,
      field: (ref) =>
        typeof ref === 'number'
          ? (fields.find((field) => field.id === ref) ?? { name: GONE, type: 'text' as const })
          : { name: STANDARD_FIELD_WORDS[ref], type: STANDARD_FIELD_TYPES[ref] },
      ...namedBy(nameIn),
    };
  }
}
