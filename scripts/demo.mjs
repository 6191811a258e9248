/**
 * Starts everything: database, server, worker and stand-ins, with the demo organization.
 *
 *   npm run demo              start, keeping what is there
 *   npm run demo -- --fresh   start over with a new demo organization
 *   npm run dev               start, and again whenever something changes
 */
import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { Children } from './lib/children.mjs';
import { endLeftover, startMariaDb } from './lib/mariadb.mjs';
import { freePort } from './lib/ports.mjs';
import { DATA, ensureFolder, ensurePackages, ROOT, say, stop } from './lib/prepare.mjs';
import { settingsFor, waitFor } from './lib/settings.mjs';
import { watchSources } from './lib/watch.mjs';

const fresh = process.argv.includes('--fresh');
const watch = process.argv.includes('--watch');
const folder = join(DATA, 'demo');

ensurePackages();
if (fresh) {
  say('Starting over: the old demo data goes.');
  // A server left by a killed start holds the folder.
  await endLeftover(join(folder, 'mariadb', 'm.pid'));
  rmSync(folder, { recursive: true, force: true });
}
ensureFolder(join(folder, 'logs'));

const children = new Children();
let database = null;
let ending = false;

async function end(code) {
  if (ending) return;
  ending = true;
  await children.stop();
  await database?.stop();
  process.exit(code);
}
process.on('SIGINT', () => void end(0));
process.on('SIGTERM', () => void end(0));

async function port(name, wanted) {
  return freePort(wanted, (other) => say(`Port ${wanted} (${name}) is taken; using ${other}.`));
}

const ports = {
  http: await port('web', 4600), bounces: await port('bounces', 4601), mailroom: await port('Mailroom page', 4610), mailroomSmtp: await port('Mailroom SMTP', 4611), handsets: await port('Handsets', 4620),
};
const building = build();
building.catch(() => undefined);
database = await startMariaDb({ folder: join(folder, 'mariadb'), port: await port('database', 4606) });
await building.catch(async (error) => {
  say(error.message);
  await end(1);
});

const env = settingsFor(folder, { databaseUrl: database.url('goodword'), ports, extra: { MAILROOM_OPEN_CHANCE: '0.35', MAILROOM_FOLLOW_CHANCE: '0.08', LOG_LEVEL: process.env.LOG_LEVEL ?? 'info' } });
const prepared = spawnSync(process.execPath, [join(ROOT, 'demo/dist/main.js')], { stdio: 'inherit', env: { ...process.env, DATABASE_URL: env.DATABASE_URL } });
if (prepared.status !== 0) {
  say('The database could not be prepared; the lines above say why.');
  await end(1);
}

const parts = [
  ['stand-ins', 'apps/standins/dist/main.js'],
  ['server', 'apps/server/dist/main.js'],
  ['worker', 'apps/server/dist/worker.js'],
];

function startParts() {
  for (const [name, script] of parts) {
    children.start(name, process.execPath, [join(ROOT, script)], {
      env, log: join(folder, 'logs', `${name}.log`),
      onExit: (who, code) => {
        say(`The ${who} ended by itself (${code}). Its log: .data/demo/logs/${who}.log`);
        void end(1);
      },
    });
  }
}
startParts();
if (!(await waitFor(`${env.PUBLIC_URL}/health/ready`))) {
  say('The server does not answer. Its log: .data/demo/logs/server.log');
  await end(1);
}

say(`
Good Word is ready:  ${env.PUBLIC_URL}

  owner      rosa@lanternferry.test     all chapters
  organizer  idris@lanternferry.test    East Landing
  writer     june@lanternferry.test
  viewer     tomas@lanternferry.test
  The password of all four: oak-planks-afloat

  Mailroom   ${env.MAILROOM_PAGE}   what was mailed
  Handsets   ${env.HANDSETS_PAGE}   what was texted
  Files to bring in: demo/files

Ctrl+C stops everything and keeps the data.`);

if (watch) {
  watchSources(async () => {
    say('Changed; building…');
    try {
      await build();
    } catch (error) {
      return say(error.message);
    }
    await children.restart(startParts);
    say('Started again.');
  });
}
