import type { ChangeField, Conversion, FieldAdminView, FieldDeletion, FieldView, Page, SupporterRow } from '@goodword/core/contract';
import { openHouse, type House } from '../testing/harness';
import { bringIn, COLUMNS, draftEmail, letterOf, NOTHING } from '../testing/steps';

let house: House;
const PEOPLE = ['Ann,Abara,12', 'Bea,Berg,7.5', 'Cy,Chen,some'];

beforeAll(async () => {
  house = await openHouse();
  house.startWorker();
  await house.client.post('/api/fields', { name: 'Hours', type: 'text', fallback: null });
  await house.client.post('/api/fields', { name: 'Boat', type: 'choice', fallback: null });
  const [boat, hours] = await fieldsByName('Boat', 'Hours');
  const rows = PEOPLE.map(
    (row, i) => `p${i}@example.org,${row.split(',').slice(0, 2).join(',')},,${row.split(',')[2]},${['punt', 'Punt', 'skiff'][i]}`,
  );
  await bringIn(house.client, ['Email,First,Last,Mobile,Hours,Boat', ...rows].join('\n'), {
    columns: [...COLUMNS, { to: 'field', fieldId: hours!.id, type: 'text' }, { to: 'field', fieldId: boat!.id, type: 'choice' }],
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
  const { name, section, fallback, help, sensitive, choices } = field;
  return house.client.call<{ detail: string }>('PUT', `/api/house/fields/${field.id}`, {
    name,
    section,
    fallback,
    help,
    sensitive,
    choices,
    ...values,
  });
};
const counts = async (field: number, op: string, value: string | number) =>
  (await house.client.post<Page<SupporterRow>>('/api/segments/people', { tree: { kind: 'field', field, op, value } })).total;

test('a field changes its type only when every value converts, and says which would not', async () => {
  const [hours] = await fieldsByName('Hours');
  expect(hours).toMatchObject({ people: 3, mergeName: '{Hours}', type: 'text' });
  const told = await house.client.get<Conversion>(`/api/house/fields/${hours!.id}/conversion?type=number`);
  expect(told).toMatchObject({ values: 3, wont: 1, examples: [{ name: 'Cy Chen', value: 'some', reason: 'expected a number, got "some"' }] });
  expect(told.preview).toContainEqual({ from: '7.5', to: '7.5' });
  const refused = await house.client.call<{ detail: string }>('PUT', `/api/house/fields/${hours!.id}/type`, { type: 'number' });
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
  expect(await house.client.post(`/api/house/fields/${boat!.id}/choices/rename`, { from: 'Punt', to: 'punt' })).toEqual({ people: 1 });
  expect(await counts(boat!.id, 'is', 'punt')).toBe(2);
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
  expect(seen.map((field) => field.name)).toEqual(['Hours']);
  const [someone] = (await viewer.get<Page<SupporterRow>>('/api/supporters')).rows;
  expect(JSON.stringify(await viewer.get(`/api/supporters/${someone!.id}`))).not.toMatch(/punt|skiff/);
  const tree = { kind: 'field', field: boat!.id, op: 'is', value: 'punt' };
  expect((await viewer.call('POST', '/api/segments/count', { tree })).status).toBe(422);
  const everybody = { kind: 'all', rules: [] };
  expect((await viewer.call('POST', '/api/segments/people', { tree: everybody, by: boat!.id })).status).toBe(422);
  expect((await (await house.as('organizer')).call('POST', '/api/segments/count', { tree })).status).toBe(200);
});

test('deleting says what goes and what stands in the way', async () => {
  const [boat] = await fieldsByName('Boat');
  const { id } = await house.client.post<{ id: number }>('/api/segments', {
    name: 'Punters',
    tree: { kind: 'field', field: boat!.id, op: 'is', value: 'punt' },
  });
  const told = await house.client.get<FieldDeletion>(`/api/house/fields/${boat!.id}/deletion`);
  expect(told).toEqual({ values: 3, blocked: expect.stringMatching(/segment “Punters”.*remembered layout/) as string });
  expect((await house.client.call('DELETE', `/api/house/fields/${boat!.id}`)).status).toBe(409);
  await house.client.call('DELETE', `/api/segments/${id}`);
  for (const layout of await house.client.get<{ id: number }[]>('/api/layouts')) await house.client.call('DELETE', `/api/layouts/${layout.id}`);
  expect((await house.client.call<{ values: number }>('DELETE', `/api/house/fields/${boat!.id}`)).body).toEqual({ values: 3 });
  expect(await fieldsByName('Boat')).toEqual([undefined]);
});
