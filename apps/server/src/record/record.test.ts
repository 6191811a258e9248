import { execFileSync } from 'node:child_process';
import type { PersonalVerdict, RecordView } from '@goodword/core/contract';
import { houseDay, openTestHouse, eventually, type Client, type TestHouse } from '../testing/harness';
import { recording } from '../testing/recording';
import { agreed, bringIn, STEP_COLUMNS, moveTo, NOTHING } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  const rows = [
    'marisol@example.org,Marisol,Castellan,206 555 0141',
    'jun@example.org,Jun,Castellan,206 555 0142',
    'bo@example.org,Bo,,',
  ];
  await bringIn(house.client, ['Email,First,Last,Mobile', ...rows].join('\n'), {
    columns: STEP_COLUMNS,
    newTags: ['plank menders'],
    permission: { email: agreed('appeals'), text: NOTHING },
  });
});
afterAll(() => house.close());

const { idOf, record, timeline, lastEdit, undo, countOf, field } = recording(() => house);

describe('history', () => {
  test('each edit tells who, from what and to what, and is undone where it was done', async () => {
    const id = await idOf('Bo');
    const shirt = await field('Shirt size');
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'M' });
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'L' });
    const edit = await lastEdit(id);
    expect([edit.title, edit.detail]).toEqual(['Shirt size set to L', 'By The owner, before: M']);
    expect((await undo(id, edit.undo)).status).toBe(204);
    expect((await record(id)).fields.find((one) => one.id === shirt)!.shown).toBe('M');
    expect((await lastEdit(id)).title).toBe('Undone: Shirt size set to L');
    expect((await undo(id, edit.undo)).body.detail).toBe('This was undone already.');
  });

  test('of two who change one value from what both saw the second is told what stands there, and overwrites nothing', async () => {
    const [id] = (await house.database.unscoped()('supporter').insert({
      organization_id: house.scope.organizationId,
      chapter_id: house.chapters[0],
      first_name: 'Wren',
      last_name: 'Tallow',
    })) as [number];
    const shirt = await field('Shirt size');
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'M' });
    const put = (text: string, was: string) =>
      house.client.call<{ newer?: boolean; now?: string }>('PUT', `/api/supporters/${id}/fields/${shirt}`, {
        text,
        was,
      });
    const both = await Promise.all([put('L', 'M'), put('XL', 'M')]);
    expect(both.map(({ status }) => status).sort()).toEqual([204, 409]);
    const won = both[0]!.status === 204 ? 'L' : 'XL';
    expect(both.find(({ status }) => status === 409)!.body).toMatchObject({ newer: true, now: won });
    expect((await put('S', won)).status).toBe(204);
    const name = (firstName: string, was: string) =>
      house.client.call<{ now?: string }>('PATCH', `/api/supporters/${id}`, {
        firstName,
        lastName: 'Tallow',
        was,
      });
    expect((await name('Ren', 'Wren Tallow')).status).toBe(204);
    expect((await name('Robin', 'Wren Tallow')).body.now).toBe('Ren Tallow');
  });

  test('an edit that was edited over is not undone: the later value would be lost', async () => {
    const id = await idOf('Bo');
    const shirt = await field('Shirt size');
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'S' });
    const edit = await lastEdit(id);
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'XL' });
    const refused = await undo(id, edit.undo);
    expect([refused.status, refused.body.detail]).toEqual([
      409,
      expect.stringContaining('changed again since'),
    ]);
    expect((await record(id)).fields.find((one) => one.id === shirt)!.shown).toBe('XL');
  });

  test.each<[string, (id: number) => Promise<unknown>, (of: RecordView) => unknown]>([
    [
      'a name',
      (id) => house.client.call('PATCH', `/api/supporters/${id}`, { firstName: 'Beau', lastName: 'Lin' }),
      (of) => [of.firstName, of.lastName],
    ],
    ['a place', (id) => moveTo(house.client, id, 'CA', 'QC'), (of) => of.place],
    [
      'an address',
      (id) =>
        house.client.post(`/api/supporters/${id}/contact-points`, { kind: 'mobile', text: '206 555 0177' }),
      (of) => of.contactPoints.map((one) => one.shown),
    ],
    [
      'an address taken off',
      async (id) =>
        house.client.call(
          'DELETE',
          `/api/supporters/${id}/contact-points/${(await record(id)).contactPoints[0]!.id}`,
        ),
      (of) => of.contactPoints.map((one) => one.shown),
    ],
    [
      'a tag',
      async (id) =>
        house.client.call('DELETE', `/api/supporters/${id}/tags/${(await record(id)).tags[0]!.id}`),
      (of) => of.tags.map((one) => one.name),
    ],
  ])('%s goes back to what it was', async (_what, change, read) => {
    const id = await idOf('bo@example.org').catch(() => idOf('Bo'));
    const before = read(await record(id));
    await change(id);
    expect(read(await record(id))).not.toEqual(before);
    expect((await undo(id, (await lastEdit(id)).undo)).status).toBe(204);
    expect(read(await record(id))).toEqual(before);
  });

  test('a value set to what it is already leaves no trace', async () => {
    const id = await idOf('Bo');
    const shirt = await field('Shirt size');
    const before = (await timeline(id, 'edit')).length;
    await house.client.put(`/api/supporters/${id}/fields/${shirt}`, { text: 'XL' });
    expect(await timeline(id, 'edit')).toHaveLength(before);
  });

  test('edits of a sensitive field are told to nobody who may not see it', async () => {
    const id = await idOf('Bo');
    const secret = await field('Health');
    await house.client.put(`/api/supporters/${id}/fields/${secret}`, { text: 'asthma' });
    const was = {
      name: 'Health',
      section: 'More',
      fallback: null,
      help: '',
      sensitive: false,
      required: false,
      choices: null,
    };
    await house.client.put(`/api/house/fields/${secret}`, { ...was, sensitive: true, was });
    const words = async (client: Client) => JSON.stringify(await timeline(id, '', client));
    expect(await words(house.client)).toContain('asthma');
    expect(await words(await house.as('viewer'))).not.toContain('asthma');
    expect(
      (await (await house.as('viewer')).call('POST', `/api/supporters/${id}/history/1/undo`)).status,
    ).toBe(403);
  });
});

