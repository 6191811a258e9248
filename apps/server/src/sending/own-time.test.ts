import type { OwnTimesView } from '@goodword/core/contract';
import type { HouseRules } from '@goodword/core/permission';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { eventually, openTestHouse, rulesOfTests, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, draftText, lastLook, messageAt, moveTo, resultsOf } from '../testing/steps';
import { personBy } from '../testing/supporter';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

let groups = 0;
/** People of these places, and the group of them. */
async function peopleIn(...places: ([country: string, region?: string] | null)[]) {
  const domain = `own${++groups}.example.org`;
  const rows = places.map((_place, i) => `p${i}@${domain},P${i},Lee,20655501${10 + i + groups * 10}`);
  const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
  for (const [i, place] of places.entries())
    if (place) await moveTo(house.client, (await personBy(house.client, `p${i}@${domain}`)).id, ...place);
  return {
    group: { from: [{ kind: 'batch' as const, id: batch.id }] },
    address: (i: number) => `p${i}@${domain}`,
  };
}

/** An hour of the house's day (Los Angeles) so many days ahead. */
function at(days: number, hour: number): Date {
  const day = new Date(Date.now() + days * 86_400_000);
  day.setUTCHours(0, 0, 0, 0);
  const utc = day.getTime() + hour * 3_600_000;
  const shown = (zone: string) =>
    Number(
      new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', hourCycle: 'h23' }).format(utc),
    );
  return new Date(utc + ((hour - shown('America/Los_Angeles') + 24) % 24) * 3_600_000);
}
const ownTimes = (id: number, when: Date) =>
  house.client.get<OwnTimesView>(`/api/messages/${id}/own-times?at=${when.toISOString()}`);
async function schedule(id: number, when: Date): Promise<void> {
  await house.client.post(`/api/messages/${id}/test`);
  await house.client.post(`/api/messages/${id}/send`, {
    ...{ at: when.toISOString(), ownTime: true },
    digest: (await lastLook(house.client, id)).digest,
  });
}
const moments = async (id: number) =>
  (await house.database
    .unscoped()('delivery')
    .where('message_id', id)
    .orderBy('id')
    .select<{ not_before: Date | null; state: string }[]>('not_before', 'state'))!;

test('a time is told zone by zone, the earliest first, with whoever it is over for', async () => {
  const { group } = await peopleIn(['US', 'NY'], ['DE'], null, ['US', 'NY']);
  const id = await draftEmail(house.client, group);
  await lastLook(house.client, id);
  const when = at(3, 10);
  const { zones, over } = await ownTimes(id, when);
  expect(over).toBe(0);
  expect(zones.map(({ zone, people }) => `${zone} ${people}`)).toEqual([
    'Europe/Berlin 1',
    'America/New_York 2',
    'America/Los_Angeles 1',
  ]);
  const clock = (zone: string, moment: string) =>
    new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(
      new Date(moment),
    );
  for (const { zone, at: moment } of zones) expect(clock(zone, moment)).toBe('10:00');
  // Three hours ago in New York, in an hour in Los Angeles.
  const soon = new Date(Date.now() + 3_600_000);
  expect((await ownTimes(id, soon)).over).toBe(3);
});

test('each has a moment of their own, and nobody gets it before', async () => {
  const { group, address } = await peopleIn(['DE'], ['US', 'NY'], null);
  const id = await draftEmail(house.client, group, { subject: 'By your clock' });
  const soon = new Date(Date.now() + 3_600_000);
  await schedule(id, soon);
  // It is over where the first two are: they get it at once, the third in an hour.
  await messageAt(house.client, id, 'sending');
  const sent = () =>
    house.sink.mails.filter(({ to }) => to.endsWith(address(0).split('@')[1]!)).map(({ to }) => to);
  await eventually('two mails', sent, (mails) => mails.length >= 2);
  expect(sent().sort()).toEqual([address(0), address(1)]);
  const states = await eventually(
    'what has gone to be written down',
    () => moments(id),
    (all) => all.filter(({ state }) => state === 'sent').length === 2,
  );
  const here = states[2];
  expect(here!.state).toBe('ready');
  expect(Math.abs(here!.not_before!.getTime() - Math.floor(soon.getTime() / 60_000) * 60_000)).toBeLessThan(
    1000,
  );
  // Stopped now, the third never gets it.
  await house.client.post(`/api/messages/${id}/stop`, {});
  expect((await moments(id))[2]!.state).toBe('stopped');
});

