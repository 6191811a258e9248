import {
  MARK_KINDS,
  MARK_RULES,
  type Cell,
  type MarkHolder,
  type Mark,
  type MarkKind,
  type MarkRule,
  type Marks,
} from '@goodword/core/permission';
import type { Channel, Scope } from '@goodword/core/permission';

/*
 * The derived table in SQL, made from the core's one table of marks (MARK_RULES): which entries make a mark,
 * what moment it carries and whose it is stand there and nowhere else. Folding many entries by one statement
 * is what deriving a million states anew needs; see decision 025.
 */

/** The name of a mark in the core as its columns are named. */
export const COLUMN_OF = Object.fromEntries(
  MARK_KINDS.map((kind) => [kind, kind.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)]),
) as Record<MarkKind, string>;

/** A row of the derived table: a moment and an entry for each kind of mark, and where a pause ends. */
export type StateRow = {
  contact_point_id: number;
  supporter_id: number;
  channel: Channel;
  scope: Scope;
} & Record<string, Date | number | string | null>;

/** The columns of one kind of mark: moment, entry, and for a pause its end. */
export function columnsOf(kind: MarkKind): string[] {
  const name = COLUMN_OF[kind];
  return [`${name}_at`, `${name}_entry`, ...(kind === 'pause' ? ['pause_until'] : [])];
}

export const MARK_COLUMNS = MARK_KINDS.flatMap(columnsOf);

/** Everything that a `StateRow` holds, for a SELECT; of a table by its alias where one is given. */
export const stateColumns = (alias = ''): string =>
  ['contact_point_id', 'supporter_id', 'channel', 'scope', ...MARK_COLUMNS]
    .map((column) => `${alias}${alias && '.'}${column}`)
    .join(', ');

const quoted = (words: readonly string[]) => words.map((word) => `'${word}'`).join(', ');

/** Whether an entry makes a mark: the SQL form of `makes`. */
function makesSql(rule: MarkRule): string {
  const parts = [`state = '${rule.state}'`];
  if (rule.byPerson) parts.push('by_person = 1');
  if (rule.how)
    parts.push(
      `how IN (${quoted(rule.how)})`,
      ...(rule.stops ? ["contact_point_id IS NOT NULL AND scope = 'all'"] : []),
    );
  if (rule.notHow)
    parts.push(
      `(how NOT IN (${quoted(rule.notHow)})${rule.stops ? " OR contact_point_id IS NULL OR scope <> 'all'" : ''})`,
    );
  return `(${parts.join(' AND ')})`;
}

/** The columns by which a holder's cells are told apart; 0 stands for everybody and for every address. */
const KEY: Record<MarkHolder, { point: string; person: string; named: string }> = {
  address: { point: 'contact_point_id', person: '0', named: 'contact_point_id IS NOT NULL' },
  person: { point: '0', person: 'supporter_id', named: 'supporter_id IS NOT NULL' },
  both: {
    point: 'contact_point_id',
    person: 'supporter_id',
    named: 'contact_point_id IS NOT NULL AND supporter_id IS NOT NULL',
  },
};
export const HOLDERS = Object.keys(KEY) as MarkHolder[];

const MOMENT = '%Y-%m-%d %H:%i:%s.%f';

/** Which of two rows' marks is kept: the later one, of equal moments that of the later entry. */
export function newerMarks(kinds: readonly MarkKind[], into: string): string {
  const sets = kinds.flatMap((kind) => {
    const [at, entry, ...more] = columnsOf(kind) as [string, string, ...string[]];
    const newer = `VALUES(${at}) IS NOT NULL AND (${into}.${at} IS NULL OR VALUES(${at}) > ${into}.${at}
      OR (VALUES(${at}) = ${into}.${at} AND VALUES(${entry}) > ${into}.${entry}))`;
    // The moment is set last, because each assignment sees the ones before it.
    return [...more, entry, at].map((column) =>
      column === at
        ? `${at} = IF(VALUES(${at}) IS NOT NULL AND (${into}.${at} IS NULL OR VALUES(${at}) > ${into}.${at}), VALUES(${at}), ${into}.${at})`
        : `${column} = IF(${newer}, VALUES(${column}), ${into}.${column})`,
    );
  });
  return sets.join(', ');
}

/** The kinds of marks that a holder's cells have. */
export function kindsOf(holder: MarkHolder, among: readonly MarkKind[] = MARK_KINDS): MarkKind[] {
  return among.filter((kind) => (MARK_RULES[kind].holders as readonly MarkHolder[]).includes(holder));
}

