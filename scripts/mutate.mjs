/**
 * Changes the code in small ways, one at a time, and sees whether a test notices: prints for each folder how
 * many of the changes were noticed, and names those that were not. Not part of CI, as it takes hours for all.
 *
 * npm run mutate -- permission schedule folders of the core npm run mutate -- permission/decide.ts one file,
 * by the tests of its folder npm run mutate -- server/permission rooms of the server, against a MariaDB of
 * its own
 */
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { startMariaDb } from './lib/mariadb.mjs';
import { freePort } from './lib/ports.mjs';
import { DATA, ensureFolder, ensurePackages, ROOT, say } from './lib/prepare.mjs';

const ALL = ['permission', 'schedule', 'segment', 'text', 'intake', 'server/permission', 'server/sending'];
/** Words that people read, and indexes: nothing in them decides anything. */
const LEFT_OUT = ['!**/*.test.ts', '!**/index.ts', '!**/presets.ts', '!**/*.module.ts'];

ensurePackages();
const folder = ensureFolder(join(DATA, 'mutate'));
const asked = process.argv.slice(2);
const scores = [];
for (const name of asked.length > 0 ? asked : ALL) {
  const server = name.startsWith('server/');
  const where = server ? `apps/server/src/${name.slice(7)}` : `packages/core/src/${name}`;
  const database = server
    ? await startMariaDb({ folder: join(folder, 'mariadb'), port: await freePort(4716), relaxed: true })
    : null;
  const env = { ...process.env, MUTATE: name.replace(/\/[^/]*\.ts$/, ''), NODE_ENV: 'test' };
  if (database) env.TEST_DATABASE_SERVER = `mysql://root@127.0.0.1:${database.port}`;
  const mutate = name.endsWith('.ts') ? where : [`${where}/**/*.ts`, ...LEFT_OUT].join(',');
  say(`\n== ${name}`);
  spawnSync(join(ROOT, 'node_modules', '.bin', 'stryker'), ['run', '--mutate', mutate], {
    cwd: ROOT,
    stdio: 'inherit',
    env,
  });
  await database?.stop();
  const report = JSON.parse(readFileSync(join(folder, 'report.json'), 'utf8'));
  const mutants = Object.entries(report.files).flatMap(([file, { mutants: some }]) =>
    some.map((one) => ({ file, ...one })),
  );
  const counted = mutants.filter(({ status }) =>
    ['Killed', 'Timeout', 'Survived', 'NoCoverage'].includes(status),
  );
  const missed = counted.filter(({ status }) => status === 'Survived' || status === 'NoCoverage');
  const lines = missed.map(
    (one) =>
      `${one.file}:${one.location.start.line}:${one.location.start.column} ${one.mutatorName} ${one.status}: ${one.replacement}`,
  );
  const list = join(folder, `${name.replaceAll('/', '-')}.txt`);
  mkdirSync(dirname(list), { recursive: true });
  writeFileSync(list, `${lines.join('\n')}\n`);
  scores.push(
    `${name}: ${((1 - missed.length / counted.length) * 100).toFixed(1)} % of ${counted.length} noticed; ${missed.length} not, in .data/mutate/${name.replaceAll('/', '-')}.txt`,
  );
}
say(`\n${scores.join('\n')}`);
