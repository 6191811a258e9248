import { spawn } from 'node:child_process';
import { join } from 'node:path';
import type { CleanedPage } from './own-html.child';

/** Compiled beside this file; tests run this file from its source and take the child from the build. */
const CHILD = __filename.endsWith('.ts')
  ? join(__dirname, '../../../dist/messages/own-html/own-html.child.js')
  : join(__dirname, 'own-html.child.js');

/** Far more than a page that a person made takes. */
const PATIENCE_MS = 20_000;
const HEAP_MEGABYTES = 400;

/** A page with its styles at its elements and nothing that runs or fetches; null where it takes too long. */
export function cleanedPage(html: string, patience = PATIENCE_MS): Promise<CleanedPage | null> {
  const child = spawn(process.execPath, [`--max-old-space-size=${HEAP_MEGABYTES}`, CHILD], {
    stdio: ['pipe', 'pipe', 'ignore'],
    env: { PATH: process.env.PATH },
  });
  return new Promise((done) => {
    const clock = setTimeout(() => child.kill('SIGKILL'), patience);
    const pieces: Buffer[] = [];
    child.stdout.on('data', (piece: Buffer) => pieces.push(piece));
    child.stdin.on('error', () => undefined);
    child.on('error', () => done(null));
    child.on('close', (code) => {
      clearTimeout(clock);
      done(code === 0 ? (JSON.parse(Buffer.concat(pieces).toString('utf8')) as CleanedPage) : null);
    });
    child.stdin.end(html);
  });
}
