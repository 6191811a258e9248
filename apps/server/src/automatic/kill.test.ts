import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import type { AutomationWhole } from '@goodword/core/contract';
import { eventually, openTestHouse, pause, type TestHouse } from '../testing/harness';
import { bringIn, letterOf } from '../testing/steps';

/*
 * Automatic messages with workers that are processes of their own, from the build, killed with SIGKILL again
 * and again: whoever was to get one gets it once, or it is said that it is unsure.
 */
const WORKER = join(__dirname, '../../dist/worker.js');
const PEOPLE = 260;
const AT_ONCE = 5;

let house: TestHouse;
const running: ChildProcess[] = [];
beforeAll(async () => {
  house = await openTestHouse({ sink: { delay: 15 } });
});
afterAll(async () => {
  running.forEach((worker) => worker.kill('SIGKILL'));
  await house.close();
});

function startWorker(): ChildProcess {
  const env = { ...process.env, ...house.env, NODE_ENV: 'production' };
  const worker = spawn(process.execPath, [WORKER], { env, stdio: 'ignore' });
  running.push(worker);
  return worker;
}
async function kill(worker: ChildProcess): Promise<void> {
  const ended = new Promise((done) => worker.once('exit', done));
  worker.kill('SIGKILL');
  await ended;
}

test('taken up and handed over while workers die: each once, none missing, the unsure ones counted', async () => {
  const first = startWorker();
  const rows = Array.from({ length: PEOPLE }, (_none, i) => `k${i}@example.net,K${i},Okoro,`);
  const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
  const { id: tagId } = await house.client.post<{ id: number }>('/api/tags', { name: 'killed' });
  const { id } = await house.client.post<{ id: number }>('/api/automations', {
    ...{ name: 'Through kills', cause: { kind: 'tag', tagId, by: null } },
  });
  for (const [name, n] of [
    ['The first', 0],
    ['The second', 1],
  ] as const) {
    const body = { name, channel: 'email', wait: { n, unit: 'minutes', at: null } };
    const { id: step } = await house.client.post<{ id: number }>(`/api/automations/${id}/steps`, body);
    await house.client.put(`/api/messages/${step}`, {
      ...{ name, purpose: 'appeals', listId: null, subject: name, preheader: '', text: '', basedOn: 0 },
      letter: letterOf('Hello, {First name, or "neighbour"}.'),
    });
    await house.client.post(`/api/messages/${step}/test`);
  }
  const { version } = await house.client.get<AutomationWhole>(`/api/automations/${id}`);
  await house.client.post(`/api/automations/${id}/on`, { basedOn: version, days: 0, people: 0 });
  const tree = { kind: 'batch', batchId: batch.id, in: true };
  await house.client.post('/api/bulk', { group: { tree, without: [] }, act: { do: 'tag', on: true, tagId } });
  const counts = async () => (await house.client.get<AutomationWhole>(`/api/automations/${id}`)).counts;
  // More than the house lets go by itself.
  await eventually('all to be held', counts, ({ held }) => held === PEOPLE, 60);
  await house.client.post(`/api/automations/${id}/let-go`, { people: PEOPLE });
  // The second message is due a minute after the first: nobody waits for that here.
  const hurry = () =>
    house.database
      .unscoped()('automation_visit')
      .where({ automation_id: id, state: 'waiting' })
      .update({ due_at: new Date() });
  let worker = first;
  for (let kills = 0; kills < 5; kills++) {
    await pause(500 + 260 * kills);
    await kill(worker);
    await hurry();
    worker = startWorker();
  }
  await eventually(
    'everybody to be through',
    async () => (await hurry(), counts()),
    ({ done }) => done === PEOPLE,
    120,
  );
  type Kept = { state: string; provider_key: string; supporter_id: number; message_id: number };
  const deliveries = await eventually(
    'nothing to be under way',
    async () =>
      (await house.database
        .unscoped()('delivery')
        .select('state', 'provider_key', 'supporter_id', 'message_id')) as Kept[],
    (all) => all.every(({ state }) => !['ready', 'leased', 'in-flight'].includes(state)),
    120,
  );
  expect(deliveries).toHaveLength(2 * PEOPLE);
  expect(new Set(deliveries.map((one) => `${one.message_id} ${one.supporter_id}`)).size).toBe(2 * PEOPLE);
  const received = house.sink.mails
    .filter(({ raw }) => !raw.includes('Subject: Test:'))
    .map(({ messageId }) => messageId.slice(1, 37));
  expect(new Set(received).size).toBe(received.length);
  const keys = (state: string) =>
    deliveries.filter((one) => one.state === state).map((one) => one.provider_key);
  const [sent, unsure] = [keys('sent'), keys('unsure')];
  expect(sent.length + unsure.length).toBe(2 * PEOPLE);
  expect(unsure.length).toBeLessThanOrEqual(5 * AT_ONCE);
  expect(sent.filter((key) => !received.includes(key))).toEqual([]);
  expect(received.filter((key) => !sent.includes(key) && !unsure.includes(key))).toEqual([]);
}, 300_000);
