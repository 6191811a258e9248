import type { Knex } from 'knex';

/**
 * Names as docs/glossary.md has them: the stage of somebody on a roster, who is suppressed, what is in
 * flight, a link that was clicked, what puts a tag on. Columns, values and the keys of what is kept as JSON
 * are renamed together.
 */
const COLUMNS = [
  ['campaign', 'standings', 'stages'],
  ['roster', 'standing', 'stage'],
  ['batch_roster_before', 'standing', 'stage'],
  ['call_list_member', 'held', 'suppressed'],
  ['delivery', 'followed', 'clicked'],
  ['message', 'tag_deeds', 'tag_triggers'],
] as const;
const VALUES = [
  ['batch_more', 'kind', 'standing', 'stage'],
  ['delivery', 'state', 'held', 'suppressed'],
  ['delivery', 'state', 'handing', 'in-flight'],
  ['confirmation', 'state', 'handing', 'in-flight'],
  ['delivery_event', 'kind', 'followed', 'clicked'],
] as const;
const KEPT = [
  ['audit', ['back']],
  ['batch', ['draft', 'guesses', 'plan', 'will']],
  ['bulk', ['act']],
  ['layout', ['columns']],
  ['merging', ['was']],
  ['message', ['recipients', 'tag_triggers']],
  ['people_view', ['tree']],
  ['segment', ['tree']],
  ['segment_version', ['tree']],
] as const;
const KEYS = {
  standing: 'stage',
  standings: 'stages',
  deed: 'event',
  tagDeeds: 'tagTriggers',
  tag_deeds: 'tag_triggers',
};
/** Values by the keys under which they stand, members of a list by the key of the list. */
const WORDS: Record<string, Record<string, string>> = {
  to: { standing: 'stage' },
  event: { followed: 'clicked' },
  on: { followed: 'clicked' },
  did: { followed: 'clicked', 'not-followed': 'not-clicked' },
  kind: { followed: 'clicked', held: 'suppressed' },
  columns: { standing: 'stage' },
};

export async function up(knex: Knex): Promise<void> {
  for (const [table, from, to] of COLUMNS)
    await knex.raw(`ALTER TABLE ${table} RENAME COLUMN ${from} TO ${to}`);
  await knex.raw('ALTER TABLE roster RENAME INDEX by_standing TO by_stage');
  for (const [table, column, from, to] of VALUES) await renameValue(knex, table, column, from, to);
  await renameKept(knex, KEYS, WORDS);
}

export async function down(knex: Knex): Promise<void> {
  const keys = flipped(KEYS);
  await renameKept(
    knex,
    keys,
    Object.fromEntries(Object.entries(WORDS).map(([at, words]) => [keys[at] ?? at, flipped(words)])),
  );
  for (const [table, column, from, to] of [...VALUES].reverse())
    await renameValue(knex, table, column, to, from);
  await knex.raw('ALTER TABLE roster RENAME INDEX by_stage TO by_standing');
  for (const [table, from, to] of COLUMNS)
    await knex.raw(`ALTER TABLE ${table} RENAME COLUMN ${to} TO ${from}`);
}

/** A value of an ENUM: beside the old one first, so that no row is without. */
async function renameValue(
  knex: Knex,
  table: string,
  column: string,
  from: string,
  to: string,
): Promise<void> {
  const [found] = (await knex('information_schema.columns')
    .select({ type: 'COLUMN_TYPE', start: 'COLUMN_DEFAULT' })
    .whereRaw('TABLE_SCHEMA = DATABASE()')
    .where({ TABLE_NAME: table, COLUMN_NAME: column })) as { type: string; start: string | null }[];
  const rest = `NOT NULL${found!.start && found!.start !== 'NULL' ? ` DEFAULT ${found!.start.replace(`'${from}'`, `'${to}'`)}` : ''}`;
  const both = found!.type.replace(/\)$/, `,'${to}')`);
  await knex.raw(`ALTER TABLE ${table} MODIFY ${column} ${both} ${rest}`);
  await knex(table)
    .where({ [column]: from })
    .update({ [column]: to });
  await knex.raw(
    `ALTER TABLE ${table} MODIFY ${column} ${found!.type.replace(`'${from}'`, `'${to}'`)} ${rest}`,
  );
}

/** Some rows at a time: what was edited since ever does not fit into memory. */
const AT_ONCE = 1000;

async function renameKept(knex: Knex, keys: Record<string, string>, words: typeof WORDS): Promise<void> {
  for (const [table, columns] of KEPT) {
    const any = columns.map((column) => `${column} IS NOT NULL`).join(' OR ');
    for (let last = 0; ;) {
      const rows = (await knex(table)
        .select('id', ...columns)
        .where('id', '>', last)
        .whereRaw(`(${any})`)
        .orderBy('id')
        .limit(AT_ONCE)) as ({ id: number } & Record<string, unknown>)[];
      for (const { id, ...row } of rows) {
        const changed = changedIn(row, keys, words);
        if (changed) await knex(table).where({ id }).update(changed);
      }
      if (rows.length < AT_ONCE) break;
      last = rows.at(-1)!.id;
    }
  }
}

function changedIn(
  row: Record<string, unknown>,
  keys: Record<string, string>,
  words: typeof WORDS,
): Record<string, string> | null {
  const changed = Object.entries(row).flatMap(([column, kept]) => {
    if (kept === null) return [];
    const before = typeof kept === 'string' ? kept : JSON.stringify(kept);
    const after = JSON.stringify(renamed(JSON.parse(before), column, keys, words));
    return after === before ? [] : [[column, after]];
  });
  return changed.length > 0 ? (Object.fromEntries(changed) as Record<string, string>) : null;
}

/** The same value with its keys, and the words under them, renamed at every depth. */
function renamed(value: unknown, at: string, keys: Record<string, string>, words: typeof WORDS): unknown {
  if (typeof value === 'string') return words[at]?.[value] ?? value;
  if (Array.isArray(value)) return value.map((one) => renamed(one, at, keys, words));
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, one]) => {
      const next = keys[key] ?? key;
      return [next, renamed(one, next, keys, words)];
    }),
  );
}

const flipped = (words: Record<string, string>) =>
  Object.fromEntries(Object.entries(words).map(([from, to]) => [to, from]));
