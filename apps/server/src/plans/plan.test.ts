import { isoDay } from '@goodword/core/common';
import type { MessageView, Page, ResultPerson, SegmentCount, RosterRow } from '@goodword/core/contract';
import { APPEAL, campaignsIn, today } from '../testing/campaign';
import { openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, lastLook, messageAt } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const {
  campaignOf,
  planOf,
  savePlan,
  begins,
  stepOf,
  change,
  look,
  go,
  expected,
  pathOf,
  comes,
  verdicts,
  gives,
} = campaignsIn(() => house);
const OUT = 'fell-out: Out of the campaign or series: gave';
const mark = (step: number, person: number, flag: 'replied' | 'left_it') =>
  house.database
    .unscoped()('delivery')
    .where({ message_id: step, supporter_id: person })
    .update({ [flag]: 1 });

test('a campaign of email, text and letter is lived through: who gave, replied or opted out gets no more', async () => {
  const { id, idOf } = await campaignOf(5);
  await begins(id);
  const [email, text, letter] = [
    await stepOf(id, 0),
    await stepOf(id, 3, 'text'),
    await stepOf(id, 10, 'post'),
  ];
  expect((await go(id)).status).toBe(202);
  expect((await planOf(id)).steps.map(({ state }) => state)).toEqual(['scheduled', 'scheduled', 'scheduled']);

  await comes(id, email);
  const people = await Promise.all([0, 1, 2, 3, 4].map(idOf));
  await gives(people[0]!);
  await mark(email, people[1]!, 'replied');
  await mark(email, people[2]!, 'left_it');
  // A gift that was taken back is none.
  await gives(people[3]!);
  await house.database
    .unscoped()('gift')
    .insert({
      ...{ organization_id: house.scope.organizationId, supporter_id: people[3]!, amount: -2500 },
      ...{ given_on: today, note: '' },
    });
  expect(await pathOf(id, people[0]!)).toEqual(['send: Came to them', OUT, OUT]);

  await comes(id, text);
  expect(await verdicts(text)).toEqual([
    ...['gave', 'replied', 'opted out by one of its messages', 'send', 'send'],
  ]);
  // The letter is for whoever is left by then.
  await gives(people[4]!);
  await comes(id, letter, 'posting');
  expect((await verdicts(letter)).filter((verdict) => verdict === 'gave')).toHaveLength(2);
});

test('a step is for whom its sentence says, and the plan says how many get how many', async () => {
  const { id, idOf } = await campaignOf(4);
  await begins(id);
  const [first, second] = [await stepOf(id, 0), await stepOf(id, 3)];
  await house.client.put(`/api/campaigns/${id}/roster`, {
    group: { ids: [await idOf(0)] },
    stage: 'pledged',
  });
  const rule = { kind: 'roster', campaignId: id, stages: ['pledged'], on: true };
  expect((await change(id, second, { rule })).status).toBe(200);
  const now = await expected(id);
  expect(now.steps.map(({ messageId, group, reached }) => [messageId, group, reached])).toEqual([
    [first, 4, 4],
    [second, 1, 1],
  ]);
  expect(now.gets).toEqual([0, 3, 1]);
  expect((await planOf(id)).steps[1]!.words).toContain('pledged');
  expect(await pathOf(id, await idOf(1))).toEqual([
    'send: Will get it',
    'not-meant: The step is not for them',
  ]);
});

test('whoever gives between being written down and being handed over is held at the door', async () => {
  const { id, idOf } = await campaignOf(2);
  await begins(id);
  const step = await stepOf(id, 0);
  // By their own clock: written down now, and due tomorrow.
  await change(id, step, { day: 0, ownTime: true });
  await go(id);
  await comes(id, step, 'sending');
  await gives(await idOf(1));
  await house.database.unscoped()('delivery').where('message_id', step).update({ not_before: null });
  await messageAt(house.client, step, 'done');
  expect(await pathOf(id, await idOf(0))).toEqual(['send: Came to them']);
  expect(await pathOf(id, await idOf(1))).toEqual([OUT]);
  const { rows } = await house.client.get<Page<ResultPerson>>(
    `/api/messages/${step}/results/people?kind=door`,
  );
  expect(rows.map(({ detail }) => detail)).toEqual(['Out of the campaign or series: gave']);
});

