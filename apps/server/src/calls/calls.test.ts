import type {
  CallListView,
  CallRow,
  CampaignView,
  Page,
  RecordView,
  SupporterRow,
  TimelineItem,
} from '@goodword/core/contract';
import { openTestHouse, houseDay, type TestHouse } from '../testing/harness';
import { bringIn, STEP_COLUMNS, NOTHING } from '../testing/steps';

let house: TestHouse;
let ids: number[];
let campaignId: number;
let listId: number;
const NAMES = ['Ann Abara', 'Bea Berg', 'Cy Chen', 'Di Dahl'];

const person = async (id: number) => house.client.get<RecordView>(`/api/supporters/${id}`);
async function mayCall(id: number): Promise<void> {
  const point = (await person(id)).contactPoints.find((one) => one.kind === 'mobile')!;
  await house.client.post(`/api/supporters/${id}/permission`, {
    contactPointId: point.id,
    channel: 'call',
    scope: 'appeals',
    state: 'yes',
    how: 'paper',
    on: houseDay(-10),
    words: 'You may call me about the ferry',
  });
}

beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  const rows = NAMES.map(
    (name, i) => `p${i}@example.org,${name.replace(' ', ',')},${i === 3 ? '' : `206 555 016${i}`}`,
  );
  await bringIn(house.client, ['Email,First,Last,Mobile', ...rows].join('\n'), {
    columns: STEP_COLUMNS,
    permission: { email: NOTHING, text: NOTHING },
  });
  ids = (await house.client.get<Page<SupporterRow>>('/api/supporters')).rows.map((row) => row.id);
  await mayCall(ids[0]!);
  await mayCall(ids[1]!);
  campaignId = (
    await house.client.post<{ id: number }>('/api/campaigns', {
      name: 'Hull',
      kind: 'appeal',
      appealCode: null,
      stages: ['asked', 'pledged'],
    })
  ).id;
  listId = (
    await house.client.post<{ id: number }>('/api/calls', {
      name: 'Winter calls',
      group: { ids: [...ids].reverse() },
      campaignId,
      script: 'Hello {First name, or "neighbour"}, it is {Sender: name}.',
      purpose: 'appeals',
    })
  ).id;
});
afterAll(() => house.close());

const show = () => house.client.get<CallListView>(`/api/calls/${listId}`);
const people = async (query = '') =>
  (await house.client.get<Page<CallRow>>(`/api/calls/${listId}/people${query}`)).rows;
const answer = async (position: number, body: object) => {
  const row = (await people()).find((one) => one.position === position);
  const was = { outcome: row?.outcome ?? null, note: row?.note ?? '' };
  return house.client.call<CallRow & { detail: string }>('PUT', `/api/calls/${listId}/people/${position}`, {
    was,
    ...body,
  });
};

test('people are numbered by name, and who may not be called is passed over with the reason', async () => {
  expect((await people()).map(({ position, name, suppressed }) => [position, name, suppressed])).toEqual([
    [1, 'Ann Abara', null],
    [2, 'Bea Berg', null],
    [3, 'Cy Chen', 'Never opted in to this'],
    [4, 'Di Dahl', 'No phone number'],
  ]);
  expect(await show()).toMatchObject({
    people: 4,
    suppressed: 2,
    called: 0,
    again: 0,
    options: ['asked', 'pledged', 'no answer', 'call again'],
    campaign: { name: 'Hull' },
  });
  expect((await people('?who=open')).map(({ position }) => position)).toEqual([1, 2]);
});

test('the script is filled for each', async () => {
  expect((await people())[0]).toMatchObject({
    phone: '+1 206 555 0160',
    script: 'Hello Ann, it is The owner.',
  });
  const wrong = await house.client.call<{ faults: { message: string }[] }>('POST', '/api/calls', {
    name: 'x',
    group: { ids },
    script: 'Hi {Frist name}',
  });
  expect([wrong.status, wrong.body.faults[0]!.message]).toEqual([
    422,
    expect.stringContaining('{First name}'),
  ]);
});

test('an answer goes where it belongs: the stage on the roster, the note on the record', async () => {
  expect((await answer(1, { outcome: 'pledged', note: 'Will bring a cheque' })).body).toMatchObject({
    outcome: 'pledged',
    stage: 'pledged',
    note: 'Will bring a cheque',
  });
  expect((await house.client.get<CampaignView>(`/api/campaigns/${campaignId}`)).counts).toMatchObject({
    pledged: 1,
  });
  const notes = () => house.client.get<TimelineItem[]>(`/api/supporters/${ids[0]}/timeline?kinds=note`);
  expect((await notes()).map(({ title, note }) => [title, note!.body])).toEqual([
    ['Called', 'Will bring a cheque'],
  ]);
  // Entered again, as happens with paper: the note is the same note.
  await answer(1, { outcome: 'asked', note: 'Will bring cash' });
  expect((await notes()).map(({ note }) => note!.body)).toEqual(['Will bring cash']);
  expect(await show()).toMatchObject({ called: 1, again: 0, outcomes: [{ outcome: 'asked', people: 1 }] });
  await answer(1, { outcome: null, note: '' });
  expect([await notes(), (await show()).called]).toEqual([[], 0]);
});

