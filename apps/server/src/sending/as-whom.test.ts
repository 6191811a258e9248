import { simpleParser } from 'mailparser';
import type { LastLook, MessageView } from '@goodword/core/contract';
import { MessagesRepository } from '../messages/messages.repository';
import { openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, lastLook, letterOf, messageAt } from '../testing/steps';
import { personBy } from '../testing/supporter';

/*
 * As whom a message goes out is chosen on it. Whoever tests it, looks at it and presses Send is another
 * matter: what was read is what leaves.
 */
let house: TestHouse;
let mates: Record<string, number>;
const LETTER = letterOf('Yours, {Sender: name}, {Sender: title}');

beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  await bringIn(house.client, 'Email,First,Last,Mobile\nada@example.org,Ada,Lin,\n');
  await house.as('organizer');
  await house.as('writer');
  const all = await house.client.get<{ id: number; name: string }[]>('/api/session/teammates');
  mates = Object.fromEntries(all.map(({ id, name }) => [name, id]));
});
afterAll(() => house.close());

const words = (senderId: number | null, basedOn: number) => ({
  name: 'A letter',
  purpose: 'appeals',
  listId: null,
  subject: 'Planks',
  preheader: '',
  letter: LETTER,
  text: '',
  senderId,
  basedOn,
});
const draft = async () => {
  const { id: ada } = await personBy(house.client, 'ada@example.org');
  return draftEmail(house.client, { from: [{ kind: 'person', id: ada }] }, { letter: LETTER });
};
const shown = (id: number) => house.client.get<MessageView>(`/api/messages/${id}`);
const mailsTo = (address: string) => house.sink.mails.filter(({ to }) => to === address);

test('the name in the From, the fields of the sender and the test are of who was chosen, whoever sends', async () => {
  const id = await draft();
  expect((await shown(id)).senderId).toBe(mates['The owner']);
  const chosen = Object.entries(mates).find(([name]) => name.includes('writer'))!;
  await house.client.put(`/api/messages/${id}`, words(chosen[1], 1));
  const organizer = await house.as('organizer');
  await organizer.post(`/api/messages/${id}/test`);
  expect((await shown(id)).senderId).toBe(chosen[1]);
  const look = await lastLook(organizer, id);
  await organizer.post(`/api/messages/${id}/send`, { at: null, digest: look.digest });
  await messageAt(house.client, id, 'done');
  const mail = await simpleParser(mailsTo('ada@example.org').at(-1)!.raw);
  expect(mail.from?.value[0]?.name).toContain(chosen[0]);
  expect(mail.text).toContain(`Yours, ${chosen[0]}`);
  const own = house.sink.mails.find(({ raw }) => raw.toString().includes('Subject: Test: Planks'))!;
  expect((await simpleParser(own.raw)).text).toContain(`Yours, ${chosen[0]}`);
});

test('another sender is another message: the test and the last look are asked for again', async () => {
  const id = await draft();
  await house.client.post(`/api/messages/${id}/test`);
  const look = await house.client.post<LastLook>(`/api/messages/${id}/last-look`);
  const other = Object.entries(mates).find(([name]) => name.includes('organizer'))![1];
  await house.client.put(`/api/messages/${id}`, words(other, 1));
  expect((await shown(id)).testedAt).toBeNull();
  const sent = await house.client.call('POST', `/api/messages/${id}/send`, { at: null, digest: look.digest });
  expect(sent.status).toBe(409);
});

test('only somebody who works here can be chosen; saving without a choice leaves it', async () => {
  const id = await draft();
  const wrong = await house.client.call<{ detail: string }>('PUT', `/api/messages/${id}`, words(999_999, 1));
  expect([wrong.status, JSON.stringify(wrong.body)]).toEqual([422, expect.stringContaining('works here')]);
  await house.client.put(`/api/messages/${id}`, words(null, 1));
  expect((await shown(id)).senderId).toBe(mates['The owner']);
});

test('when its sender has left the team and it was handed on, it is looked at again', async () => {
  const id = await draft();
  await house.client.post(`/api/messages/${id}/test`);
  const look = await lastLook(house.client, id);
  const heir = Object.entries(mates).find(([name]) => name.includes('organizer'))![1];
  await house.database.write(house.scope, async (tx) => {
    tx.unchanged();
    await new MessagesRepository().handOn(tx, mates['The owner']!, heir);
  });
  expect((await shown(id)).senderId).toBe(heir);
  const sending = (digest: string) =>
    house.client.call('POST', `/api/messages/${id}/send`, { at: null, digest });
  expect((await sending(look.digest)).status).toBe(409);
  expect((await sending((await lastLook(house.client, id)).digest)).status).toBeLessThan(300);
});
