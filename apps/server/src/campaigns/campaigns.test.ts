import type {
  CampaignView,
  Page,
  RecordView,
  RosterRow,
  SegmentCount,
  TimelineItem,
} from '@goodword/core/contract';
import { gathering, HEAD, noPermission } from '../testing/gathering';
import { openTestHouse, type Client, type TestHouse } from '../testing/harness';
import { bringIn } from '../testing/steps';

let house: TestHouse;
let east: Client;
let batchId: number;
const { find, record } = gathering(() => house);

beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  const rows = ['ann@example.org,Ann,Reyes,', 'bea@example.org,Bea,Okoro,', 'cy@example.org,Cy,Lin,'];
  batchId = (await bringIn(house.client, `${HEAD}${rows.join('\n')}\n`, { permission: noPermission })).id;
  east = await house.as('organizer', house.chapters[1]!);
  await bringIn(east, `${HEAD}eve@example.org,Eve,East,\n`, { permission: noPermission });
});
afterAll(() => house.close());

const APPEAL = {
  name: 'Winter hull appeal',
  kind: 'appeal',
  appealCode: 'HULL26',
  stages: ['asked', 'pledged', 'gave'],
};
const make = async (name: string) =>
  (await house.client.post<{ id: number }>('/api/campaigns', { ...APPEAL, name })).id;
const show = (id: number, client = house.client) => client.get<CampaignView>(`/api/campaigns/${id}`);
const rosterOf = async (id: number, query = '', client = house.client) =>
  (await client.get<Page<RosterRow>>(`/api/campaigns/${id}/roster${query}`)).rows
    .map((row) => `${row.firstName} ${row.stage}`)
    .sort();
const idOf = async (search: string) => (await find(search))[0]!.id;

test('people are put on by group and by hand, moved, and counted by stage', async () => {
  const id = await make('Counted');
  expect(
    await house.client.put(`/api/campaigns/${id}/roster`, {
      group: { kind: 'batch', id: batchId },
      stage: 'asked',
    }),
  ).toEqual({ people: 3 });
  await house.client.put(`/api/campaigns/${id}/roster`, {
    group: { ids: [await idOf('ann@')] },
    stage: 'gave',
  });
  expect(await rosterOf(id)).toEqual(['Ann gave', 'Bea asked', 'Cy asked']);
  expect(await rosterOf(id, '?stage=asked')).toEqual(['Bea asked', 'Cy asked']);
  expect(await show(id)).toMatchObject({
    people: 3,
    counts: { asked: 2, gave: 1 },
    isOpen: true,
    madeBy: 'The owner',
  });
  expect((await record('ann@')).rosters).toContainEqual(expect.objectContaining({ id, stage: 'gave' }));
  const tree = { kind: 'roster', campaignId: id, stages: ['asked'], on: true };
  expect((await house.client.post<SegmentCount>('/api/segments/count', { tree, reach: false })).total).toBe(
    2,
  );
});

test('a page of the roster leads to the next', async () => {
  const id = await make('Paged');
  await house.client.put(`/api/campaigns/${id}/roster`, {
    group: { kind: 'batch', id: batchId },
    stage: 'asked',
  });
  const first = await house.client.get<Page<RosterRow>>(`/api/campaigns/${id}/roster?limit=2`);
  expect([first.rows.length, first.total]).toEqual([2, 3]);
  const second = await house.client.get<Page<RosterRow>>(
    `/api/campaigns/${id}/roster?limit=2&after=${first.next}`,
  );
  expect(second.rows).toHaveLength(1);
  expect(second.next).toBeNull();
  expect(first.rows.map((row) => row.supporterId)).not.toContain(second.rows[0]!.supporterId);
});

test('whoever is put where they stand already keeps the day that they came to it', async () => {
  const id = await make('Kept day');
  const put = (stage: string) =>
    house.client.put(`/api/campaigns/${id}/roster`, { group: { kind: 'batch', id: batchId }, stage });
  const days = async () =>
    (await house.client.get<Page<RosterRow>>(`/api/campaigns/${id}/roster`)).rows.map((row) => row.putAt);
  await put('asked');
  const before = await days();
  await put('asked');
  expect(await days()).toEqual(before);
  await put('gave');
  expect(await days()).not.toEqual(before);
});

test('a stage that the campaign has not is told with those that it has, and nobody is put on', async () => {
  const id = await make('Standings');
  const answer = await house.client.call<{ detail: string }>('PUT', `/api/campaigns/${id}/roster`, {
    group: { kind: 'batch', id: batchId },
    stage: 'thinking',
  });
  expect(answer.status).toBeGreaterThanOrEqual(400);
  expect(answer.text).toContain('asked, pledged, gave');
  expect((await show(id)).people).toBe(0);
});

test('stages are renamed with their people; one that people stand at can not be dropped', async () => {
  const id = await make('Renamed');
  await house.client.put(`/api/campaigns/${id}/roster`, {
    group: { kind: 'batch', id: batchId },
    stage: 'pledged',
  });
  const change = async (stages: string[], renamed = {}) =>
    house.client.call<{ detail: string }>('PUT', `/api/campaigns/${id}`, {
      ...APPEAL,
      name: 'Renamed',
      stages,
      renamed,
      isOpen: true,
      basedOn: (await show(id)).version,
    });
  const dropped = await change(['asked', 'gave']);
  expect([dropped.status, dropped.body.detail]).toEqual([
    409,
    '3 people are at “pledged”. Move them to another stage first, or rename it.',
  ]);
  expect((await change(['asked', 'promised', 'gave'], { pledged: 'promised' })).status).toBe(204);
  expect((await show(id)).counts).toEqual({ promised: 3 });
  // A line over the roster sees the new name in the very next count.
  const tree = { kind: 'roster', campaignId: id, stages: ['promised'], on: true };
  expect((await house.client.post<SegmentCount>('/api/segments/count', { tree, reach: false })).total).toBe(
    3,
  );
});

