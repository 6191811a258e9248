import { mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { ROOT } from './prepare.mjs';

/** Where Jest finds them (jest.config.cjs). */
const FOLDER = join(ROOT, '.data', 'test', 'groups');
const WHERE = ['apps/server/src', 'apps/standins/src', 'demo/src'];

function testFiles(folder) {
  return readdirSync(join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = `${folder}/${entry.name}`;
    if (entry.isDirectory()) return testFiles(path);
    return entry.name.endsWith('.test.ts') ? [path] : [];
  });
}

/**
 * The server's test files in so many groups, each a file that takes in the others: Jest loads the whole server anew for
 * every file, which takes longer than most of them run. Each keeps its own house, database and end. The largest are dealt
 * out first.
 */
export function writeGroups(count) {
  rmSync(FOLDER, { recursive: true, force: true });
  mkdirSync(FOLDER, { recursive: true });
  const files = WHERE.flatMap(testFiles)
    .map((path) => ({ path, size: statSync(join(ROOT, path)).size }))
    .sort((a, b) => b.size - a.size);
  const groups = Array.from({ length: count }, () => []);
  files.forEach(({ path }, i) => groups[i % count].push(path));
  groups.forEach((paths, i) => {
    const lines = paths.map((path) => `describe('${path}', () => void require('${relative(FOLDER, join(ROOT, path))}'));`);
    writeFileSync(join(FOLDER, `group-${i + 1}.test.ts`), `${lines.join('\n')}\n`);
  });
}
