import { isoDay, parseIsoDay } from '@goodword/core/common';
import type { AheadView, RulesView } from '@goodword/core/contract';
import { houseDay, openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, draftText, lastLook, messageAt, moveTo, NOTHING, send } from '../testing/steps';
import { personBy } from '../testing/supporter';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString();
async function aheadOf(id: number, at?: string, ownTime = false): Promise<AheadView> {
  await lastLook(house.client, id);
  const query = at ? `?at=${encodeURIComponent(at)}&ownTime=${ownTime}` : '';
  return house.client.get(`/api/messages/${id}/last-look/ahead${query}`);
}
type Rules = RulesView['rules'];
async function changeRules(change: (rules: Rules) => void): Promise<Rules> {
  const { version, rules } = await house.client.get<RulesView>('/api/house-rules');
  change(rules);
  const { status } = await house.client.call('PUT', '/api/house-rules', { rules, basedOn: version });
  expect(status).toBe(200);
  return rules;
}
const peopleIn = async (rows: string[], more: object = {}) =>
  (await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'), more)).id;
const toBatches = (...ids: number[]) => ({ from: ids.map((id) => ({ kind: 'batch' as const, id })) });
const gives = async (search: string, on: string) =>
  house.client.post(`/api/supporters/${(await personBy(house.client, search)).id}/gifts`, {
    ...{ amount: 2500, on, note: '' },
  });

test('who may not get it any more by then is told: permission that lapses, and who has had enough', async () => {
  const agreed = await peopleIn(['e0@example.org,Ena,Abara,', 'e1@example.org,Efe,Castillo,']);
  const more = await peopleIn(['e2@example.org,Eli,Dumont,']);
  const implied = await peopleIn(['e3@example.org,Evi,Fujita,'], {
    permission: { email: NOTHING, text: NOTHING },
  });
  const rules = await changeRules(({ places }) => {
    for (const place of Object.values(places)) place.caps.email = { messages: 1, days: 7 };
  });
  const months = rules.places[rules.home]!.lasts.gift!;
  // A gift whose permission lapses the day after tomorrow.
  const given = new Date(`${isoDay(parseIsoDay(houseDay())! + 2)}T12:00:00Z`);
  given.setUTCMonth(given.getUTCMonth() - months);
  await gives('e3@example.org', given.toISOString().slice(0, 10));
  await gives('e0@example.org', houseDay());

  const planned = await draftEmail(house.client, toBatches(agreed));
  await house.client.post(`/api/messages/${planned}/test`);
  const { digest } = await lastLook(house.client, planned);
  await house.client.post(`/api/messages/${planned}/send`, { at: inDays(1), digest });

  const mine = await draftEmail(house.client, toBatches(agreed, more, implied));
  expect((await lastLook(house.client, mine)).reached).toBe(4);
  expect(await aheadOf(mine)).toMatchObject({ lapses: 0, enough: 0, gave: 1 });
  expect(await aheadOf(mine, inDays(5))).toMatchObject({ lapses: 1, enough: 2 });
  // Before the other one leaves, and when it is long enough ago, they have not had enough.
  expect(await aheadOf(mine, inDays(0.5))).toMatchObject({ lapses: 0, enough: 0 });
  expect(await aheadOf(mine, inDays(9))).toMatchObject({ lapses: 1, enough: 0 });
  // A service message asks nobody for a gift.
  const service = await draftEmail(house.client, toBatches(agreed), { purpose: 'service' });
  expect((await aheadOf(service)).gave).toBe(0);
  await changeRules(({ places }) => {
    for (const place of Object.values(places)) place.caps.email = null;
  });
});

test('texts that would wait for a decent hour are told, for when and where', async () => {
  const batch = await peopleIn([
    'w0@example.org,Wim,Grady,2065550170',
    'w1@example.org,Wes,Hossain,2065550171',
  ]);
  await moveTo(house.client, (await personBy(house.client, 'w0@example.org')).id, 'US', 'WA');
  await moveTo(house.client, (await personBy(house.client, 'w1@example.org')).id, 'US', 'NY');
  const rules = await changeRules(({ places }) => {
    for (const place of Object.values(places)) place.hours.text = { from: 600, to: 1200 };
  });
  expect(rules.home).toMatch(/^US/);
  const id = await draftText(house.client, toBatches(batch));
  // 4 January 2100, 12:00 UTC: 7:00 in New York and 4:00 in Los Angeles, both on winter time (IANA).
  const { waits, lastLeaves } = await aheadOf(id, '2100-01-04T12:00:00.000Z');
  expect(waits).toEqual([
    { zone: 'America/New_York', at: '2100-01-04T15:00:00.000Z', people: 1 },
    { zone: 'America/Los_Angeles', at: '2100-01-04T18:00:00.000Z', people: 1 },
  ]);
  expect(lastLeaves).toBe('2100-01-04T18:00:00.000Z');
  // Spread over days each has a moment of their own; the last of them is told.
  const { at, ...spread } = await house.client.get<AheadView>(
    `/api/messages/${id}/last-look/ahead?spreadHours=48`,
  );
  expect([spread.waits, Date.parse(spread.lastLeaves!) - Date.parse(at)]).toEqual([[], 48 * 3_600_000]);
  // At noon where each of them is nobody waits.
  expect((await aheadOf(id, '2100-01-04T20:00:00.000Z', true)).waits).toEqual([]);
});

test('where most of it goes, and for how long, is told by the mailing before', async () => {
  const batch = await peopleIn([
    ...Array.from({ length: 20 }, (_none, i) => `d${i}@many.example.org,Dee,Novak${i},`),
    'd99@few.example.org,Dan,Okonkwo,',
  ]);
  const before = await draftEmail(house.client, toBatches(batch));
  expect(await aheadOf(before)).toMatchObject({
    domains: [
      { domain: 'many.example.org', people: 20, seconds: null },
      { domain: 'few.example.org', people: 1, seconds: null },
    ],
    lastLeaves: null,
  });
  await send(house.client, before);
  await messageAt(house.client, before, 'done');
  // It went for 100 seconds.
  const database = house.database.unscoped();
  const rows = await database('delivery')
    .where('message_id', before)
    .orderBy('id')
    .select<{ id: number }[]>('id');
  for (const [i, { id }] of rows.entries())
    await database('delivery')
      .where('id', id)
      .update({ sent_at: new Date(Date.UTC(2026, 0, 2, 3, 4, i * 5)) });
  const { at, domains, lastLeaves } = await aheadOf(await draftEmail(house.client, toBatches(batch)));
  expect(domains.map(({ domain, seconds }) => [domain, seconds])).toEqual([
    ['many.example.org', expect.any(Number)],
    ['few.example.org', null],
  ]);
  expect(Math.abs(domains[0]!.seconds! - 95)).toBeLessThanOrEqual(5);
  expect((Date.parse(lastLeaves!) - Date.parse(at)) / 1000).toBeGreaterThanOrEqual(95);
  // One that was spread tells nothing of how fast mail leaves.
  await database('message').where('id', before).update({ spread_hours: 1 });
  expect((await aheadOf(await draftEmail(house.client, toBatches(batch)))).lastLeaves).toBeNull();
});
