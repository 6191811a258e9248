/**
 * The way back from a backup, into a database that is empty and a folder without files.
 *
 * npm run restore -- /srv/backups/goodword.tar.gz
 *
 * Nothing leaves by itself afterwards: what was being sent when the backup was made may have gone out since,
 * so messages that were on their way stand paused, and those with a time are drafts again. Whoever said no
 * after the backup is not known to it.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, openSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { databaseOf, readSettings } from './lib/env.mjs';
import { ensurePackages, ensureProgram, say, stop } from './lib/prepare.mjs';

process.umask(0o077);
ensurePackages();
await readSettings();
const source = resolve(process.argv[2] ?? stop('Say which: npm run restore -- /srv/backups/goodword.tar.gz'));
const data = process.env.DATA_DIR ?? stop('DATA_DIR is not set. It stands in .env, or in the environment.');
if (!existsSync(source)) stop(`There is no ${source}.`);
const client = ensureProgram('mariadb', 'mariadb-client');
const database = databaseOf(process.env.DATABASE_URL);

function ask(sql, input) {
  const args = [
    ...database.args,
    '--batch',
    '--skip-column-names',
    ...(sql ? ['--execute', sql] : []),
    database.name,
  ];
  const answer = spawnSync(client, args, {
    env: database.env,
    stdio: [input ?? 'ignore', 'pipe', 'pipe'],
    encoding: 'utf8',
  });
  if (answer.status !== 0) stop(`The database did not take it:\n${answer.stderr || answer.error?.message}`);
  return answer.stdout.trim();
}

if (Number(ask('SELECT COUNT(*) FROM information_schema.tables WHERE table_schema = DATABASE()')) > 0)
  stop(
    `The database ${database.name} is not empty. A backup goes into an empty one, so that nothing is lost by mistake.`,
  );
const files = join(data, 'files');
if (existsSync(files) && readdirSync(files).length > 0)
  stop(`${files} is not empty. Move what is there aside first.`);
mkdirSync(data, { recursive: true });
const folder = mkdtempSync(join(data, '.restore-'));
const unpacked = spawnSync(
  'tar',
  ['-xzf', source, '-C', folder, '--no-same-owner', 'database.sql', 'files'],
  { encoding: 'utf8' },
);
if (unpacked.status !== 0) {
  rmSync(folder, { recursive: true, force: true });
  stop(`${source} is no backup that can be read:\n${unpacked.stderr}`);
}
say('Filling the database…');
ask(null, openSync(join(folder, 'database.sql'), 'r'));
rmSync(files, { recursive: true, force: true });
renameSync(join(folder, 'files'), files);
rmSync(folder, { recursive: true, force: true });
const unbegun = "(SELECT id FROM message WHERE state IN ('scheduled','preparing'))";
const counts = ask(`SELECT COUNT(*)
    FROM message
    WHERE state = 'sending';
    SELECT COUNT(*)
    FROM message
    WHERE state IN ('scheduled','preparing');
  DELETE FROM job WHERE kind IN ('message-prepare','message-personal') AND state IN ('waiting','running');
  DELETE FROM delivery WHERE message_id IN ${unbegun} AND state IN ('suppressed','ready','undecided');
  UPDATE message
  SET state = 'draft', scheduled_at = NULL, leaves_at = NULL, prepared_to = 0
  WHERE state IN ('scheduled','preparing');
  UPDATE message SET state = 'paused' WHERE state = 'sending';
  DELETE FROM session`);
const [sending = '0', scheduled = '0'] = counts.split(/\s+/);
say(`Everything is back. Paused: ${sending} messages that were on their way; drafts again: ${scheduled} that had a time.
Look at each before it goes on: what left after the backup is not known here, and neither is any no that came after it.
Everybody signs in anew. Now: npm start`);
