import type {
  DeletionNotice,
  ListView,
  Page,
  RecordView,
  SegmentCount,
  SegmentView,
  SupporterRow,
  TagView,
  TimelineItem,
} from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import type { Explanation } from '@goodword/core/words';
import { openTestHouse, type Client, type TestHouse } from './testing/harness';
import { agreed, bringIn, STEP_COLUMNS, NOTHING } from './testing/steps';

let house: TestHouse;
let client: Client;

const NAMES = [
  'Ann Abara',
  'Bea Abara',
  'Cy Berg',
  'Di Berg',
  'Émile Chen',
  'Fay Dahl',
  'Gil Dahl',
  'Hana Eze',
  'Ida Eze',
  'Jun Fuentes',
  'Kit Girard',
  'Lia Girard',
];

beforeAll(async () => {
  house = await openTestHouse();
  client = house.client;
  house.startWorker();
  await client.post('/api/fields', { name: 'Shirt', type: 'choice', fallback: null });
  await client.post('/api/fields', { name: 'Renews', type: 'date', fallback: null });
  const rows = NAMES.map(
    (name, i) =>
      `${name.split(' ')[0]!.toLowerCase()}@example.org,${name.replace(' ', ',')},${i % 2 ? `206 555 01${10 + i}` : ''},${['S', 'M', ''][i % 3]}`,
  );
  const fields = await client.get<{ id: number; name: string }[]>('/api/fields');
  const shirt = fields.find((field) => field.name === 'Shirt')!;
  await bringIn(client, ['Email,First,Last,Mobile,Shirt', ...rows].join('\n'), {
    columns: [...STEP_COLUMNS, { to: 'field', fieldId: shirt.id, type: 'choice' }],
    newTags: ['twelve'],
    permission: { email: agreed('appeals'), text: NOTHING },
  });
});
afterAll(() => house.close());

const search = async (words: string) =>
  (await client.get<Page<SupporterRow>>(`/api/supporters?search=${encodeURIComponent(words)}`)).rows.map(
    (row) => `${row.firstName} ${row.lastName}`,
  );
const idOf = async (words: string) =>
  (await client.get<Page<SupporterRow>>(`/api/supporters?search=${encodeURIComponent(words)}`)).rows[0]!.id;
const tagId = async (name: string) =>
  (await client.get<TagView[]>('/api/tags')).find((tag) => tag.name === name)!.id;
const count = (tree: Rule) => client.post<SegmentCount>('/api/segments/count', { tree });

describe('supporters', () => {
  test.each([
    ['abara', ['Ann Abara', 'Bea Abara']],
    ['ida', ['Ida Eze']],
    ['kit gir', ['Kit Girard']],
    ['girard kit', ['Kit Girard']],
    ['jun@', ['Jun Fuentes']],
    ['emile', ['Émile Chen']],
    ['(206) 555-0111', ['Bea Abara']],
    ['0119', ['Jun Fuentes']],
    ['100%', []],
    ["o'", []],
  ])('are found by "%s"', async (words, expected) => expect(await search(words)).toEqual(expected));

  test('come page by page, each once, in the order of their names, whatever the page size', async () => {
    for (const limit of [1, 5, 12, 50]) {
      const seen: string[] = [];
      for (let after: string | null = ''; after !== null;) {
        const page: Page<SupporterRow> = await client.get(
          `/api/supporters?limit=${limit}${after ? `&after=${after}` : ''}`,
        );
        expect(page.total).toBe(NAMES.length);
        seen.push(...page.rows.map((row) => `${row.firstName} ${row.lastName}`));
        after = page.next;
      }
      expect(seen).toEqual(NAMES);
    }
  });

  test('a cursor that is not ours is told so', async () => {
    expect((await client.call('GET', '/api/supporters?after=nonsense')).status).toBe(422);
  });

  test('are filtered by tag and by holds', async () => {
    const total = async (query: string) =>
      (await client.get<Page<SupporterRow>>(`/api/supporters?${query}`)).total;
    expect(await total(`tag=${await tagId('twelve')}`)).toBe(12);
    expect(await total('hold=true')).toBe(0);
    expect((await client.call('GET', '/api/supporters?hold=perhaps')).status).toBe(422);
  });
});

