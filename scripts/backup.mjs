/**
 * Database and files of a deployment in one file that only its owner reads. Nothing has to be stopped for it.
 *
 *   npm run backup -- /srv/backups/goodword.tar.gz
 *
 * The database is dumped in one transaction, then the files: what was deleted between the two is in neither.
 */
import { spawnSync } from 'node:child_process';
import {
  closeSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { databaseOf, readSettings } from './lib/env.mjs';
import { ensurePackages, ensureProgram, say, stop } from './lib/prepare.mjs';

process.umask(0o077);
ensurePackages();
await readSettings();
const target = resolve(
  process.argv[2] ?? stop('Say where to: npm run backup -- /srv/backups/goodword.tar.gz'),
);
const data = process.env.DATA_DIR ?? stop('DATA_DIR is not set. It stands in .env, or in the environment.');
if (existsSync(target)) stop(`${target} is there already. Take another name: a backup replaces none.`);
const dump = ensureProgram('mariadb-dump', 'mariadb-client');
const database = databaseOf(process.env.DATABASE_URL);

mkdirSync(dirname(target), { recursive: true });
const folder = mkdtempSync(join(dirname(target), '.backup-'));
function failed(words) {
  rmSync(folder, { recursive: true, force: true });
  stop(words);
}
const sql = openSync(join(folder, 'database.sql'), 'w');
const dumped = spawnSync(
  dump,
  [...database.args, '--single-transaction', '--quick', '--skip-comments', database.name],
  {
    env: database.env,
    stdio: ['ignore', sql, 'pipe'],
    encoding: 'utf8',
  },
);
closeSync(sql);
if (dumped.status !== 0)
  failed(`The database could not be dumped:\n${dumped.stderr || dumped.error?.message}`);
mkdirSync(join(data, 'files'), { recursive: true });
const packed = spawnSync(
  'tar',
  ['-czf', join(folder, 'all'), '-C', folder, 'database.sql', '-C', data, 'files'],
  { encoding: 'utf8' },
);
// 1: a file changed or went while it was read, which the program's own do by going as a whole.
if (packed.status === null || packed.status > 1) failed(`The files could not be packed:\n${packed.stderr}`);
renameSync(join(folder, 'all'), target);
rmSync(folder, { recursive: true, force: true });
say(
  `${target}: ${(statSync(target).size / 2 ** 20).toFixed(1)} MB. The way back: npm run restore -- ${target}`,
);
