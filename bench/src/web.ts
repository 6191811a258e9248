import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

/** All scripts that a script needs before it runs, itself included: its static imports, and theirs. */
function closure(folder: string, start: string, seen = new Set<string>()): Set<string> {
  if (seen.has(start)) return seen;
  seen.add(start);
  const source = readFileSync(join(folder, start), 'utf8');
  for (const found of source.matchAll(
    /(?:^|[;}\s])import\s*(?:[\w$*{][^'"()]*?from\s*)?["']\.\/([\w.-]+\.js)["']/g,
  ))
    closure(folder, found[1]!, seen);
  return seen;
}

/**
 * Bytes of JavaScript, gzipped, before the first view is drawn: the entry with its imports and the start that
 * it loads once the sentences are there, and Today's route with its own.
 */
export function webWeight(app: string): { entry: number; withToday: number } {
  const html = readFileSync(join(app, 'index.html'), 'utf8');
  const folder = join(app, 'assets');
  const scripts = [...html.matchAll(/(?:src|href)="\/assets\/([\w.-]+\.js)"/g)].map((found) => found[1]!);
  const entry = new Set<string>();
  for (const script of scripts) closure(folder, script, entry);
  const weigh = (files: Set<string>) =>
    [...files].reduce((sum, file) => sum + gzipSync(readFileSync(join(folder, file))).length, 0);
  /** A script that is loaded when it is wanted, by the beginning of its name. */
  const later = (name: string, from: Iterable<string>): string => {
    for (const file of from) {
      const found = new RegExp(`["'/](${name}-[\\w-]+\\.js)["']`).exec(
        readFileSync(join(folder, file), 'utf8'),
      );
      if (found) return found[1]!;
    }
    throw new Error(`expected ${name} among the scripts of the entry, got none`);
  };
  closure(folder, later('start', entry), entry);
  const today = later('Today', entry);
  return { entry: weigh(entry), withToday: weigh(closure(folder, today, new Set(entry))) };
}
