import type {
  BatchRowView,
  BatchView,
  ListView,
  Page,
  RecordView,
  SupporterRow,
  TagView,
} from '@goodword/core/contract';
import { openTestHouse, eventually, type TestHouse } from './testing/harness';
import { agreed, batchAt, bringIn, STEP_COLUMNS, NOTHING, planFor, takeFile } from './testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const find = (search: string) =>
  house.client.get<Page<SupporterRow>>(`/api/supporters?search=${encodeURIComponent(search)}`);
const record = (id: number) => house.client.get<RecordView>(`/api/supporters/${id}`);

describe('a file comes in', () => {
  test('each row gets what it deserves, and the people, tags, list and permission are there', async () => {
    const csv = [
      'Email,First,Last,Mobile',
      'ann@example.org,Ann,Reyes,206 555 0101',
      'ANN@Example.org,Ann,Reyes,',
      'ann@example.org,Jun,Reyes,',
      'not an address,Fay,Okoro,',
      'bad@,Gus,Okoro,206 555 0102',
      ',,,',
      'x@example.org,Too,Many,,cells',
    ].join('\r\n');
    const batch = await bringIn(house.client, csv, {
      newTags: ['winter fair'],
      newLists: [{ name: 'Fair goers', folder: '' }],
    });
    expect(batch.counts).toEqual({ new: 2, update: 1, shares: 1, failed: 2, aside: 1 });
    expect(batch.withFaults).toBe(1);
    const rows = await house.client.get<Page<BatchRowView>>(`/api/batches/${batch.id}/rows`);
    expect(rows.rows.map((row) => [row.row, row.verdict])).toEqual([
      [1, 'new'],
      [2, 'update'],
      [3, 'shares'],
      [4, 'failed'],
      [5, 'new'],
      [6, 'aside'],
      [7, 'failed'],
    ]);
    const ann = (await find('ann@')).rows.find((row) => row.firstName === 'Ann')!;
    expect(ann).toMatchObject({
      lastName: 'Reyes',
      mobile: '+1 206 555 0101',
      tags: 1,
      may: { email: 'yes', text: 'yes' },
    });
    const full = await record(ann.id);
    expect(full.contactPoints[0]!.sharedWith.map((other) => other.name)).toEqual(['Jun Reyes']);
    expect(full.lists.map((list) => list.name)).toEqual(['Fair goers']);
    expect(
      full.entries.find((entry) => entry.channel === 'email' && entry.scope === 'appeals'),
    ).toMatchObject({
      state: 'yes',
      how: 'paper',
      // The second row says the same once more.
      source: 'people.csv, row 1',
      words: expect.stringContaining('vouched for by Idris Vale') as string,
    });
  });

  test('rows to mend come back as they were, with the reason in a column', async () => {
    const id = await takeFile(house.client, 'Email,First,Last,Mobile\nbroken,"Fay ""F""",=Okoro,\n');
    await house.client.put(`/api/batches/${id}/plan`, planFor());
    await batchAt(house.client, id, 'checked');
    const { text } = await house.client.call('GET', `/api/batches/${id}/rows-to-mend.csv`);
    expect(text).toBe(
      'Email,First,Last,Mobile,Why\r\nbroken,"Fay ""F""",\'=Okoro,,"expected an email address, got ""broken"""\r\n',
    );
  });

  test('on update a value replaces and an empty one never erases', async () => {
    const field = await house.client.post<{ id: number }>('/api/fields', {
      name: 'Shirt',
      type: 'choice',
      fallback: null,
    });
    const columns = [
      ...STEP_COLUMNS.slice(0, 3),
      { to: 'field' as const, fieldId: field.id, type: 'choice' as const },
    ];
    await bringIn(
      house.client,
      'Email,First,Last,Shirt\nbo@example.org,Bo,Lin,M\ncy@example.org,Cy,Lin,S\n',
      { columns },
    );
    await bringIn(
      house.client,
      'Email,First,Last,Shirt\nbo@example.org,Bo,Lin,XL\ncy@example.org,Cy,Lin,\n',
      { columns },
    );
    const shirts = await Promise.all(
      ['bo@', 'cy@'].map(
        async (search) =>
          (await record((await find(search)).rows[0]!.id)).fields.find((one) => one.name === 'Shirt')!.shown,
      ),
    );
    expect(shirts).toEqual(['XL', 'S']);
  });

  test('"fill" fills what is empty and replaces nothing, also what was filled between the check and bringing in', async () => {
    const pet = await house.client.post<{ id: number }>('/api/fields', {
      name: 'Pet',
      type: 'text',
      fallback: null,
    });
    const boat = await house.client.post<{ id: number }>('/api/fields', {
      name: 'Skiff',
      type: 'text',
      fallback: null,
    });
    const text = (fieldId: number) => ({ to: 'field' as const, fieldId, type: 'text' as const });
    const columns = [...STEP_COLUMNS.slice(0, 3), text(pet.id), text(boat.id), { to: 'postcode' as const }];
    await bringIn(house.client, 'Email,First,Last,Pet,Skiff,Zip\nkim@example.org,Kim,,cat,,98101\n', {
      columns,
    });
    const kim = (await find('kim@')).rows[0]!;
    const id = await takeFile(
      house.client,
      'Email,First,Last,Pet,Skiff,Zip\nkim@example.org,Kim,Lin,dog,sloop,98107\n',
    );
    await house.client.put(
      `/api/batches/${id}/plan`,
      planFor({ columns, existing: 'fill', matching: ['email'] }),
    );
    const rows = async () => {
      const page = await house.client.get<{ rows: BatchRowView[] }>(`/api/batches/${id}/rows`);
      return page.rows.map(({ verdict, changes }) => [
        verdict,
        changes.map(({ what, from, to }) => `${what}: ${from} > ${to}`),
      ]);
    };
    await batchAt(house.client, id, 'checked');
    expect(await rows()).toEqual([['update', ['Last name:  > Lin', 'Skiff:  > sloop']]]);
    await house.client.put(`/api/supporters/${kim.id}/fields/${boat.id}`, { text: 'dinghy' });
    await house.client.post(`/api/batches/${id}/bring-in`);
    await batchAt(house.client, id, 'done');
    const now = await record(kim.id);
    const value = (name: string) => now.fields.find((one) => one.name === name)!.shown;
    expect([now.firstName, now.lastName, value('Pet'), value('Skiff')]).toEqual([
      'Kim',
      'Lin',
      'cat',
      'dinghy',
    ]);
  });

  test('"leave" leaves people as they are', async () => {
    await bringIn(house.client, 'Email,First,Last,Mobile\ndi@example.org,Di,Lin,\n', {
      permission: { email: NOTHING, text: NOTHING },
    });
    const batch = await bringIn(
      house.client,
      'Email,First,Last,Mobile\ndi@example.org,Di,Lin,206 555 0144\n',
      { existing: 'leave' },
    );
    expect(batch.counts).toEqual({ here: 1 });
    expect((await find('di@')).rows[0]).toMatchObject({
      mobile: null,
      may: { email: 'never', text: 'never' },
    });
  });

  test('a consent column decides row by row, and its no is recorded', async () => {
    const columns = [...STEP_COLUMNS.slice(0, 3), { to: 'consent' as const, channel: 'email' as const }];
    const permission = { email: { ...agreed('news'), from: 'column' as const }, text: NOTHING };
    await bringIn(
      house.client,
      'Email,First,Last,OK\ney@example.org,Ey,Lin,yes\nfy@example.org,Fy,Lin,no\ngy@example.org,Gy,Lin,\n',
      {
        columns,
        permission: permission as never,
      },
    );
    const states = await Promise.all(
      ['ey@', 'fy@', 'gy@'].map(async (search) => (await find(search)).rows[0]!.may.email),
    );
    expect(states).toEqual(['yes', 'no', 'never']);
  });

  test('an email of one person and a mobile of another wants a look', async () => {
    await bringIn(
      house.client,
      'Email,First,Last,Mobile\nhy@example.org,Hy,Lin,206 555 0150\niy@example.org,Hy,Lin,206 555 0151\n',
    );
    const batch = await bringIn(
      house.client,
      'Email,First,Last,Mobile\nhy@example.org,Hy,Lin,206 555 0151\n',
    );
    expect(batch.counts).toEqual({ look: 1 });
  });
});

