/**
 * Compares the permission states that are kept with those derived anew from the ledger's entries, and with
 * --rebuild keeps the derived ones. Over the demo's database where DATABASE_URL names no other.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { startMariaDb } from './lib/mariadb.mjs';
import { freePort } from './lib/ports.mjs';
import { DATA, ensurePackages, ROOT, stop } from './lib/prepare.mjs';

ensurePackages();
const program = join(ROOT, 'apps/server/dist/permission-states.js');
if (!existsSync(program))
  stop('The server is not built yet. Run "npm run demo" or "npm run build" once, then this again.');
function isRunning(pidFile) {
  try {
    process.kill(Number(readFileSync(pidFile, 'utf8')), 0);
    return true;
  } catch {
    return false;
  }
}

const run = (url) =>
  spawnSync(process.execPath, [program, ...process.argv.slice(2)], {
    stdio: 'inherit',
    env: { ...process.env, DATABASE_URL: url },
  }).status ?? 2;
if (process.env.DATABASE_URL) process.exit(run(process.env.DATABASE_URL));
const folder = join(DATA, 'demo', 'mariadb');
if (!existsSync(folder))
  stop('There is no demo database yet, and DATABASE_URL names no other. Run "npm run demo" once.');
// A demo that is running has its database open already.
if (isRunning(join(folder, 'm.pid'))) process.exit(run('mysql://root@127.0.0.1:4606/goodword'));
const database = await startMariaDb({ folder, port: await freePort(4606) });
const status = run(database.url('goodword'));
await database.stop();
process.exit(status);