describe('a record', () => {
  test('is edited where it stands, and who and what before is kept', async () => {
    const id = await idOf('fay');
    await client.call('PATCH', `/api/supporters/${id}`, { firstName: 'Fay-Marie', lastName: 'Dahl' });
    const fields = await client.get<{ id: number; name: string }[]>('/api/fields');
    const renews = fields.find((field) => field.name === 'Renews')!.id;
    await client.put(`/api/supporters/${id}/fields/${renews}`, { text: '2027-03-04' });
    await client.put(`/api/supporters/${id}/fields/${renews}`, { text: '2027-04-05' });
    const timeline = await client.get<TimelineItem[]>(`/api/supporters/${id}/timeline`);
    expect(timeline.filter((item) => item.kind === 'edit').map((item) => [item.title, item.detail])).toEqual([
      ['Renews set to Apr 5, 2027', 'By The owner, before: Mar 4, 2027'],
      ['Renews set to Mar 4, 2027', 'By The owner'],
      ['Name changed to Fay-Marie Dahl', 'By The owner, before: Fay Dahl'],
    ]);
    expect(
      (await client.call('PUT', `/api/supporters/${id}/fields/${renews}`, { text: 'someday' })).status,
    ).toBe(422);
    expect((await client.call('PUT', `/api/supporters/${id}/fields/999999`, { text: 'x' })).status).toBe(404);
  });

  test('takes another address, cleaned, and refuses what is none', async () => {
    const id = await idOf('gil');
    await client.post(`/api/supporters/${id}/contact-points`, { kind: 'mobile', text: '(206) 555-0190' });
    const record = await client.get<RecordView>(`/api/supporters/${id}`);
    expect(record.contactPoints.map((point) => point.shown)).toContain('+1 206 555 0190');
    const refused = await client.call<{ detail: string }>('POST', `/api/supporters/${id}/contact-points`, {
      kind: 'email',
      text: 'gil@home',
    });
    expect([refused.status, refused.body.detail]).toEqual([
      422,
      'The email "gil@home" has no ending such as .org.',
    ]);
  });

  test('takes a gift, not one of tomorrow or of nothing', async () => {
    const id = await idOf('hana');
    await client.post(`/api/supporters/${id}/gifts`, { amount: 4000, on: '2026-02-03' });
    expect((await client.get<RecordView>(`/api/supporters/${id}`)).gifts).toMatchObject([
      { amount: 4000, on: '2026-02-03' },
    ]);
    for (const gift of [
      { amount: 0, on: '2026-01-01' },
      { amount: 100, on: '2999-01-01' },
      { amount: 100, on: '2026-02-30' },
      { amount: 1.5, on: '2026-01-01' },
    ]) {
      expect((await client.call('POST', `/api/supporters/${id}/gifts`, gift)).status).toBe(422);
    }
  });

  test('a yes by hand needs its words and its day', async () => {
    const record = await client.get<RecordView>(`/api/supporters/${await idOf('ida')}`);
    const entry = {
      contactPointId: record.contactPoints[0]!.id,
      channel: 'email',
      scope: 'news',
      state: 'yes',
      how: 'phone',
      on: '2026-02-01',
      words: 'Yes, the news please, by email',
    };
    const post = async (change: object) =>
      (await client.call('POST', `/api/supporters/${record.id}/permission`, { ...entry, ...change })).status;
    expect(await post({ words: 'ok' })).toBe(422);
    expect(await post({ on: '2999-01-01' })).toBe(422);
    expect(await post({ contactPointId: 999999 })).toBe(404);
    expect(await post({ scope: 'everything else' })).toBe(422);
    expect(await post({})).toBe(204);
  });
});

describe('lists and tags', () => {
  test('are made once, renamed, and deleted after saying what goes', async () => {
    const { id } = await client.post<{ id: number }>('/api/lists', {
      name: 'Deck crew',
      isPublic: false,
      description: '',
    });
    expect((await client.call('POST', '/api/lists', { name: 'deck crew' })).status).toBe(409);
    const person = await idOf('jun');
    await client.put(`/api/supporters/${person}/lists/${id}`);
    await client.put(`/api/lists/${id}`, {
      name: 'Deck hands',
      isPublic: true,
      description: 'You asked to help on deck.',
      basedOn: 0,
    });
    expect((await client.get<ListView[]>('/api/lists')).find((list) => list.id === id)).toEqual({
      id,
      version: 1,
      name: 'Deck hands',
      isPublic: true,
      onPreferences: true,
      byForm: true,
      folder: '',
      why: '',
      description: 'You asked to help on deck.',
      people: 1,
    });
    expect(await client.get<DeletionNotice>(`/api/lists/${id}/deletion`)).toEqual({
      blocked: null,
      takes: '1 person will no longer be on it. Nobody is deleted, and what they agreed to stays.',
    });
    expect((await client.call('DELETE', `/api/lists/${id}`)).status).toBe(204);
    expect((await client.get<RecordView>(`/api/supporters/${person}`)).lists).toEqual([]);
    expect((await client.call('DELETE', `/api/lists/${id}`)).status).toBe(404);
  });

  test('a field name that could not be written as a merge field, or is taken, is refused', async () => {
    for (const [name, status] of [
      ['Boat {type}', 422],
      ['first  NAME', 409],
      ['shirt', 409],
    ] as const) {
      expect([
        name,
        (await client.call('POST', '/api/fields', { name, type: 'text', fallback: null })).status,
      ]).toEqual([name, status]);
    }
  });
});

