import type { Database } from './database';
import type { AccessScope } from './scope';
import { makeTestOrganization, openTestDatabase } from './test-database';

let database: Database;
let close: () => Promise<void>;
let scope: AccessScope;
beforeAll(async () => {
  ({ database, close } = await openTestDatabase());
  scope = (await makeTestOrganization(database)).scope;
});
afterAll(() => close());

const mine = 'SELECT id FROM organization WHERE id = :org';

test('within a transaction no second connection is given, however deep it is asked for; what is handed on is read in it', async () => {
  const within = (work: () => Promise<unknown>) => database.writeUnlogged(scope, work);
  const refused = 'expected one connection for each transaction';
  await expect(within(() => database.read(scope).sql(mine))).rejects.toThrow(refused);
  await expect(within(() => database.writeUnlogged(scope, (tx) => tx.sql(mine)))).rejects.toThrow(refused);
  await expect(within(async () => database.unscoped()('organization').select('id'))).rejects.toThrow(refused);
  expect(await database.writeUnlogged(scope, (tx) => database.read(tx).sql(mine))).toHaveLength(1);
  // Outside of it everybody has their own.
  expect(
    await Promise.all([database.read(scope).sql(mine), database.writeUnlogged(scope, (tx) => tx.sql(mine))]),
  ).toHaveLength(2);
});
