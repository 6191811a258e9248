/**
 * Starts everything: database, server, worker and stand-ins, with the demo organization.
 *
 *   npm run demo              start, keeping what is there
 *   npm run demo -- --fresh   start over with a new demo organization
 *   npm run dev               start, and again whenever something changes
 */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { Children, endLeftovers } from './lib/children.mjs';
import { endLeftover, startMariaDb } from './lib/mariadb.mjs';
import { freePort } from './lib/ports.mjs';
import { DATA, ensureFolder, ensurePackages, say } from './lib/prepare.mjs';
import { isReady, prepareDatabase, stackPorts, stackSettings, startParts } from './lib/stack.mjs';
import { watchSources } from './lib/watch.mjs';

const fresh = process.argv.includes('--fresh');
const watch = process.argv.includes('--watch');
const folder = join(DATA, 'demo');

const pidFile = join(folder, 'pids.json');

ensurePackages();
await endLeftovers(pidFile);
if (fresh) {
  say('Starting over: the old demo data goes.');
  // A server left by a killed start holds the folder.
  await endLeftover(join(folder, 'mariadb', 'm.pid'));
  rmSync(folder, { recursive: true, force: true });
}
ensureFolder(join(folder, 'logs'), 0o700);

const children = new Children(pidFile);
let database = null;
let ending = false;

async function end(code, why) {
  if (ending) return;
  ending = true;
  if (why) say(why);
  await children.stop();
  await database?.stop();
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));

const ports = await stackPorts(4600, say);
const building = build().catch((error) => error);
database = await startMariaDb({
  folder: join(folder, 'mariadb'),
  port: await freePort(4606, (other) => say(`Port 4606 (database) is taken; using ${other}.`)),
  onExit: () => void end(1, 'The database ended by itself. Its log: .data/demo/mariadb/m.err'),
});
const failed = await building;
if (failed) await end(1, failed.message);

const env = stackSettings(folder, {
  databaseUrl: database.url('goodword'),
  ports,
  extra: {
    MAILROOM_OPEN_CHANCE: '0.35',
    MAILROOM_FOLLOW_CHANCE: '0.08',
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'info',
  },
});
if (!prepareDatabase(env)) await end(1, 'The database could not be prepared; the lines above say why.');

const start = () =>
  startParts(
    children,
    env,
    folder,
    (who, code) => void end(1, `The ${who} ended by itself (${code}). Its log: .data/demo/logs/${who}.log`),
  );
start();
if (!(await isReady(env))) await end(1, 'The server does not answer. Its log: .data/demo/logs/server.log');

say(`
Good Word is ready:  ${env.PUBLIC_URL}

  owner      rosa@lanternferry.test     all chapters
  organizer  idris@lanternferry.test    East Landing
  writer     june@lanternferry.test
  viewer     tomas@lanternferry.test
  The password of all four: oak-planks-afloat

  Mailroom   ${env.MAILROOM_PAGE}   what was mailed
  Handsets   ${env.HANDSETS_PAGE}   what was texted
  Donor desk ${env.DONOR_DESK_PAGE}   what feeds take from
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
    await children.restart(start);
    say('Started again.');
  });
}
