import type {
  ChangeField,
  ChoiceUse,
  Conversion,
  FieldAdminView,
  FieldDeletion,
  FieldView,
  Page,
  RecordView,
  SupporterRow,
  TimelineItem,
} from '@goodword/core/contract';
import { openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, STEP_COLUMNS, draftEmail, letterOf, NOTHING } from '../testing/steps';

let house: TestHouse;
const PEOPLE = ['Ann,Abara,12', 'Bea,Berg,7.5', 'Cy,Chen,some'];

beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  await house.client.post('/api/fields', { name: 'Hours', type: 'text', fallback: null });
  await house.client.post('/api/fields', { name: 'Boat', type: 'choice', fallback: null });
  const [boat, hours] = await fieldsByName('Boat', 'Hours');
  const rows = PEOPLE.map(
    (row, i) =>
      `p${i}@example.org,${row.split(',').slice(0, 2).join(',')},,${row.split(',')[2]},${['punt', 'Punt', 'skiff'][i]}`,
  );
  await bringIn(house.client, ['Email,First,Last,Mobile,Hours,Boat', ...rows].join('\n'), {
    columns: [
      ...STEP_COLUMNS,
      { to: 'field', fieldId: hours!.id, type: 'text' },
      { to: 'field', fieldId: boat!.id, type: 'choice' },
    ],
    permission: { email: NOTHING, text: NOTHING },
  });
});
afterAll(() => house.close());

const all = () => house.client.get<FieldAdminView[]>('/api/house/fields');
async function fieldsByName(...names: string[]): Promise<(FieldAdminView | undefined)[]> {
  const fields = await all();
  return names.map((name) => fields.find((field) => field.name === name));
}
const change = (field: FieldView, values: Partial<ChangeField>) => {
  const { name, section, fallback, help, sensitive, required, choices } = field;
  const was = { name, section, fallback, help, sensitive, required, choices };
  return house.client.call<{ detail: string }>('PUT', `/api/house/fields/${field.id}`, {
    ...was,
    ...values,
    was,
  });
};
const counts = async (field: number, op: string, value: string | number) =>
  (
    await house.client.post<Page<SupporterRow>>('/api/segments/people', {
      tree: { kind: 'field', field, op, value },
    })
  ).total;

test('a field changes its type only when every value converts, and says which would not', async () => {
  const [hours] = await fieldsByName('Hours');
  expect(hours).toMatchObject({ people: 3, mergeName: '{Hours}', type: 'text' });
  const told = await house.client.get<Conversion>(`/api/house/fields/${hours!.id}/conversion?type=number`);
  expect(told).toMatchObject({
    values: 3,
    wont: 1,
    examples: [{ name: 'Cy Chen', value: 'some', reason: 'expected a number, got "some"' }],
  });
  expect(told.preview).toContainEqual({ from: '7.5', to: '7.5' });
  const refused = await house.client.call<{ detail: string }>('PUT', `/api/house/fields/${hours!.id}/type`, {
    type: 'number',
  });
  expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('Cy Chen')]);
  expect(await counts(hours!.id, 'is', 'some')).toBe(1);

  const cy = (await house.client.get<Page<SupporterRow>>('/api/supporters?search=chen')).rows[0]!;
  await house.client.put(`/api/supporters/${cy.id}/fields/${hours!.id}`, { text: '3' });
  await house.client.put(`/api/house/fields/${hours!.id}/type`, { type: 'number' });
  // The very next count asks numbers.
  expect(await counts(hours!.id, 'at-least', 7)).toBe(2);
  expect((await fieldsByName('Hours'))[0]!.type).toBe('number');
});

test('a choice is renamed, and two are made into one', async () => {
  const [boat] = await fieldsByName('Boat');
  expect(
    await house.client.post(`/api/house/fields/${boat!.id}/choices/rename`, { from: 'Punt', to: 'punt' }),
  ).toEqual({ people: 1 });
  expect(await counts(boat!.id, 'is', 'punt')).toBe(2);
});

