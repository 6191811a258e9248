import type {
  DoneView,
  JobView,
  MessageResults,
  Page,
  ResultPerson,
  ThreadsView,
  TodayView,
  WeekView,
} from '@goodword/core/contract';
import { HEAD, gathering, noPermission } from '../testing/gathering';
import { openTestHouse, eventually, type Client, type TestHouse } from '../testing/harness';
import {
  agreed,
  bringIn,
  draftEmail,
  draftText,
  messageAt,
  NOTHING,
  planFor,
  resultsOf,
  send,
  takeFile,
} from '../testing/steps';

let house: TestHouse;
let east: Client;
const { find, checked, record } = gathering(() => house);

beforeAll(async () => {
  house = await openTestHouse({ sink: { answer: (to) => (to.startsWith('gone') ? 550 : null) } });
  house.startWorker();
  east = await house.as('organizer', house.chapters[1]!);
});
afterAll(() => house.close());

const done = (client = house.client) => client.get<DoneView>('/api/today/done');
const today = (client = house.client) => client.get<TodayView>('/api/today');

describe('what waits at Gather', () => {
  test('half-done batches, each with what it waits for; what came in until somebody has seen it', async () => {
    const draft = await takeFile(house.client, `${HEAD}half@example.org,Ha,Lf,\n`);
    const ready = await checked(`${HEAD}ready@example.org,Re,Ady,\n`);
    const done = await bringIn(house.client, `${HEAD}done@example.org,Do,Ne,\n`, {
      permission: noPermission,
    });
    const view = await today();
    const begun = view.batches.map(({ id, state, rows, by }) => [id, state, rows, by]);
    expect(begun).toEqual([
      [ready.id, 'checked', 1, 'The owner'],
      [draft, 'draft', 1, 'The owner'],
    ]);
    expect(view.arrived).toEqual([expect.objectContaining({ id: done.id, people: 1 })]);
    // Whoever else is on the team sees the same, another chapter nothing of it.
    expect((await today(await house.as('viewer'))).batches).toHaveLength(2);
    expect(await today(east)).toMatchObject({ batches: [], arrived: [] });
  });

  test('work in the background is listed with who asked for it and what came of it', async () => {
    const batch = await bringIn(house.client, `${HEAD}work@example.org,Wo,Rk,\n`, {
      permission: noPermission,
    });
    const jobs = await house.client.get<JobView[]>('/api/jobs');
    const mine = jobs.filter((job) => job.link === `/gather/${batch.id}`);
    expect(mine.map((job) => [job.kind, job.state, job.error]).sort()).toEqual([
      ['batch-bring-in', 'done', null],
      ['batch-check', 'done', null],
      ['batch-read', 'done', null],
    ]);
    for (const job of mine) expect(job.endedAt! >= job.beganAt! && job.beganAt! >= job.createdAt).toBe(true);
    expect(mine.find((job) => job.kind === 'batch-bring-in')!.by).toBe('The owner');
    expect(
      (await east.get<JobView[]>('/api/jobs')).filter((job) => job.link === `/gather/${batch.id}`),
    ).toEqual([]);
  });
});

