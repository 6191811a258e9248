import type { ComparisonView, MessageView, Page, ResultPerson } from '@goodword/core/contract';
import { isKept } from '@goodword/core/wordings';
import { eventually, openTestHouse, pause, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, lastLook, letterOf, messageAt, resultsOf } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

let made = 0;
/** So many people of one batch, and a tested draft to them. */
async function draftTo(people: number) {
  const domain = `k${++made}.example.org`;
  const rows = Array.from({ length: people }, (_none, i) => `p${i}@${domain},Person${made}x${i},Lee,`);
  const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
  const id = await draftEmail(
    house.client,
    { from: [{ kind: 'batch', id: batch.id }] },
    { subject: `Without ${made}` },
  );
  await house.client.post(`/api/messages/${id}/test`);
  const got = () =>
    new Set(house.sink.mails.filter(({ to }) => to.endsWith(`@${domain}`)).map(({ to }) => to));
  return { id, domain, got };
}
const sendKeeping = async (id: number, keptShare: number | null, more: object = {}) => {
  const { digest } = await lastLook(house.client, id);
  return house.client.call<{ detail: string }>('POST', `/api/messages/${id}/send`, {
    ...{ at: null, keptShare, digest },
    ...more,
  });
};
const rowsOf = (ids: readonly number[]) =>
  house.database
    .unscoped()('delivery')
    .whereIn('message_id', ids)
    .orderBy('supporter_id')
    .select<{ id: number; supporter_id: number; state: string; message_id: number }[]>(
      ...['id', 'supporter_id', 'state', 'message_id'],
    );
const gives = (person: number, amount: number) =>
  house.client.post(`/api/supporters/${person}/gifts`, {
    ...{ amount, on: new Date().toISOString().slice(0, 10), note: '' },
  });

test('those who are drawn get none of it, the others all of it; what both gave stands beside each other', async () => {
  const { id, got } = await draftTo(60);
  expect((await sendKeeping(id, 51)).status).toBe(422);
  expect((await sendKeeping(id, 30)).status).toBe(202);
  expect(await messageAt(house.client, id, 'done')).toMatchObject({ keptShare: 30 });
  const { kept_seed: seed } = (await house.database
    .unscoped()('message')
    .where({ id })
    .first('kept_seed')) as { kept_seed: number };
  const rows = await rowsOf([id]);
  const kept = rows.filter(({ state }) => state === 'kept').map((row) => row.supporter_id);
  const drawn = rows.map((row) => row.supporter_id).filter((one) => isKept(one, { seed, share: 30 }));
  expect(kept).toEqual(drawn);
  expect(kept.length).toBeGreaterThan(3);
  expect(got().size).toBe(60 - kept.length);

  const meant = rows.filter(({ state }) => state === 'sent').map((row) => row.supporter_id);
  await gives(kept[0]!, 1000);
  await gives(meant[0]!, 2000);
  await gives(meant[1]!, 4000);
  // A gift that was taken back is none.
  await gives(meant[2]!, 500);
  await house.database.unscoped()('gift').where({ supporter_id: meant[2]! }).update({ amount: 0 });
  const { without, counts } = await resultsOf(house.client, id);
  expect(counts).toMatchObject({ kept: kept.length, sent: meant.length, waiting: 0, suppressed: 0 });
  expect(without).toMatchObject({
    kept: { people: kept.length, gave: 1, given: 1000 },
    meant: { people: meant.length, gave: 2, given: 6000 },
    differs: false,
  });
  const people = await house.client.get<Page<ResultPerson>>(`/api/messages/${id}/results/people?kind=kept`);
  expect(people.rows.map(({ supporterId }) => supporterId).sort((a, b) => a - b)).toEqual(kept);
  // They can be written to afterwards.
  const { id: later } = await house.client.post<{ id: number }>('/api/messages-to', {
    ...{
      name: 'Later',
      channel: 'email',
      purpose: 'appeals',
      to: { result: { messageId: id, kind: 'kept' } },
    },
  });
  expect((await lastLook(house.client, later)).reached).toBe(kept.length);
});

test('before it leaves it is taken back with its choice, and nobody is kept where nothing was said', async () => {
  const { id, got } = await draftTo(12);
  await sendKeeping(id, 50, { at: new Date(Date.now() + 3_600_000).toISOString() });
  await house.client.post(`/api/messages/${id}/unschedule`);
  expect(await house.client.get<MessageView>(`/api/messages/${id}`)).toMatchObject({ keptShare: null });
  expect((await sendKeeping(id, null)).status).toBe(202);
  await messageAt(house.client, id, 'done');
  expect(got().size).toBe(12);
  expect((await resultsOf(house.client, id)).without).toBeNull();
});

test('with several wordings they are kept from all of them, also when the rest goes', async () => {
  const { id, got } = await draftTo(80);
  const { id: other } = await house.client.post<{ id: number }>(`/api/messages/${id}/wordings`);
  const { name, version } = await house.client.get<MessageView>(`/api/messages/${other}`);
  await house.client.put(`/api/messages/${other}`, {
    ...{ name, purpose: 'news', listId: null, subject: 'Other words', preheader: '', text: '' },
    ...{ letter: letterOf('Give there'), basedOn: version },
  });
  await house.client.post(`/api/messages/${other}/test`);
  await sendKeeping(id, 25);
  const comparison = () => house.client.get<ComparisonView>(`/api/messages/${id}/comparison`);
  await eventually('those drawn to have it', comparison, ({ leaving, rest }) => leaving === 0 && rest > 0);
  await pause(200);
  await house.client.post(`/api/messages/${id}/comparison/choose`, { wordingId: other });
  await messageAt(house.client, id, 'done');
  await messageAt(house.client, other, 'done');
  const kept = (await rowsOf([id, other])).filter(({ state }) => state === 'kept');
  expect(kept.every(({ message_id }) => message_id === id)).toBe(true);
  expect([kept.length > 3, got().size]).toEqual([true, 80 - kept.length]);
  const { without } = await resultsOf(house.client, id);
  expect([without!.kept.people, without!.meant.people]).toEqual([kept.length, 80 - kept.length]);
  expect((await resultsOf(house.client, other)).without).toBeNull();
});