test('of several choices each is counted, and two are made one without stage twice', async () => {
  const { id } = await house.client.post<{ id: number }>('/api/fields', {
    name: 'Skills',
    type: 'choices',
    fallback: null,
  });
  const people = (await house.client.get<Page<SupporterRow>>('/api/supporters')).rows;
  for (const [i, text] of ['rowing; caulking', 'Rowing, knots', 'caulking'].entries())
    await house.client.put(`/api/supporters/${people[i]!.id}/fields/${id}`, { text });
  const uses = () => house.client.get<ChoiceUse[]>(`/api/house/fields/${id}/choices`);
  expect(await uses()).toEqual([
    { choice: 'caulking', people: 2 },
    { choice: 'knots', people: 1 },
    { choice: 'rowing', people: 1 },
    { choice: 'Rowing', people: 1 },
  ]);
  expect(
    await house.client.post(`/api/house/fields/${id}/choices/rename`, { from: 'Rowing', to: 'rowing' }),
  ).toEqual({ people: 1 });
  expect(
    await house.client.post(`/api/house/fields/${id}/choices/rename`, { from: 'caulking', to: 'rowing' }),
  ).toEqual({ people: 2 });
  expect(await uses()).toEqual([
    { choice: 'rowing', people: 3 },
    { choice: 'knots', people: 1 },
  ]);
  expect(await counts(id, 'has', 'rowing')).toBe(3);
  expect(
    (await house.client.call('POST', `/api/house/fields/${id}/choices/rename`, { from: 'knots', to: 'a, b' }))
      .status,
  ).toBe(422);
});

describe('kinds of values', () => {
  const someone = async () =>
    (await house.client.get<Page<SupporterRow>>('/api/supporters?search=abara')).rows[0]!.id;
  const make = async (name: string, type: string) =>
    (await house.client.post<{ id: number }>('/api/fields', { name, type, fallback: null })).id;
  const shown = async (id: number, field: number) =>
    (await house.client.get<RecordView>(`/api/supporters/${id}`)).fields.find((one) => one.id === field)!
      .shown;

  test.each([
    ['longtext', `Line one\n${'x'.repeat(3000)}`, 'contains', 'LINE ONE'],
    ['datetime', '2027-03-04 18:30', 'on', '2027-03-04'],
    ['region', 'Québec, Canada', 'is', 'CA-QC'],
  ])('a %s is kept, shown and asked for', async (type, text, op, value) => {
    const [id, field] = [await someone(), await make(`A ${type}`, type)];
    await house.client.put(`/api/supporters/${id}/fields/${field}`, { text });
    expect(await shown(id, field)).not.toBe('');
    expect(await counts(field, op, value)).toBe(1);
    const { rows } = await house.client.post<Page<SupporterRow>>('/api/segments/people', {
      tree: { kind: 'all', rules: [] },
      by: field,
      fields: [field],
    });
    expect(rows[0]!.id).toBe(id);
    await house.client.put(`/api/supporters/${id}/fields/${field}`, { text: '' });
    expect(await shown(id, field)).toBe('');
  });

  test('regions of a country come from ISO 3166-2', async () => {
    expect(await house.client.get<{ code: string }[]>('/api/regions?country=CA')).toHaveLength(13);
    expect((await house.client.call('GET', '/api/regions?country=canada')).status).toBe(422);
  });

  test('a file is put in, downloaded by its name, undone, and refused where it runs', async () => {
    const [id, field] = [await someone(), await make('Lease', 'file')];
    const put = (name: string, bytes: string) => {
      const form = new FormData();
      form.append('file', new Blob([bytes]), name);
      return house.client.call<{ faults: { message: string }[] }>(
        'PUT',
        `/api/supporters/${id}/fields/${field}/file`,
        form,
      );
    };
    expect((await put('Lease of the slip.pdf', '%PDF-1.7 and so on')).status).toBe(204);
    expect(await shown(id, field)).toBe('Lease of the slip.pdf');
    const read = () => house.client.call<string>('GET', `/api/supporters/${id}/fields/${field}/file`);
    const got = await read();
    expect([got.text, got.headers.get('content-disposition'), got.headers.get('content-type')]).toEqual([
      '%PDF-1.7 and so on',
      'attachment; filename="Lease of the slip.pdf"',
      'application/octet-stream',
    ]);
    for (const [name, bytes] of [
      ['run.exe', 'MZ\u0000\u0001'],
      ['page.html', '<script>1</script>'],
      ['picture.svg', '<svg xmlns="http://www.w3.org/2000/svg"/>'],
      ['tool.docx', 'not a zip'],
      ['empty.txt', ''],
    ] as const)
      expect([name, (await put(name, bytes)).status]).toEqual([name, 422]);
    expect((await put('big.txt', 'x'.repeat(10 * 1024 * 1024 + 1))).status).toBe(413);
    expect((await put('Second.txt', 'the second')).status).toBe(204);
    const edit = (await house.client.get<TimelineItem[]>(`/api/supporters/${id}/timeline?kinds=edit`))[0]!;
    await house.client.post(`/api/supporters/${id}/history/${edit.undo}/undo`);
    expect((await read()).text).toBe('%PDF-1.7 and so on');
    expect(
      (
        await house.client.call('PUT', `/api/house/fields/${(await fieldsByName('Hours'))[0]!.id}/type`, {
          type: 'file',
        })
      ).status,
    ).toBe(409);
  });

  test('a field that has to be answered says so on every form that asks for it', async () => {
    const field = await make('Crew size', 'number');
    await change((await fieldsByName('Crew size'))[0]!, { required: true, help: 'With yourself' });
    expect((await fieldsByName('Crew size'))[0]).toMatchObject({
      id: field,
      required: true,
      help: 'With yourself',
    });
  });
});

