import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Papa from 'papaparse';

/** The table of a run, written row by row to a file of ours. */
export class FeedTable {
  readonly path = join(tmpdir(), `feed-${randomUUID()}.csv`);
  private readonly file = createWriteStream(this.path, { mode: 0o600 });
  rows = 0;

  private fault: Error | null = null;

  constructor(readonly header: string[]) {
    // A full disk is a fault of this run, and told when the next rows come.
    this.file.on('error', (error) => (this.fault = error));
    this.file.write(line([header]));
  }

  async write(rows: readonly (readonly string[])[]): Promise<void> {
    if (this.fault) throw this.fault;
    if (rows.length === 0) return;
    this.rows += rows.length;
    if (!this.file.write(line(rows))) await once(this.file, 'drain');
  }

  async end(): Promise<void> {
    this.file.end();
    await once(this.file, 'close');
  }

  async remove(): Promise<void> {
    this.file.destroy();
    await rm(this.path, { force: true });
  }
}

const line = (rows: readonly (readonly string[])[]): string =>
  `${Papa.unparse(rows as string[][], { newline: '\r\n', delimiter: ',' })}\r\n`;

/** What cells say, short: equal for equal cells, and for no others that anybody will see (128 bits). */
export function cellsDigest(cells: readonly string[]): string {
  return createHash('sha256').update(JSON.stringify(cells)).digest().subarray(0, 16).toString('base64url');
}

/** Rows of a table of ours by their numbers, counted from 1. */
export async function rowsOfTable(
  pieces: AsyncIterable<Uint8Array>,
  wanted: ReadonlySet<number>,
): Promise<string[][]> {
  let text = '';
  const decoder = new TextDecoder();
  for await (const piece of pieces) text += decoder.decode(piece, { stream: true });
  const { data } = Papa.parse<string[]>(text, { delimiter: ',', newline: '\r\n', skipEmptyLines: true });
  return data.filter((_row, i) => i > 0 && wanted.has(i));
}
