import { setTimeout as timer } from 'node:timers/promises';
import type { Database } from './database';
import { RateLimits } from './rate-limit';
import { openTestDatabase } from './test-database';

let database: Database;
let close: () => Promise<void>;

beforeAll(async () => ({ database, close } = await openTestDatabase()));
afterAll(() => close());

const passes = (limit: { pass(key: string): Promise<boolean> }, key: string, times: number) =>
  Promise.all(Array.from({ length: times }, () => limit.pass(key)));
const through = (answers: readonly boolean[]) => answers.filter(Boolean).length;

test('processes count together, each key for itself, however many come at once', async () => {
  // Two of them, as two processes have them: nothing is shared but the database.
  const [one, other] = [new RateLimits(database), new RateLimits(database)].map((limits) =>
    limits.of('together', 5, 60),
  );
  const answers = (await Promise.all([passes(one!, 'a', 6), passes(other!, 'a', 6)])).flat();
  expect(through(answers)).toBe(5);
  expect(await other!.pass('a')).toBe(false);
  expect(await one!.pass('b')).toBe(true);
});

test('limits of different names do not count for each other', async () => {
  const limits = new RateLimits(database);
  expect(await limits.of('first', 1, 60).pass('a')).toBe(true);
  expect(await limits.of('second', 1, 60).pass('a')).toBe(true);
});

test('an act that did not happen is taken back', async () => {
  const limit = new RateLimits(database).of('back', 1, 60);
  expect(await limit.pass('a')).toBe(true);
  await limit.undo('a');
  expect(await limit.pass('a')).toBe(true);
  expect(await limit.pass('a')).toBe(false);
});

test('a window ends', async () => {
  const limit = new RateLimits(database).of('window', 1, 1);
  expect([await limit.pass('a'), await limit.pass('a')]).toEqual([true, false]);
  await timer(1100);
  expect(await limit.pass('a')).toBe(true);
});

test('who came is kept as a hash', async () => {
  await new RateLimits(database).of('hash', 1, 60).pass('192.0.2.77');
  const rows = (await database.unscoped()('rate_limit').select('key')) as { key: string }[];
  expect(rows.some(({ key }) => key.startsWith('hash:'))).toBe(true);
  expect(rows.some(({ key }) => key.includes('192.0.2'))).toBe(false);
});

test('while the database does not answer, each process counts for itself', async () => {
  const { database: gone, close: end } = await openTestDatabase();
  const limit = new RateLimits(gone).of('alone', 2, 60);
  await end();
  expect(await passes(limit, 'a', 3)).toEqual([true, true, false]);
});