describe('a past no', () => {
  test('is never overturned by a batch, and the check says how many stay no', async () => {
    await bringIn(house.client, 'Email,First,Last,Mobile\nno@example.org,No,Lin,\n');
    const person = (await find('no@')).rows[0]!;
    const point = (await record(person.id)).contactPoints[0]!.id;
    await house.client.post(`/api/supporters/${person.id}/permission`, {
      contactPointId: point,
      channel: 'email',
      scope: 'all',
      state: 'no',
      how: 'phone',
      on: '2026-02-01',
      words: 'Please stop',
    });
    const batch = await bringIn(house.client, 'Email,First,Last,Mobile\nno@example.org,No,Lin,\n', {
      permission: { email: { ...agreed('appeals'), on: '2026-03-01' } as never, text: NOTHING },
    });
    expect(batch.stayNo).toBe(1);
    expect((await find('no@')).rows[0]!.may.email).toBe('no');
    await house.client.post(`/api/supporters/${person.id}/permission`, {
      contactPointId: point,
      channel: 'email',
      scope: 'appeals',
      state: 'yes',
      how: 'phone',
      on: '2026-04-01',
      words: 'I changed my mind, write to me',
    });
    expect((await record(person.id)).consent.find((one) => one.scope === 'appeals')!.state).toBe('yes');
  });
});