describe('answers', () => {
  let textId: number;
  const answer = (id: string, from: string, text: string) =>
    house.client.hook({ type: 'inbound', id, from, to: '+12065550100', text });
  const stops = async () => (await today()).stops;

  beforeAll(async () => {
    const plan = { permission: { email: NOTHING, text: agreed('appeals') } };
    const batch = await bringIn(
      house.client,
      `${HEAD}moss@example.org,Mia,Moss,206 555 0131\nnoa@example.org,Noa,Moss,206 555 0132\n`,
      plan,
    );
    textId = await draftText(house.client, { from: [{ kind: 'batch', id: batch.id }] });
    await send(house.client, textId);
    await messageAt(house.client, textId, 'done');
  });

  test('wait until somebody puts them aside, and can be taken up again', async () => {
    await answer('t-1', '+12065550131', 'Where do we meet?');
    const waiting = await today();
    expect([waiting.replies, waiting.firstReply]).toEqual([
      1,
      { name: 'Mia Moss', words: 'Where do we meet?', message: 'A text', at: expect.any(String) as string },
    ]);
    expect((await today(east)).firstReply).toBeNull();
    const [reply] = (await house.client.get<ThreadsView>('/api/replies')).threads;
    expect(reply).toMatchObject({
      name: 'Mia Moss',
      words: 'Where do we meet?',
      waiting: 1,
      message: 'A text',
    });
    const before = await done();
    await house.client.post(`/api/replies/${reply!.replyId}/handled`, { handled: true });
    expect([(await today()).replies, (await done()).answered]).toEqual([0, before.answered + 1]);
    await house.client.post(`/api/replies/${reply!.replyId}/handled`, { handled: false });
    expect((await today()).replies).toBe(1);
  });

  test('to another chapter’s people are not seen, and not put aside', async () => {
    const [reply] = (await house.client.get<ThreadsView>('/api/replies')).threads;
    expect((await east.get<ThreadsView>('/api/replies')).threads).toEqual([]);
    expect(
      (await east.call('POST', `/api/replies/${reply!.replyId}/handled`, { handled: true })).status,
    ).toBe(404);
    expect((await house.client.call('POST', '/api/replies/999999/handled', { handled: true })).status).toBe(
      404,
    );
    expect((await today()).replies).toBe(1);
  });

  test('that say stop in their own words hold the number until somebody has read them', async () => {
    await answer('t-2', '+12065550132', 'please do not text me any more');
    const [task] = await eventually('the stop to wait', stops, (found) => found.length === 1);
    expect(task).toMatchObject({ name: 'Noa Moss', words: 'please do not text me any more' });
    const held = async () => (await record('noa@')).contactPoints.some((point) => point.onHold);
    expect(await held()).toBe(true);
    await house.client.post(`/api/tasks/${task!.taskId}/settle`, { outcome: 'not-meant' });
    expect(await stops()).toEqual([]);
    expect([await held(), (await find('noa@'))[0]!.may.text]).toEqual([false, 'yes']);
    expect(
      (await house.client.call('POST', `/api/tasks/${task!.taskId}/settle`, { outcome: 'meant' })).status,
    ).toBe(404);
  });

  test('that meant it are a no from the day they were written', async () => {
    await answer('t-3', '+12065550132', 'stop sending me these messages please');
    const [task] = await eventually('the stop to wait', stops, (found) => found.length === 1);
    const wrong = await house.client.call<{ detail: string }>('POST', `/api/tasks/${task!.taskId}/settle`, {
      outcome: 'done',
    });
    expect([wrong.status, wrong.body.detail]).toEqual([409, 'Say whether they meant to stop.']);
    await house.client.post(`/api/tasks/${task!.taskId}/settle`, { outcome: 'meant' });
    expect((await find('noa@'))[0]!.may.text).toBe('no');
  });
});

describe('what came of a message', () => {
  let id: number;
  let results: MessageResults;

  beforeAll(async () => {
    const rows = ['ann@example.org,Ann,Reyes,', 'gone@example.org,Gone,Vale,', ',Text,Only,206 555 0141'];
    const batch = await bringIn(house.client, `${HEAD}${rows.join('\n')}\n`, {
      permission: { email: agreed('appeals'), text: NOTHING },
    });
    id = await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] });
    await send(house.client, id);
    await messageAt(house.client, id, 'done');
    results = await resultsOf(house.client, id);
  });

  const people = (kind: string, client = house.client) =>
    client.get<Page<ResultPerson>>(`/api/messages/${id}/results/people?kind=${kind}`);

  test('each count opens to as many people as it says', async () => {
    expect(results.counts).toMatchObject({
      sent: 1,
      delivered: 1,
      bounced: 1,
      suppressed: 1,
      opened: 0,
      waiting: 0,
    });
    for (const [kind, count] of Object.entries(results.counts))
      expect([kind, (await people(kind)).total]).toEqual([kind, count]);
    expect((await people('suppressed')).rows[0]).toMatchObject({
      name: 'Text Only',
      detail: 'No email address',
    });
    expect((await people('bounced')).rows[0]).toMatchObject({
      address: 'gone@example.org',
      detail: expect.stringContaining('550') as string,
    });
  });

  test('shares come with their interval, and only where there is something to divide by', () => {
    for (const { rate, low, high, of } of results.rates) {
      expect(of).toBeGreaterThan(0);
      expect(low <= rate && rate <= high && low >= 0 && high <= 1).toBe(true);
    }
    expect(results.rates.map((one) => one.kind)).toContain('delivered');
  });

  test('by the hour, with the links that stood in it', () => {
    expect(results.overTime.reduce((sum, hour) => sum + hour.sent, 0)).toBe(results.counts.sent);
    expect(results.links).toEqual([{ url: 'https://give.lanternferry.test/hull', people: 0 }]);
    expect(results.pace).toBeNull();
  });

  test('is not there for another chapter', async () => {
    expect((await people('sent', east)).total).toBe(0);
    expect((await east.call('GET', '/api/messages/999999/results')).status).toBe(404);
  });

  test('an address on hold waits on Today, a draft too', async () => {
    const before = await today();
    expect(before.onHold).toBeGreaterThanOrEqual(1);
    const id = await draftEmail(house.client, {});
    const after = await today();
    expect([after.drafts, after.draft!.id]).toEqual([before.drafts + 1, id]);
  });
});

