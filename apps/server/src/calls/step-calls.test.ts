import type {
  CallListView,
  CallRow,
  CampaignExpected,
  Page,
  RecordView,
  ResultPerson,
  StepCalls,
} from '@goodword/core/contract';
import { campaignsIn } from '../testing/campaign';
import { houseDay, openTestHouse, pause, type TestHouse } from '../testing/harness';
import { lastLook, messageAt, resultsOf } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const { campaignOf, begins, savePlan, stepOf, go, expected, pathOf, comes, gives } = campaignsIn(() => house);

async function saysOfCalls(id: number, state: 'yes' | 'no'): Promise<void> {
  const { contactPoints } = await house.client.get<RecordView>(`/api/supporters/${id}`);
  await house.client.post(`/api/supporters/${id}/permission`, {
    ...{ contactPointId: contactPoints.find(({ kind }) => kind === 'mobile')!.id, channel: 'call' },
    ...{ scope: 'appeals', state, how: 'paper', on: houseDay(), words: 'Of calls about the ferry' },
  });
}

/** A campaign with one step that calls, its list made; everybody but the last may be called. */
async function calling(people: number) {
  const { id, idOf } = await campaignOf(people);
  const ids = await Promise.all(Array.from({ length: people }, (_none, i) => idOf(i)));
  for (const one of ids.slice(0, -1)) await saysOfCalls(one, 'yes');
  await begins(id);
  const step = await stepOf(id, 0, 'call');
  return { id, ids, step };
}

async function listOf(step: number): Promise<number> {
  for (;;) {
    const { lists } = await house.client.get<StepCalls>(`/api/messages/${step}/calls`);
    if (lists.length > 0) return lists[0]!.id;
    await pause(50);
  }
}

const peopleOn = async (list: number, who = 'all') =>
  (await house.client.get<Page<CallRow>>(`/api/calls/${list}/people?who=${who}`)).rows;
const positionsOn = async (list: number, who: string) =>
  (await peopleOn(list, who)).map((row) => row.position);
const show = (list: number) => house.client.get<CallListView>(`/api/calls/${list}`);

async function answer(list: number, position: number, outcome: string | null, more: object = {}) {
  const row = (await peopleOn(list)).find((one) => one.position === position)!;
  return house.client.call<CallRow & { detail: string }>('PUT', `/api/calls/${list}/people/${position}`, {
    ...{ was: { outcome: row.outcome, note: row.note }, outcome, ...more },
  });
}

const kinds = async (step: number) => {
  const { counts } = await resultsOf(house.client, step);
  return { sent: counts.sent, waiting: counts.waiting, door: counts.door };
};

test('a step that calls makes its list when its day comes, and each call counts as the step’s', async () => {
  const { id, ids, step } = await calling(6);
  expect(
    (await house.client.get<CampaignExpected>(`/api/campaigns/${id}/plan/expected`)).steps,
  ).toMatchObject([{ messageId: step, group: 6, reached: 5 }]);
  // Who has given by then is not on it.
  await gives(ids[0]!);
  expect((await go(id)).status).toBe(202);
  await comes(id, step, 'calling');
  const list = await listOf(step);
  expect(await show(list)).toMatchObject({ people: 4, step: { messageId: step, state: 'calling' } });
  expect((await peopleOn(list)).map(({ supporterId, script }) => [supporterId, script])).toEqual(
    ids.slice(1, 5).map((one) => [one, 'Two planks are left.']),
  );
  // Who gives, or says no, after it was made is passed over from that moment.
  await gives(ids[1]!);
  await saysOfCalls(ids[2]!, 'no');
  expect(await positionsOn(list, 'open')).toEqual([3, 4]);
  expect((await peopleOn(list)).map(({ suppressed }) => suppressed)).toEqual([
    ...['Out of the campaign or series', 'Opted out', null, null],
  ]);

  expect(await pathOf(id, ids[3]!)).toEqual(['send: Waits to be called']);
  expect((await answer(list, 3, 'pledged')).body).toMatchObject({ outcome: 'pledged', stage: 'pledged' });
  expect(await pathOf(id, ids[3]!)).toEqual(['send: They were called']);
  expect((await answer(list, 4, 'no answer')).status).toBe(200);
  expect(await kinds(step)).toEqual({ sent: 1, waiting: 3, door: 0 });
  // An answer that was wrong is taken back, and the call with it.
  await answer(list, 3, null);
  expect(await kinds(step)).toEqual({ sent: 0, waiting: 4, door: 0 });
  expect(await positionsOn(list, 'open')).toEqual([3]);
  await answer(list, 3, 'pledged');

  expect((await house.client.call<{ detail: string }>('DELETE', `/api/calls/${list}`)).body.detail).toMatch(
    /is being called through/,
  );
  expect((await house.client.call('POST', `/api/messages/${step}/calls/over`)).status).toBe(204);
  expect((await house.client.call('POST', `/api/messages/${step}/calls/over`)).status).toBe(409);
  await messageAt(house.client, step, 'done');
  expect(await kinds(step)).toEqual({ sent: 1, waiting: 0, door: 2 });
  const { rows } = await house.client.get<Page<ResultPerson>>(
    `/api/messages/${step}/results/people?kind=door`,
  );
  expect(rows.map(({ detail }) => detail).sort()).toEqual(['Opted out', 'Out of the campaign or series']);
  // Entered late, from paper.
  await answer(list, 4, 'declined');
  expect(await kinds(step)).toEqual({ sent: 2, waiting: 0, door: 2 });
  expect((await house.client.call('DELETE', `/api/calls/${list}`)).status).toBe(204);
  expect(await kinds(step)).toEqual({ sent: 2, waiting: 0, door: 2 });
});

