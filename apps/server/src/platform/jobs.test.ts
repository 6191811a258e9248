import { due } from './due';
import {
  cancel,
  enqueue,
  JOB_KINDS,
  type JobHandler,
  type JobKind,
  JobRegistry,
  JobRunner,
  JOBS_DUE,
  LANES,
  type Running,
} from './jobs';
import { Unavailable } from './errors';
import type { Database } from './database';
import type { AccessScope } from './scope';
import { makeTestOrganization, openTestDatabase } from './test-database';

let database: Database;
let close: () => Promise<void>;
let scope: AccessScope;
const quiet = { info: () => undefined, error: () => undefined };

beforeAll(async () => {
  ({ database, close } = await openTestDatabase());
  ({ scope } = await makeTestOrganization(database));
});
afterAll(() => close());
beforeEach(async () => void (await database.unscoped()('job').delete()));

function runner(handler: JobHandler, lease = 5): JobRunner {
  return new JobRunner(
    database,
    Object.fromEntries(JOB_KINDS.map((kind) => [kind, handler])) as Record<JobKind, JobHandler>,
    lease,
    quiet,
  );
}

const jobs = () =>
  database.unscoped()('job').orderBy('id') as unknown as Promise<
    { state: string; attempts: number; error: string | null }[]
  >;

test('a job is run once, however many runners look for it', async () => {
  for (let ref = 1; ref <= 20; ref++) await enqueue(database.unscoped(), scope, 'batch-check', ref);
  const done: number[] = [];
  const drain = async (one: JobRunner) => {
    while (await one.runOne());
  };
  const handler: JobHandler = async (job) => void done.push(job.refId);
  await Promise.all([drain(runner(handler)), drain(runner(handler)), drain(runner(handler))]);
  expect(done.sort((a, b) => a - b)).toEqual(Array.from({ length: 20 }, (_v, i) => i + 1));
  expect((await jobs()).every((job) => job.state === 'done')).toBe(true);
});

test('each kind has one place that does it, and no worker begins while one has none', async () => {
  class Doer {
    readonly did: number[] = [];
    async all(job: Running) {
      this.did.push(job.refId);
    }
  }
  const [doer, registry] = [new Doer(), new JobRegistry()];
  const [first, ...others] = JOB_KINDS;
  registry.add(others, Doer, 'all');
  expect(() => registry.handlers(() => doer)).toThrow(`expected a place that does ${first!} jobs, got none`);
  registry.add([first!], Doer, 'all');
  await registry.handlers(() => doer)[first!]({ refId: 7 } as Running);
  expect(doer.did).toEqual([7]);
  expect(() => registry.add([first!], Doer, 'all')).toThrow('got two');
});

test('lanes hold every kind once, and one lane never waits for another', async () => {
  expect([...LANES].flat().sort()).toEqual([...JOB_KINDS].sort());
  let [release, begun] = [(): void => undefined, (): void => undefined];
  const held = new Promise<void>((done) => (release = done));
  const began = new Promise<void>((done) => (begun = done));
  const one = runner(async (job) => (job.refId === 1 ? (begun(), held) : undefined));
  await enqueue(database.unscoped(), scope, 'batch-take-out', 1);
  const laneOf = (kind: (typeof JOB_KINDS)[number]) => LANES.find((lane) => lane.includes(kind));
  const slow = one.runOne(laneOf('batch-take-out'));
  await began;
  await enqueue(database.unscoped(), scope, 'batch-bring-in', 2);
  await enqueue(database.unscoped(), scope, 'message-personal', 3);
  expect(await due(database, [JOBS_DUE, "SELECT 'other' AS due FROM DUAL WHERE 1 = 0"])).toEqual(
    new Set(['batch-bring-in', 'message-personal']),
  );
  expect(await one.runOne(laneOf('message-personal'))).toBe(true);
  expect((await jobs()).map(({ state }) => state)).toEqual(['running', 'waiting', 'done']);
  release();
  await slow;
  expect(await one.runOne(laneOf('batch-bring-in'))).toBe(true);
});

test('a job of later is left until then', async () => {
  await enqueue(database.unscoped(), scope, 'message-prepare', 1, new Date(Date.now() + 60_000));
  expect(await runner(async () => undefined).runOne()).toBe(false);
});

test('a failed job is tried again later, and given up after five times with its reason', async () => {
  await enqueue(database.unscoped(), scope, 'batch-check', 1);
  const failing = runner(async () => {
    throw new Error('a fault of ours');
  });
  for (let attempt = 1; attempt <= 5; attempt++) {
    expect(await failing.runOne()).toBe(true);
    expect(await failing.runOne()).toBe(false);
    await database
      .unscoped()('job')
      .where('state', 'waiting')
      .update({ run_at: new Date(0) });
  }
  expect(await jobs()).toMatchObject([{ state: 'failed', attempts: 5, error: 'a fault of ours' }]);
});

test('a lost connection costs no attempt: the job is taken up when the lease runs out', async () => {
  await enqueue(database.unscoped(), scope, 'batch-check', 1);
  let times = 0;
  const flaky = runner(async () => {
    times += 1;
    if (times === 1) throw new Unavailable('gone for a moment');
  });
  await flaky.runOne();
  expect(await jobs()).toMatchObject([{ state: 'running', attempts: 0 }]);
  expect(await flaky.runOne()).toBe(false);
  await database
    .unscoped()('job')
    .update({ lease_until: new Date(0) });
  expect(await flaky.runOne()).toBe(true);
  expect([times, (await jobs())[0]!.state]).toEqual([2, 'done']);
});

test('a running job hears that it should stop, and that its lease went to another', async () => {
  await enqueue(database.unscoped(), scope, 'batch-bring-in', 7);
  const heard: boolean[] = [];
  await runner(async (job) => {
    heard.push(await job.stopped());
    await cancel(database.unscoped(), 'batch-bring-in', 7);
    heard.push(await job.stopped());
    await database.unscoped()('job').update({ cancel: 0, leased_by: 'another' });
    heard.push(await job.stopped());
  }).runOne();
  expect(heard).toEqual([false, true, true]);
});

test('a long job keeps its lease', async () => {
  await enqueue(database.unscoped(), scope, 'batch-check', 1);
  const slow = runner(() => new Promise((done) => setTimeout(done, 1500)), 1);
  const other = runner(async () => undefined, 1);
  const running = slow.runOne();
  await new Promise((done) => setTimeout(done, 1200));
  expect(await other.runOne()).toBe(false);
  await running;
  expect((await jobs())[0]!.state).toBe('done');
});
