/**
 * What columns are made of: everything, who there is, their own columns (names, place), values of a field,
 * members of a tag, list, batch or roster, gifts, what became of messages, and whether they may be written
 * to.
 */
export type ChangedWhat =
  | 'all'
  | 'nothing'
  | 'people'
  | 'own'
  | 'field'
  | 'tag'
  | 'list'
  | 'batch'
  | 'roster'
  | 'gifts'
  | 'messages'
  | 'reach';

/*
 * Columns of everybody are kept as the change log says. A transaction that writes what a column is made of
 * and does not say so leaves them wrong for good, and nothing looks wrong. In tests every transaction is held
 * against this table.
 */

interface Rule {
  table: string;
  /** Only statements that say this, and only of this kind. */
  saying?: RegExp;
  kinds?: readonly Kind[];
  /** What a transaction must then have said; any one of them will do. */
  told: readonly ChangedWhat[];
}
type Kind = 'insert' | 'update' | 'delete';

const MUST_TELL: readonly Rule[] = [
  { table: 'supporter', told: ['people', 'own'] },
  { table: 'supporter_contact', told: ['reach', 'people'] },
  {
    table: 'contact_point',
    kinds: ['update'],
    saying: /\b(on_hold|do_not_contact|line)`? = /,
    told: ['reach', 'people'],
  },
  { table: 'permission_state', told: ['reach', 'people'] },
  { table: 'place_before', told: ['reach', 'people'] },
  { table: 'field_value', told: ['field', 'people'] },
  { table: 'supporter_tag', told: ['tag', 'people'] },
  { table: 'supporter_list', told: ['list', 'people'] },
  { table: 'roster', told: ['roster', 'people'] },
  { table: 'gift', told: ['gifts', 'people'] },
  { table: 'delivery_event', kinds: ['insert'], told: ['messages', 'people'] },
  {
    table: 'delivery',
    kinds: ['update'],
    saying: /\bset\s+state\s*=\s*'(in-flight|sent|delivered|bounced)'/i,
    told: ['reach', 'people'],
  },
];

/** The table that a statement writes, by its name and not its alias; null for one that only reads. */
export function writtenBy(sql: string): { kind: Kind; table: string } | null {
  const text = sql.replace(/`/g, '').trim();
  const insert =
    /^insert\s+(?:ignore\s+)?into\s+(\w+)/i.exec(text) ??
    /^load data local infile '\w+' into table (\w+)/i.exec(text);
  if (insert) return { kind: 'insert', table: insert[1]! };
  const remove = /^delete\s+(?:(\w+)\s+)?from\s+/i.exec(text);
  if (remove) return { kind: 'delete', table: tableOf(text.slice(remove[0].length), remove[1]) };
  const update = /^update\s+(?:ignore\s+)?/i.exec(text);
  if (!update) return null;
  const rest = text.slice(update[0].length);
  const set = /\bset\s+(?:(\w+)\.)?\w+\s*=/i.exec(rest);
  return { kind: 'update', table: tableOf(rest, set?.[1]) };
}

/** The table behind an alias, or the first that is named. */
function tableOf(from: string, alias: string | undefined): string {
  const first = /^(\w+)/.exec(from)?.[1] ?? '';
  if (!alias) return first;
  return new RegExp(`\\b(\\w+)\\s+(?:as\\s+)?${alias}\\b(?!\\.)`, 'i').exec(from)?.[1] ?? alias;
}

/**
 * Statements of a transaction that changed something nobody was told of; a transaction that says nothing at
 * all tells everything.
 */
export function untold(
  statements: readonly string[],
  told: readonly ChangedWhat[],
  quiet: boolean,
): string[] {
  if ((!quiet && told.length === 0) || told.includes('all')) return [];
  return statements.filter((sql) => {
    const written = writtenBy(sql);
    return MUST_TELL.some(
      ({ table, kinds, saying, told: any }) =>
        written?.table === table &&
        (!kinds || kinds.includes(written.kind)) &&
        (!saying || saying.test(sql)) &&
        !any.some((what) => told.includes(what)),
    );
  });
}