describe('segments', () => {
  test('count with the narrowing of every line, page their people, and are exact after each write', async () => {
    const fields = await client.get<{ id: number; name: string }[]>('/api/fields');
    const shirt = fields.find((field) => field.name === 'Shirt')!.id;
    const tree: Rule = {
      kind: 'all',
      rules: [
        { kind: 'tag', tagId: await tagId('twelve'), has: true },
        { kind: 'field', field: shirt, op: 'filled' },
        {
          kind: 'any',
          rules: [
            { kind: 'field', field: shirt, op: 'is', value: 'm' },
            { kind: 'field', field: 'lastName', op: 'begins', value: 'AB' },
          ],
        },
      ],
    };
    const first = await count(tree);
    expect(first).toMatchObject({
      everybody: 12,
      total: 5,
      steps: [{ left: 12 }, { left: 8 }, { left: 5, alone: 5 }],
      reach: { email: 5, text: 0, neither: 0 },
    });
    const people = await client.post<Page<SupporterRow>>('/api/segments/people', { tree, limit: 3 });
    expect([people.total, people.rows.map((row) => row.firstName)]).toEqual([5, ['Ann', 'Bea', 'Émile']]);
    const rest = await client.post<Page<SupporterRow>>('/api/segments/people', {
      tree,
      limit: 3,
      after: people.next,
    });
    expect([rest.rows.map((row) => row.firstName), rest.next]).toEqual([['Hana', 'Kit'], null]);
    await client.call('DELETE', `/api/supporters/${await idOf('ann@')}/tags/${await tagId('twelve')}`);
    expect((await count(tree)).total).toBe(4);
    await client.put(`/api/supporters/${await idOf('ann@')}/tags/${await tagId('twelve')}`);
    expect((await count(tree)).total).toBe(5);
  });

  test('are saved under one name, told as a sentence, and explain one person', async () => {
    const tree: Rule = {
      kind: 'all',
      rules: [
        { kind: 'gave', did: true, atLeast: 1000, window: { over: 'this-year' } },
        { kind: 'permission', channel: 'email', scope: 'appeals', states: ['yes'] },
      ],
    };
    const { id } = await client.post<{ id: number }>('/api/segments', { name: 'Givers', tree });
    expect((await client.call('POST', '/api/segments', { name: 'Givers', tree })).status).toBe(409);
    expect(
      (await client.get<SegmentView[]>('/api/segments')).find((segment) => segment.id === id)!.words,
    ).toBe('gave at least $10 in this calendar year and are opted in for appeals by email');
    const [hana, kit] = [await idOf('hana'), await idOf('kit@')];
    const why = async (person: number) =>
      (await client.get<Explanation>(`/api/segments/${id}/why/${person}`)).inner.map((line) => line.holds);
    expect([await why(hana), await why(kit)]).toEqual([
      [true, true],
      [false, true],
    ]);
    expect((await client.get<RecordView>(`/api/supporters/${hana}`)).segments).toEqual([
      { id, name: 'Givers' },
    ]);
    expect((await client.call('DELETE', `/api/segments/${id}`)).status).toBe(204);
  });

  test('that are too deep, too long or ask for what is gone are refused', async () => {
    const nest = (depth: number): Rule =>
      depth === 0 ? { kind: 'tag', tagId: 1, has: true } : { kind: 'all', rules: [nest(depth - 1)] };
    const status = async (tree: unknown) =>
      (await client.call('POST', '/api/segments/count', { tree })).status;
    expect(await status(nest(6))).toBe(422);
    expect(await status({ kind: 'all', rules: Array.from({ length: 41 }, () => nest(0)) })).toBe(422);
    expect(await status({ kind: 'tag', tagId: 999999, has: true })).toBe(422);
    expect(await status({ kind: 'all', rules: [{ kind: 'spell', op: 'x' }] })).toBe(422);
  });
});
