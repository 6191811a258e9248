import type { BatchView } from '@goodword/core/contract';
import { openTestHouse, eventually, type TestHouse } from '../../testing/harness';
import { batchAt, planFor } from '../../testing/steps';

// No worker at first: what a person does while a file waits to be read is done before the reading, every
// time.
let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

const take = async (bytes: Buffer) => {
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(bytes)]), 'old.csv');
  return (await house.client.post<{ id: number }>('/api/batches', form)).id;
};
const stateOf = async (id: number) => (await house.client.get<BatchView>(`/api/batches/${id}`)).state;

test('a plan that comes before the file was read is checked after it; a reading chosen meanwhile is the one that counts', async () => {
  const planned = await take(Buffer.from('Email,First,Last,Mobile\nada.early@example.org,Ada,Early,\n'));
  await house.client.put(`/api/batches/${planned}/plan`, planFor());
  expect(await stateOf(planned)).toBe('reading');

  const reread = await take(
    Buffer.from('Email;First;Last;Mobile\njan.early@example.org;Jan;Ko\xf1ski;\n', 'latin1'),
  );
  await house.client.put(`/api/batches/${reread}/reading`, {
    reading: { encoding: 'windows-1250', delimiter: ';' },
  });

  // What a person settles on the page while the server has yet to read the file is kept.
  const settled = await take(Buffer.from('Email,First,Last,Mobile\nsue.early@example.org,Sue,Early,\n'));
  const draft = {
    step: 'Permission',
    name: 'Early birds',
    plan: { what: 'people', columns: planFor().columns },
  };
  expect(
    (await house.client.call('PUT', `/api/batches/${settled}/draft`, { ...draft, basedOn: 0 })).status,
  ).toBeLessThan(300);

  house.startWorker();
  const kept = await batchAt(house.client, settled, 'draft');
  expect(kept).toMatchObject({ name: 'Early birds', draft });
  expect((await batchAt(house.client, planned, 'checked')).counts).toEqual({ new: 1 });
  const again = await batchAt(house.client, reread, 'draft');
  expect(again.found).toMatchObject({ encoding: 'windows-1250', rows: 1 });
});

describe('while a batch is being checked', () => {
  const rows = Array.from({ length: 6000 }, (_none, i) => `m${i}@example.org,Mo${i},Meanwhile,`);
  const taken = async () => {
    const id = await take(Buffer.from(['Email,First,Last,Mobile', ...rows].join('\n')));
    await batchAt(house.client, id, 'draft');
    return id;
  };
  const plan = (id: number, columns = planFor().columns) =>
    house.client.put(`/api/batches/${id}/plan`, planFor({ columns }));
  const staged = async (id: number) =>
    (
      await house.database.read(house.scope).sql<{ n: number; named: number }>(
        `SELECT COUNT(*) AS n, CAST(COALESCE(SUM(last_name <> ''), 0) AS UNSIGNED) AS named
            FROM batch_row
            WHERE organization_id = :org AND batch_id = :id`,
        { id },
      )
    )[0]!;
  const begun = (id: number) =>
    eventually(
      'some rows to be checked',
      () => staged(id),
      ({ n }) => n > 0,
    );
  test('another plan takes the place of the first, however often it is sent', async () => {
    const id = await taken();
    await plan(id);
    await begun(id);
    const without = planFor().columns.map((choice) =>
      choice.to === 'lastName' ? { to: 'leave' as const } : choice,
    );
    await Promise.all([plan(id, without), plan(id, without), plan(id, without)]);
    const checked = await batchAt(house.client, id, 'checked');
    expect(checked).toMatchObject({ state: 'checked', problem: null, counts: { new: 6000 } });
    expect(await staged(id)).toEqual({ n: 6000, named: 0 });
  });

  test('another reading ends the check, and the batch waits as a draft of what was read', async () => {
    const id = await taken();
    await plan(id);
    await begun(id);
    await house.client.put(`/api/batches/${id}/reading`, { reading: { delimiter: ';' } });
    const draft = await batchAt(house.client, id, 'draft');
    expect(draft).toMatchObject({
      state: 'draft',
      problem: null,
      found: { delimiter: ';', header: ['Email,First,Last,Mobile'] },
    });
  });
});
