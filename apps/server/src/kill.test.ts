import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { openTestHouse, pause, eventually, type TestHouse } from './testing/harness';
import { Wire } from './testing/wire';
import { batchAt, bringIn, draftEmail, lastLook, planFor, takeFile } from './testing/steps';

/*
 * The worker as a process of its own, killed with SIGKILL in the middle of its work. It runs from the build,
 * as in the real thing.
 */
const WORKER = join(__dirname, '../dist/worker.js');

let house: TestHouse;
let running: ChildProcess[] = [];

function startWorker(env: Record<string, string> = {}): ChildProcess {
  const worker = spawn(process.execPath, [WORKER], {
    env: { ...process.env, ...house.env, ...env, NODE_ENV: 'production' },
    stdio: 'ignore',
  });
  running.push(worker);
  return worker;
}

async function kill(worker: ChildProcess): Promise<void> {
  const ended = new Promise((done) => worker.once('exit', done));
  worker.kill('SIGKILL');
  await ended;
}

const count = async (table: string, where: object = {}) =>
  Number(((await house.database.unscoped()(table).where(where).count('* as n')) as { n: number }[])[0]!.n);

beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(async () => {
  running.forEach((worker) => worker.kill('SIGKILL'));
  await house.close();
});
afterEach(() => {
  running.forEach((worker) => worker.kill('SIGKILL'));
  running = [];
});

test('an intake that is killed goes on after the lease, with nobody twice and nobody missing', async () => {
  const rows = 16_000;
  const csv = [
    'Email,First,Last,Mobile',
    ...Array.from({ length: rows }, (_v, i) => `p${i}@example.org,P${i},Lin,`),
  ].join('\n');
  const first = startWorker();
  const id = await takeFile(house.client, csv);
  await house.client.put(`/api/batches/${id}/plan`, planFor());
  await batchAt(house.client, id, 'checked');
  await house.client.post(`/api/batches/${id}/bring-in`);
  const batch = () =>
    house.database.unscoped()('batch').where({ id }).first('next_row', 'state') as unknown as Promise<{
      next_row: number;
      state: string;
    }>;
  await eventually('the first slices', batch, (row) => row.next_row >= 4000);
  await kill(first);
  const left = await batch();
  expect(left.next_row).toBeLessThan(rows);
  startWorker();
  await batchAt(house.client, id, 'done');
  expect(await count('supporter', { batch_id: id })).toBe(rows);
  expect(await count('supporter_contact', { batch_id: id })).toBe(rows);
  expect(await count('permission_entry', { batch_id: id })).toBe(2 * rows);
  expect(await count('permission_state')).toBe(2 * rows);
}, 300_000);