/** For each kind, whether any of the chosen entries makes it: to fold only what is there. */
export function kindsMadeSql(which: string): string {
  const made = MARK_KINDS.map((kind) => `MAX(${makesSql(MARK_RULES[kind])}) AS ${COLUMN_OF[kind]}`);
  return `SELECT ${made.join(', ')}
    FROM permission_entry
    WHERE organization_id = :org AND taken_back_at IS NULL AND ${which}`;
}

/** Folds the chosen entries into the cells of a holder: the SQL form of `foldEntries`. */
export function foldSql(holder: MarkHolder, kinds: readonly MarkKind[], which: string, into: string): string {
  const { point, person, named } = KEY[holder];
  const marks = kinds.map((kind) => {
    const rule: MarkRule = MARK_RULES[kind];
    const at = rule.at === 'until' ? 'COALESCE(until_at, said_at)' : 'said_at';
    const tail = kind === 'pause' ? `, DATE_FORMAT(COALESCE(until_at, said_at), '${MOMENT}')` : '';
    return `MAX(IF(${makesSql(rule)}, CONCAT(DATE_FORMAT(${at}, '${MOMENT}'), LPAD(id, 20, '0')${tail}),
      NULL)) AS ${COLUMN_OF[kind]}_mark`;
  });
  const read = kinds.flatMap((kind) => {
    const mark = `${COLUMN_OF[kind]}_mark`;
    return [
      `CAST(LEFT(${mark}, 26) AS DATETIME(3))`,
      `CAST(SUBSTRING(${mark}, 27, 20) AS UNSIGNED)`,
      ...(kind === 'pause' ? [`CAST(SUBSTRING(${mark}, 47) AS DATETIME(3))`] : []),
    ];
  });
  const made = kinds.map((kind) => makesSql(MARK_RULES[kind])).join(' OR ');
  return `INSERT INTO ${into} (organization_id, contact_point_id, supporter_id, channel, scope,
    ${kinds.flatMap(columnsOf).join(', ')})
    SELECT organization_id, point, person, channel, scope, ${read.join(', ')} FROM (
      SELECT organization_id, ${point} AS point, ${person} AS person, channel, scope, ${marks.join(', ')}
      FROM permission_entry
      WHERE organization_id = :org AND taken_back_at IS NULL AND ${named} AND (${made}) AND ${which}
      GROUP BY organization_id, point, person, channel, scope) n
    ON DUPLICATE KEY UPDATE ${newerMarks(kinds, into)}`;
}

/** One row of the derived table, as the core knows it. */
export function cellOf(row: StateRow): Cell {
  const { contact_point_id: contactPointId, supporter_id: supporterId, channel, scope } = row;
  return { contactPointId, supporterId, channel, scope, marks: marksOf(row) };
}

const MARKS = MARK_KINDS.map(
  (kind) => ({ kind, atName: `${COLUMN_OF[kind]}_at`, entryName: `${COLUMN_OF[kind]}_entry` }) as const,
);

function marksOf(row: StateRow): Marks {
  const marks: Marks = {};
  for (const { kind, atName, entryName } of MARKS) {
    const [at, entryId] = [row[atName] as Date | null, row[entryName] as number | null];
    if (!at || entryId === null) continue;
    const mark: Mark = { at: at.getTime(), entryId };
    if (kind === 'pause') mark.until = (row.pause_until as Date | null)?.getTime() ?? mark.at;
    marks[kind] = mark;
  }
  return marks;
}

/** The values of a cell for the columns of some kinds. */
export function cellValues(cell: Cell, kinds: readonly MarkKind[]): (Date | number | null)[] {
  return kinds.flatMap((kind) => {
    const mark = cell.marks[kind];
    const until = kind === 'pause' ? [mark ? new Date(mark.until ?? mark.at) : null] : [];
    return [mark ? new Date(mark.at) : null, mark?.entryId ?? null, ...until];
  });
}

/**
 * Whether somebody has said anything beside what a batch brought, as a condition. Both are SQL expressions.
 */
export function saidBesidesSql(supporterId: string, batchId: string): string {
  return `EXISTS (SELECT 1 FROM permission_entry e
    WHERE e.organization_id = :org AND e.supporter_id = ${supporterId}
    AND NOT (e.batch_id <=> ${batchId}) AND e.state <> 'back')`;
}

/** Whether anything was said at an address that outlives a batch: a no, or an entry of another source. */
export function keptAtSql(contactPointId: string, batchId: string): string {
  return `EXISTS (SELECT 1 FROM permission_entry e
    WHERE e.organization_id = :org AND e.contact_point_id = ${contactPointId}
    AND (e.state = 'no' OR (NOT (e.batch_id <=> ${batchId}) AND e.state <> 'back')))`;
}
