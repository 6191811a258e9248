/**
 * The ledger is read and written in one room. A file elsewhere that names one of its tables decides, or tells, or forgets
 * to tell, on its own; that is how an unsubscribe was once lost. Tests look at tables to see what became of them.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';

const TABLES = /\bpermission_(entry|state)\b/;
const ROOM = 'apps/server/src/permission/ledger/';
const ALLOWED = [
  // What a migration does stays what it was.
  'apps/server/src/platform/migrations/',
  // The plainest SQL that one would write by hand, and rows to measure it on.
  'bench/',
  // Says which tables a test must see told of, and touches none.
  'apps/server/src/platform/telling.ts',
];

function* sources(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (['node_modules', 'dist'].includes(entry.name)) continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (/\.(ts|tsx|mjs)$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name)) yield path;
  }
}

/** Files that name a table of the ledger and are not its room, each with the line. */
export function strangersToTheLedger(root) {
  const found = [];
  for (const part of ['apps', 'packages', 'demo', 'bench'])
    for (const path of sources(join(root, part))) {
      const name = relative(root, path);
      if (name.startsWith(ROOM) || ALLOWED.some((allowed) => name.startsWith(allowed))) continue;
      readFileSync(path, 'utf8')
        .split('\n')
        .forEach((line, i) => TABLES.test(line) && found.push(`${name}:${i + 1}: ${line.trim().slice(0, 100)}`));
    }
  return found;
}
