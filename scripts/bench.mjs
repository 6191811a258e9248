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
const wanted = process.argv.slice(2);
const letters = 'abcdefghijk'.split('').filter((letter) => wanted.length === 0 || wanted.includes(letter));
let status = 0;
// Each in a process of its own: what one leaves in memory is not counted to the next.
for (const [i, letter] of letters.entries()) {
  const env = {
    ...process.env,
    BENCH_DATABASE_SERVER: `mysql://root@127.0.0.1:${database.port}`,
    ...(i > 0 ? { BENCH_QUIET: '1' } : {}),
  };
  status ||=
    spawnSync(process.execPath, [join(ROOT, 'bench/dist/main.js'), letter], { stdio: 'inherit', env })
      .status ?? 1;
}
await database.stop();
process.exit(status);
