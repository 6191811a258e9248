import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { chmod, copyFile, mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

/** Where files are kept: by a key that it gives out itself. */
export interface Storage {
  put(bytes: Uint8Array): Promise<string>;
  /** Takes a file that lies elsewhere on this machine; the other is left as it is. */
  adopt(path: string): Promise<string>;
  get(key: string): Promise<Buffer>;
  /** The file in pieces, so that a large one is never held whole. */
  pieces(key: string): AsyncIterable<Uint8Array>;
  remove(key: string): Promise<void>;
}

export const STORAGE = Symbol('STORAGE');

/** Files of people are for the user that the program runs as, and nobody else on the machine. */
const OURS_ALONE = { recursive: true, mode: 0o700 } as const;

/** Files in a folder; a file is there whole or not at all. */
export class FolderStorage implements Storage {
  constructor(private readonly folder: string) {}

  async put(bytes: Uint8Array): Promise<string> {
    const key = randomUUID();
    await mkdir(this.folder, OURS_ALONE);
    await writeFile(`${this.path(key)}.part`, bytes, { mode: 0o600 });
    await rename(`${this.path(key)}.part`, this.path(key));
    return key;
  }

  async adopt(path: string): Promise<string> {
    const key = randomUUID();
    await mkdir(this.folder, OURS_ALONE);
    await copyFile(path, `${this.path(key)}.part`);
    await chmod(`${this.path(key)}.part`, 0o600);
    await rename(`${this.path(key)}.part`, this.path(key));
    return key;
  }

  pieces(key: string): AsyncIterable<Uint8Array> {
    return createReadStream(this.path(key), { highWaterMark: 1 << 20 });
  }

  async get(key: string): Promise<Buffer> {
    return readFile(this.path(key));
  }

  async remove(key: string): Promise<void> {
    await rm(this.path(key), { force: true });
  }

  private path(key: string): string {
    if (!/^[0-9a-f-]{36}$/.test(key)) throw new Error(`expected a storage key, got "${key}"`);
    return join(this.folder, key);
  }
}
