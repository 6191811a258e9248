import { randomUUID } from 'node:crypto';
import { mkdir, rm, statfs, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Config } from './config';
import { type Database } from './database';
import { rowsOf } from './scoped';
import { codeOf, isLostConnection } from './database-errors';
import { WRONG_SECRET, type HouseKeys } from './house-keys';
import { newestMigration } from './migrate';

/** Below this an upload may no longer fit. */
const LEAST_FREE = 256 * 1024 * 1024;

/**
 * What keeps the program from doing its work, in one sentence; null where nothing does. It asks the database
 * for its schema and writes to it, and writes a file where files are kept.
 */
export async function faultOf(database: Database, keys: HouseKeys, config: Config): Promise<string | null> {
  return (await databaseFault(database, keys)) ?? (await folderFault(config.DATA_DIR));
}

async function databaseFault(database: Database, keys: HouseKeys): Promise<string | null> {
  try {
    const row = await database.unscoped()('knex_migrations').orderBy('id', 'desc').first('name');
    if (row?.name !== newestMigration)
      return 'The database has another schema than this program. Start it by "npm start", which brings it up to date.';
    await keys.hasher();
    // A full disk, or a server that only reads, is found by writing.
    await rowsOf(database.unscoped(), 'house_key')
      .insert({ name: 'ready', wrapped: String(Date.now()) })
      .onConflict('name')
      .merge();
    return null;
  } catch (error) {
    if (isLostConnection(error)) return 'The database does not answer.';
    if (codeOf(error) === 'ER_NO_SUCH_TABLE')
      return 'The database has no schema yet. Start the program by "npm start", which makes it.';
    if (error instanceof Error && error.message === WRONG_SECRET) return WRONG_SECRET;
    return `The database can not be written to (${codeOf(error) || 'for an unknown reason'}).`;
  }
}

async function folderFault(folder: string): Promise<string | null> {
  const probe = join(folder, `.probe-${randomUUID()}`);
  try {
    await mkdir(folder, { recursive: true });
    await writeFile(probe, 'ready');
    await rm(probe);
    const { bavail, bsize } = await statfs(folder);
    const free = bavail * bsize;
    return free < LEAST_FREE
      ? `The disk where files are kept is nearly full: ${Math.floor(free / 2 ** 20)} MB are left.`
      : null;
  } catch (error) {
    await rm(probe, { force: true }).catch(() => undefined);
    return `Files can not be kept in DATA_DIR (${(error as NodeJS.ErrnoException).code ?? 'unknown'}).`;
  }
}