test('the timeline is narrowed to what one looks for; a kind that is none is told', async () => {
  const id = await idOf('Marisol');
  await house.client.post(`/api/supporters/${id}/gifts`, { amount: 4000, on: houseDay() });
  expect(new Set((await timeline(id, 'gift,batch')).map(({ kind }) => kind))).toEqual(
    new Set(['gift', 'batch']),
  );
  expect((await house.client.call('GET', `/api/supporters/${id}/timeline?kinds=gossip`)).status).toBe(422);
});

test('an address put first is the one that is written to', async () => {
  const id = await idOf('Jun');
  await house.client.post(`/api/supporters/${id}/contact-points`, {
    kind: 'email',
    text: 'jun.c@example.net',
  });
  const second = (await record(id)).contactPoints.find((one) => one.shown === 'jun.c@example.net')!;
  await house.client.post(`/api/supporters/${id}/contact-points/${second.id}/first`);
  expect((await record(id)).contactPoints[0]!.shown).toBe('jun.c@example.net');
  expect(
    (
      await house.client.call('POST', `/api/supporters/${id}/contact-points`, {
        kind: 'email',
        text: 'JUN.C@example.net',
      })
    ).status,
  ).toBe(409);
  await house.client.call('DELETE', `/api/supporters/${id}/contact-points/${second.id}`);
});

test('notes are the team’s own: written, changed and deleted by who wrote them', async () => {
  const id = await idOf('Jun');
  const writer = await house.as('writer');
  const { id: noteId } = await writer.post<{ id: number }>(`/api/supporters/${id}/notes`, {
    body: 'Prefers to be called after six',
  });
  const noted = async () => (await timeline(id, 'note')).map(({ note }) => note!.body);
  expect(await noted()).toEqual(['Prefers to be called after six']);
  const other = await house.as('organizer');
  expect(
    (
      await other.call('PUT', `/api/supporters/${id}/notes/${noteId}`, {
        body: 'No',
        was: 'Prefers to be called after six',
      })
    ).status,
  ).toBe(403);
  await writer.put(`/api/supporters/${id}/notes/${noteId}`, {
    body: 'After seven',
    was: 'Prefers to be called after six',
  });
  expect(await noted()).toEqual(['After seven']);
  expect((await writer.call('POST', `/api/supporters/${id}/notes`, { body: '  ' })).status).toBe(422);
  await writer.call('DELETE', `/api/supporters/${id}/notes/${noteId}`);
  expect(await noted()).toEqual([]);
});

