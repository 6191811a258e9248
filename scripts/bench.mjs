/** Prints each figure beside its yardstick, measured in the same run on a durable MariaDB of its own. */
import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { startMariaDb } from './lib/mariadb.mjs';
import { freePort } from './lib/ports.mjs';
import { DATA, ensurePackages, ROOT, stop } from './lib/prepare.mjs';

ensurePackages();
await build().catch((error) => stop(error.message));
const folder = join(DATA, 'bench', 'mariadb');
rmSync(folder, { recursive: true, force: true });
const database = await startMariaDb({ folder, port: await freePort(4806) });
const result = spawnSync(process.execPath, [join(ROOT, 'bench/dist/main.js'), ...process.argv.slice(2)], {
  stdio: 'inherit',
  env: { ...process.env, BENCH_DATABASE_SERVER: `mysql://root@127.0.0.1:${database.port}` },
});
await database.stop();
process.exit(result.status ?? 1);