test('a request to be erased is an owner’s to answer', async () => {
  await bringIn(house.client, `${HEAD}erase@example.org,Er,Ase,\n`, { permission: noPermission });
  const supporter = (await find('erase@'))[0]!.id;
  const task = await house.database.write(house.scope, (tx) =>
    tx.insert('task', {
      kind: 'erasure',
      supporter_id: supporter,
      contact_point_id: null,
      reply_id: null,
      words: 'Please forget me',
    }),
  );
  expect((await today()).erasures).toEqual([
    expect.objectContaining({ taskId: task, supporterId: supporter, name: 'Er Ase' }),
  ]);
  const organizer = await house.as('organizer');
  expect((await today(organizer)).erasures).toEqual([]);
  expect((await organizer.call('POST', `/api/tasks/${task}/settle`, { outcome: 'declined' })).status).toBe(
    403,
  );
  expect((await house.client.call('POST', `/api/tasks/${task}/settle`, { outcome: 'done' })).status).toBe(
    409,
  );
  await house.client.post(`/api/tasks/${task}/settle`, { outcome: 'declined' });
  expect((await today()).erasures).toEqual([]);
});

test('a plan that leaves permission open is not taken', async () => {
  const id = await takeFile(house.client, `${HEAD}open@example.org,Op,En,\n`);
  const { permission: _permission, ...open } = planFor();
  expect((await house.client.call('PUT', `/api/batches/${id}/plan`, open)).status).toBe(422);
});

describe('the week', () => {
  const WEEK = 7 * 86_400_000;
  const kinds = ({ figures }: WeekView) =>
    Object.fromEntries(figures.map(({ kind, now, usual }) => [kind, [now, usual]]));

  test('of a house that began lately says nothing of what is usual', async () => {
    const begun = await openTestHouse({});
    begun.startWorker();
    try {
      await bringIn(begun.client, `${HEAD}week@example.org,We,Ek,\n`, { permission: noPermission });
      expect(await begun.client.get<WeekView>('/api/today/week')).toEqual({
        figures: [
          { kind: 'joined', now: 1, usual: null },
          { kind: 'left', now: 0, usual: null },
          { kind: 'gave', now: 0, usual: null },
          { kind: 'replied', now: 0, usual: null },
        ],
        weeks: 0,
      });
    } finally {
      await begun.close();
    }
  });

  test('stands beside the middle of those behind it, in one chapter as in all', async () => {
    const lived = await openTestHouse({});
    lived.startWorker();
    try {
      const rows = Array.from({ length: 12 }, (_, i) => `w${i}@example.org,W${i},Eek,`).join('\n');
      const batch = await bringIn(lived.client, `${HEAD}${rows}\n`, { permission: noPermission });
      const knex = lived.database.unscoped();
      const ids = (await knex('supporter')
        .where({ batch_id: batch.id })
        .orderBy('id')
        .pluck('id')) as number[];
      // One of them in this week, three in the one before, two, none, one, and five ten weeks ago.
      const weeks = [0, 1, 1, 1, 2, 2, 4, 10, 10, 10, 10, 10];
      for (const [i, id] of ids.entries())
        await knex('supporter')
          .where({ id })
          .update({ created_at: new Date(Date.now() - weeks[i]! * WEEK) });
      const gift = (supporter: number, amount: number, week: number) => ({
        ...{ organization_id: lived.scope.organizationId, supporter_id: supporter, amount },
        given_on: Math.floor(Date.now() / 86_400_000) - 1 - 7 * week,
      });
      await knex('gift').insert([
        gift(ids[0]!, 2_500, 0),
        gift(ids[1]!, 5_000, 0),
        ...[1, 2, 3, 4, 5, 6].map((week) => gift(ids[2]!, 1_000 * week, week)),
      ]);
      expect(kinds(await lived.client.get<WeekView>('/api/today/week'))).toEqual({
        // Nine whole weeks lie behind, for the first person came ten weeks ago in the midst of one: 3, 2, 0,
        // 1 and none.
        ...{ joined: [1, 0], left: [0, 0], replied: [0, 0] },
        // 1,000 to 6,000 in six of the nine.
        gave: [7_500, 2_000],
      });
      const elsewhere = await lived.as('organizer', lived.chapters[1]!);
      expect(kinds(await elsewhere.get<WeekView>('/api/today/week'))).toMatchObject({
        joined: [0, 0],
        gave: [0, 0],
      });
    } finally {
      await lived.close();
    }
  });
});
