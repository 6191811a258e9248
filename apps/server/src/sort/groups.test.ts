import type {
  ListView,
  MessageView,
  Page,
  RecordView,
  SegmentSize,
  SegmentVersion,
  SegmentView,
  SupporterRow,
  TagUse,
  TagView,
} from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import { SegmentSizes } from '../segments/segment-sizes';
import { houseDay, openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { bringIn, STEP_COLUMNS, draftEmail, NOTHING } from '../testing/steps';

let house: TestHouse;
let ids: number[];
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  const rows = ['Ann,Abara', 'Bea,Berg', 'Cy,Chen'].map((name, i) => `p${i}@example.org,${name},`);
  await bringIn(house.client, ['Email,First,Last,Mobile', ...rows].join('\n'), {
    columns: STEP_COLUMNS,
    permission: { email: NOTHING, text: NOTHING },
  });
  ids = (await house.client.get<Page<SupporterRow>>('/api/supporters')).rows.map((row) => row.id);
});
afterAll(() => house.close());

const tag = async (name: string, rest: object = {}) =>
  (await house.client.post<{ id: number }>('/api/tags', { name, ...rest })).id;
const put = (id: number, tagId: number) => house.client.put(`/api/supporters/${id}/tags/${tagId}`);
const tags = () => house.client.get<TagView[]>('/api/tags');
const has = (tagId: number): Rule => ({ kind: 'tag', tagId, has: true });
const countOf = async (tree: Rule) =>
  (await house.client.post<{ total: number }>('/api/segments/count', { tree, reach: false })).total;

describe('tags', () => {
  test('made one with each other from both sides at the same time, one of the two stays and nobody is lost', async () => {
    const [one, other] = [await tag('tillers'), await tag('tiller hands')];
    await put(ids[0]!, one);
    await put(ids[1]!, other);
    const join = (from: number, into: number) =>
      house.client.call('POST', `/api/tags/${from}/join`, { intoId: into });
    const answers = await Promise.all([join(one, other), join(other, one), join(one, other)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 404, 404]);
    const left = (await tags()).filter(({ name }) => name.startsWith('tiller'));
    expect(left.map(({ people }) => people)).toEqual([2]);
    await house.client.call('DELETE', `/api/tags/${left[0]!.id}`);
  });

  test('put on somebody while it is made one with another, the other is on them, or it is told', async () => {
    const [from, into] = [await tag('bailers'), await tag('bailing hands')];
    const [joined, ...puts] = await Promise.all([
      house.client.call('POST', `/api/tags/${from}/join`, { intoId: into }),
      ...ids.map((id) => house.client.call('PUT', `/api/supporters/${id}/tags/${from}`)),
    ]);
    expect(joined.status).toBe(200);
    const told = puts.map(({ status }) => status).filter((status) => status === 404).length;
    expect((await tags()).find(({ id }) => id === into)!.people).toBe(ids.length - told);
    expect(await countOf(has(into))).toBe(ids.length - told);
    await house.client.call('DELETE', `/api/tags/${into}`);
  });

  test('two are made one: people, segments and drafts that had the one have the other', async () => {
    const [from, into] = [await tag('menders'), await tag('plank menders')];
    await put(ids[0]!, from);
    await put(ids[1]!, from);
    await put(ids[1]!, into);
    const segment = await house.client.post<{ id: number }>('/api/segments', {
      name: 'Menders',
      tree: { kind: 'all', rules: [has(from), { kind: 'none', rules: [has(into)] }] },
    });
    const message = await draftEmail(
      house.client,
      {
        from: [
          { kind: 'tag', id: from },
          { kind: 'tag', id: into },
        ],
      },
      {},
    );
    expect(await house.client.post(`/api/tags/${from}/join`, { intoId: into })).toEqual({ people: 1 });
    expect((await tags()).map(({ name, people }) => [name, people])).toEqual([['plank menders', 2]]);
    expect(await countOf(has(into))).toBe(2);
    const [found] = await house.client.get<SegmentView[]>('/api/segments');
    expect(found!.tree).toEqual({ kind: 'all', rules: [has(into), { kind: 'none', rules: [has(into)] }] });
    expect((await house.client.get<SegmentVersion[]>(`/api/segments/${segment.id}/versions`)).length).toBe(2);
    expect((await house.client.get<MessageView>(`/api/messages/${message}`)).recipients.from).toEqual([
      { kind: 'tag', id: into },
    ]);
    expect((await house.client.call('POST', `/api/tags/${into}/join`, { intoId: into })).status).toBe(409);
    expect((await house.client.call('POST', `/api/tags/${from}/join`, { intoId: into })).status).toBe(404);
  });

  test('the organization hands tags down to its chapters, or keeps them; how they are used is seen above', async () => {
    const [down, above] = [await tag('crossing guides'), await tag('board only', { handedDown: false })];
    const chapter = await house.as('organizer', house.chapters[0]);
    expect((await chapter.get<TagView[]>('/api/tags')).map(({ name }) => name)).toEqual([
      'crossing guides',
      'plank menders',
    ]);
    await chapter.put(`/api/supporters/${ids[2]}/tags/${down}`);
    expect((await chapter.call('PUT', `/api/supporters/${ids[2]}/tags/${above}`)).status).toBe(404);
    await chapter.post('/api/tags', { name: 'our own' });
    const own = (await tags()).find(({ name }) => name === 'our own')!;
    expect(own.chapter).toEqual(expect.any(String));
    expect(await house.client.get<TagUse[]>(`/api/tags/${down}/use`)).toEqual([
      { chapter: own.chapter, people: 1 },
    ]);
    await house.client.put(`/api/tags/${above}`, {
      name: 'board only',
      handedDown: true,
      was: { name: 'board only', handedDown: false },
    });
    expect((await chapter.get<TagView[]>('/api/tags')).map(({ name }) => name)).toContain('board only');
    // A chapter makes no tag of the whole organization one with another.
    expect(
      (
        await (
          await house.as('organizer', house.chapters[1])
        ).call('POST', `/api/tags/${own.id}/join`, { intoId: down })
      ).status,
    ).toBe(404);
  });

  test('a record tells since when and by whom a tag or list is there', async () => {
    const record = await house.client.get<RecordView>(`/api/supporters/${ids[2]}`);
    expect(record.tags).toMatchObject([
      {
        name: 'crossing guides',
        how: 'by The organizer',
        since: expect.stringContaining(new Date().toISOString().slice(0, 7)),
      },
    ]);
  });
});

