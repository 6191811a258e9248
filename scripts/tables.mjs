/**
 * Writes the types of the database's rows from the schema that the migrations make: `npm run tables`. With
 * --check it only says whether they are what the migrations make.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Client } from '@rmp135/sql-ts';
import { format, resolveConfig } from 'prettier';
import { KEPT_SHAPES } from './lib/kept-shapes.mjs';
import { ROOT } from './lib/prepare.mjs';
import { withMigratedDatabase } from './lib/migrated.mjs';

const FILE = join(ROOT, 'apps/server/src/platform/tables/generated.ts');
const NUMBERS = ['bigint', 'int', 'tinyint', 'smallint', 'double'];

/** The file of types as the migrations of now make it. */
async function tableTypes(url) {
  const client = Client.fromConfig({ client: 'mysql2', connection: url, typeMap: { number: NUMBERS } });
  const { schemas } = await client.fetchDatabase().toObject();
  const tables = schemas[0].tables.filter(({ name }) => !name.startsWith('knex_'));
  const known = new Set(
    tables.flatMap((table) => table.columns.map((column) => `${table.name}.${column.name}`)),
  );
  const stray = Object.keys(KEPT_SHAPES).filter((column) => !known.has(column));
  if (stray.length > 0) throw new Error(`expected columns that there are, got ${stray.join(', ')}`);
  const columns = (table) =>
    table.columns.map(({ name, propertyType, nullable }) => {
      const type = KEPT_SHAPES[`${table.name}.${name}`] ?? propertyType;
      return `${name}: ${type}${nullable ? ' | null' : ''};`;
    });
  const text = `/* Made from the migrations by \`npm run tables\`; changes belong there. */

/** Every table with its columns, as the driver gives them; JSON is the shape that is kept in it. */
export interface Tables {
${tables.map((table) => `${table.name}: {\n${columns(table).join('\n')}\n};`).join('\n')}
}
`;
  return format(text, { ...(await resolveConfig(FILE)), parser: 'typescript' });
}

const now = await withMigratedDatabase(tableTypes);
if (!process.argv.includes('--check')) writeFileSync(FILE, now);
else if (readFileSync(FILE, 'utf8') !== now) {
  console.error('The types of the rows are not what the migrations make; run "npm run tables".');
  process.exit(1);
}
process.exit(0);
