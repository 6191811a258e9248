import type { BatchView, JobView, RecordView } from '@goodword/core/contract';
import { Database } from '../platform/database';
import { tookTooLong } from '../platform/database-errors';
import { openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { batchAt, bringIn, planFor, takeFile } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const rows = (n: number, at: string) =>
  `Email,First,Last,Mobile\n${Array.from({ length: n }, (_none, i) => `${at}${i}@example.org,Ann,Lee${i},`).join('\n')}\n`;
/** Takes a batch out and holds it in the middle, at an address, until it is let go on. */
async function waitingBatch(id: number): Promise<{ view: BatchView; goOn: () => Promise<void> }> {
  const blocker = new Database(house.config.DATABASE_URL, 1);
  const trx = await blocker.unscoped().transaction();
  await trx('contact_point').where('batch_id', id).orderBy('id').limit(1).forUpdate().select('id');
  await house.client.post(`/api/batches/${id}/take-out`);
  const view = await eventually(
    'it to be under way',
    () => batch(id),
    ({ state, total, done }) => state === 'taking-out' && total > 0 && done > 10,
  );
  const goOn = async () => {
    await trx.rollback();
    await blocker.close();
  };
  return { view, goOn };
}

/** Resolves when the house's database has somebody wait beside the one that is held, and go on waiting. */
async function anotherWaits(isOver: () => boolean): Promise<string> {
  const waiting = `SELECT COUNT(DISTINCT w.requesting_trx_id) AS n FROM information_schema.INNODB_LOCK_WAITS w
    JOIN information_schema.INNODB_LOCKS l ON l.lock_id = w.requested_lock_id
    AND l.lock_table LIKE CONCAT('_', DATABASE(), '_.%')`;
  let looks = 0;
  const waits = async () => {
    const [[row]] = (await house.database.unscoped().raw(waiting)) as [[{ n: number }]];
    return (looks = row.n > 1 ? looks + 1 : 0);
  };
  await eventually('another to wait', waits, (n) => n > 20 || isOver()).catch(() => undefined);
  return 'another waits';
}

const batch = (id: number) => house.client.get<BatchView>(`/api/batches/${id}`);

test('checking is stopped: the batch is a draft again with everything that was settled, and is checked anew when asked', async () => {
  const id = await takeFile(house.client, rows(12_000, 'stop'));
  await house.client.call('PUT', `/api/batches/${id}/draft`, {
    step: 'Matches',
    name: 'To be stopped',
    plan: { what: 'people' },
    basedOn: 0,
  });
  await house.client.call('PUT', `/api/batches/${id}/plan`, planFor());
  expect((await batch(id)).state).toBe('checking');
  expect((await house.client.call('POST', `/api/batches/${id}/stop`)).status).toBeLessThan(300);
  expect(await batch(id)).toMatchObject({
    state: 'draft',
    name: 'To be stopped',
    draft: { step: 'Matches' },
  });
  // Twice is told, and changes nothing.
  expect((await house.client.call('POST', `/api/batches/${id}/stop`)).status).toBe(409);
  const jobs = () => house.client.get<JobView[]>('/api/jobs');
  await eventually(
    'the check to end',
    jobs,
    (all) => !all.some(({ kind, state }) => kind === 'batch-check' && state === 'running'),
  );
  expect((await batch(id)).state).toBe('draft');
  await house.client.call('PUT', `/api/batches/${id}/plan`, planFor());
  expect((await batchAt(house.client, id, 'checked')).counts).toEqual({ new: 12_000 });
});

test('what Work says of taking a batch out and what the batch says agree, step by step', async () => {
  const { id } = await bringIn(house.client, rows(6000, 'out'));
  const { view, goOn } = await waitingBatch(id);
  const job = (await house.client.get<JobView[]>('/api/jobs')).find(({ kind }) => kind === 'batch-take-out')!;
  expect([job.unit, job.done, job.total]).toEqual(['steps', view.done, view.total]);
  expect(view.done).toBeLessThan(view.total);
  await goOn();
  await batchAt(house.client, id, 'taken-out');
});

test('while a batch is taken out nobody waits for it but whoever touches its people', async () => {
  const { id } = await bringIn(house.client, rows(3000, 'busy'));
  await bringIn(house.client, 'Email,First,Last,Mobile\notto@example.net,Otto,Lin,\n');
  const [{ id: other }] = (await house.client.get<{ rows: [{ id: number }] }>('/api/supporters?search=Otto'))
    .rows;
  const [one] = (await house.client.get<{ rows: { id: number }[] }>(`/api/supporters?batch=${id}&limit=1`))
    .rows;
  const tag = (await house.client.post<{ id: number }>('/api/tags', { name: 'Seen meanwhile' })).id;
  const { goOn } = await waitingBatch(id);
  const acts = async () => {
    await house.client.call('PATCH', `/api/supporters/${other}`, { firstName: 'Ottoline', lastName: 'Lin' });
    await house.client.post(`/api/supporters/${other}/notes`, { body: 'Called while it ran' });
    await house.client.post(`/api/supporters/${other}/gifts`, { amount: 2500, on: '2026-02-03', note: '' });
    await house.client.put(`/api/supporters/${other}/tags/${tag}`, {});
    return 'all went through';
  };
  let over = false;
  const outcome = await Promise.race([acts(), anotherWaits(() => over)]);
  over = true;
  if (outcome !== 'all went through') await goOn();
  expect(outcome).toBe('all went through');
  const touched = house.client.call('PUT', `/api/supporters/${one!.id}/tags/${tag}`);
  expect((await batch(id)).state).toBe('taking-out');
  await goOn();
  await batchAt(house.client, id, 'taken-out');
  // Who went is not there any more for whoever waited, and nothing hangs on them.
  expect((await touched).status).toBe(404);
  expect(await house.client.get<RecordView>(`/api/supporters/${other}`)).toMatchObject({
    firstName: 'Ottoline',
    tags: [{ id: tag }],
  });
  const left = await house.database
    .unscoped()('supporter_tag')
    .where('supporter_id', one!.id)
    .select('tag_id');
  expect(left).toEqual([]);
});

test('after a large batch was checked, what the database knows of its rows is new', async () => {
  const id = await takeFile(house.client, rows(6000, 'stat'));
  await house.client.call('PUT', `/api/batches/${id}/plan`, planFor());
  await batchAt(house.client, id, 'checked');
  const known = async () => {
    const [[row]] = (await house.database.unscoped().raw(
      `SELECT n_rows AS n, last_update AS at
          FROM mysql.innodb_table_stats
          WHERE database_name = DATABASE() AND table_name = 'batch_row'`,
    )) as [[{ n: number; at: Date }]];
    return row;
  };
  await eventually('fresh statistics', known, ({ n }) => n >= 6000);
});

test('one statement can not hold the house: the server ends it', async () => {
  const short = new Database(house.config.DATABASE_URL, 1, 1);
  const long = 'SELECT SUM(a.seq * b.seq) FROM seq_1_to_200000 a, seq_1_to_200000 b';
  const ended = await short
    .unscoped()
    .raw(long)
    .then(
      () => null,
      (error: unknown) => error,
    );
  expect(tookTooLong(ended)).toBe(true);
  await short.close();
});
