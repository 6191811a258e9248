import { execFileSync } from 'node:child_process';
import type {
  BulkAct,
  BulkView,
  CampaignView,
  Page,
  PeopleGroup,
  PeopleView,
  RecordView,
  SupporterRow,
  TagView,
} from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import * as XLSX from '@e965/xlsx';
import { openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { agreed, bringIn, STEP_COLUMNS, NOTHING } from '../testing/steps';

let house: TestHouse;
const EVERYBODY: Rule = { kind: 'all', rules: [] };
const PEOPLE = ['Ann,Abara', 'Bea,Berg', 'Cy,Chen', 'Di,"=cmd|calc"'];

beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  await house.client.post('/api/fields', { name: 'Hours', type: 'number', fallback: null });
  const rows = PEOPLE.map((name, i) => `p${i}@example.org,${name},206 555 010${i}`);
  await bringIn(house.client, ['Email,First,Last,Mobile', ...rows].join('\n'), {
    columns: STEP_COLUMNS,
    permission: { email: agreed('news'), text: NOTHING },
  });
});
afterAll(() => house.close());

const people = async (tree: Rule = EVERYBODY, rest: object = {}) =>
  house.client.post<Page<SupporterRow>>('/api/segments/people', { tree, ...rest });
const ids = async (tree: Rule = EVERYBODY) => (await people(tree)).rows.map((row) => row.id);
const record = (id: number) => house.client.get<RecordView>(`/api/supporters/${id}`);
const ended = (id: number, state: BulkView['state']) =>
  eventually(
    `the act to be ${state}`,
    () => house.client.get<BulkView>(`/api/bulk/${id}`),
    (one) => one.state === state || one.problem !== null,
  );
const begin = async (act: BulkAct, group: PeopleGroup = { tree: EVERYBODY, without: [] }) =>
  (await house.client.post<{ id: number }>('/api/bulk', { group, act })).id;
const done = async (act: BulkAct, group?: PeopleGroup) => ended(await begin(act, group), 'done');
const undone = async (id: number) => {
  await house.client.post(`/api/bulk/${id}/undo`);
  return ended(id, 'undone');
};

test('a tag is put on everybody but those who have it, counted, and taken back from those alone', async () => {
  const { id: tagId } = await house.client.post<{ id: number }>('/api/tags', { name: 'rowers' });
  const [first] = await ids();
  await house.client.put(`/api/supporters/${first}/tags/${tagId}`);
  const tagged: Rule = { kind: 'tag', tagId, has: true };
  const act = await done({ do: 'tag', tagId, on: true });
  expect(act).toMatchObject({
    words: 'Put the tag rowers on 4 people',
    people: 4,
    changed: 3,
    canUndo: true,
  });
  expect((await people(tagged)).total).toBe(4);
  await undone(act.id);
  expect(await ids(tagged)).toEqual([first]);
  expect((await house.client.call('POST', `/api/bulk/${act.id}/undo`)).status).toBe(409);
  expect((await house.client.get<TagView[]>('/api/tags')).find((tag) => tag.id === tagId)!.people).toBe(1);
});

test('a list is left by some, without others that were struck out', async () => {
  const { id: listId } = await house.client.post<{ id: number }>('/api/lists', { name: 'Ferry news' });
  await done({ do: 'list', listId, on: true });
  const [first] = await ids();
  const act = await done({ do: 'list', listId, on: false }, { tree: EVERYBODY, without: [first!] });
  expect(await ids({ kind: 'list', listId, on: true })).toEqual([first]);
  await undone(act.id);
  expect((await people({ kind: 'list', listId, on: true })).total).toBe(4);
});

test('a field is set and emptied; undoing keeps what somebody edited since', async () => {
  const [field] = await house.client.get<{ id: number }[]>('/api/fields');
  const hours = async () =>
    (await people(EVERYBODY, { fields: [field!.id] })).rows.map((row) => row.values[field!.id]);
  const [first, second] = await ids();
  await house.client.put(`/api/supporters/${first}/fields/${field!.id}`, { text: '2' });
  const act = await done({ do: 'field', fieldId: field!.id, text: '12' });
  expect([await hours(), act.changed]).toEqual([['12', '12', '12', '12'], 4]);
  await house.client.put(`/api/supporters/${second}/fields/${field!.id}`, { text: '40' });
  await undone(act.id);
  expect(await hours()).toEqual(['2', '40', '', '']);
  const emptied = await done({ do: 'field', fieldId: field!.id, text: '' });
  expect(emptied.changed).toBe(2);
  expect(await hours()).toEqual(['', '', '', '']);
  const refused = await house.client.call<{ detail: string }>('POST', '/api/bulk', {
    group: { ids: [first] },
    act: { do: 'field', fieldId: field!.id, text: 'many' },
  });
  expect([refused.status, refused.body.detail]).toEqual([422, expect.stringContaining('Hours')]);
});