test('lists lie in folders and in the order that supporters see', async () => {
  const make = async (name: string, folder = '') =>
    (await house.client.post<{ id: number }>('/api/lists', { name, isPublic: true, folder })).id;
  const [news, launch, old] = [await make('News'), await make('Launch'), await make('Old fair', 'Past')];
  await house.client.put('/api/lists/order', { ids: [launch, old, news] });
  const lists = () => house.client.get<ListView[]>('/api/lists');
  expect((await lists()).map(({ name, folder }) => [name, folder])).toEqual([
    ['Launch', ''],
    ['Old fair', 'Past'],
    ['News', ''],
  ]);
  await house.client.put('/api/lists/folder', { ids: [launch, news], folder: 'Ferry' });
  await house.client.put('/api/lists/folder', { ids: [old], folder: '' });
  expect((await lists()).map(({ folder }) => folder)).toEqual(['Ferry', '', 'Ferry']);
  expect((await (await house.as('writer')).call('PUT', '/api/lists/order', { ids: [news] })).status).toBe(
    403,
  );
});

describe('segments over time', () => {
  const begins = (value: string): Rule => ({ kind: 'field', field: 'lastName', op: 'begins', value });

  test('each saving is kept with how many it took in, and can be saved again', async () => {
    const { id } = await house.client.post<{ id: number }>('/api/segments', { name: 'B', tree: begins('b') });
    await house.client.put(`/api/segments/${id}`, {
      name: 'B or C',
      tree: { kind: 'any', rules: [begins('b'), begins('c')] },
      basedOn: 0,
    });
    const versions = await house.client.get<SegmentVersion[]>(`/api/segments/${id}/versions`);
    expect(versions.map(({ name, people, by }) => [name, people, by])).toEqual([
      ['B or C', 2, 'The owner'],
      ['B', 1, 'The owner'],
    ]);
    expect(versions[1]!.words).toContain('Last name');
    await house.client.put(`/api/segments/${id}`, {
      name: versions[1]!.name,
      tree: versions[1]!.tree,
      basedOn: 1,
    });
    expect((await house.client.get<SegmentVersion[]>(`/api/segments/${id}/versions`))[0]).toMatchObject({
      name: 'B',
      people: 1,
    });
  });

  test('its size is counted once a day by itself, and the newest count of a day stands', async () => {
    const { id } = await house.client.post<{ id: number }>('/api/segments', {
      name: 'Castle',
      tree: begins('castle'),
    });
    await house.database.unscoped()('segment_size').where({ segment_id: id }).update({ day: 20_000 });
    await house.app.get(SegmentSizes).round(Date.now() + 86_400_000);
    const sizes = () => house.client.get<SegmentSize[]>(`/api/segments/${id}/sizes`);
    expect(await sizes()).toEqual([
      { day: '2024-10-04', people: 0 },
      { day: houseDay(), people: 0 },
    ]);
    await house.client.call('PATCH', `/api/supporters/${ids[1]}`, { firstName: 'Bea', lastName: 'Castle' });
    expect((await sizes()).at(-1)).toEqual({ day: houseDay(), people: 1 });
    await house.client.call('DELETE', `/api/segments/${id}`);
    expect((await house.client.call('GET', `/api/segments/${id}/sizes`)).status).toBe(404);
  });

  test('everybody in it now goes on a new list, which stays as it is', async () => {
    const { id } = await house.client.post<{ id: number }>('/api/segments', {
      name: 'Chens',
      tree: begins('chen'),
    });
    const { listId, people } = await house.client.post<{ listId: number; people: number }>(
      `/api/segments/${id}/snapshot`,
      {
        name: 'Chens of today',
      },
    );
    expect(people).toBe(1);
    await eventually(
      'the list to fill',
      () => countOf({ kind: 'list', listId, on: true }),
      (n) => n === 1,
    );
    await house.client.call('PATCH', `/api/supporters/${ids[2]}`, { firstName: 'Cy', lastName: 'Moved' });
    expect([await countOf(begins('chen')), await countOf({ kind: 'list', listId, on: true })]).toEqual([
      0, 1,
    ]);
    expect((await house.client.call('POST', `/api/segments/${id}/snapshot`, { name: 'Nobody' })).status).toBe(
      409,
    );
    expect((await house.client.get<ListView[]>('/api/lists')).map(({ name }) => name)).not.toContain(
      'Nobody',
    );
  });
});