test('a send that is killed goes on after the lease: none twice by itself, none missing, what was under way is unsure', async () => {
  const people = 300;
  // Five connections, and nothing is under way but what is on one of them.
  const atOnce = 5;
  const worker = startWorker();
  const csv = [
    'Email,First,Last,Mobile',
    ...Array.from({ length: people }, (_v, i) => `s${i}@example.net,S${i},Okoro,`),
  ].join('\n');
  const batch = await bringIn(house.client, csv);
  const message = await draftEmail(
    house.client,
    { from: [{ kind: 'batch', id: batch.id }] },
    { subject: 'Killed in the middle' },
  );
  await house.client.post(`/api/messages/${message}/test`);
  const { reached, digest } = await lastLook(house.client, message);
  expect(reached).toBe(people);
  house.sink.options.delay = 60;
  await house.client.post(`/api/messages/${message}/send`, { at: null, digest });
  const arrived = () =>
    house.sink.mails.filter(
      (mail) => mail.raw.includes('Subject: Killed in the middle') && !mail.raw.includes('Subject: Test:'),
    );
  await eventually(
    'a part of the mails',
    () => arrived().length,
    (n) => n >= 60,
    60,
  );
  await kill(worker);
  await pause(200);
  const atKill = arrived().length;
  expect(atKill).toBeLessThan(people);
  startWorker();
  await eventually(
    'the message to be done',
    () => house.database.unscoped()('message').where({ id: message }).first('state'),
    (row: { state: string }) => row.state === 'done',
    60,
  );

  const deliveries = (await house.database
    .unscoped()('delivery')
    .where({ message_id: message })
    .select('state', 'provider_key')) as {
    state: string;
    provider_key: string;
  }[];
  const received = arrived().map((mail) => mail.messageId.slice(1, 37));
  const unsure = deliveries
    .filter((delivery) => delivery.state === 'unsure')
    .map((delivery) => delivery.provider_key);
  const sent = deliveries
    .filter((delivery) => delivery.state === 'sent')
    .map((delivery) => delivery.provider_key);
  expect(new Set(received).size).toBe(received.length);
  expect(sent.length + unsure.length).toBe(people);
  expect(unsure.length).toBeLessThanOrEqual(atOnce);
  expect(unsure.length).toBeGreaterThan(0);
  const receivedSet = new Set(received);
  expect(sent.filter((key) => !receivedSet.has(key))).toEqual([]);
  expect(received.filter((key) => !sent.includes(key) && !unsure.includes(key))).toEqual([]);

  // Settled by a person: one went, another is sent again.
  const [row] = (await house.database
    .unscoped()('delivery')
    .where({ message_id: message, state: 'unsure' })
    .select('id')) as { id: number }[];
  await house.client.post(`/api/deliveries/${row!.id}/settle`, { as: 'sent' });
  expect((await house.client.call('POST', `/api/deliveries/${row!.id}/settle`, { as: 'again' })).status).toBe(
    409,
  );
  expect(await count('delivery', { message_id: message, state: 'unsure' })).toBe(unsure.length - 1);
}, 300_000);

test('a database that goes away in the middle of a send is waited for: everything goes out once', async () => {
  const people = 200;
  const url = new URL(house.env.DATABASE_URL!);
  const wire = await new Wire(Number(url.port)).listen();
  url.port = String(wire.port);
  house.sink.options.delay = 0;
  startWorker({ DATABASE_URL: url.href });
  const csv = [
    'Email,First,Last,Mobile',
    ...Array.from({ length: people }, (_v, i) => `w${i}@example.com,W${i},Seo,`),
  ].join('\n');
  const batch = await bringIn(house.client, csv);
  const message = await draftEmail(
    house.client,
    { from: [{ kind: 'batch', id: batch.id }] },
    { subject: 'Over a cut wire' },
  );
  await house.client.post(`/api/messages/${message}/test`);
  const { digest } = await lastLook(house.client, message);
  house.sink.options.delay = 30;
  await house.client.post(`/api/messages/${message}/send`, { at: null, digest });
  const arrived = () =>
    house.sink.mails
      .filter((mail) => mail.raw.includes('Subject: Over a cut wire'))
      .map((mail) => mail.messageId);
  await eventually(
    'a part of the mails',
    () => arrived().length,
    (n) => n >= 40,
    60,
  );
  wire.sever();
  await pause(1000);
  const away = arrived().length;
  await pause(1500);
  // Nothing new leaves while nobody can write down that it has.
  expect(arrived().length).toBe(away);
  expect(away).toBeLessThan(people);
  wire.mend();
  await eventually(
    'the message to be done',
    () =>
      house.database.unscoped()('message').where({ id: message }).first('state') as unknown as Promise<{
        state: string;
      }>,
    (row) => row.state === 'done',
    60,
  );
  expect(new Set(arrived()).size).toBe(arrived().length);
  const sent = await count('delivery', { message_id: message, state: 'sent' });
  const unsure = await count('delivery', { message_id: message, state: 'unsure' });
  expect(sent + unsure).toBe(people);
  expect(arrived().length).toBeGreaterThanOrEqual(sent);
  await wire.close();
}, 300_000);
