import { spawn } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Unreadable, type Workbook } from '@goodword/core/intake';
import { said, type Said } from '@goodword/core/common';
import type { ChildAnswer } from './workbook.child';

/** What reading one workbook may take. */
export interface WorkbookBounds {
  seconds: number;
  heapMegabytes: number;
  /** Memory of the whole process; looked at ten times a second where the system tells it. */
  memoryMegabytes: number;
}
const BOUNDS: WorkbookBounds = { seconds: 120, heapMegabytes: 1400, memoryMegabytes: 2000 };

/** Compiled beside this file; tests run this file from its source and take the child from the build. */
const CHILD = __filename.endsWith('.ts')
  ? join(__dirname, '../../../dist/intake/reading/workbook.child.js')
  : join(__dirname, 'workbook.child.js');

const PAGE = 4096;

async function megabytesOf(pid: number): Promise<number> {
  const pages = await readFile(`/proc/${pid}/statm`, 'utf8').then(
    (text) => Number(text.split(' ')[1]),
    () => 0,
  );
  return (pages * PAGE) / 1024 / 1024;
}

/**
 * Writes a sheet of a workbook as CSV, read by a process of its own under a cap of memory and time.
 * @throws Unreadable for whatever can't be read, a hostile file included.
 */
export function workbookToCsv(
  input: string,
  output: string,
  sheet: number | null,
  bounds = BOUNDS,
): Promise<Workbook> {
  const child = spawn(
    process.execPath,
    [
      `--max-old-space-size=${bounds.heapMegabytes}`,
      CHILD,
      input,
      output,
      sheet === null ? '' : String(sheet),
    ],
    {
      stdio: ['ignore', 'pipe', 'ignore'],
      env: { PATH: process.env.PATH },
    },
  );
  return new Promise((done, fail) => {
    let answered = '';
    let why: Said | null = null;
    const end = (reason: Said) => {
      why = reason;
      child.kill('SIGKILL');
    };
    const clock = setTimeout(() => end(said('workbook.slow')), bounds.seconds * 1000);
    const watch = setInterval(() => {
      void megabytesOf(child.pid ?? 0).then((size) => size > bounds.memoryMegabytes && end(TOO_LARGE));
    }, 100);
    child.stdout.on('data', (piece: Buffer) => (answered += piece.toString()));
    child.on('error', (error) => fail(error));
    child.on('close', () => {
      clearTimeout(clock);
      clearInterval(watch);
      const answer = answerOf(answered);
      if (answer?.ok) done(answer.workbook);
      else {
        const { code, values } = why ?? answer?.reason ?? TOO_LARGE;
        fail(new Unreadable(code, values));
      }
    });
  });
}

const TOO_LARGE = said('workbook.memory');

function answerOf(text: string): ChildAnswer | null {
  try {
    return JSON.parse(text) as ChildAnswer;
  } catch {
    return null;
  }
}
