import { randomBytes } from 'node:crypto';
import { Database } from './database';
import { migrate } from './migrate';
import { programScope, type AccessScope } from './scope';

const TEMPLATE = 'gw_template';

/**
 * The migrations run once for all test files; each takes the tables that came of it. Two processes that begin
 * together wait for one another.
 */
async function ensureTemplate(server: string, admin: Database): Promise<void> {
  const knex = admin.unscoped();
  await knex.raw("SELECT GET_LOCK('gw_template', 120)");
  const [known] = (await knex.raw('SHOW DATABASES LIKE ?', [`${TEMPLATE}_done`])) as [unknown[]];
  if (known.length === 0) {
    await knex.raw(`DROP DATABASE IF EXISTS ${TEMPLATE}`);
    await knex.raw(`CREATE DATABASE ${TEMPLATE}`);
    const template = new Database(`${server}/${TEMPLATE}`, 2);
    await migrate(template.unscoped());
    await template.close();
    await knex.raw(`CREATE DATABASE ${TEMPLATE}_done`);
  }
  await knex.raw("SELECT RELEASE_LOCK('gw_template')");
}

/** A database of its own for one test file, on the server that the test command started. */
export async function openTestDatabase(): Promise<{
  database: Database;
  url: string;
  close(): Promise<void>;
}> {
  const server = process.env.TEST_DATABASE_SERVER;
  if (!server) throw new Error('expected TEST_DATABASE_SERVER; run the tests by "npm test"');
  const name = `t_${randomBytes(6).toString('hex')}`;
  const admin = new Database(`${server}/mysql`, 1);
  await ensureTemplate(server, admin);
  await admin.unscoped().raw(`CREATE DATABASE ${name}`);
  const [tables] = (await admin
    .unscoped()
    .raw('SELECT table_name AS t FROM information_schema.tables WHERE table_schema = ?', [TEMPLATE])) as [
    { t: string }[],
  ];
  for (const { t } of tables)
    await admin.unscoped().raw(`CREATE TABLE ${name}.\`${t}\` LIKE ${TEMPLATE}.\`${t}\``);
  await admin.unscoped().raw(`INSERT INTO ${name}.knex_migrations SELECT * FROM ${TEMPLATE}.knex_migrations`);
  const database = new Database(`${server}/${name}`);
  return {
    database,
    url: `${server}/${name}`,
    async close() {
      await database.close();
      await admin.unscoped().raw(`DROP DATABASE ${name}`);
      await admin.close();
    },
  };
}

/** An organization with two chapters and an owner, and the scope of all of it. */
export async function makeTestOrganization(
  database: Database,
  name = 'Lantern Ferry Trust',
): Promise<{ scope: AccessScope; chapters: number[]; ownerId: number }> {
  const knex = database.unscoped();
  const [organizationId] = (await knex('organization').insert({
    name,
    country: 'US',
    locale: 'en-US',
    currency: 'USD',
    time_zone: 'America/Los_Angeles',
    postal_address: '1 Slip Lane, Port Alder',
    from_email: 'hello@lanternferry.test',
    list_domain: 'lists.lanternferry.test',
    text_from: '+12065550100',
  })) as [number];
  const chapters: number[] = [];
  for (const chapter of ['East Landing', 'West Landing']) {
    chapters.push(
      ((await knex('chapter').insert({ organization_id: organizationId, name: chapter })) as [number])[0],
    );
  }
  const [ownerId] = (await knex('teammate').insert({
    organization_id: organizationId,
    name: 'Rosa Oduya',
    email: `rosa.${organizationId}@lanternferry.test`,
    role: 'owner',
    password_hash: 'none',
    mobile: '+12065550110',
    signature: 'Rosa',
  })) as [number];
  return { scope: { ...programScope(organizationId), actorId: ownerId }, chapters, ownerId };
}
