import type { BatchView, JobView } from '@goodword/core/contract';
import { Database, tookTooLong } from '../platform/database';
import { openHouse, until, type House } from '../testing/harness';
import { batchAt, bringIn, planFor, takeFile } from '../testing/steps';

let house: House;
beforeAll(async () => {
  house = await openHouse();
  house.startWorker();
});
afterAll(() => house.close());

const rows = (n: number, at: string) =>
  `Email,First,Last,Mobile\n${Array.from({ length: n }, (_none, i) => `${at}${i}@example.org,Ann,Lee${i},`).join('\n')}\n`;
const batch = (id: number) => house.client.get<BatchView>(`/api/batches/${id}`);

test('checking is stopped: the batch is a draft again with everything that was settled, and is checked anew when asked', async () => {
  const id = await takeFile(house.client, rows(12_000, 'stop'));
  await house.client.call('PUT', `/api/batches/${id}/draft`, { step: 'Matches', name: 'To be stopped', plan: { what: 'people' }, basedOn: 0 });
  await house.client.call('PUT', `/api/batches/${id}/plan`, planFor());
  expect((await batch(id)).state).toBe('checking');
  expect((await house.client.call('POST', `/api/batches/${id}/stop`)).status).toBeLessThan(300);
  expect(await batch(id)).toMatchObject({ state: 'draft', name: 'To be stopped', draft: { step: 'Matches' } });
  // Twice is told, and changes nothing.
  expect((await house.client.call('POST', `/api/batches/${id}/stop`)).status).toBe(409);
  const jobs = () => house.client.get<JobView[]>('/api/jobs');
  await until('the check to end', jobs, (all) => !all.some(({ kind, state }) => kind === 'batch-check' && state === 'running'));
  expect((await batch(id)).state).toBe('draft');
  await house.client.call('PUT', `/api/batches/${id}/plan`, planFor());
  expect((await batchAt(house.client, id, 'checked')).counts).toEqual({ new: 12_000 });
});

test('what Work says of taking a batch out and what the batch says agree, step by step', async () => {
  const { id } = await bringIn(house.client, rows(6000, 'out'));
  // Held, so that it stands at a step while both are asked.
  const blocker = new Database(house.config.DATABASE_URL, 1);
  const trx = await blocker.unscoped().transaction();
  await trx('supporter').where('batch_id', id).orderBy('id').limit(1).forUpdate().select('id');
  await house.client.post(`/api/batches/${id}/take-out`);
  const view = await until(
    'it to be under way',
    () => batch(id),
    ({ state, total, done }) => state === 'taking-out' && total > 0 && done > 0,
  );
  const job = (await house.client.get<JobView[]>('/api/jobs')).find(({ kind }) => kind === 'batch-take-out')!;
  expect([job.unit, job.done, job.total]).toEqual(['steps', view.done, view.total]);
  expect(view.done).toBeLessThan(view.total);
  await trx.rollback();
  await blocker.close();
  await batchAt(house.client, id, 'taken-out');
});

test('after a large batch was checked, what the database knows of its rows is new', async () => {
  const id = await takeFile(house.client, rows(6000, 'stat'));
  await house.client.call('PUT', `/api/batches/${id}/plan`, planFor());
  await batchAt(house.client, id, 'checked');
  const known = async () => {
    const [[row]] = (await house.database
      .unscoped()
      .raw("SELECT n_rows AS n, last_update AS at FROM mysql.innodb_table_stats WHERE database_name = DATABASE() AND table_name = 'batch_row'")) as [
      [{ n: number; at: Date }],
    ];
    return row;
  };
  await until('fresh statistics', known, ({ n }) => n >= 6000);
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
