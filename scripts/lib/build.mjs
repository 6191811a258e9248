/** Builds what has changed: the TypeScript projects by tsc, the web application by Vite. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { DATA, ensureFolder, ROOT } from './prepare.mjs';

const bin = (name) => join(ROOT, 'node_modules', '.bin', name);

function* files(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.name === 'dist' || entry.name === 'node_modules') continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* files(path);
    else yield path;
  }
}

function digest(...parts) {
  const hash = createHash('sha256').update(readFileSync(join(ROOT, 'package-lock.json')));
  for (const part of parts) {
    for (const path of files(join(ROOT, part))) {
      const { size, mtimeMs } = statSync(path);
      hash.update(`${path}:${size}:${mtimeMs}\n`);
    }
  }
  return hash.digest('hex');
}

function run(command, args, cwd) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, { cwd, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    child.stdout.on('data', (data) => (said += data));
    child.stderr.on('data', (data) => (said += data));
    child.once('exit', (code) =>
      code === 0 ? done() : fail(new Error(`${command} ${args.join(' ')} failed:\n${said}`)),
    );
  });
}

async function ifChanged(name, parts, made, work) {
  const mark = join(ensureFolder(join(DATA, 'build')), name);
  const now = digest(...parts);
  if (existsSync(made) && existsSync(mark) && readFileSync(mark, 'utf8') === now) return;
  await work();
  writeFileSync(mark, now);
}

/** tsc and Vite side by side; each is left out when nothing it reads has changed. */
export async function build() {
  const server = ['packages/core/src', 'apps/server/src', 'apps/standins/src', 'demo/src', 'bench/src'];
  await Promise.all([
    ifChanged('node', server, join(ROOT, 'demo/dist/main.js'), () =>
      run(bin('tsc'), ['-b', 'demo', 'apps/standins', 'bench'], ROOT),
    ),
    ifChanged('web', ['packages/core/src', 'apps/web'], join(ROOT, 'apps/web/dist/app/index.html'), () =>
      run(bin('vite'), ['build', '--logLevel', 'error'], join(ROOT, 'apps/web')),
    ),
  ]);
}
