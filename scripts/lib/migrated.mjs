/** A database that holds nothing but what the migrations make, for as long as somebody looks at it. */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { loadTypeScript } from './load-typescript.mjs';
import { startMariaDb } from './mariadb.mjs';
import { freePort } from './ports.mjs';
import { DATA, ensureFolder, ROOT } from './prepare.mjs';

/** @param {(at: { host: string; port: number; user: string; database: string }) => Promise<T>} work */
export async function withMigratedDatabase(work) {
  const folder = join(ensureFolder(join(DATA, 'migrated')), 'mariadb');
  rmSync(folder, { recursive: true, force: true });
  const server = await startMariaDb({ folder, port: await freePort(4780), relaxed: true });
  try {
    const { Database } = loadTypeScript(join(ROOT, 'apps/server/src/platform/database.ts'));
    const { migrate } = loadTypeScript(join(ROOT, 'apps/server/src/platform/migrate.ts'));
    const url = `mysql://root@127.0.0.1:${server.port}`;
    const admin = new Database(`${url}/mysql`, 1);
    await admin.unscoped().raw('CREATE DATABASE migrated');
    await admin.close();
    const database = new Database(`${url}/migrated`, 2);
    await migrate(database.unscoped());
    await database.close();
    return await work({ host: '127.0.0.1', port: server.port, user: 'root', database: 'migrated' });
  } finally {
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
