import type { PersonalVerdict, RecordView } from '@goodword/core/contract';
import type { NewAddress } from '@goodword/core/common';
import { HEAD, noPermission } from '../testing/gathering';
import { openTestHouse, type Client, type TestHouse } from '../testing/harness';
import { recording } from '../testing/recording';
import { agreed, bringIn, NOTHING } from '../testing/steps';

let house: TestHouse;
const { idOf, record, lastEdit, undo } = recording(() => house);

beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  const rows = [
    'ada@example.org,Ada,Quay,206 555 0151',
    'ben@example.org,Ben,Quay,',
    'cyd@example.org,Cyd,Reef,',
    'dov@example.org,Dov,Reef,',
  ];
  await bringIn(house.client, `${HEAD}${rows.join('\n')}\n`, {
    permission: { email: agreed('appeals'), text: agreed('appeals') },
  });
});
afterAll(() => house.close());

const path = (id: number, rest = '') => `/api/supporters/${id}/contact-points${rest}`;
const add = (id: number, address: NewAddress, client: Client = house.client) =>
  client.call<{ detail: string; faults?: { field: string }[] }>('POST', path(id), address);
const change = (id: number, point: number, body: NewAddress & { was: string }) =>
  house.client.call<{ detail: string; now?: string }>('PUT', path(id, `/${point}`), body);
const shown = async (id: number) => (await record(id)).contactPoints.map((point) => point.shown);
const pointOf = async (id: number, kind: RecordView['contactPoints'][number]['kind']) =>
  (await record(id)).contactPoints.find((point) => point.kind === kind)!;
const verdict = async (id: number, channel: 'email' | 'text', purpose = 'appeals') =>
  (
    await house.client.get<PersonalVerdict>(
      `/api/supporters/${id}/may-write?channel=${channel}&purpose=${purpose}`,
    )
  ).verdict;
const QUAY = {
  street: '12 Quay Street',
  city: 'Seattle',
  region: 'WA',
  postcode: '98101-2231',
  country: 'US',
};

test('a postal address is added in its parts, shown as on an envelope, and tells where they are', async () => {
  const id = await idOf('Ada');
  expect((await add(id, { kind: 'post', post: QUAY })).status).toBe(204);
  expect(await pointOf(id, 'post')).toMatchObject({
    shown: '12 Quay Street, Seattle, WA 98101-2231, US',
    parts: QUAY,
  });
  expect((await record(id)).place).toMatchObject({ country: 'US', region: 'WA' });
  const [row] = (await house.database.unscoped()('supporter').where({ id }).select('postcode')) as {
    postcode: string;
  }[];
  expect(row!.postcode).toBe('98101');
  const again = await add(id, {
    kind: 'post',
    post: { ...QUAY, street: '12 QUAY STREET', postcode: '98101' },
  });
  expect([again.status, again.body.detail]).toEqual([
    409,
    '12 QUAY STREET, Seattle, WA 98101, US is on this record already.',
  ]);
});

test('a place that is known stays: where somebody is decides whose rules hold', async () => {
  const id = await idOf('Ben');
  await house.client.put(`/api/supporters/${id}/place`, {
    country: 'GB',
    region: null,
    was: (({ country, region }) => ({ country, region }))((await record(id)).place),
  });
  await add(id, { kind: 'post', post: QUAY });
  expect((await record(id)).place).toMatchObject({ country: 'GB', region: null });
});

test('neither a street nor a town is no address, and each kind is asked for what it is', async () => {
  const id = await idOf('Ben');
  const bad: unknown[] = [
    { kind: 'post', post: { ...QUAY, street: ' ', city: '' } },
    { kind: 'post', text: '12 Quay Street' },
    { kind: 'email', text: 'x@example.org', post: QUAY },
    { kind: 'email', text: 'x@example.org', line: 'landline' },
    { kind: 'mobile', text: '206 555' },
    { kind: 'mobile' },
  ];
  for (const body of bad) expect((await add(id, body as NewAddress)).status).toBe(422);
  expect((await add(id, { kind: 'post', post: QUAY }, await house.as('viewer'))).status).toBe(403);
  expect(
    (await add(id, { kind: 'post', post: QUAY }, await house.as('organizer', house.chapters[1]!))).status,
  ).toBe(404);
});

test('a town alone is each person’s own: nobody shares it with strangers, nor their no to post', async () => {
  const town = { street: '', city: 'Port Alder', region: '', postcode: '', country: 'US' };
  const [cyd, dov] = [await idOf('Cyd'), await idOf('Dov')];
  for (const id of [cyd, dov]) expect((await add(id, { kind: 'post', post: town })).status).toBe(204);
  expect((await add(cyd, { kind: 'post', post: town })).status).toBe(409);
  const [one, other] = [await pointOf(cyd, 'post'), await pointOf(dov, 'post')];
  expect([one.id === other.id, one.sharedWith, other.sharedWith]).toEqual([false, [], []]);
  await house.client.call('DELETE', path(cyd, `/${one.id}`));
  await house.client.call('DELETE', path(dov, `/${other.id}`));
});