test('people are put on a roster, and moved back to where they stood', async () => {
  const { id } = await house.client.post<{ id: number }>('/api/campaigns', {
    name: 'Hull',
    kind: 'appeal',
    appealCode: null,
    stages: ['asked', 'gave'],
  });
  const [first] = await ids();
  await house.client.put(`/api/campaigns/${id}/roster`, { group: { ids: [first] }, stage: 'gave' });
  const act = await done({ do: 'roster', campaignId: id, stage: 'asked' });
  const counts = async () => (await house.client.get<CampaignView>(`/api/campaigns/${id}`)).counts;
  expect(await counts()).toMatchObject({ asked: 4 });
  await undone(act.id);
  expect(await counts()).toMatchObject({ gave: 1 });
  expect(await ids({ kind: 'roster', campaignId: id, stages: [], on: true })).toEqual([first]);
});

test('an agreement with its evidence is recorded for each, and lifts nobody’s no', async () => {
  const [first, second] = await ids();
  const point = (await record(first!)).contactPoints.find((one) => one.kind === 'email')!;
  await house.client.post(`/api/supporters/${first}/permission`, {
    contactPointId: point.id,
    channel: 'email',
    scope: 'appeals',
    state: 'no',
    how: 'phone',
    on: '2026-06-01',
    words: 'No appeals please',
  });
  const act = await done({
    do: 'permission',
    channel: 'email',
    scopes: ['appeals'],
    how: 'paper',
    on: '2026-07-01',
    words: 'Ask me too',
    voucher: 'Idris Vale',
  });
  expect(act).toMatchObject({ changed: 4, canUndo: false });
  const entry = (await record(second!)).entries.find((one) => one.scope === 'appeals')!;
  expect(entry).toMatchObject({
    state: 'yes',
    how: 'paper',
    words: 'Ask me too (vouched for by Idris Vale)',
    at: '2026-07-01T12:00:00.000Z',
  });
  expect(
    (await people({ kind: 'permission', channel: 'email', scope: 'appeals', states: ['no'] })).rows.map(
      (row) => row.id,
    ),
  ).toEqual([first]);
});

describe('exports', () => {
  const file = async (form: 'csv' | 'xlsx' | 'vcard' | 'json') => {
    const { id } = await done({ do: 'export', form, fields: [] });
    const response = await fetch(`${house.config.PUBLIC_URL}/api/bulk/${id}/file`, {
      headers: { cookie: house.client.cookies },
    });
    return Buffer.from(await response.arrayBuffer());
  };

  test('CSV is read back by an independent reader, with formulas made harmless', async () => {
    const rows = JSON.parse(
      execFileSync(
        'python3',
        [
          '-c',
          'import csv,io,json,sys; print(json.dumps(list(csv.reader(io.StringIO(sys.stdin.buffer.read().decode("utf-8-sig"))))))',
        ],
        {
          input: await file('csv'),
        },
      ).toString(),
    ) as string[][];
    expect(rows[0]!.slice(0, 6)).toEqual([
      'Good Word id',
      'Own id',
      'First name',
      'Last name',
      'Emails',
      'Phones',
    ]);
    expect(rows).toHaveLength(5);
    expect(rows.map((row) => row[3])).toContain("'=cmd|calc");
    expect(rows.find((row) => row[2] === 'Ann')!.slice(4, 6)).toEqual(['p0@example.org', '+1 206 555 0100']);
  });

  test('a workbook, cards and JSON hold the same people', async () => {
    const book = XLSX.read(await file('xlsx'));
    expect(XLSX.utils.sheet_to_json(book.Sheets[book.SheetNames[0]!]!)).toHaveLength(4);
    expect((await file('vcard')).toString().match(/BEGIN:VCARD/g)).toHaveLength(4);
    expect(JSON.parse((await file('json')).toString())).toHaveLength(4);
  });
});

test('a table is kept under a name for the team, with its order', async () => {
  const [field] = await house.client.get<{ id: number }[]>('/api/fields');
  await house.client.put('/api/people-views', {
    name: 'By hours',
    tree: EVERYBODY,
    by: field!.id,
    descending: true,
    fields: [field!.id],
    basedOn: null,
  });
  const again = { name: 'By hours', tree: EVERYBODY, by: 'name', descending: true, fields: [] };
  expect((await house.client.call('PUT', '/api/people-views', { ...again, basedOn: null })).status).toBe(409);
  await house.client.put('/api/people-views', { ...again, basedOn: 0 });
  const [view] = await house.client.get<PeopleView[]>('/api/people-views');
  expect(view).toMatchObject({ name: 'By hours', by: 'name', descending: true, madeBy: 'The owner' });
  expect(
    (await people(EVERYBODY, { by: 'name', descending: true })).rows.map((row) => row.firstName),
  ).toEqual(['Cy', 'Bea', 'Ann', 'Di']);
  await house.client.call('DELETE', `/api/people-views/${view!.id}`);
  expect(await house.client.get('/api/people-views')).toEqual([]);
});

test('only owners erase; who is erased is gone from every count, and that is not undone', async () => {
  const [first] = await ids();
  const organizer = await house.as('organizer');
  expect(
    (await organizer.call('POST', '/api/bulk', { group: { ids: [first] }, act: { do: 'erase' } })).status,
  ).toBe(403);
  const act = await done({ do: 'erase' }, { ids: [first!] });
  expect(act).toMatchObject({ changed: 1, canUndo: false, words: 'Erase 1 person' });
  expect((await people()).total).toBe(3);
  expect(
    (await house.client.call('POST', '/api/bulk', { group: { ids: [first] }, act: { do: 'erase' } })).status,
  ).toBe(409);
});
