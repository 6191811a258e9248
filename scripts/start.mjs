/**
 * Runs the program without stand-ins, against the database, mail and texts that the environment names (or
 * `.env`, or the file that ENV_FILE names; what is set in the environment wins). Looks at everything first,
 * brings the database up to date, and is ready only when it says so. Ends as a whole when any part ends, so
 * that whatever supervises it starts it again.
 *
 * npm start everything
 * npm start -- --check looks, and starts nothing
 */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { Children } from './lib/children.mjs';
import { readSettings } from './lib/env.mjs';
import { ensurePackages, ROOT, say, stop } from './lib/prepare.mjs';
import { waitFor } from './lib/settings.mjs';
import { PROGRAM } from './lib/stack.mjs';

ensurePackages();
await readSettings();
await build().catch((error) => stop(error.message));

process.env.NODE_ENV ??= 'production';
process.env.WEB_DIR ||= join(ROOT, 'apps/web/dist/app');
const looksOnly = process.argv.slice(2).filter((word) => word === '--check');
const prepared = spawnSync(process.execPath, [join(ROOT, 'apps/server/dist/prepare.js'), ...looksOnly], {
  stdio: 'inherit',
});
if (prepared.status !== 0 || looksOnly.length > 0) process.exit(prepared.status ?? 1);

const children = new Children(null);
let ending = false;
async function end(code, why) {
  if (ending) return;
  ending = true;
  if (why) say(why);
  await children.stop();
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));
// Mail comes back to a port of its own, and texts over SMPP to a session of its own.
const hears = Number(process.env.INBOUND_SMTP_PORT) > 0 || /^ss?mpp:/.test(process.env.TEXT_URL ?? '');
for (const [name, script] of PROGRAM) {
  if (name === 'mail-in' && !hears) continue;
  const onExit = (who, code) =>
    void end(1, `The ${who} ended by itself (${code}); what it said stands above.`);
  children.start(name, process.execPath, [join(ROOT, script)], { onExit });
}

const ready = `http://${process.env.HOST || '127.0.0.1'}:${process.env.PORT || 4600}/health/ready`;
if (!(await waitFor(ready, 60))) await end(1, 'The server does not answer; what it said stands above.');
say(`Good Word is ready:  ${process.env.PUBLIC_URL}`);

/** What keeps it from working is said once, and once when it goes on. */
let was = null;
setInterval(async () => {
  const fault = await fetch(ready, { signal: AbortSignal.timeout(10_000) }).then(
    async (response) =>
      response.ok ? null : ((await response.json().catch(() => ({}))).detail ?? `answers ${response.status}`),
    (error) => `the server does not answer (${error.message})`,
  );
  if (fault !== was) say(fault === null ? 'Everything answers again.' : `Not ready: ${fault}`);
  was = fault;
}, 10_000).unref();
