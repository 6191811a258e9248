/**
 * What is decided in one place. A file elsewhere that speaks of the same decides, or tells, or forgets to
 * tell, on its own; that is how an unsubscribe was once lost. Tests look at tables to see what became of
 * them.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';

const RULES = [
  {
    says: 'Transactions belong to services',
    pattern: /\bdatabase\.write(Unlogged)?\(/,
    within: /\.controller\.ts$/,
    allowed: [],
  },
  {
    says: 'The ledger is read and written in apps/server/src/permission/ledger alone',
    pattern: /\bpermission_(entry|state)\b/,
    allowed: [
      'apps/server/src/permission/ledger/',
      // What a migration does stays what it was.
      'apps/server/src/platform/migrations/',
      // The plainest SQL that one would write by hand, and rows to measure it on.
      'bench/',
      // Say which tables a test must see told of, or see read and written, and touch none.
      'apps/server/src/platform/telling.ts',
      'apps/server/src/testing/rooms.ts',
      'apps/server/src/platform/tables/generated.ts',
    ],
  },
  {
    says: 'SQL asks whether a line takes texts by apps/server/src/permission/line.sql.ts alone',
    pattern: /(<=>|[^=!]=|<>|\bIN \()\s*'landline'/,
    allowed: [
      'apps/server/src/permission/line.sql.ts',
      'apps/server/src/platform/migrations/',
      // Makes a number a landline, and asks nothing.
      'apps/server/src/testing/acts/world.ts',
    ],
  },
];

function* sources(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (['node_modules', 'dist'].includes(entry.name)) continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (/\.(ts|tsx|mjs)$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name)) yield path;
  }
}

/** What stands outside its one place: the rule, the file, and the line. */
export function outOfPlace(root) {
  const found = [];
  for (const part of ['apps', 'packages', 'demo', 'bench'])
    for (const path of sources(join(root, part))) {
      const name = relative(root, path);
      const rules = RULES.filter(
        ({ allowed, within }) =>
          (!within || within.test(name)) && !allowed.some((one) => name.startsWith(one)),
      );
      const text = readFileSync(path, 'utf8');
      // Over the whole text: a statement stands on several lines.
      for (const { says, pattern } of rules)
        for (const { index } of text.matchAll(new RegExp(pattern, 'g'))) {
          const line = text.slice(0, index).split('\n').length;
          found.push(`${says}: ${name}:${line}: ${text.split('\n')[line - 1].trim().slice(0, 100)}`);
        }
    }
  return found;
}
