/**
 * Server, worker and stand-ins over a filled database: what the demo and the tests of the interface both run
 * on.
 */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureFolder, ROOT } from './prepare.mjs';
import { freePort } from './ports.mjs';
import { settingsFor, waitFor } from './settings.mjs';

/** The program itself; without the last one it hears no mail. */
export const PROGRAM = [
  ['server', 'apps/server/dist/main.js'],
  ['worker', 'apps/server/dist/worker.js'],
  ['mail-in', 'apps/server/dist/mail-in.js'],
];
export const PARTS = [['stand-ins', 'apps/standins/dist/main.js'], ...PROGRAM];

/** Ports of the stack, each the wanted one or the next that is free. `say` hears of every other one. */
export async function stackPorts(from, say) {
  const port = (name, wanted) =>
    freePort(wanted, (other) => say?.(`Port ${wanted} (${name}) is taken; using ${other}.`));
  return {
    http: await port('web', from),
    bounces: await port('bounces', from + 1),
    mailroom: await port('Mailroom page', from + 10),
    mailroomSmtp: await port('Mailroom SMTP', from + 11),
    handsets: await port('Handsets', from + 20),
    desk: await port('Donor desk', from + 25),
  };
}

/** Migrates and fills the database; false where that failed, having said why. */
export function prepareDatabase(settings) {
  return (
    spawnSync(process.execPath, [join(ROOT, 'demo/dist/main.js')], {
      stdio: 'inherit',
      env: { ...process.env, ...settings },
    }).status === 0
  );
}

export function stackSettings(folder, { databaseUrl, ports, extra }) {
  return settingsFor(folder, { databaseUrl, ports, extra });
}

/**
 * Starts the parts with their logs beside the data, for their owner alone: a log tells when whose mail was
 * sent.
 */
export function startParts(children, env, folder, onExit) {
  const logs = ensureFolder(join(folder, 'logs'), 0o700);
  for (const [name, script] of PARTS) {
    children.start(name, process.execPath, [join(ROOT, script)], {
      env,
      log: join(logs, `${name}.log`),
      onExit,
    });
  }
}

export const isReady = (env) => waitFor(`${env.PUBLIC_URL}/health/ready`);
