/**
 * Runs every suite: core, server (against a MariaDB of its own) and the interface in Chromium. Ends with the
 * line `N passed, N failed`. `--interface` runs the last alone; other arguments are passed on to Jest, and
 * leave the interface out.
 */
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { Children, endLeftovers } from './lib/children.mjs';
import { startMariaDb } from './lib/mariadb.mjs';
import { freePort } from './lib/ports.mjs';
import { DATA, ensureFolder, ensurePackages, ensureProgram, ROOT, say, stop } from './lib/prepare.mjs';
import { isReady, prepareDatabase, stackPorts, stackSettings, startParts } from './lib/stack.mjs';
import { writeGroups } from './lib/test-groups.mjs';

ensurePackages();
const chromium = ensureProgram('chromium', 'chromium');
// Printed sheets are read back by an independent reader.
ensureProgram('pdftotext', 'poppler-utils');
// A real mail server stands between in some; it runs as root alone.
if (process.getuid?.() === 0) ensureProgram('postfix', 'postfix');
const folder = ensureFolder(join(DATA, 'test'));
rmSync(join(folder, 'mariadb'), { recursive: true, force: true });
const only = process.argv.slice(2);
const interfaceOnly = only[0] === '--interface';
await build().catch((error) => stop(error.message));
const database = await startMariaDb({
  folder: join(folder, 'mariadb'),
  port: await freePort(4706),
  relaxed: true,
});
const suites = new Set();
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    for (const suite of suites) suite.kill(signal);
    void children
      .stop()
      .then(() => database.stop())
      .then(() => process.exit(1));
  });

const bin = (name) => join(ROOT, 'node_modules', '.bin', name);
const env = {
  ...process.env,
  TEST_DATABASE_SERVER: `mysql://root@127.0.0.1:${database.port}`,
  CHROMIUM: chromium,
  NODE_ENV: 'test',
};
const pidFile = join(folder, 'pids.json');
await endLeftovers(pidFile);
const children = new Children(pidFile);
let [passed, failed] = [0, 0];

/** Runs a suite and adds up what it reports. */
async function run(name, command, args, { report, count, more = {} }) {
  rmSync(report, { force: true });
  say(`\n== ${name}`);
  const suite = spawn(command, args, { cwd: ROOT, stdio: 'inherit', env: { ...env, ...more } });
  suites.add(suite);
  const [status] = await once(suite, 'close');
  suites.delete(suite);
  const counts = existsSync(report)
    ? count(JSON.parse(readFileSync(report, 'utf8')))
    : { passed: 0, failed: 1 };
  passed += counts.passed;
  failed += counts.failed;
  if (status !== 0 && counts.failed === 0) failed += 1;
}

/** The whole program over a demo organization of its own; what tests have to know of it, or null. */
async function startStack(nth) {
  const ports = await stackPorts(4700 + 30 * nth);
  const own = ensureFolder(join(folder, `stack-${nth}`));
  const settings = stackSettings(own, {
    databaseUrl: database.url(`goodword_e2e_${nth}`),
    ports,
    extra: { LOG_LEVEL: 'warn', LEASE_SECONDS: '5' },
  });
  if (!prepareDatabase(settings)) return null;
  startParts(children, settings, own, (who, code) =>
    say(`The ${who} ended by itself (${code}); its log is in .data/test/stack-${nth}/logs.`),
  );
  await isReady(settings);
  return {
    GW_URL: settings.PUBLIC_URL,
    GW_MAILROOM: settings.MAILROOM_PAGE,
    GW_HANDSETS: settings.HANDSETS_PAGE,
    GW_DESK: settings.DONOR_DESK_PAGE,
    DATABASE_URL: settings.DATABASE_URL,
  };
}

/** Tests of the interface, over a stack of their own; then the ledger, after everything that was done to it. */
async function runInterface(nth, args) {
  const stack = await startStack(nth);
  if (stack === null) {
    failed += 1;
    return;
  }
  const report = join(folder, `playwright-${nth}.json`);
  const output = join(ROOT, 'test-results', String(nth));
  await run(
    'interface',
    bin('playwright'),
    ['test', '--config', 'e2e/playwright.config.ts', '--output', output, ...args],
    {
      report,
      count: ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected }),
      more: { ...stack, PLAYWRIGHT_JSON_OUTPUT_NAME: report },
    },
  );
  say('\n== the ledger, after everything that was done to it');
  const states = spawnSync(process.execPath, [join(ROOT, 'apps/server/dist/permission-states.js')], {
    stdio: 'inherit',
    env: { ...env, DATABASE_URL: stack.DATABASE_URL },
  });
  if (states.status === 0) passed += 1;
  else failed += 1;
}

const jestReport = join(folder, 'jest.json');
const jest = {
  report: jestReport,
  count: (report) => ({
    passed: report.numPassedTests,
    failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
  }),
};
const runJest = (more) =>
  run('core and server', bin('jest'), ['--maxWorkers=3', '--json', `--outputFile=${jestReport}`, ...only], {
    ...jest,
    more,
  });
if (only.length > 0 && !interfaceOnly) await runJest({});
else {
  // One after the other: side by side they take as long, since both want the whole machine, and each waits
  // for the other.
  if (!interfaceOnly) {
    writeGroups(9);
    await runJest({ TEST_GROUPS: '1' });
  }
  const asked = interfaceOnly ? only.slice(1) : [];
  // A third of the files over each of three stacks: a browser waits often, and one alone left a third of two
  // processors idle.
  if (asked.length > 0) await runInterface(1, asked);
  else await Promise.all([1, 2, 3].map((nth) => runInterface(nth, [`--shard=${nth}/3`])));
}

await children.stop();
await database.stop();
say(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