test('a batch can be stopped on the way in, and goes on from where it was', async () => {
  const rows = 12_000;
  const csv = [
    'Email,First,Last,Mobile',
    ...Array.from({ length: rows }, (_v, i) => `stop${i}@example.org,S${i},Lin,`),
  ].join('\n');
  const id = await takeFile(house.client, csv);
  await house.client.put(`/api/batches/${id}/plan`, planFor());
  await batchAt(house.client, id, 'checked');
  await house.client.post(`/api/batches/${id}/bring-in`);
  await eventually(
    'the first rows',
    () => house.client.get<BatchView>(`/api/batches/${id}`),
    (batch) => batch.done > 0,
  );
  await house.client.post(`/api/batches/${id}/stop`);
  const stopped = await batchAt(house.client, id, 'stopped');
  expect(stopped.done).toBeLessThan(rows);
  const inNow = () =>
    house.client.get<Page<SupporterRow>>(`/api/supporters?batch=${id}&limit=1`).then((page) => page.total);
  expect(await inNow()).toBe(stopped.done);
  await house.client.post(`/api/batches/${id}/bring-in`);
  expect(await batchAt(house.client, id, 'done')).toMatchObject({ done: rows, counts: { new: rows } });
  expect(await inNow()).toBe(rows);
}, 300_000);

describe('taking a batch back out', () => {
  test('removes what it made, restores what it changed, keeps later edits', async () => {
    await bringIn(house.client, 'Email,First,Last,Mobile\nold@example.org,Old,Lin,\n', {
      permission: { email: NOTHING, text: NOTHING },
    });
    const old = (await find('old@')).rows[0]!;
    const columns = [
      ...STEP_COLUMNS.slice(0, 3),
      { to: 'newField' as const, name: 'Boat', type: 'text' as const },
    ];
    const batch = await bringIn(
      house.client,
      'Email,First,Last,Boat\nold@example.org,Old,LIN,skiff\nfresh@example.org,Fresh,Lin,punt\n',
      {
        columns,
        newTags: ['undo me'],
      },
    );
    expect((await record(old.id)).tags.map((tag) => tag.name)).toEqual(['undo me']);
    await house.client.post(`/api/batches/${batch.id}/take-out`);
    await batchAt(house.client, batch.id, 'taken-out');
    expect((await find('fresh@')).total).toBe(0);
    const restored = await record(old.id);
    expect(restored).toMatchObject({ lastName: 'Lin', tags: [], consent: [] });
    expect(restored.fields.find((field) => field.name === 'Boat')).toBeUndefined();
    expect(restored.entries.map((entry) => [entry.state, entry.takenBack]).sort()).toEqual([
      ...Array(2).fill(['back', false]),
      ...Array(2).fill(['yes', true]),
    ]);
    expect((await house.client.get<TagView[]>('/api/tags')).map((tag) => tag.name)).not.toContain('undo me');
  });
});