describe('households', () => {
  const household = async (search: string) => (await record(await idOf(search))).household;

  test('two people live together, are greeted by their first names, and can be told apart by size', async () => {
    const [marisol, jun] = [await idOf('Marisol'), await idOf('Jun')];
    await house.client.put(`/api/supporters/${marisol}/household`, { withId: jun });
    expect(await household('Marisol')).toMatchObject({
      greeting: 'Marisol and Jun',
      own: null,
      members: [{ name: 'Marisol Castellan' }, { name: 'Jun Castellan' }],
    });
    expect((await record(jun)).greeting).toBe('Marisol and Jun');
    expect(await countOf({ kind: 'field', field: 'household', op: 'at-least', value: 2 })).toBe(2);
    expect(
      (await house.client.call('PUT', `/api/supporters/${marisol}/household`, { withId: jun })).status,
    ).toBe(409);
    expect(
      (await house.client.call('PUT', `/api/supporters/${marisol}/household`, { withId: marisol })).status,
    ).toBe(409);
  });

  test('a greeting of their own is kept, and the household follows who joins and who leaves', async () => {
    const [jun, bo] = [await idOf('Jun'), await idOf('Bo')];
    await house.client.put(`/api/supporters/${jun}/household/greeting`, {
      greeting: 'the Castellans',
      was: '',
    });
    await house.client.put(`/api/supporters/${bo}/household`, { withId: jun });
    expect(await household('Bo')).toMatchObject({ greeting: 'the Castellans', members: [{}, {}, {}] });
    await house.client.put(`/api/supporters/${jun}/household/greeting`, {
      greeting: '',
      was: 'the Castellans',
    });
    expect((await household('Bo'))!.greeting).toBe('Marisol, Jun, and Bo');
    await house.client.call('DELETE', `/api/supporters/${bo}/household`);
    expect([await household('Bo'), (await household('Jun'))!.members.length]).toEqual([null, 2]);
    expect(await countOf({ kind: 'field', field: 'household', op: 'equals', value: 2 })).toBe(2);
    expect((await house.client.call('DELETE', `/api/supporters/${bo}/household`)).status).toBe(409);
    expect(
      (await undo(bo, (await timeline(bo, 'edit')).find((one) => one.title === 'Left the household')!.undo))
        .status,
    ).toBe(204);
    expect((await household('Bo'))!.members).toHaveLength(3);
    await house.client.call('DELETE', `/api/supporters/${bo}/household`);
  });

  test('with the last but one the household goes', async () => {
    const [marisol, jun] = [await idOf('Marisol'), await idOf('Jun')];
    await house.client.call('DELETE', `/api/supporters/${jun}/household`);
    expect(await household('Marisol')).toBeNull();
    expect(await countOf({ kind: 'field', field: 'household', op: 'filled' })).toBe(0);
    await house.client.put(`/api/supporters/${marisol}/household`, { withId: jun });
  });
});

