/** Types, lint, the direction of imports, and formatting. Runs all of them and ends non-zero when any has a fault. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
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
say(faulty.length === 0 ? 'All in order.' : `Not in order: ${faulty.map(([name]) => name).join(', ')}`);
process.exit(faulty.length === 0 ? 0 : 1);
