/**
 * Makes sure that what the commands need is installed. Plain Node: this runs before there is a node_modules.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
export const DATA = join(ROOT, '.data');

export function say(text) {
  process.stdout.write(`${text}\n`);
}

/** Ends with a sentence and no stack. */
export function stop(text) {
  process.stderr.write(`\n${text}\n`);
  process.exit(1);
}

function run(command, args, options = {}) {
  const result = spawnSync(command, args, { stdio: 'inherit', cwd: ROOT, ...options });
  if (result.error) stop(`"${command}" could not be run: ${result.error.message}`);
  return result.status ?? 1;
}

/** Installs the npm packages when the lock has changed since they were last installed. */
export function ensurePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 11))
    stop(`Good Word needs Node.js 20.11 or newer; this is ${process.versions.node}.`);
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  const mark = join(ROOT, 'node_modules', '.good-word-lock');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return;
  say('Installing npm packages…');
  if (run('npm', ['install', '--no-audit', '--no-fund', '--loglevel=error']) !== 0)
    stop('npm could not install the packages. Mend what it says above, then start again.');
  writeFileSync(mark, lock);
}

const PLACES = ['/usr/sbin', '/usr/bin', '/usr/local/sbin', '/usr/local/bin', '/usr/libexec'];

function find(program) {
  return [...(process.env.PATH ?? '').split(':'), ...PLACES]
    .map((place) => join(place, program))
    .find((path) => existsSync(path));
}

/** The path of a program from a Debian package, installing the package as root where it is missing. */
export function ensureProgram(program, packageName) {
  const known = find(program);
  if (known) return known;
  const command = `apt-get update && apt-get install -y --no-install-recommends ${packageName}`;
  if (process.getuid?.() !== 0)
    stop(`"${program}" is missing. Install it with:\n\n  sudo sh -c '${command}'\n\nthen start again.`);
  say(`Installing Debian's ${packageName}…`);
  // The package must not start a service of its own: the project runs its own instance.
  const policy = '/usr/sbin/policy-rc.d';
  const mine = !existsSync(policy);
  if (mine) writeFileSync(policy, '#!/bin/sh\nexit 101\n', { mode: 0o755 });
  const status = run('sh', ['-c', `${command} >/dev/null`], {
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
  if (mine) execFileSync('rm', ['-f', policy]);
  const path = find(program);
  if (status !== 0 || !path)
    stop(
      `Debian's ${packageName} could not be installed. Run this yourself, then start again:\n\n  ${command}`,
    );
  return path;
}

/** `mode` is for a folder that is made here: one that is there keeps its own. */
export function ensureFolder(path, mode) {
  mkdirSync(path, { recursive: true, mode });
  return path;
}