describe('what cannot be a batch is told in a sentence', () => {
  const upload = (text: string) => {
    const form = new FormData();
    form.append('file', new Blob([Buffer.from(text, 'latin1')]), 'x.csv');
    return form;
  };
  test.each([
    ['\x89PNG\r\n\x1a\n', /PNG picture/],
    ['', /empty/],
    ['Email,First\n', /only a header/],
    [`${Array.from({ length: 300 }, (_v, i) => `c${i}`).join(',')}\nx`, /300 columns/],
  ])('%#', async (text, sentence) => {
    const answer = await house.client.call<{ detail: string; id: number }>(
      'POST',
      '/api/batches',
      upload(text),
    );
    if (answer.status === 422) return expect(answer.body.detail).toMatch(sentence);
    // What only reading it through tells is told by the batch itself.
    const read = await batchAt(house.client, answer.body.id, 'unreadable');
    expect(read.state).toBe('unreadable');
    expect(read.problem).toMatch(sentence);
  });

  test('there is no way past the permission step', async () => {
    const id = await takeFile(house.client, 'Email\nz@example.org\n');
    const columns = [{ to: 'email' as const }];
    const refused = async (plan: object) =>
      (
        await house.client.call<{ detail: string }>('PUT', `/api/batches/${id}/plan`, {
          ...planFor({ columns }),
          ...plan,
        })
      ).status;
    expect(await refused({ permission: { email: { ...agreed('news'), words: 'ok' }, text: NOTHING } })).toBe(
      422,
    );
    expect(
      await refused({ permission: { email: { ...agreed('news'), how: 'bought' }, text: NOTHING } }),
    ).toBe(422);
    expect(
      await refused({ permission: { email: { ...agreed('news'), on: '2999-01-01' }, text: NOTHING } }),
    ).toBe(422);
    expect(await refused({ permission: { email: NOTHING } })).toBe(422);
    expect((await house.client.call('POST', `/api/batches/${id}/bring-in`)).status).toBe(409);
  });
});

describe('chapters', () => {
  test('a teammate of one chapter sees and matches only its people', async () => {
    const [east, west] = await Promise.all([
      house.as('organizer', house.chapters[0]!),
      house.as('organizer', house.chapters[1]!),
    ]);
    await bringIn(east, 'Email,First,Last,Mobile\neast.only@example.org,Eve,Lin,\n');
    expect((await west.get<Page<SupporterRow>>('/api/supporters?search=east.only@')).total).toBe(0);
    const eve = (await east.get<Page<SupporterRow>>('/api/supporters?search=east.only@')).rows[0]!;
    expect((await west.call('GET', `/api/supporters/${eve.id}`)).status).toBe(404);
    expect(
      (await west.call('PATCH', `/api/supporters/${eve.id}`, { firstName: 'X', lastName: 'Y' })).status,
    ).toBe(404);
    const batch = await bringIn(west, 'Email,First,Last,Mobile\neast.only@example.org,Eve,Lin,\n');
    expect(batch.counts).toEqual({ new: 1 });
    expect((await east.get<ListView[]>('/api/lists')).length).toBeGreaterThanOrEqual(0);
  });
});

test('a file that an old program wrote comes in with its letters right, read as found or as chosen', async () => {
  const take = async (bytes: Uint8Array) => {
    const form = new FormData();
    form.append('file', new Blob([bytes as never]), 'old.csv');
    return (await house.client.post<{ id: number }>('/api/batches', form)).id;
  };
  const finish = async (id: number, plan: Parameters<typeof planFor>[0]) => {
    await house.client.put(`/api/batches/${id}/plan`, planFor(plan));
    await batchAt(house.client, id, 'checked');
    await house.client.post(`/api/batches/${id}/bring-in`);
    return batchAt(house.client, id, 'done');
  };
  // "Zoé" and "Núñez" as Windows-1252 wrote them, cut at pipes.
  const western = Buffer.from(
    'sep=|\r\nEmail|First|Last|Mobile\r\nzoe.old@example.org|Zo\xe9|N\xfa\xf1ez|\r\n',
    'latin1',
  );
  expect((await finish(await take(western), {})).counts).toEqual({ new: 1 });
  // The same bytes are Central European where a person says so: 0xf1 is n with acute there.
  const central = Buffer.from('Email;First;Last;Mobile\r\njan.old@example.org;Jan;Ko\xf1ski;\r\n', 'latin1');
  await finish(await take(central), { reading: { encoding: 'windows-1250', delimiter: ';' } });
  const names = async (search: string) =>
    (
      await house.client.get<{ rows: { firstName: string; lastName: string }[] }>(
        `/api/supporters?search=${search}`,
      )
    ).rows.map((row) => `${row.firstName} ${row.lastName}`);
  expect([await names('zoe.old@example.org'), await names('jan.old@example.org')]).toEqual([
    ['Zoé Núñez'],
    ['Jan Koński'],
  ]);
});