test('what the house says of a step is refused in words: too late, set going, left, alone', async () => {
  const { id } = await campaignOf(1);
  const step = await stepOf(id, 0);
  expect((await go(id)).body.detail).toBe('Choose the campaign’s first day first.');
  await begins(id, -3);
  expect((await go(id)).body.detail).toMatch(/^“Step of day 0 by email” would leave at a time that is over/);
  await begins(id, 2);
  const alone = await house.client.call<{ detail: string }>('POST', `/api/messages/${step}/send`, {
    ...{ at: null, digest: (await lastLook(house.client, step)).digest },
  });
  expect(alone.body.detail).toMatch(/^It is a step of “Winter hull \d+” and leaves with it/);
  const elsewhere = await house.client.call<{ detail: string }>('PUT', `/api/messages/${step}/recipients`, {
    ...{ from: [], minus: [], without: [], basedOn: 0 },
  });
  expect(elsewhere.body.detail).toMatch(/goes to its roster/);
  expect((await go(id)).status).toBe(202);
  expect((await go(id)).status).toBe(422);
  expect((await change(id, step)).body.detail).toBe(
    '“Step of day 0 by email” is set going. Take it back first.',
  );
  expect((await begins(id, 5)).body.detail).toMatch(/^“Step of day 0 by email” is set going by this day/);
  expect((await house.client.call('DELETE', `/api/campaigns/${id}`)).status).toBe(409);
  await house.client.post(`/api/messages/${step}/unschedule`);
  expect((await change(id, step, { day: 1 })).status).toBe(200);
  const older = await change(id, step, { basedOn: 0 });
  expect([older.status, older.body.detail]).toEqual([409, expect.stringContaining('the step')]);
  await go(id);
  await comes(id, step);
  expect((await change(id, step)).body.detail).toMatch(/has left: what has left can’t be changed/);
  expect((await house.client.call('DELETE', `/api/campaigns/${id}/steps/${step}`)).status).toBe(409);
});

test('a look that is not of now sets nothing going, and of two at once one does', async () => {
  const { id, idOf } = await campaignOf(3);
  await begins(id);
  const steps = [await stepOf(id, 0), await stepOf(id, 2)];
  const looks = (await look(id)).steps.map(({ messageId, look: { digest } }) => ({ messageId, digest }));
  await house.client.put(`/api/campaigns/${id}/roster`, { group: { ids: [await idOf(0)] }, stage: 'gave' });
  await change(id, steps[1]!, { day: 4 });
  const stale = await house.client.call('POST', `/api/campaigns/${id}/plan/go`, { looks });
  expect(stale.status).toBe(409);
  expect((await planOf(id)).steps.map(({ state }) => state)).toEqual(['draft', 'draft']);
  const fresh = (await look(id)).steps.map(({ messageId, look: { digest } }) => ({ messageId, digest }));
  const both = await Promise.all(
    [1, 2].map(() => house.client.call('POST', `/api/campaigns/${id}/plan/go`, { looks: fresh })),
  );
  expect(both.map(({ status }) => status).sort()).toEqual([202, 409]);
});

test('another day, or another end, than was looked at sets nothing going', async () => {
  const { id } = await campaignOf(1);
  await begins(id);
  await stepOf(id, 0);
  for (const other of [{ firstDay: isoDay(today + 9) }, { endsFor: [] }]) {
    const looks = (await look(id)).steps.map(({ messageId, look: { digest } }) => ({ messageId, digest }));
    expect((await savePlan(id, other)).status).toBe(200);
    expect((await house.client.call('POST', `/api/campaigns/${id}/plan/go`, { looks })).status).toBe(409);
  }
  expect((await go(id)).status).toBe(202);
});

test('of setting going and another day at once one is done, and what is going goes by the day that stands', async () => {
  const { id } = await campaignOf(1);
  await begins(id);
  const steps = [await stepOf(id, 0), await stepOf(id, 1)];
  for (let round = 0; round < 6; round++) {
    const looks = (await look(id)).steps.map(({ messageId, look: { digest } }) => ({ messageId, digest }));
    const [went, moved, changed] = await Promise.all([
      house.client.call('POST', `/api/campaigns/${id}/plan/go`, { looks }),
      savePlan(id, { firstDay: isoDay(today + 2 + round) }),
      change(id, steps[1]!, { day: 1 + round }),
    ]);
    const plan = await planOf(id);
    const going = plan.steps.filter(({ state }) => state === 'scheduled');
    expect([going.length, went.status]).toEqual(going.length === 2 ? [2, 202] : [0, 409]);
    if (went.status === 202)
      expect([moved.status, changed.status].filter((status) => status === 200)).toEqual([]);
    for (const { messageId, at } of going) {
      const { scheduledAt } = await house.client.get<MessageView>(`/api/messages/${messageId}`);
      expect(scheduledAt).toBe(at);
      await house.client.post(`/api/messages/${messageId}/unschedule`);
    }
  }
});

test('a step of a campaign of one chapter is of that chapter, whoever adds it', async () => {
  const east = await house.as('organizer', house.chapters[1]!);
  const { id } = await east.post<{ id: number }>('/api/campaigns', { ...APPEAL, name: 'East alone' });
  const step = await stepOf(id, 0);
  const [message] = await house.database
    .unscoped()('message')
    .where('id', step)
    .select<{ chapter_id: number }[]>('chapter_id');
  expect(message!.chapter_id).toBe(house.chapters[1]!);
});

