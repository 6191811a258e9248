import { createWorker } from '../create-worker';
import { isLostConnection } from '../platform/database-errors';
import { openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, lastLook, messageAt, resultsOf } from '../testing/steps';
import { OutboxRepository } from './outbox.repository';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse({ env: { SMTP_CONNECTIONS: '2', LEASE_SECONDS: '2' } });
});
afterAll(() => house.close());

test('several workers hand one message over together, and nobody gets it twice', async () => {
  const people = 240;
  house.startWorker();
  const csv = [
    'Email,First,Last,Mobile',
    ...Array.from({ length: people }, (_v, i) => `h${i}@example.org,H${i},Lin,`),
  ].join('\n');
  const batch = await bringIn(house.client, csv);
  const id = await draftEmail(
    house.client,
    { from: [{ kind: 'batch', id: batch.id }] },
    { subject: 'Together' },
  );
  await house.client.post(`/api/messages/${id}/test`);
  const { digest } = await lastLook(house.client, id);
  const others = [1, 2].map(() => createWorker(house.app, house.config));
  others.forEach((worker) => void worker.run());
  await house.client.post(`/api/messages/${id}/send`, { at: null, digest });
  await messageAt(house.client, id, 'done');
  await Promise.all(others.map((worker) => worker.stop()));
  const got = house.sink.mails
    .filter((mail) => mail.raw.includes('Subject: Together'))
    .map((mail) => mail.to);
  expect([got.length, new Set(got).size]).toEqual([people, people]);
  expect((await resultsOf(house.client, id)).counts).toMatchObject({ sent: people, unsure: 0, waiting: 0 });
}, 300_000);

test('a worker that is asked to stop leaves nothing unsure and nothing leased', async () => {
  const csv = [
    'Email,First,Last,Mobile',
    ...Array.from({ length: 60 }, (_v, i) => `k${i}@example.org,K${i},Lin,`),
  ].join('\n');
  const batch = await bringIn(house.client, csv);
  const id = await draftEmail(
    house.client,
    { from: [{ kind: 'batch', id: batch.id }] },
    { subject: 'Stopping' },
  );
  await house.client.post(`/api/messages/${id}/test`);
  const { digest } = await lastLook(house.client, id);
  await house.worker.stop();
  const first = createWorker(house.app, house.config);
  void first.run();
  house.sink.options.delay = 40;
  await house.client.post(`/api/messages/${id}/send`, { at: null, digest });
  const arrived = () => house.sink.mails.filter((mail) => mail.raw.includes('Subject: Stopping')).length;
  await eventually('some mails', arrived, (n) => n >= 10);
  await first.stop();
  const states = (await house.database
    .unscoped()('delivery')
    .where({ message_id: id })
    .groupBy('state')
    .select('state')
    .count('* as n')) as {
    state: string;
    n: number;
  }[];
  const stood = Object.fromEntries(states.map((row) => [row.state, Number(row.n)]));
  expect(stood.sent).toBe(arrived());
  expect(stood.sent! + (stood.ready ?? 0)).toBe(60);
  house.sink.options.delay = 0;
  const second = createWorker(house.app, house.config);
  void second.run();
  await messageAt(house.client, id, 'done');
  await second.stop();
  expect(arrived()).toBe(60);
}, 300_000);

test('a fault at the door ends the whole slice before another begins: nothing goes twice, nothing sent is forgotten', async () => {
  const people = 120;
  const csv = [
    'Email,First,Last,Mobile',
    ...Array.from({ length: people }, (_v, i) => `f${i}@example.org,F${i},Lin,`),
  ].join('\n');
  await house.worker.stop();
  const worker = createWorker(house.app, house.config);
  void worker.run();
  const batch = await bringIn(house.client, csv);
  const id = await draftEmail(
    house.client,
    { from: [{ kind: 'batch', id: batch.id }] },
    { subject: 'Faulty door' },
  );
  await house.client.post(`/api/messages/${id}/test`);
  const { digest } = await lastLook(house.client, id);
  const outbox = house.app.get(OutboxRepository);
  const open = outbox.door.bind(outbox);
  let asked = 0;
  const door = jest.spyOn(outbox, 'door').mockImplementation((...question) => {
    asked += 1;
    return asked === 4 || asked === 9
      ? Promise.reject(new Error('a fault that nobody foresaw'))
      : open(...question);
  });
  house.sink.options.delay = 50;
  await house.client.post(`/api/messages/${id}/send`, { at: null, digest });
  await messageAt(house.client, id, 'done');
  await worker.stop();
  door.mockRestore();
  house.sink.options.delay = 0;
  expect(asked).toBeGreaterThan(9);
  const got = house.sink.mails
    .filter((mail) => mail.raw.includes('Subject: Faulty door'))
    .map((mail) => mail.to);
  expect([got.length, new Set(got).size]).toEqual([people, people]);
  expect((await resultsOf(house.client, id)).counts).toMatchObject({ sent: people, unsure: 0, waiting: 0 });
}, 300_000);