test('it begins when it comes to the first of them, and can be taken back until then', async () => {
  const { group } = await peopleIn(['US', 'HI'], ['DE']);
  const id = await draftEmail(house.client, group);
  const when = at(3, 10);
  await schedule(id, when);
  const [job] = await house.database
    .unscoped()('job')
    .where({ kind: 'message-prepare', ref_id: id })
    .select<{ run_after: Date }[]>('*');
  const first = new Date((await ownTimes(id, when)).zones[0]!.at);
  expect(
    Object.values(job!).some((value) => value instanceof Date && value.getTime() === first.getTime()),
  ).toBe(true);
  expect(await messageAt(house.client, id, 'scheduled')).toMatchObject({ ownTime: true });
  await house.client.post(`/api/messages/${id}/unschedule`, {});
  expect(await messageAt(house.client, id, 'draft')).toMatchObject({ ownTime: false });
});

test('for whom it is over already it comes at once, but not before it can be taken back', async () => {
  const { group } = await peopleIn(['DE']);
  const id = await draftEmail(house.client, group);
  const rules = { ...rulesOfTests(), undoSeconds: 60 };
  const keep = (undo: HouseRules) =>
    house.database.write(house.scope, (tx) =>
      new HouseRulesRepository().keep(tx, { rules: undo, words: 'For tests', effects: [] }),
    );
  await keep(rules);
  await schedule(id, new Date(Date.now() + 3_600_000));
  await new Promise((done) => setTimeout(done, 1500));
  expect(await messageAt(house.client, id, 'scheduled', 1)).toMatchObject({ ownTime: true });
  await house.client.post(`/api/messages/${id}/unschedule`, {});
  await keep(rulesOfTests());
});

test('a text waits for the later of two clocks: that of their place and that of their number', async () => {
  const { group } = await peopleIn(['DE']);
  const id = await draftText(house.client, group, 'Two planks left');
  await schedule(id, new Date(Date.now() + 3_600_000));
  await messageAt(house.client, id, 'sending');
  const [only] = await moments(id);
  // In Berlin it is over; the number is of the United States, where the house is.
  expect(only!.not_before!.getTime()).toBeGreaterThan(Date.now() + 55 * 60_000);
});

test('spread over hours each has a moment within them, and none gets it before', async () => {
  const { group } = await peopleIn(null, null, null, null, null, null);
  const id = await draftEmail(house.client, group, { subject: 'In turn' });
  await house.client.post(`/api/messages/${id}/test`);
  const { digest } = await lastLook(house.client, id);
  const tooLong = await house.client.call('POST', `/api/messages/${id}/send`, { spreadHours: 337, digest });
  expect(tooLong.status).toBe(422);
  const before = Date.now();
  await house.client.post(`/api/messages/${id}/send`, { at: null, spreadHours: 48, digest });
  const view = await messageAt(house.client, id, 'sending');
  expect(view.spreadHours).toBe(48);
  const all = (await moments(id)).map(({ not_before: then }) => then!.getTime() - before);
  expect(all).toHaveLength(6);
  for (const then of all) {
    expect(then).toBeGreaterThan(-2000);
    expect(then).toBeLessThan(48 * 3_600_000 + 60_000);
  }
  expect(Math.max(...all) - Math.min(...all)).toBeGreaterThan(3_600_000);
  const { rows } = await house.client.get<{ rows: unknown[] }>(
    `/api/messages/${id}/results/people?kind=sent`,
  );
  expect(rows.length).toBeLessThan(6);
  // Whoever waits waits for their turn, and not for a decent hour.
  const { night, turn, counts } = await resultsOf(house.client, id);
  expect([night, turn!.people]).toEqual([null, counts.waiting]);
  expect(Date.parse(turn!.until) - before).toBe(Math.max(...all));
  await house.client.post(`/api/messages/${id}/stop`, {});
});

test('spread by the clock of each, everybody begins where they are', async () => {
  const { group } = await peopleIn(['US', 'HI'], ['US', 'NY']);
  const id = await draftEmail(house.client, group);
  await house.client.post(`/api/messages/${id}/test`);
  const { digest } = await lastLook(house.client, id);
  const soon = new Date(Date.now() + 3_600_000);
  await house.client.post(`/api/messages/${id}/send`, {
    ...{ at: soon.toISOString(), ownTime: true, spreadHours: 2, digest },
  });
  await messageAt(house.client, id, 'sending');
  const [hawaii] = await moments(id);
  // Two or three hours behind the house (IANA), in an hour: within two hours of then.
  const hours = (hawaii!.not_before!.getTime() - Date.now()) / 3_600_000;
  expect(hours).toBeGreaterThan(2.9);
  expect(hours).toBeLessThan(6.1);
  await house.client.post(`/api/messages/${id}/stop`, {});
});
