import type { MessageView, ProofsView } from '@goodword/core/contract';
import { eventually, openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, draftText, letterOf } from '../testing/steps';
import { personBy } from '../testing/supporter';

/*
 * Proofs look through everybody who would get a message now, in the background: whoever is held back is not
 * among them, and what was found for other words is said to be old.
 */
let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  await bringIn(
    house.client,
    [
      'Email,First,Last,Mobile',
      'ann@example.org,Ann,Li,206 555 0101',
      'wil@example.org,Wilhelmina-Alexandra,Featherstone,206 555 0102',
      'bo@example.org,Ana y Luis,Paz,206 555 0103',
      'none@example.org,,,206 555 0104',
      'sara@example.org,سارة,,206 555 0105',
      '',
    ].join('\n'),
  );
});
afterAll(() => house.close());

const proofs = (id: number) => house.client.get<ProofsView>(`/api/messages/${id}/proofs`);
const done = (id: number) =>
  eventually(
    'the proofs to be there',
    () => proofs(id),
    ({ state }) => state === 'done' || state === 'failed',
  );
const everybody = async () => {
  const lists = await house.client.get<{ rows: { id: number }[] }>('/api/supporters?limit=100');
  return { from: lists.rows.map(({ id }) => ({ kind: 'person' as const, id })) };
};

test('whom a mail is worth reading as, with their names; those held back are not looked at', async () => {
  const group = await everybody();
  const { id: ann } = await personBy(house.client, 'ann@example.org');
  await house.client.post(`/api/supporters/${ann}/objection`, {
    ...{ how: 'phone', words: 'No more, please.' },
    on: new Date(Date.now() - 86_400_000).toISOString().slice(0, 10),
  });
  const id = await draftEmail(house.client, group, {
    subject: 'Dear {First name, or "you"}',
    letter: letterOf('Hello {Last name}'),
  });
  expect(await proofs(id)).toMatchObject({ state: 'none', found: [] });
  await house.client.post(`/api/messages/${id}/proofs`);
  const view = await done(id);
  expect(view).toMatchObject({ state: 'done', isCurrent: true, done: 4, total: 4 });
  const of = (kind: string) => {
    const found = view.found.find((one) => one.kind === kind);
    return found && [found.people, found.readers.map(({ name }) => name)];
  };
  expect(of('longest-name')).toEqual([1, ['Wilhelmina-Alexandra Featherstone']]);
  expect(of('couple')).toEqual([1, ['Ana y Luis Paz']]);
  expect(of('no-first-name')).toEqual([1, ['']]);
  expect(of('right-to-left')).toEqual([1, ['سارة']]);
  expect(of('holes')).toEqual([2, ['', 'سارة']]);
  expect(of('longest-subject')).toEqual([1, ['Wilhelmina-Alexandra Featherstone']]);
  expect(of('shortest-name')).toBeUndefined();
});

test('two who ask at once look through once, and other words make what was found old', async () => {
  const id = await draftText(
    house.client,
    await everybody(),
    'Hi {First name, or "you"}, boots on Saturday at ten at the slip, please.',
  );
  const [one, other] = await Promise.all([
    house.client.call('POST', `/api/messages/${id}/proofs`),
    house.client.call('POST', `/api/messages/${id}/proofs`),
  ]);
  expect([one.status, other.status]).toEqual([202, 202]);
  const view = await done(id);
  expect(view.found.find(({ kind }) => kind === 'most-segments')).toMatchObject({ people: 1, measure: 2 });
  const { version, ...message } = await house.client.get<MessageView>(`/api/messages/${id}`);
  await house.client.put(`/api/messages/${id}`, {
    ...{ name: message.name, purpose: 'appeals', listId: null, subject: '', preheader: '', letter: null },
    text: 'Hi all',
    basedOn: version,
  });
  expect(await proofs(id)).toMatchObject({ state: 'done', isCurrent: false });
  await house.client.post(`/api/messages/${id}/proofs`);
  expect((await done(id)).isCurrent).toBe(true);
  expect((await house.client.call('DELETE', `/api/messages/${id}`)).status).toBe(204);
  expect((await house.client.call('GET', `/api/messages/${id}/proofs`)).status).toBe(404);
});

test('nobody to read it is no fault', async () => {
  const id = await draftEmail(house.client, { from: [] });
  await house.client.post(`/api/messages/${id}/proofs`);
  expect(await done(id)).toMatchObject({ state: 'done', total: 0, found: [] });
});
