import { migrate } from '@goodword/server/platform/migrate';
import { Database } from '@goodword/server/platform/database';
import { fillHouse } from './fill';

/** Makes the database itself where the server is new. */
async function makeDatabase(url: URL): Promise<void> {
  const name = url.pathname.slice(1);
  if (!/^\w+$/.test(name)) throw new Error(`expected a plain database name in DATABASE_URL, got "${name}"`);
  const admin = new Database(new URL('/mysql', url).href, 1);
  await admin.unscoped().raw(`CREATE DATABASE IF NOT EXISTS \`${name}\``);
  await admin.close();
}

async function main(): Promise<void> {
  const url = new URL(process.env.DATABASE_URL ?? '');
  await makeDatabase(url);
  const database = new Database(url.href, 2);
  await migrate(database.unscoped());
  const { DONOR_DESK_PAGE: page, DONOR_DESK_TOKEN: token } = process.env;
  const desk = page && token ? { url: page, token } : null;
  if (process.env.FILL_DEMO !== '0' && (await fillHouse(database, process.env.SECRET ?? '', { desk })))
    console.log('The demo organization is filled: the Lantern Ferry Trust, 12,000 supporters.');
  await database.close();
}

void main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
