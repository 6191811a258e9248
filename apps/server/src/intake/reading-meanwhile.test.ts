import type { BatchView } from '@goodword/core/contract';
import { openHouse, type House } from '../testing/harness';
import { batchAt, planFor } from '../testing/steps';

// No worker at first: what a person does while a file waits to be read is done before the reading, every time.
let house: House;
beforeAll(async () => {
  house = await openHouse();
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

  const reread = await take(Buffer.from('Email;First;Last;Mobile\njan.early@example.org;Jan;Ko\xf1ski;\n', 'latin1'));
  await house.client.put(`/api/batches/${reread}/reading`, { reading: { encoding: 'windows-1250', delimiter: ';' } });

  house.startWorker();
  expect((await batchAt(house.client, planned, 'checked')).counts).toEqual({ new: 1 });
  const draft = await batchAt(house.client, reread, 'draft');
  expect(draft.found).toMatchObject({ encoding: 'windows-1250', rows: 1 });
});
