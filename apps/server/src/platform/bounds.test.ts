import { openTestHouse, type Client, type TestHouse } from '../testing/harness';
import { bounded } from './bounds';

let house: TestHouse;
let viewer: Client;
beforeAll(async () => {
  house = await openTestHouse();
  viewer = await house.as('viewer');
});
afterAll(() => house.close());

const nested = (levels: number, inner: unknown): unknown =>
  levels === 0 ? inner : { kind: 'all', rules: [nested(levels - 1, inner)] };
const line = { kind: 'tag', tagId: 1, has: true };
const count = (tree: unknown) => viewer.call<{ faults?: object[] }>('POST', '/api/segments/count', { tree });
const taken = async (body: unknown) => {
  const begins = performance.now();
  const { status } = await count(body);
  return { status, ms: performance.now() - begins };
};

test('depth and parts are bounded before any schema, without recursion', () => {
  expect(() => bounded(nested(14, line))).not.toThrow();
  expect(() => bounded(nested(20, line))).toThrow('nested');
  let deep: unknown = [];
  for (let i = 0; i < 1_000_000; i++) deep = [deep];
  expect(() => bounded(deep)).toThrow('nested');
  expect(() => bounded(Array.from({ length: 300_000 }, () => 1))).toThrow('parts');
  expect(() => bounded({ rows: Array.from({ length: 1000 }, () => ({ a: [1, 2, 3] })) })).not.toThrow();
  expect(() => bounded(undefined)).not.toThrow();
});

test('a tree made to stop the house is refused as fast as any other of its size', async () => {
  // As wide as it is deep: each level has every way in which a rule could have been meant.
  const wide = (levels: number): unknown =>
    levels === 0
      ? { kind: 'tag' }
      : {
          kind: 'all',
          rules: [
            wide(levels - 1),
            ...Array.from({ length: 300 }, () => ({ kind: 'field', field: 'x', op: 'is' })),
          ],
        };
  const flat = { kind: 'all', rules: Array.from({ length: 15 * 300 }, () => line) };
  const [calm, trap] = [await taken(flat), await taken(wide(15))];
  expect([calm.status, trap.status]).toEqual([422, 422]);
  expect(trap.ms / Math.max(calm.ms, 100)).toBeLessThan(20);
});

test('of many faults the first twenty are told', async () => {
  const { body } = await count({
    kind: 'all',
    rules: Array.from({ length: 500 }, () => ({ kind: 'tag', tagId: 'x', has: 7, more: 1 })),
  });
  expect(body.faults!.length).toBeLessThanOrEqual(20);
});

test('braces by the thousand make twenty faults and no more', async () => {
  const { id } = await house.client.post<{ id: number }>('/api/messages', {
    name: 'Braces',
    channel: 'text',
    purpose: 'news',
  });
  const words = {
    name: 'Braces',
    purpose: 'news',
    listId: null,
    subject: '',
    preheader: '',
    letter: null,
    text: '{x}'.repeat(600),
    basedOn: 0,
  };
  const saved = await house.client.call<{ faults: object[] }>('PUT', `/api/messages/${id}`, words);
  expect([saved.status, saved.body.faults.length]).toEqual([200, 20]);
});

test.each([
  ['an unknown key', 'POST', '/api/tags', { name: 'x', admin: true }],
  ['a cursor that is none', 'GET', '/api/supporters?after=%00%ff', undefined],
  [
    'a cursor of another table',
    'GET',
    `/api/supporters?after=${Buffer.from('[{"a":1}]').toString('base64url')}`,
    undefined,
  ],
  ['a number that is none', 'GET', '/api/supporters/1e999', undefined],
  ['a list where text is meant', 'GET', '/api/supporters?search[]=a&search[]=b', undefined],
  ['an id beyond all', 'GET', '/api/supporters/99999999999999999999', undefined],
  ['a body that is no object', 'POST', '/api/tags', [1, 2]],
  ['a body that is nothing', 'POST', '/api/tags', null],
] as const)('%s is the fault of whoever sent it', async (_what, method, path, body) => {
  const { status } = await house.client.call(method, path, body);
  expect([status >= 400, status < 500]).toEqual([true, true]);
});

test('a cookie that cannot be read is no session, and no fault of ours', async () => {
  for (const cookie of [
    'gw_session=%',
    'gw_session',
    'gw_session=' + 'x'.repeat(4000),
    '=',
    'gw_session=j:{"a":1}',
    'gw_session=a; gw_session=b',
  ]) {
    const { status } = await fetch(`${house.config.PUBLIC_URL}/api/tags`, { headers: { cookie } });
    expect(status).toBe(401);
  }
});