describe('writing to one person', () => {
  const doc = (text: string) => ({
    type: 'doc',
    content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
  });
  const write = (id: number, rest: object = {}) =>
    house.client.call<{ id: number; detail: string; faults?: { message: string }[] }>(
      'POST',
      `/api/supporters/${id}/messages`,
      {
        channel: 'email',
        purpose: 'appeals',
        subject: 'For {Greeting}',
        letter: doc('Dear {Greeting}, thank you.'),
        text: '',
        ...rest,
      },
    );

  test('it leaves by the same road, greeted with the household, and is kept on the record alone', async () => {
    const id = await idOf('Marisol');
    expect(
      await house.client.get<PersonalVerdict>(
        `/api/supporters/${id}/may-write?channel=email&purpose=appeals`,
      ),
    ).toEqual({
      verdict: 'send',
      words: 'Will get it',
      to: 'marisol@example.org',
    });
    expect((await write(id)).status).toBe(202);
    const mail = await eventually(
      'the letter',
      () => house.sink.mails.find((one) => one.to.includes('marisol@example.org')),
      Boolean,
    );
    expect(mail!.raw).toContain('Marisol and Jun');
    await eventually(
      'it on the record',
      () => timeline(id, 'delivery'),
      (items) => items.some((one) => one.title === 'Got “To Marisol Castellan”'),
    );
    expect(await house.client.get<unknown[]>('/api/messages')).toEqual([]);
  });

  test('who never agreed to it does not get it, and why is said; holes in the words are told', async () => {
    const id = await idOf('Jun');
    const refused = await write(id, { channel: 'text', text: 'Hello', letter: null });
    expect([refused.status, refused.body.detail]).toEqual([
      409,
      'It can’t go to Jun Castellan: never opted in to this.',
    ]);
    const faulty = await write(id, { subject: '', letter: doc('Dear {Frist name}') });
    expect([faulty.status, faulty.body.faults!.map((one) => one.message)]).toEqual([
      422,
      [expect.stringContaining('no subject'), expect.stringContaining('Frist name')],
    ]);
    expect((await (await house.as('writer')).call('POST', `/api/supporters/${id}/messages`, {})).status).toBe(
      403,
    );
  });
});

describe('everything about one person', () => {
  const file = async (id: number, as: string) =>
    (await house.client.call<unknown>('GET', `/api/supporters/${id}/everything?as=${as}`)).text;

  test('as JSON, with permission, notes and what passed', async () => {
    const id = await idOf('Marisol');
    const all = JSON.parse(await file(id, 'json')) as Record<string, unknown>;
    expect(all).toMatchObject({
      firstName: 'Marisol',
      greeting: 'Marisol and Jun',
      household: { members: [{}, {}] },
      permission: { organization: expect.any(String) },
    });
    expect(JSON.stringify(all.timeline)).toContain('Gave $40');
  });

  test('as CSV that Python reads, a row for each thing known', async () => {
    const rows = JSON.parse(
      execFileSync(
        'python3',
        [
          '-c',
          'import csv,io,json,sys; print(json.dumps(list(csv.reader(io.StringIO(sys.stdin.buffer.read().decode("utf-8-sig"))))))',
        ],
        {
          input: await file(await idOf('Marisol'), 'csv'),
        },
      ).toString(),
    ) as string[][];
    expect(rows[0]).toEqual(['What', 'Value', 'When', 'More']);
    expect(rows.every((row) => row.length === 4)).toBe(true);
    expect(rows).toContainEqual(['Name', 'Marisol Castellan', '', '']);
    expect(rows).toContainEqual(['Gift', '40.00', houseDay(), '']);
  });

  test('as a vCard with name, addresses and tags', async () => {
    const card = await file(await idOf('Marisol'), 'vcf');
    expect(card.split('\r\n')).toEqual(
      expect.arrayContaining([
        'BEGIN:VCARD',
        'VERSION:4.0',
        'N:Castellan;Marisol;;;',
        'CATEGORIES:plank menders',
      ]),
    );
  });
});

test('a chapter sees, joins and merges only its own people', async () => {
  const [one, other] = house.chapters;
  const away = await house.as('organizer', other);
  const id = await idOf('Marisol');
  expect((await record(id)).chapter.id).toBe(one);
  for (const [method, path, body] of [
    ['GET', 'timeline', undefined],
    ['GET', 'everything', undefined],
    ['POST', 'notes', { body: 'x' }],
    ['PUT', 'household', { withId: id + 1 }],
    ['POST', 'merging', { goneId: id + 1 }],
    ['POST', 'messages', { channel: 'email', purpose: 'news', subject: 'x', letter: null, text: '' }],
  ] as const)
    expect([path, (await away.call(method, `/api/supporters/${id}/${path}`, body)).status]).toEqual([
      path,
      404,
    ]);
});
