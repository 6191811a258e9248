import type { BatchRowView, BatchView, OrganizationView } from '@goodword/core/contract';
import { openTestHouse, type Client, type TestHouse } from '../../testing/harness';
import { batchAt, bringIn, planFor, takeFile } from '../../testing/steps';

let house: TestHouse;
let west: Client;
let [eastId, westId] = [0, 0];
beforeAll(async () => {
  house = await openTestHouse();
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
  expect((await west.call('PUT', `/api/batches/${id}/plan`, planFor({ chapterId: eastId }))).status).toBe(
    422,
  );
  await west.put(`/api/batches/${id}/plan`, planFor());
  expect((await batchAt(west, id, 'checked')).chapterId).toBe(westId);
});

test('who works in all finds whoever is here, in whatever chapter: nobody is made twice, and they stay in their own', async () => {
  await bringIn(house.client, `${HEAD}xenia@example.org,Xenia,Lin,\n`, { chapterId: westId });
  const id = await takeFile(
    house.client,
    `${HEAD}xenia@example.org,Xenia,Lin,206 555 0177\nyara@example.org,Yara,Lin,\n`,
    'westward.csv',
  );
  await house.client.put(`/api/batches/${id}/plan`, planFor({ chapterId: eastId }));
  await batchAt(house.client, id, 'checked');
  await house.client.post(`/api/batches/${id}/bring-in`);
  const batch = await batchAt(house.client, id, 'done');
  expect(batch.counts).toEqual({ update: 1, new: 1 });
  expect([await chapterOf('xenia@example.org'), await chapterOf('yara@example.org')]).toEqual([
    [westId],
    [eastId],
  ]);
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
  const list = await house.client.post<{ id: number }>('/api/lists', {
    name: 'Launch crew',
    isPublic: false,
    description: '',
  });
  await bringIn(house.client, `${HEAD}zoe@example.org,Zoe,Lin,\n`, { chapterId: westId });
  const batch = await bringIn(house.client, 'Email\nzoe@example.org\n', {
    what: 'here',
    columns: [{ to: 'email' }],
    listIds: [list.id],
  });
  expect(batch.counts).toEqual({ update: 1 });
});

test('who works in one chapter is told that an address is known elsewhere, and not whose it is', async () => {
  await bringIn(house.client, `${HEAD}anders@example.org,Anders,Quill,\n`, { chapterId: eastId });
  const batch = await checked(west, `${HEAD}anders@example.org,Anders,Quill,\nbrit@example.org,Brit,Lin,\n`);
  expect(batch.counts).toEqual({ new: 2 });
  const { rows } = await west.get<{ rows: BatchRowView[] }>(`/api/batches/${batch.id}/rows`);
  expect(rows.map(({ hint }) => hint)).toEqual([
    'somebody of another chapter has anders@example.org too',
    '',
  ]);
  expect(rows.map(({ supporterId }) => supporterId)).toEqual([null, null]);
});

describe('a batch that says itself where its people go', () => {
  const COLUMNS = [
    { to: 'email' },
    { to: 'firstName' },
    { to: 'lastName' },
    { to: 'postcode' },
    { to: 'region' },
    { to: 'chapter' },
  ] as const;
  const FILE = 'Email,First,Last,Postcode,Region,Chapter\n';
  const names = async () =>
    Object.fromEntries(
      (await house.client.get<OrganizationView>('/api/organization')).chapters.map(
        ({ id, name, postalAddress, places }) => [id, { name, postalAddress, places }],
      ),
    ) as Record<number, { name: string; postalAddress: string; places: string }>;
  const live = async (id: number, places: string) => {
    const was = (await names())[id]!;
    return house.client.call<{ faults?: { field: string; message: string }[] }>(
      'PUT',
      `/api/chapters/${id}`,
      { ...was, places, was },
    );
  };

  test('by a column: each to the chapter that is named, in any case; one that is none is told and goes where the others do', async () => {
    const east = (await names())[eastId]!.name;
    const rows = [
      `ce@example.org,Ce,Lin,,,${east.toUpperCase()}`,
      'cf@example.org,Cf,Lin,,,Nowhere',
      'cg@example.org,Cg,Lin,,,',
    ];
    const batch = await checked(house.client, `${FILE}${rows.join('\n')}\n`, {
      columns: COLUMNS,
      chapterId: westId,
    });
    const { rows: told } = await house.client.get<{ rows: BatchRowView[] }>(`/api/batches/${batch.id}/rows`);
    expect(told[1]!.reason).toContain(
      `expected a chapter (${Object.values(await names())
        .map(({ name }) => name)
        .join(', ')}), got "Nowhere"`,
    );
    await house.client.post(`/api/batches/${batch.id}/bring-in`);
    await batchAt(house.client, batch.id, 'done');
    expect([
      await chapterOf('ce@example.org'),
      await chapterOf('cf@example.org'),
      await chapterOf('cg@example.org'),
    ]).toEqual([[eastId], [westId], [westId]]);
    // It holds people of both, so it is seen by who works in all.
    expect((await west.call('GET', `/api/batches/${batch.id}`)).status).toBe(404);
  });

  test('by place: as the chapters say where their people live; whoever lives nowhere of these goes where the others do', async () => {
    expect((await live(eastId, 'US-OR, 981')).status).toBe(204);
    const refused = await live(westId, 'Washington, Atlantis');
    expect([refused.status, refused.body.faults?.[0]?.message]).toEqual([
      422,
      expect.stringContaining('“Atlantis” is no place that can be read'),
    ]);
    const rows = [
      'pa@example.org,Pa,Lin,98101-22,WA,',
      'pb@example.org,Pb,Lin,97301,OR,',
      'pc@example.org,Pc,Lin,98201,WA,',
    ];
    const plan = { columns: COLUMNS, chapterId: westId, byPlace: true };
    const batch = await checked(house.client, `${FILE}${rows.join('\n')}\n`, plan);
    const { rows: told } = await house.client.get<{ rows: BatchRowView[] }>(`/api/batches/${batch.id}/rows`);
    expect(told[0]!.writes!.chapter).toBe((await names())[eastId]!.name);
    await house.client.post(`/api/batches/${batch.id}/bring-in`);
    await batchAt(house.client, batch.id, 'done');
    expect([
      await chapterOf('pa@example.org'),
      await chapterOf('pb@example.org'),
      await chapterOf('pc@example.org'),
    ]).toEqual([[eastId], [eastId], [westId]]);
  });

  test('is not for who works in one chapter', async () => {
    const id = await takeFile(west, `${FILE}px@example.org,Px,Lin,,,x\n`);
    for (const plan of [
      { columns: COLUMNS },
      { columns: COLUMNS.map((one) => (one.to === 'chapter' ? { to: 'leave' } : one)), byPlace: true },
    ])
      expect((await west.call('PUT', `/api/batches/${id}/plan`, planFor(plan as never))).status).toBe(422);
  });
});
