import type { Overlap } from '@goodword/core/contract';
import { openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, lastLook } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const NAMES = ['Abara', 'Bergstrom', 'Castillo', 'Dumont', 'Eriksen', 'Fujita', 'Grady', 'Hossain'];
const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString();
const overlapOf = (id: number) => house.client.get<Overlap[]>(`/api/messages/${id}/last-look/overlap`);
async function planned(id: number, days: number) {
  await house.client.post(`/api/messages/${id}/test`);
  const { digest } = await lastLook(house.client, id);
  await house.client.post(`/api/messages/${id}/send`, { at: inDays(days), digest });
}

test('the last look says who also gets what is planned, the nearest first, by those who are reached', async () => {
  const people = (from: number, to: number) =>
    [
      'Email,First,Last,Mobile',
      ...NAMES.slice(from, to).map((name, i) => `o${from + i}@example.org,O${name},${name},`),
      '',
    ].join('\n');
  const [first, second, third] = [
    await bringIn(house.client, people(0, 4)),
    await bringIn(house.client, people(4, 6)),
    await bringIn(house.client, people(6, 8)),
  ];
  const to = (...ids: number[]) => ({ from: ids.map((id) => ({ kind: 'batch' as const, id })) });
  const [mine, launch, fair, others] = [
    await draftEmail(house.client, to(first.id, second.id)),
    await draftEmail(house.client, to(second.id, third.id)),
    await draftEmail(house.client, to(first.id)),
    await draftEmail(house.client, to(third.id)),
  ];
  await planned(fair, 5);
  await planned(launch, 2);
  await planned(others, 1);
  await lastLook(house.client, mine);
  const found = await overlapOf(mine);
  expect(found.map(({ messageId, people: both }) => [messageId, both])).toEqual([
    [launch, 2],
    [fair, 4],
  ]);
  // Whoever is held back from this one is in nobody's way.
  await house.client.post('/api/do-not-contact', { lines: 'o4@example.org', note: '' });
  await lastLook(house.client, mine);
  expect((await overlapOf(mine)).map(({ people: both }) => both)).toEqual([1, 4]);
  await house.client.post(`/api/messages/${fair}/unschedule`);
  expect((await overlapOf(mine)).map(({ messageId }) => messageId)).toEqual([launch]);
});