test('"no answer" moves nobody on the roster, and an outcome that is none is told', async () => {
  await answer(2, { outcome: 'no answer' });
  expect((await people())[1]).toMatchObject({ outcome: 'no answer', stage: null });
  const wrong = await answer(2, { outcome: 'perhaps' });
  expect([wrong.status, wrong.body.detail]).toEqual([422, expect.anything()]);
  expect((await answer(9, { outcome: 'asked' })).status).toBe(404);
});

test('who was not reached or had no time is called once more, in rounds of their own', async () => {
  const again = async () => (await people('?who=again')).map(({ name, note }) => [name, note]);
  const first = await answer(1, { outcome: 'call again', note: 'After six' });
  expect(first.status).toBe(200);
  await answer(2, { outcome: 'no answer' });
  expect(await show()).toMatchObject({ called: 2, again: 2 });
  const [one, other] = [(await people())[0]!.name, (await people())[1]!.name];
  expect(await again()).toEqual([
    [one, 'After six'],
    [other, ''],
  ]);
  expect(await people('?who=open')).toEqual([]);
  await answer(1, { outcome: 'pledged', note: 'After six' });
  expect(await again()).toEqual([[other, '']]);
  expect(await show()).toMatchObject({ called: 2, again: 1 });
});

test('who says so on the telephone is never called again', async () => {
  await answer(2, { outcome: 'no answer', note: 'Do not call', noMoreCalls: true });
  const entry = (await person(ids[1]!)).entries.find((one) => one.state === 'no')!;
  expect(entry).toMatchObject({
    channel: 'call',
    scope: 'marketing',
    how: 'phone',
    source: 'Said when called: Winter calls',
  });
  const again = await house.client.post<{ id: number }>('/api/calls', {
    name: 'Again',
    group: { ids },
    purpose: 'appeals',
  });
  const rows = (await house.client.get<Page<CallRow>>(`/api/calls/${again.id}/people`)).rows;
  expect(rows[1]).toMatchObject({ name: 'Bea Berg', suppressed: 'Opted out' });
  expect((await house.client.get<CallListView>(`/api/calls/${again.id}`)).options).toEqual([
    'no answer',
    'call again',
    'talked',
  ]);
});

test('who says no after the list was made, on whatever road, is passed over from that moment', async () => {
  await mayCall(ids[0]!);
  const made = await house.client.post<{ id: number }>('/api/calls', {
    name: 'Later',
    group: { ids },
    purpose: 'appeals',
  });
  const open = async () =>
    (await house.client.get<Page<CallRow>>(`/api/calls/${made.id}/people?who=open&limit=1`)).rows.map(
      ({ name }) => name,
    );
  expect(await open()).toEqual(['Ann Abara']);
  const point = (await person(ids[0]!)).contactPoints.find((one) => one.kind === 'mobile')!;
  await house.client.post(`/api/supporters/${ids[0]}/permission`, {
    contactPointId: point.id,
    channel: 'call',
    scope: 'appeals',
    state: 'no',
    how: 'phone',
    on: houseDay(),
    words: 'Please do not call',
  });
  expect(await open()).toEqual([]);
  const all = (await house.client.get<Page<CallRow>>(`/api/calls/${made.id}/people`)).rows;
  expect(all[0]).toMatchObject({ name: 'Ann Abara', suppressed: 'Opted out' });
});

test('an erased person stands on the list without a name, and can’t be answered for', async () => {
  await house.client.call('DELETE', `/api/supporters/${ids[3]}`);
  expect((await people())[3]).toMatchObject({
    name: 'No longer here',
    suppressed: 'No longer here',
    phone: null,
  });
  expect((await answer(4, { outcome: 'asked' })).status).toBe(404);
});

test('a list is the organization’s own, for organizers; deleting it leaves what was answered', async () => {
  expect((await (await house.as('writer')).call('GET', '/api/calls')).status).toBe(403);
  expect(
    (await (await house.as('organizer', house.chapters[1])).call('GET', `/api/calls/${listId}`)).status,
  ).toBe(404);
  await answer(1, { outcome: 'pledged', note: 'Yes' });
  await house.client.call('DELETE', `/api/calls/${listId}`);
  expect((await house.client.call('GET', `/api/calls/${listId}`)).status).toBe(404);
  expect((await house.client.get<CampaignView>(`/api/campaigns/${campaignId}`)).counts).toMatchObject({
    pledged: 1,
  });
  expect(
    (await house.client.call('POST', '/api/calls', { name: 'Nobody', group: { ids: [999_999] } })).status,
  ).toBe(409);
});
