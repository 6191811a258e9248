import { FIELD_KINDS, type FieldKind, type FieldType } from '@goodword/core/fields';
import type { Line, LineOf } from '@goodword/core/segment';
import type { Bound } from '../platform/scoped';
import type { ChangedWhat } from '../platform/telling';
import {
  BitsColumn,
  DaysColumn,
  MonthDaysColumn,
  NumbersColumn,
  RunsColumn,
  StagesColumn,
  TextsColumn,
  type MaterializedColumn,
} from './columns';

/**
 * Where a column comes from: its query (the supporter's id first), how it is kept, and which changes touch
 * it.
 */
export interface ColumnSource {
  key: string;
  what: ChangedWhat;
  ref: number;
  sql: string;
  /** The column by which the query is narrowed to some people. */
  by: string;
  /** What stands behind the condition, such as a grouping. */
  tail?: string;
  bindings: Record<string, Bound>;
  /** The second value is a moment in seconds, kept as the day that it is where the organization sits. */
  moments?: true;
  makeColumn(size: number): MaterializedColumn;
}

const members = (what: 'tag' | 'list', ref: number): ColumnSource => ({
  key: `${what}:${ref}`,
  what,
  ref,
  sql: `SELECT supporter_id FROM supporter_${what} WHERE organization_id = :org AND ${what}_id = :ref`,
  by: 'supporter_id',
  bindings: { ref },
  makeColumn: (size) => new BitsColumn(size),
});

/** How many a household has; of people who are in one. */
const HOUSEHOLD_SIZE = `(SELECT COUNT(*) FROM supporter o
    WHERE o.organization_id = :org AND o.household_id = supporter.household_id AND o.erased_at IS NULL)`;

/** Columns of the supporter's own row. */
const OWN: Record<
  string,
  { sql: string; where?: string; moments?: true; makeColumn: (size: number) => MaterializedColumn }
> = {
  firstName: { sql: 'first_name', makeColumn: (size) => new TextsColumn(size) },
  lastName: { sql: 'last_name', makeColumn: (size) => new TextsColumn(size) },
  created: { sql: 'UNIX_TIMESTAMP(created_at)', moments: true, makeColumn: (size) => new DaysColumn(size) },
  updated: { sql: 'UNIX_TIMESTAMP(updated_at)', moments: true, makeColumn: (size) => new DaysColumn(size) },
  country: { sql: 'country', makeColumn: (size) => new TextsColumn(size) },
  region: { sql: 'region', makeColumn: (size) => new TextsColumn(size) },
  postcode: { sql: 'postcode', makeColumn: (size) => new TextsColumn(size) },
  externalId: { sql: 'external_id', makeColumn: (size) => new TextsColumn(size) },
  household: {
    sql: HOUSEHOLD_SIZE,
    where: 'AND household_id IS NOT NULL',
    makeColumn: (size) => new NumbersColumn(size),
  },
};

type KeptValues = { column: string; makeColumn: (size: number) => MaterializedColumn };

/**
 * In which column of `field_value` the values are, and how they are kept here, by what a kind of field
 * keeps.
 */
const VALUES: Record<FieldKind['kept'], KeptValues> = {
  text: { column: 'text_value', makeColumn: (size) => new TextsColumn(size) },
  number: { column: 'number_value', makeColumn: (size) => new NumbersColumn(size) },
  date: { column: 'date_value', makeColumn: (size) => new DaysColumn(size) },
  monthDay: { column: 'month_day', makeColumn: (size) => new MonthDaysColumn(size) },
};

/** The custom field behind a number, for its type; text where it is gone. */
export type TypeOf = (fieldId: number) => FieldType;

