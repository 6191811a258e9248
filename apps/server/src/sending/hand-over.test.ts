import { createWorker } from '../create-worker';
import { openHouse, until, type House } from '../testing/harness';
import { bringIn, draftEmail, lastLook, messageAt, resultsOf } from '../testing/steps';

let house: House;
beforeAll(async () => {
  house = await openHouse({ env: { SMTP_CONNECTIONS: '2' } });
});
afterAll(() => house.close());

test('several workers hand one message over together, and nobody gets it twice', async () => {
  const people = 240;
  house.startWorker();
  const csv = ['Email,First,Last,Mobile', ...Array.from({ length: people }, (_v, i) => `h${i}@example.org,H${i},Lin,`)].join('\n');
  const batch = await bringIn(house.client, csv);
  const id = await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] }, { subject: 'Together' });
  await house.client.post(`/api/messages/${id}/test`);
  const { reached } = await lastLook(house.client, id);
  const others = [1, 2].map(() => createWorker(house.app, house.config));
  others.forEach((worker) => void worker.run());
  await house.client.post(`/api/messages/${id}/send`, { at: null, expected: reached });
  await messageAt(house.client, id, 'done', 60);
  await Promise.all(others.map((worker) => worker.stop()));
  const got = house.sink.mails.filter((mail) => mail.raw.includes('Subject: Together')).map((mail) => mail.to);
  expect([got.length, new Set(got).size]).toEqual([people, people]);
  expect((await resultsOf(house.client, id)).counts).toMatchObject({ sent: people, unsure: 0, waiting: 0 });
}, 90_000);

test('a worker that is asked to stop leaves nothing unsure and nothing leased', async () => {
  const csv = ['Email,First,Last,Mobile', ...Array.from({ length: 60 }, (_v, i) => `k${i}@example.org,K${i},Lin,`)].join('\n');
  const batch = await bringIn(house.client, csv);
  const id = await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] }, { subject: 'Stopping' });
  await house.client.post(`/api/messages/${id}/test`);
  const { reached } = await lastLook(house.client, id);
  await house.worker.stop();
  const first = createWorker(house.app, house.config);
  void first.run();
  house.sink.options.delay = 40;
  await house.client.post(`/api/messages/${id}/send`, { at: null, expected: reached });
  const arrived = () => house.sink.mails.filter((mail) => mail.raw.includes('Subject: Stopping')).length;
  await until('some mails', arrived, (n) => n >= 10);
  await first.stop();
  const states = (await house.database.unscoped()('delivery').where({ message_id: id }).groupBy('state').select('state').count('* as n')) as {
    state: string;
    n: number;
  }[];
  const stood = Object.fromEntries(states.map((row) => [row.state, Number(row.n)]));
  expect(stood.sent).toBe(arrived());
  expect(stood.sent! + (stood.ready ?? 0)).toBe(60);
  house.sink.options.delay = 0;
  const second = createWorker(house.app, house.config);
  void second.run();
  await messageAt(house.client, id, 'done', 30);
  await second.stop();
  expect(arrived()).toBe(60);
}, 90_000);
