import type { LastLook } from '@goodword/core/contract';
import { openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, lastLook, letterOf, send } from '../testing/steps';
import { personBy } from '../testing/supporter';

/*
 * A service message reaches people who said no to appeals: what asks in it is read by a second person, or
 * does not leave.
 */
let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  await bringIn(house.client, 'Email,First,Last,Mobile\nobjector@example.org,Ola,Lin,\n');
  const { id } = await personBy(house.client, 'objector@example.org');
  await house.client.post(`/api/supporters/${id}/objection`, {
    how: 'phone',
    on: new Date().toISOString().slice(0, 10),
    words: 'No more',
  });
});
afterAll(() => house.close());

const everyone = async () => ({
  from: [{ kind: 'person' as const, id: (await personBy(house.client, 'objector@example.org')).id }],
});
const service = async (words: string) =>
  draftEmail(house.client, await everyone(), { purpose: 'service', letter: letterOf(words) });
const sendAs = async (id: number, digest: string) =>
  house.client.call<{ detail: string }>('POST', `/api/messages/${id}/send`, { at: null, digest });

test('one that asks waits for a second reader, and for nobody who sends it', async () => {
  const id = await service('Your seat is kept. Give again today!');
  await house.client.post(`/api/messages/${id}/test`);
  const look = await lastLook(house.client, id);
  expect(look).toMatchObject({ reached: 1, asks: ['give again'], seconded: false });
  expect((await sendAs(id, look.digest)).body.detail).toContain('“give again”');

  await house.client.post(`/api/messages/${id}/second`);
  expect((await sendAs(id, look.digest)).status).toBe(409);
  const other = await house.as('organizer');
  await other.post(`/api/messages/${id}/second`);
  expect((await house.client.post<LastLook>(`/api/messages/${id}/last-look`)).seconded).toBe(true);
  expect((await sendAs(id, look.digest)).status).toBeLessThan(300);
});

test('words changed after the reading are read again', async () => {
  const id = await service('Please give.');
  await (await house.as('organizer')).post(`/api/messages/${id}/second`);
  const body = {
    name: 'A letter',
    purpose: 'service',
    listId: null,
    subject: 'Hi',
    preheader: '',
    letter: letterOf('Please give. Donate.'),
    text: '',
    basedOn: 1,
  };
  await house.client.put(`/api/messages/${id}`, body);
  await house.client.post(`/api/messages/${id}/test`);
  expect((await sendAs(id, (await lastLook(house.client, id)).digest)).body.detail).toContain('“donate”');
});

test('a receipt leaves as ever', async () => {
  const id = await service('Thank you for your donation of $40. This is your receipt.');
  await send(house.client, id);
});