test('a roster that fills itself takes in who comes into the segment, and nobody who was taken off', async () => {
  const { id, batch, idOf } = await campaignOf(3);
  const segment = await house.client.post<{ id: number }>('/api/segments', {
    ...{ name: `Joins ${id}`, tree: { kind: 'all', rules: [{ kind: 'batch', batchId: batch, in: true }] } },
  });
  await house.client.post(`/api/campaigns/${id}/roster/off`, { group: { kind: 'batch', id: batch } });
  await house.client.put(`/api/campaigns/${id}/roster`, { group: { ids: [await idOf(0)] }, stage: 'asked' });
  await house.database
    .unscoped()('campaign_off')
    .where({ campaign_id: id, supporter_id: await idOf(1) })
    .delete();
  expect((await savePlan(id, { firstDay: isoDay(today + 1), joinsFrom: segment.id })).status).toBe(200);
  const step = await stepOf(id, 0);
  expect((await expected(id)).steps[0]).toMatchObject({
    ...{ group: 3, reached: 2, suppressed: [{ reason: 'fell-out', people: 1 }] },
  });
  expect(await pathOf(id, await idOf(2))).toEqual([
    'fell-out: Out of the campaign or series: not on the roster',
  ]);
  await go(id);
  await comes(id, step);
  const roster = await house.client.get<Page<RosterRow>>(`/api/campaigns/${id}/roster`);
  expect(roster.rows.map((row) => row.firstName).sort()).toEqual(['P0', 'P1']);
  // A line over the roster sees them in the very next count.
  const tree = { kind: 'roster', campaignId: id, stages: [], on: true };
  const counted = await house.client.post<SegmentCount>('/api/segments/count', { tree, reach: false });
  expect(counted.total).toBe(2);
  const gone = await house.client.call<{ detail: string }>('DELETE', `/api/segments/${segment.id}`);
  expect([gone.status, gone.body.detail]).toEqual([
    409,
    expect.stringContaining('The campaign “Winter hull'),
  ]);
});

test('a campaign stays while a step of it is on its way, and goes with its steps when they have left', async () => {
  const { id } = await campaignOf(2);
  await begins(id);
  const step = await stepOf(id, 0);
  await change(id, step, { day: 0, ownTime: true });
  await go(id);
  await comes(id, step, 'sending');
  const kept = await house.client.call<{ detail: string }>('DELETE', `/api/campaigns/${id}`);
  expect([kept.status, kept.body.detail]).toEqual([
    409,
    expect.stringMatching(/^“Step of day 0 .* is on its way/),
  ]);
  await house.database.unscoped()('delivery').where('message_id', step).update({ not_before: null });
  await messageAt(house.client, step, 'done');
  expect((await house.client.call('DELETE', `/api/campaigns/${id}`)).status).toBe(200);
  expect((await house.client.get<MessageView>(`/api/messages/${step}`)).campaignId).toBeNull();
});

test('of a chapter’s campaign only those of the chapter come onto the roster, whoever sets it going', async () => {
  const east = await house.as('organizer', house.chapters[1]!);
  await campaignOf(2);
  await bringIn(east, 'Email,First,Last,Mobile\neast@plan.example.org,Eve,East,\n');
  const everybody = { kind: 'gave', did: false, atLeast: null, window: { over: 'ever' } };
  const segment = await house.client.post<{ id: number }>('/api/segments', {
    name: 'All of us',
    tree: everybody,
  });
  const { id } = await east.post<{ id: number }>('/api/campaigns', { ...APPEAL, name: 'East joins' });
  await savePlan(id, { firstDay: isoDay(today + 1), joinsFrom: segment.id });
  await stepOf(id, 0);
  expect((await go(id)).status).toBe(202);
  const roster = await house.client.get<Page<RosterRow>>(`/api/campaigns/${id}/roster`);
  expect(roster.rows.map((row) => row.firstName)).toEqual(['Eve']);
});

test('a step that is taken out leaves its words as a draft to nobody, and a goal counts what was given', async () => {
  const { id, idOf } = await campaignOf(2);
  await savePlan(id, {
    firstDay: isoDay(today),
    goal: { kind: 'money', amount: 100_000, by: isoDay(today + 30) },
  });
  const step = await stepOf(id, 0);
  await house.client.call('DELETE', `/api/campaigns/${id}/steps/${step}`);
  expect((await house.client.get<MessageView>(`/api/messages/${step}`)).recipients.from).toEqual([]);
  await gives(await idOf(0));
  await gives(await idOf(1), today - 40);
  expect(await planOf(id)).toMatchObject({ reached: 2500, steps: [] });
});