/** Numbers from 0 to 1, the same for the same seed. */
function dice(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

const FAULTS = [
  () => new Error('a fault that nobody foresaw'),
  () => Object.assign(new Error('closed'), { code: 'PROTOCOL_CONNECTION_LOST', fatal: true }),
  () => Object.assign(new Error("Can't add new command when connection is in closed state"), { fatal: true }),
  () => Object.assign(new Error('Deadlock found'), { code: 'ER_LOCK_DEADLOCK' }),
];

test.each([1, 2, 3])(
  'whatever fails at the door, at the record and on the way, everybody is accounted for once (seed %i)',
  async (seed) => {
    const people = 60;
    const roll = dice(seed);
    const fate = Array.from({ length: people }, () => roll());
    const numberOf = (to: string) => Number(/\d+(?=@)/.exec(to)![0]);
    const csv = [
      'Email,First,Last,Mobile',
      ...fate.map((_one, i) => `r${seed}x${i}@example.org,R${i},Lin,`),
    ].join('\n');
    await house.worker.stop();
    const workers = [createWorker(house.app, house.config), createWorker(house.app, house.config)];
    workers.forEach((worker) => void worker.run());
    const batch = await bringIn(house.client, csv);
    const id = await draftEmail(
      house.client,
      { from: [{ kind: 'batch', id: batch.id }] },
      { subject: `Fate ${seed}` },
    );
    await house.client.post(`/api/messages/${id}/test`);
    const { digest } = await lastLook(house.client, id);
    const outbox = house.app.get(OutboxRepository);
    const [open, record] = [outbox.door.bind(outbox), outbox.record.bind(outbox)];
    let faults = 12;
    const failing = () =>
      faults > 0 && roll() < 0.35 ? Promise.reject(FAULTS[(faults -= 1) % FAULTS.length]!()) : null;
    const spies = [
      jest.spyOn(outbox, 'door').mockImplementation((...question) => failing() ?? open(...question)),
      jest.spyOn(outbox, 'record').mockImplementation((...question) => failing() ?? record(...question)),
    ];
    house.sink.options.delay = 15;
    house.sink.options.answer = (to) => (fate[numberOf(to)]! < 0.1 ? 550 : null);
    house.sink.options.cutAfterData = (to) => fate[numberOf(to)]! > 0.92;
    await house.client.post(`/api/messages/${id}/send`, { at: null, digest });
    await messageAt(house.client, id, 'done');
    await Promise.all(workers.map((worker) => worker.stop()));
    spies.forEach((spy) => spy.mockRestore());
    Object.assign(house.sink.options, { delay: 0, answer: undefined, cutAfterData: undefined });
    const got = house.sink.mails
      .filter((mail) => mail.raw.includes(`Subject: Fate ${seed}`))
      .map((mail) => numberOf(mail.to));
    expect(new Set(got).size).toBe(got.length);
    const rows = (await house.database
      .unscoped()('delivery')
      .where({ message_id: id })
      .select('state', 'supporter_id')) as { state: string }[];
    const count = (state: string) => rows.filter((row) => row.state === state).length;
    // A hand-over that could not be written down before the lease ran out is unsure, and never sent again by
    // itself.
    expect(count('sent') + count('bounced') + count('unsure')).toBe(people);
    expect(count('sent')).toBeLessThanOrEqual(got.length);
    expect(
      got.length + fate.filter((one) => one < 0.1).length + fate.filter((one) => one > 0.92).length,
    ).toBe(people);
  },
  300_000,
);

test.each<[string, unknown, boolean]>([
  [
    'a connection that was closed',
    Object.assign(new Error('closed'), { code: 'PROTOCOL_CONNECTION_LOST', fatal: true }),
    true,
  ],
  [
    'a command given to one that is closed',
    Object.assign(new Error("Can't add new command when connection is in closed state"), { fatal: true }),
    true,
  ],
  [
    'a wrong statement',
    Object.assign(new Error('no such column'), { code: 'ER_BAD_FIELD_ERROR', fatal: false }),
    false,
  ],
  [
    'a refused sign-in',
    Object.assign(new Error('denied'), { code: 'ER_ACCESS_DENIED_ERROR', fatal: true }),
    false,
  ],
  ['a fault of our own', new TypeError('undefined'), false],
])('%s is waited for or told', (_name, error, lost) => expect(isLostConnection(error)).toBe(lost));
