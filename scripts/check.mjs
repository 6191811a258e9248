/**
 * Types, lint, the direction of imports, formatting, the types made from the contract
 * and from the migrations, what stands outside its one place, sentences that no
 * catalog has, and names that stand for two things. Runs all of them, prints figures, and ends non-zero when
 * any has a fault.
 */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { isAbsolute, join } from 'node:path';
import { outOfPlace } from './lib/one-place.mjs';
import { ensurePackages, ROOT, say } from './lib/prepare.mjs';
import { newSentences } from './lib/sentences.mjs';
import { shapeOf } from './lib/shape.mjs';

ensurePackages();
const bin = (name) => join(ROOT, 'node_modules', '.bin', name);
const CHECKS = [
  ['types', 'tsc', ['-b']],
  ['lint', 'eslint', ['.', '--max-warnings', '0']],
  ['imports', 'depcruise', ['packages', 'apps', 'demo', 'bench', '--config', '.dependency-cruiser.cjs']],
  ['formatting', 'prettier', ['--check', '--log-level', 'warn', '.']],
  ['tables', process.execPath, [join(ROOT, 'scripts/tables.mjs'), '--check']],
  ['contract', process.execPath, [join(ROOT, 'scripts/contract.mjs'), '--check']],
];

/** Runs one check and keeps what it prints, so that two side by side can be read one after the other. */
async function check([name, command, args]) {
  const child = spawn(isAbsolute(command) ? command : bin(command), args, {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const printed = [];
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => printed.push(chunk));
  const [status] = await once(child, 'close');
  say(`== ${name}`);
  process.stdout.write(Buffer.concat(printed));
  return status === 0 ? [] : [[name]];
}

/** Lint takes as long as the others together. */
const lint = check(CHECKS.find(([name]) => name === 'lint'));
const faulty = [];
for (const one of CHECKS.filter(([name]) => name !== 'lint')) faulty.push(...(await check(one)));
faulty.push(...(await lint));
say('== one place');
const strays = outOfPlace(ROOT);
strays.forEach(say);
if (strays.length > 0) faulty.push(['one place']);
say('== sentences');
const sentences = newSentences(ROOT);
sentences.forEach(say);
if (sentences.length > 0) faulty.push(['sentences']);
say('== names and figures');
const { faults, figures } = shapeOf(ROOT);
[...faults, ...figures].forEach(say);
if (faults.length > 0) faulty.push(['names']);
say(faulty.length === 0 ? 'All in order.' : `Not in order: ${faulty.map(([name]) => name).join(', ')}`);
process.exit(faulty.length === 0 ? 0 : 1);