test('a name is taken once', async () => {
  await make('Once');
  const again = await house.client.call<{ detail: string }>('POST', '/api/campaigns', {
    ...APPEAL,
    name: 'ONCE',
  });
  expect([again.status, again.body.detail]).toEqual([
    409,
    'There is a campaign named ONCE already. Take another name.',
  ]);
});

test('taking off leaves the others, and removing a campaign leaves its people', async () => {
  const id = await make('Going');
  await house.client.put(`/api/campaigns/${id}/roster`, {
    group: { kind: 'batch', id: batchId },
    stage: 'asked',
  });
  const cy = await idOf('cy@');
  expect(await house.client.post(`/api/campaigns/${id}/roster/off`, { group: { ids: [cy] } })).toEqual({
    people: 1,
  });
  expect(await rosterOf(id)).toEqual(['Ann asked', 'Bea asked']);
  expect((await house.client.call('DELETE', `/api/campaigns/${id}`)).body).toEqual({ people: 2 });
  expect((await house.client.call('GET', `/api/campaigns/${id}`)).status).toBe(404);
  expect(await find('ann@')).toHaveLength(1);
  expect((await record('ann@')).rosters.map((one) => one.id)).not.toContain(id);
});

test('a chapter sees and moves its own people alone', async () => {
  const id = await make('Both chapters');
  await house.client.put(`/api/campaigns/${id}/roster`, {
    group: { kind: 'batch', id: batchId },
    stage: 'asked',
  });
  const ann = await idOf('ann@');
  await east.put(`/api/campaigns/${id}/roster`, { group: { ids: [ann, await idOf('eve@')] }, stage: 'gave' });
  expect(await rosterOf(id, '', east)).toEqual(['Eve gave']);
  expect((await show(id, east)).people).toBe(1);
  expect(await rosterOf(id)).toEqual(['Ann asked', 'Bea asked', 'Cy asked', 'Eve gave']);
  expect(await east.post(`/api/campaigns/${id}/roster/off`, { group: { ids: [ann] } })).toEqual({
    people: 0,
  });
  const own = (await east.post<{ id: number }>('/api/campaigns', { ...APPEAL, name: 'East alone' })).id;
  const west = await house.as('organizer', house.chapters[0]!);
  expect((await west.call('GET', `/api/campaigns/${own}`)).status).toBe(404);
  expect((await west.call('DELETE', `/api/campaigns/${own}`)).status).toBe(404);
});

test.each(['viewer', 'writer'])('a %s sees campaigns and changes none', async (role) => {
  const id = await make(`Seen by a ${role}`);
  const client = await house.as(role);
  expect((await client.call('GET', `/api/campaigns/${id}`)).status).toBe(200);
  for (const [method, path, body] of [
    ['POST', '', APPEAL],
    ['PUT', `/${id}/roster`, { group: { ids: [1] }, stage: 'asked' }],
    ['DELETE', `/${id}`, undefined],
  ] as const)
    expect((await client.call(method, `/api/campaigns${path}`, body)).status).toBe(403);
});

test('a record says on which rosters somebody is', async () => {
  const { rosters }: RecordView = await record('bea@');
  expect(rosters.map((one) => one.name)).toEqual([...rosters.map((one) => one.name)].sort());
});

describe('one person’s place on a roster', () => {
  let [id, bea]: number[] = [];
  const move = (stage: string) =>
    house.client.put(`/api/campaigns/${id}/roster`, { group: { ids: [bea] }, stage });
  const history = async () =>
    (await house.client.get<TimelineItem[]>(`/api/supporters/${bea}/timeline?kinds=edit`)).filter((item) =>
      item.title.includes('History kept'),
    );
  const undo = (item: TimelineItem) =>
    house.client.call<{ detail: string }>('POST', `/api/supporters/${bea}/history/${item.undo}/undo`);
  const stage = async () => (await record('bea@')).rosters.find((one) => one.id === id)?.stage ?? null;

  beforeAll(async () => {
    [id, bea] = [await make('History kept'), await idOf('bea@')];
    await move('asked');
    await move('gave');
  });

  test('is told in their history, and what changes nothing is not', async () => {
    await move('gave');
    expect((await history()).map(({ title }) => title)).toEqual([
      'History kept: asked, now gave',
      'Put on the roster of History kept: asked',
    ]);
  });

  test('is undone where it was done, unless it was changed since', async () => {
    const [moved, put] = await history();
    expect((await undo(put!)).body.detail).toMatch(/^It was changed again since/);
    expect((await undo(moved!)).status).toBeLessThan(300);
    expect(await stage()).toBe('asked');
    expect((await undo(put!)).status).toBeLessThan(300);
    expect(await stage()).toBeNull();
  });

  test('goes back to where it was taken off, as long as the campaign has that stage', async () => {
    await move('pledged');
    await house.client.post(`/api/campaigns/${id}/roster/off`, { group: { ids: [bea] } });
    const off = (await history()).find(({ title }) => title.startsWith('Taken off'))!;
    await house.client.put(`/api/campaigns/${id}`, {
      ...APPEAL,
      name: 'History kept',
      stages: ['asked', 'gave'],
      renamed: {},
      isOpen: true,
      basedOn: 0,
    });
    expect((await undo(off)).body.detail).toBe('History kept has no stage “pledged” any more.');
    await house.client.put(`/api/campaigns/${id}`, {
      ...APPEAL,
      name: 'History kept',
      renamed: {},
      isOpen: true,
      basedOn: 1,
    });
    expect((await undo(off)).status).toBeLessThan(300);
    expect(await stage()).toBe('pledged');
  });
});
