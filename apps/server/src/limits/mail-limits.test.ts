import { isoDay } from '@goodword/core/common';
import type { AheadView, MessageResults, SenderView } from '@goodword/core/contract';
import { eventually, houseDay, openTestHouse, pause, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, lastLook, messageAt, resultsOf, send } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const NONE = { perHour: null, perDay: null, warmUp: null };
const limit = (limits: object) => house.client.call('PUT', '/api/sender/limits', { ...NONE, ...limits });
let groups = 0;
async function peopleOf(n: number) {
  const domain = `limit${++groups}.example.org`;
  const rows = Array.from({ length: n }, (_none, i) => `p${i}@${domain},P${i},Lee${groups},`);
  const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
  return { from: [{ kind: 'batch' as const, id: batch.id }] };
}
/** So many of a message have left, and no more while one looks. */
async function leaves(id: number, sent: number): Promise<MessageResults> {
  await eventually(
    `${sent} of message ${id} to have left`,
    () => resultsOf(house.client, id),
    ({ counts }) => counts.sent >= sent,
  );
  await pause(2500);
  const results = await resultsOf(house.client, id);
  expect(results.counts.sent).toBe(sent);
  return results;
}
/** An hour passes: what has left, left earlier. */
const hoursPass = (hours: number) =>
  house.database
    .unscoped()
    .raw('UPDATE delivery SET sent_at = sent_at - INTERVAL ? HOUR WHERE sent_at IS NOT NULL', [hours]);
const today = () => houseDay();
const aheadOf = (id: number) => house.client.get<AheadView>(`/api/messages/${id}/last-look/ahead`);

test('no more leaves in an hour than may, the page says why, and the rest goes on as the hour passes', async () => {
  const id = await draftEmail(house.client, await peopleOf(5));
  expect((await limit({ perHour: 2 })).status).toBe(204);
  await send(house.client, id);
  expect((await leaves(id, 2)).limited).toBe('hour');
  expect((await house.client.get<SenderView>('/api/sender')).mailsLeft).toBe(0);
  await hoursPass(1);
  expect((await leaves(id, 4)).limited).toBe('hour');
  await hoursPass(1);
  await messageAt(house.client, id, 'done');
  expect((await resultsOf(house.client, id)).limited).toBeNull();
  await hoursPass(48);
});

test('two messages at once share the room of a day', async () => {
  const ids = [
    await draftEmail(house.client, await peopleOf(4)),
    await draftEmail(house.client, await peopleOf(4)),
  ];
  await limit({ perDay: 5 });
  for (const id of ids) await send(house.client, id);
  const sent = async () =>
    (await Promise.all(ids.map((id) => resultsOf(house.client, id)))).reduce(
      (n, { counts }) => n + counts.sent,
      0,
    );
  await eventually('five to have left', sent, (n) => n >= 5);
  await pause(2500);
  expect(await sent()).toBe(5);
  await limit({});
  for (const id of ids) await messageAt(house.client, id, 'done');
  await hoursPass(48);
});

test('a new domain begins with those who clicked or replied, and the last look says how long it takes', async () => {
  const group = await peopleOf(4);
  const before = await draftEmail(house.client, group);
  await send(house.client, before);
  await messageAt(house.client, before, 'done');
  const deliveries = house.database.unscoped()('delivery').where('message_id', before);
  const [, , , last] = await deliveries
    .orderBy('id')
    .select<{ id: number; supporter_id: number }[]>('id', 'supporter_id');
  await house.database.unscoped()('delivery').where('id', last!.id).update({ clicked: 1 });
  await hoursPass(48);

  const id = await draftEmail(house.client, group);
  await limit({ warmUp: { from: today(), amounts: [1, 2] } });
  await lastLook(house.client, id);
  const { lastLeaves } = await aheadOf(id);
  // One today, two tomorrow, and the last on the day after.
  const days = (Date.parse(lastLeaves!) - Date.now()) / 86_400_000;
  expect([days > 1, days < 2.1]).toEqual([true, true]);
  await send(house.client, id);
  expect((await leaves(id, 1)).limited).toBe('warm-up');
  const [first] = await house.database
    .unscoped()('delivery')
    .where({ message_id: id })
    .whereNotNull('sent_at')
    .select<{ supporter_id: number }[]>('supporter_id');
  expect(first!.supporter_id).toBe(last!.supporter_id);
  // A word to one person does not wait, and a test does not either.
  expect((await house.client.call('POST', `/api/messages/${before}/test`)).status).toBeLessThan(500);
  await limit({});
  await messageAt(house.client, id, 'done');
  expect((await aheadOf(id)).lastLeaves).toBeNull();
});

test.each([
  [{ perHour: 0 }, 'perHour'],
  [{ warmUp: { from: 'soon', amounts: [1] } }, 'from'],
  [{ warmUp: { from: isoDay(20_000), amounts: [] } }, 'amounts'],
])('%j is refused with the field', async (limits, field) => {
  const answer = await limit(limits);
  expect([answer.status, answer.text.includes(field)]).toEqual([422, true]);
});

test('only an owner says how much may leave', async () => {
  const organizer = await house.as('organizer');
  expect((await organizer.call('PUT', '/api/sender/limits', NONE)).status).toBe(403);
});
