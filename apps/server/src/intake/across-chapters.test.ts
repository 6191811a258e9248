import type { BatchRowView, BatchView } from '@goodword/core/contract';
import { openHouse, type Client, type House } from '../testing/harness';
import { batchAt, bringIn, planFor, takeFile } from '../testing/steps';

let house: House;
let west: Client;
let [eastId, westId] = [0, 0];
beforeAll(async () => {
  house = await openHouse();
  house.startWorker();
  [eastId, westId] = house.chapters as [number, number];
  west = await house.as('organizer', westId);
});
afterAll(() => house.close());

const HEAD = 'Email,First,Last,Mobile\n';
const chapterOf = async (email: string): Promise<number[]> =>
  (
    (await house.database
      .unscoped()('supporter')
      .join('supporter_contact', 'supporter_contact.supporter_id', 'supporter.id')
      .join('contact_point', 'contact_point.id', 'supporter_contact.contact_point_id')
      .where('contact_point.normal', email)
      .select('supporter.chapter_id as id')) as { id: number }[]
  ).map(({ id }) => id);
const checked = async (client: Client, csv: string, plan = {}): Promise<BatchView> => {
  const id = await takeFile(client, csv);
  await client.put(`/api/batches/${id}/plan`, planFor(plan));
  return batchAt(client, id, 'checked');
};

test('new people go to the chapter that was chosen, and no other than one of the house can be', async () => {
  const batch = await bringIn(house.client, `${HEAD}ulla@example.org,Ulla,Lin,\n`, { chapterId: westId });
  expect([batch.chapterId, await chapterOf('ulla@example.org')]).toEqual([westId, [westId]]);
  const id = await takeFile(house.client, `${HEAD}vic@example.org,Vic,Lin,\n`);
  const refused = await house.client.call('PUT', `/api/batches/${id}/plan`, planFor({ chapterId: 999_999 }));
  expect(refused.status).toBe(422);
});

test('who works in one chapter brings nobody into another', async () => {
  const id = await takeFile(west, `${HEAD}wim@example.org,Wim,Lin,\n`);
  expect((await west.call('PUT', `/api/batches/${id}/plan`, planFor({ chapterId: eastId }))).status).toBe(422);
  await west.put(`/api/batches/${id}/plan`, planFor());
  expect((await batchAt(west, id, 'checked')).chapterId).toBe(westId);
});

test('who works in all finds whoever is here, in whatever chapter: nobody is made twice, and they stay in their own', async () => {
  await bringIn(house.client, `${HEAD}xenia@example.org,Xenia,Lin,\n`, { chapterId: westId });
  const id = await takeFile(house.client, `${HEAD}xenia@example.org,Xenia,Lin,206 555 0177\nyara@example.org,Yara,Lin,\n`, 'westward.csv');
  await house.client.put(`/api/batches/${id}/plan`, planFor({ chapterId: eastId }));
  await batchAt(house.client, id, 'checked');
  await house.client.post(`/api/batches/${id}/bring-in`);
  const batch = await batchAt(house.client, id, 'done');
  expect(batch.counts).toEqual({ update: 1, new: 1 });
  expect([await chapterOf('xenia@example.org'), await chapterOf('yara@example.org')]).toEqual([[westId], [eastId]]);
  // What its rows say of the West's people is not for the East alone.
  const east = await house.as('organizer', eastId);
  expect((await east.call('GET', `/api/batches/${batch.id}`)).status).toBe(404);
  expect((await east.get<BatchView[]>('/api/batches')).map(({ id }) => id)).not.toContain(batch.id);
  for (const path of ['/api/today', '/api/jobs']) {
    expect([path, JSON.stringify(await house.client.get(path)).includes('westward')]).toEqual([path, true]);
    expect([path, JSON.stringify(await east.get(path)).includes('westward')]).toEqual([path, false]);
  }
});

test('a file of people who are here finds them in every chapter', async () => {
  const list = await house.client.post<{ id: number }>('/api/lists', { name: 'Launch crew', isPublic: false, description: '' });
  await bringIn(house.client, `${HEAD}zoe@example.org,Zoe,Lin,\n`, { chapterId: westId });
  const batch = await bringIn(house.client, 'Email\nzoe@example.org\n', { what: 'here', columns: [{ to: 'email' }], listIds: [list.id] });
  expect(batch.counts).toEqual({ update: 1 });
});

test('who works in one chapter is told that an address is known elsewhere, and not whose it is', async () => {
  await bringIn(house.client, `${HEAD}anders@example.org,Anders,Quill,\n`, { chapterId: eastId });
  const batch = await checked(west, `${HEAD}anders@example.org,Anders,Quill,\nbrit@example.org,Brit,Lin,\n`);
  expect(batch.counts).toEqual({ new: 2 });
  const { rows } = await west.get<{ rows: BatchRowView[] }>(`/api/batches/${batch.id}/rows`);
  expect(rows.map(({ hint }) => hint)).toEqual(['somebody of another chapter has anders@example.org too', '']);
  expect(rows.map(({ supporterId }) => supporterId)).toEqual([null, null]);
});
