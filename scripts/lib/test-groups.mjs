import { mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { ROOT } from './prepare.mjs';

/** Where Jest finds them (jest.config.cjs). */
const FOLDER = join(ROOT, '.data', 'test', 'groups');
const WHERE = ['apps/server/src', 'apps/standins/src', 'demo/src'];
/**
 * What takes a minute and more, the longest first; each begins a group, so that none of them is waited for at
 * the end.
 */
const LONGEST = ['acts', 'kill', 'sending/hand-over', 'gather', 'promise', 'team/team'].map(
  (name) => `apps/server/src/${name}.test.ts`,
);

function testFiles(folder) {
  return readdirSync(join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = `${folder}/${entry.name}`;
    if (entry.isDirectory()) return testFiles(path);
    return entry.name.endsWith('.test.ts') ? [path] : [];
  });
}

/**
 * The server's test files in so many groups, each a file that takes in the others: Jest loads the whole
 * server anew for every file, which takes longer than most of them run. Each keeps its own house, database
 * and end. The longest are dealt out first, then the largest, to and fro.
 */
export function writeGroups(count) {
  rmSync(FOLDER, { recursive: true, force: true });
  mkdirSync(FOLDER, { recursive: true });
  const all = WHERE.flatMap(testFiles);
  const gone = LONGEST.filter((path) => !all.includes(path));
  if (gone.length > 0)
    throw new Error(`expected ${gone.join(', ')}, which scripts/lib/test-groups.mjs names`);
  const sizeOf = (path) => statSync(join(ROOT, path)).size;
  const rest = all.filter((path) => !LONGEST.includes(path)).sort((a, b) => sizeOf(b) - sizeOf(a));
  const groups = Array.from({ length: count }, () => []);
  // The first two groups hold what is longest by far, and nothing else.
  LONGEST.forEach((path, i) => groups[i % count].push(path));
  const others = groups.slice(Math.min(2, count - 1));
  rest.forEach((path, i) => {
    const [turn, at] = [Math.floor(i / others.length), i % others.length];
    others[turn % 2 === 0 ? others.length - 1 - at : at].push(path);
  });
  groups.forEach((paths, i) => {
    const lines = paths.map(
      (path) => `describe('${path}', () => void require('${relative(FOLDER, join(ROOT, path))}'));`,
    );
    writeFileSync(join(FOLDER, `group-${i + 1}.test.ts`), `${lines.join('\n')}\n`);
  });
}