test('a landline is never texted, whatever was agreed to; said to be a mobile again it may be', async () => {
  const id = await idOf('Cyd');
  expect((await add(id, { kind: 'mobile', text: '206 555 0152', line: 'landline' })).status).toBe(204);
  const point = await pointOf(id, 'mobile');
  expect(point.line).toBe('landline');
  await house.client.post(`/api/supporters/${id}/permission`, {
    ...{ contactPointId: point.id, channel: 'text', scope: 'appeals', state: 'yes', how: 'paper' },
    ...{ on: '2026-01-10', words: 'Yes, text me' },
  });
  expect(await verdict(id, 'text')).toBe('no-address');
});

describe('an address that is changed', () => {
  test('stands where it stood, without what was agreed to at the old one, and is undone', async () => {
    const id = await idOf('Dov');
    expect(await verdict(id, 'email')).toBe('send');
    await add(id, { kind: 'email', text: 'second@example.org' });
    const old = await pointOf(id, 'email');
    expect(
      (await change(id, old.id, { kind: 'email', text: 'dov.reef@example.org', was: old.shown })).status,
    ).toBe(204);
    expect(await shown(id)).toEqual(['dov.reef@example.org', 'second@example.org']);
    expect(await verdict(id, 'email')).not.toBe('send');
    const edit = await lastEdit(id);
    expect(edit.title).toBe('Email changed to dov.reef@example.org');
    expect((await undo(id, edit.undo)).status).toBe(204);
    expect(await shown(id)).toEqual(['dov@example.org', 'second@example.org']);
    expect(await verdict(id, 'email')).toBe('send');
  });

  test('opens nothing that the person said no to', async () => {
    const id = await idOf('Dov');
    const point = await pointOf(id, 'email');
    await house.client.post(`/api/supporters/${id}/permission`, {
      ...{ contactPointId: point.id, channel: 'email', scope: 'appeals', state: 'no', how: 'phone' },
      ...{ on: '2026-02-10', words: 'No more appeals' },
    });
    await change(id, point.id, { kind: 'email', text: 'dov.new@example.org', was: point.shown });
    await house.client.post(`/api/supporters/${id}/gifts`, { amount: 2500, on: '2026-03-01', note: '' });
    expect(await verdict(id, 'email')).toBe('said-no');
  });

  test('is refused where somebody was quicker, where it is here already, and where it would be another kind', async () => {
    const id = await idOf('Ada');
    const [email, phone] = [await pointOf(id, 'email'), await pointOf(id, 'mobile')];
    const stale = await change(id, email.id, {
      kind: 'email',
      text: 'ada.q@example.org',
      was: 'ada@example.com',
    });
    expect([stale.status, stale.body.now]).toEqual([409, 'ada@example.org']);
    expect(
      (await change(id, email.id, { kind: 'mobile', text: '206 555 0199', was: email.shown })).status,
    ).toBe(409);
    await add(id, { kind: 'email', text: 'ada.two@example.org' });
    expect(
      (await change(id, email.id, { kind: 'email', text: 'Ada.Two@example.org', was: email.shown })).status,
    ).toBe(409);
    expect((await change(id, 999_999, { kind: 'email', text: 'z@example.org', was: 'z' })).status).toBe(404);
    const both = await Promise.all(
      ['0153', '0154'].map((last) =>
        change(id, phone.id, { kind: 'mobile', text: `206 555 ${last}`, was: phone.shown }),
      ),
    );
    expect(both.map(({ status }) => status).sort()).toEqual([204, 404]);
  });

  test('written better is the same one, for whoever shares it', async () => {
    const [one, other] = [await idOf('Ben'), await idOf('Cyd')];
    await add(other, { kind: 'post', post: QUAY });
    const point = await pointOf(one, 'post');
    const better = { ...QUAY, street: '12 quay street', region: 'Washington' };
    expect((await change(one, point.id, { kind: 'post', post: better, was: point.shown })).status).toBe(204);
    expect(await pointOf(other, 'post')).toMatchObject({ id: point.id, parts: better });
  });
});

test('a number that is here with no line known learns it from whoever is told', async () => {
  await bringIn(house.client, `${HEAD},Eve,Shoal,206 555 0155\n`, {
    permission: { email: NOTHING, text: noPermission.text },
  });
  const [eve, ben] = [await idOf('Eve'), await idOf('Ben')];
  await house.database.unscoped()('contact_point').where({ normal: '+12065550155' }).update({ line: null });
  await add(ben, { kind: 'mobile', text: '206 555 0155', line: 'landline' });
  expect((await pointOf(eve, 'mobile')).line).toBe('landline');
});