test('with the last one who was spoken with the step is over, and what they said takes nobody off', async () => {
  const { id, ids, step } = await calling(3);
  await savePlan(id, { endsAt: ['pledged'] });
  await go(id);
  await comes(id, step, 'calling');
  const list = await listOf(step);
  await answer(list, 1, 'pledged');
  expect((await peopleOn(list))[0]).toMatchObject({ outcome: 'pledged', suppressed: null });
  await answer(list, 2, 'call again');
  expect(await positionsOn(list, 'again')).toEqual([2]);
  await answer(list, 2, 'declined', { noMoreCalls: true });
  expect((await messageAt(house.client, step, 'done')).state).toBe('done');
  expect(await kinds(step)).toEqual({ sent: 2, waiting: 0, door: 0 });
  expect(await pathOf(id, ids[1]!)).toEqual(['send: They were called']);
  // What they were called for has come to them: the next step asks them no more.
  expect((await expected(id)).gets).toHaveLength(1);
});

test('a step that is stopped takes no answers, and nobody counts as called', async () => {
  const { id, step } = await calling(2);
  await go(id);
  await comes(id, step, 'calling');
  const list = await listOf(step);
  await house.client.post(`/api/messages/${step}/stop`);
  const late = await answer(list, 1, 'pledged');
  expect([late.status, late.body.detail]).toEqual([409, expect.stringMatching(/was stopped/)]);
  expect(await kinds(step)).toEqual({ sent: 0, waiting: 0, door: 0 });
  expect((await house.client.call('DELETE', `/api/calls/${list}`)).status).toBe(204);
});

test('made twice, as by a worker that was killed, there is one list; with nobody to call there is none', async () => {
  const { id, step } = await calling(3);
  await go(id);
  await comes(id, step, 'calling');
  await listOf(step);
  const job = { kind: 'message-calls', ref_id: step };
  await house.database
    .unscoped()('job')
    .where(job)
    .update({ state: 'waiting', run_at: new Date(), lease_until: null });
  for (;;) {
    if ((await house.database.unscoped()('job').where(job).first('state'))?.state === 'done') break;
    await pause(50);
  }
  expect((await house.client.get<StepCalls>(`/api/messages/${step}/calls`)).lists).toHaveLength(1);

  const other = await calling(2);
  await go(other.id);
  // The one who could be called said no after the last look.
  await saysOfCalls(other.ids[0]!, 'no');
  await comes(other.id, other.step);
  expect(await house.client.get<StepCalls>(`/api/messages/${other.step}/calls`)).toEqual({
    ...{ lists: [], waiting: 0 },
  });
});

test('the words of a step, used again, are called by themselves', async () => {
  const { step, ids } = await calling(3);
  const { id } = await house.client.post<{ id: number }>(`/api/messages/${step}/copy`);
  const from = ids.map((one) => ({ kind: 'person', id: one }));
  expect(
    (
      await house.client.call('PUT', `/api/messages/${id}/recipients`, {
        ...{ from, minus: [], without: [], basedOn: 0 },
      })
    ).status,
  ).toBe(200);
  const { digest } = await lastLook(house.client, id);
  await house.client.post(`/api/messages/${id}/send`, { at: null, digest });
  const list = await listOf(id);
  expect(await show(list)).toMatchObject({ people: 2, campaign: null, step: { messageId: id } });
  await answer(list, 1, 'talked');
  await answer(list, 2, 'talked');
  await messageAt(house.client, id, 'done');
});

test('calls are begun as a step, no message by themselves, and nobody sends a test of one', async () => {
  const alone = await house.client.call('POST', '/api/messages', {
    ...{ name: 'Alone', channel: 'call', purpose: 'appeals' },
  });
  expect(alone.status).toBe(422);
  const { step } = await calling(2);
  expect((await house.client.call('POST', `/api/messages/${step}/test`)).status).toBe(409);
});
