/**
 * Many random histories of acts against the running services (apps/server/src/acts.test.ts), with a MariaDB
 * of their own. Prints the seed of each block, so that one can be played again alone.
 *
 * npm run acts -- 100000 so many, from the day's seed npm run acts -- 500 20261129 so many from a seed
 */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { startMariaDb } from './lib/mariadb.mjs';
import { freePort } from './lib/ports.mjs';
import { DATA, ensureFolder, ensurePackages, ROOT } from './lib/prepare.mjs';

ensurePackages();
const [histories = '100000', seed = String(Math.floor(Date.now() / 86_400_000))] = process.argv.slice(2);
const database = await startMariaDb({
  folder: join(ensureFolder(join(DATA, 'acts')), 'mariadb'),
  port: await freePort(4726),
  relaxed: true,
});
const { status } = spawnSync(
  join(ROOT, 'node_modules', '.bin', 'jest'),
  ['--selectProjects', 'server', '--', 'src/acts.test'],
  {
    cwd: ROOT,
    stdio: 'inherit',
    env: {
      ...process.env,
      NODE_ENV: 'test',
      TEST_DATABASE_SERVER: `mysql://root@127.0.0.1:${database.port}`,
      ACTS_HISTORIES: histories,
      ACTS_SEED: seed,
      ACTS_ROUNDS: '3',
      ACTS_TELL: '20',
    },
  },
);
await database.stop();
process.exit(status ?? 1);