export function fieldSource(ref: number | string, typeOf: TypeOf): ColumnSource {
  if (typeof ref === 'string') {
    const own = OWN[ref];
    if (!own) throw new Error(`expected a field that everybody has, got ${ref}`);
    const sql = `SELECT id, ${own.sql}
      FROM supporter
      WHERE organization_id = :org AND erased_at IS NULL ${own.where ?? ''}`;
    return {
      key: `field:${ref}`,
      what: 'own',
      ref: 0,
      sql,
      by: 'id',
      bindings: {},
      ...(own.moments ? { moments: true } : {}),
      makeColumn: own.makeColumn,
    };
  }
  const { column, makeColumn } = VALUES[FIELD_KINDS[typeOf(ref)].kept];
  return {
    key: `field:${ref}`,
    what: 'field',
    ref,
    sql: `SELECT supporter_id, ${column}
      FROM field_value
      WHERE organization_id = :org AND field_id = :ref AND ${column} IS NOT NULL`,
    by: 'supporter_id',
    bindings: { ref },
    makeColumn,
  };
}

const EVENT_KINDS = { got: 'sent', opened: 'opened', clicked: 'clicked', replied: 'replied' } as const;

/**
 * Where the column of a line comes from: a query; the verdicts of the ledger; who there is; or nowhere, since
 * the line stands for other lines.
 */
type LineSource<L> = ((line: L, typeOf: TypeOf) => ColumnSource) | 'verdicts' | 'people' | 'expanded';

const LINE_SOURCES: { [K in Line['kind']]: LineSource<LineOf<K>> } = {
  field: (line, typeOf) => fieldSource(line.field, typeOf),
  tag: ({ tagId }) => members('tag', tagId),
  list: ({ listId }) => members('list', listId),
  batch: ({ batchId }) => ({
    key: `batch:${batchId}`,
    what: 'batch',
    ref: batchId,
    sql: `SELECT supporter_id
      FROM batch_row
      WHERE organization_id = :org AND batch_id = :ref AND supporter_id > 0`,
    by: 'supporter_id',
    bindings: { ref: batchId },
    makeColumn: (size) => new BitsColumn(size),
  }),
  roster: ({ campaignId }) => ({
    key: `roster:${campaignId}`,
    what: 'roster',
    ref: campaignId,
    sql: 'SELECT supporter_id, stage FROM roster WHERE organization_id = :org AND campaign_id = :ref',
    by: 'supporter_id',
    bindings: { ref: campaignId },
    makeColumn: (size) => new StagesColumn(size),
  }),
  gave: () => ({
    key: 'gifts',
    what: 'gifts',
    ref: 0,
    sql: 'SELECT supporter_id, given_on, amount FROM gift WHERE organization_id = :org',
    by: 'supporter_id',
    bindings: {},
    makeColumn: (size) => new RunsColumn('gifts', size),
  }),
  message: ({ event }) => ({
    key: `messages:${event}`,
    what: 'messages',
    ref: 0,
    moments: true,
    // A wording of a message counts as the message.
    sql: `SELECT supporter_id, UNIX_TIMESTAMP(MIN(at)), COALESCE(wording_of, message_id) AS message_id
      FROM (SELECT e.supporter_id, e.at, e.message_id, m.wording_of
        FROM delivery_event e JOIN message m ON m.id = e.message_id
        WHERE e.organization_id = :org AND e.kind = :kind) seen
      WHERE TRUE`,
    by: 'supporter_id',
    tail: 'GROUP BY supporter_id, message_id',
    bindings: { kind: EVENT_KINDS[event] },
    makeColumn: (size) => new RunsColumn('messages', size),
  }),
  permission: 'verdicts',
  may: 'verdicts',
  lapses: 'verdicts',
  chapter: 'people',
  segment: 'expanded',
};

/** Where the column of a line comes from; of its own kind alone. */
export const sourceOf = (line: Line): LineSource<Line> => LINE_SOURCES[line.kind] as LineSource<Line>;

/** Lines about permission. */
type ConsentLine = LineOf<'permission' | 'may' | 'lapses'>;

/** Whether lines of a kind read the verdicts of the ledger. */
export const isConsentKind = (kind: string): kind is ConsentLine['kind'] =>
  LINE_SOURCES[kind as Line['kind']] === 'verdicts';

/** Whether a line reads the verdicts of the ledger. */
export const readsVerdicts = (line: Line): line is ConsentLine => isConsentKind(line.kind);
