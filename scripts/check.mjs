/** Types, lint, the direction of imports, formatting, and who names the ledger's tables. Runs all of them and ends non-zero when any has a fault. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { strangersToTheLedger } from './lib/ledger-rule.mjs';
import { ensurePackages, ROOT, say } from './lib/prepare.mjs';

ensurePackages();
const bin = (name) => join(ROOT, 'node_modules', '.bin', name);
const CHECKS = [
  ['types', 'tsc', ['-b']],
  ['lint', 'eslint', ['.', '--max-warnings', '0']],
  ['imports', 'depcruise', ['packages', 'apps', 'demo', 'bench', '--config', '.dependency-cruiser.cjs']],
  ['formatting', 'prettier', ['--check', '--log-level', 'warn', '.']],
];
const faulty = CHECKS.filter(([name, command, args]) => {
  say(`== ${name}`);
  return spawnSync(bin(command), args, { cwd: ROOT, stdio: 'inherit' }).status !== 0;
});
say('== ledger');
const strangers = strangersToTheLedger(ROOT);
for (const one of strangers) say(`The ledger is read and written in apps/server/src/permission/ledger alone: ${one}`);
if (strangers.length > 0) faulty.push(['ledger']);
say(faulty.length === 0 ? 'All in order.' : `Not in order: ${faulty.map(([name]) => name).join(', ')}`);
process.exit(faulty.length === 0 ? 0 : 1);