test('names stay unique and can be written; a field that a message names is not renamed under it', async () => {
  const [hours] = await fieldsByName('Hours');
  expect((await change(hours!, { name: 'boat' })).status).toBe(409);
  expect((await change(hours!, { name: 'Ho{urs' })).status).toBe(422);
  await draftEmail(house.client, {}, { letter: letterOf('You gave { hours } hours') });
  const refused = await change(hours!, { name: 'Days' });
  expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('“A letter”')]);
  expect((await change(hours!, { section: 'On the water', help: 'Of this year' })).status).toBe(204);
  expect((await fieldsByName('Hours'))[0]).toMatchObject({ section: 'On the water', help: 'Of this year' });
});

test('of fields made at the same time by names that read alike, one is made', async () => {
  const names = ['Tide table', 'tide-table', 'TIDE  TABLE', 'Tide_table'];
  const answers = await Promise.all(
    names.map((name) => house.client.call('POST', '/api/fields', { name, type: 'text', fallback: null })),
  );
  expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409, 409]);
  expect(
    (await house.client.get<{ name: string }[]>('/api/fields')).filter(({ name }) => /^tide/i.test(name)),
  ).toHaveLength(1);
});

test('fields stand in the order that they are put in', async () => {
  const ids = (await all()).map((field) => field.id).reverse();
  await house.client.put('/api/house/fields/order', { ids });
  expect((await all()).map((field) => field.id)).toEqual(ids);
});

test('a sensitive field is for owners and organizers alone, wherever it would show', async () => {
  const [boat] = await fieldsByName('Boat');
  await change(boat!, { sensitive: true });
  const viewer = await house.as('viewer');
  const seen = await viewer.get<FieldView[]>('/api/fields');
  expect(seen.map((field) => field.name)).toEqual(expect.arrayContaining(['Hours']));
  expect(seen.map((field) => field.name)).not.toContain(boat!.name);
  const [someone] = (await viewer.get<Page<SupporterRow>>('/api/supporters')).rows;
  expect(JSON.stringify(await viewer.get(`/api/supporters/${someone!.id}`))).not.toMatch(/punt|skiff/);
  const tree = { kind: 'field', field: boat!.id, op: 'is', value: 'punt' };
  expect((await viewer.call('POST', '/api/segments/count', { tree })).status).toBe(422);
  const everybody = { kind: 'all', rules: [] };
  expect((await viewer.call('POST', '/api/segments/people', { tree: everybody, by: boat!.id })).status).toBe(
    422,
  );
  expect((await (await house.as('organizer')).call('POST', '/api/segments/count', { tree })).status).toBe(
    200,
  );
});

test('deleting says what goes and what stands in the way', async () => {
  const [boat] = await fieldsByName('Boat');
  const { id } = await house.client.post<{ id: number }>('/api/segments', {
    name: 'Punters',
    tree: { kind: 'field', field: boat!.id, op: 'is', value: 'punt' },
  });
  const told = await house.client.get<FieldDeletion>(`/api/house/fields/${boat!.id}/deletion`);
  expect(told).toEqual({
    values: 3,
    blocked: expect.stringMatching(/segment “Punters”.*remembered layout/) as string,
  });
  expect((await house.client.call('DELETE', `/api/house/fields/${boat!.id}`)).status).toBe(409);
  await house.client.call('DELETE', `/api/segments/${id}`);
  for (const layout of await house.client.get<{ id: number }[]>('/api/layouts'))
    await house.client.call('DELETE', `/api/layouts/${layout.id}`);
  expect(
    (await house.client.call<{ values: number }>('DELETE', `/api/house/fields/${boat!.id}`)).body,
  ).toEqual({ values: 3 });
  expect(await fieldsByName('Boat')).toEqual([undefined]);
});
