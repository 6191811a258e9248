import type { FeedNotice } from '@goodword/core/contract';
import { TestDesk } from '../../testing/desk';
import { feeding, membersOnto } from '../../testing/feeding';
import { gathering } from '../../testing/gathering';
import { eventually, openTestHouse, type TestHouse } from '../../testing/harness';

let house: TestHouse;
let desk: TestDesk;
let sourceId: number;
const { feed, lastRun, list, run, show, source, turn } = feeding(() => house);

beforeAll(async () => {
  desk = await new TestDesk().listen();
  house = await openTestHouse({ env: { FEED_PRIVATE: desk.host } });
  house.startWorker();
  ({ id: sourceId } = await source(desk.url, desk.token));
});
afterAll(async () => {
  await house.close();
  await desk.close();
});

let n = 0;
function fresh(count: number) {
  desk.records.clear();
  desk.heard = [];
  const made = Array.from({ length: count }, () => {
    const id = `T${++n}`;
    return { id, first: `Fine${n}`, last: `Lowe${n}`, email: `t${n}@members.lanternferry.test`, news: 'yes' };
  });
  desk.put(...made);
  return made;
}

const { record: recordOf } = gathering(() => house);
const saysNo = async (email: string, scope: string, on = '2026-01-05') => {
  const { id, contactPoints } = await recordOf(email);
  await house.client.post(`/api/supporters/${id}/permission`, {
    ...{ contactPointId: contactPoints[0]!.id, channel: 'email', scope, state: 'no', how: 'phone', on },
    words: 'Said so on the telephone to June.',
  });
};
const when = { atOnce: false, every: { unit: 'days' as const, n: 1, at: 120 }, zone: null };
const heard = (count: number) =>
  eventually(
    `${count} noes over there`,
    () => desk.heard,
    (noes) => noes.length >= count,
  );

test('a no here is told over there once, to whom it is about and what it is about', async () => {
  const listId = await list();
  const [ada, bram] = fresh(2);
  const id = await feed(sourceId, membersOnto(listId, { tell: true, when }));
  await turn(id, 'on');
  await lastRun(id);
  await saysNo(ada!.email, `list:${listId}`);
  await saysNo(bram!.email, 'all');
  const noes = await heard(2);
  expect(noes.map((no) => [no.id, no.channel])).toEqual([
    [ada!.id, 'email'],
    [bram!.id, 'email'],
  ]);
  expect(noes[0]!.about).toMatch(/^Feed list/);
  expect(new Set(noes.map(({ key }) => key)).size).toBe(2);
  await run(id);
  expect((await show(id)).telling).toEqual({ told: 2, waiting: 0, problem: null });
  expect(desk.heard).toHaveLength(2);
  await turn(id, 'off');
});

test('a no of before somebody came from there is told when they come; what came from there is not', async () => {
  const listId = await list();
  const [ada, bram] = fresh(2);
  const quiet = await feed(sourceId, membersOnto(listId));
  await run(quiet);
  await saysNo(ada!.email, 'all');
  desk.put({ ...bram!, news: 'no' });
  const id = await feed(sourceId, membersOnto(listId, { tell: true, when }));
  await turn(id, 'on');
  await lastRun(id);
  await heard(1);
  await run(id);
  expect(desk.heard.map((no) => no.id)).toEqual([ada!.id]);
  await turn(id, 'off');
});

test('where it does not answer the noes wait in their order, and none is lost', async () => {
  const listId = await list();
  const [ada, bram] = fresh(2);
  const id = await feed(sourceId, membersOnto(listId, { tell: true, when }));
  await turn(id, 'on');
  await lastRun(id);
  desk.instead = (request, response) =>
    request.url!.startsWith('/v1/refusals') && (response.writeHead(503).end(), true);
  await saysNo(ada!.email, 'all');
  await saysNo(bram!.email, 'all');
  await eventually(
    'a first try',
    () => show(id),
    ({ telling }) => telling.problem !== null,
  );
  const waiting = await house.client.get<FeedNotice[]>(`/api/feeds/${id}/notices`);
  expect(waiting.map(({ record, words, attempts }) => [record, words, attempts])).toEqual([
    [ada!.id, 'email: everything', 1],
    [bram!.id, 'email: everything', 0],
  ]);
  expect(waiting[0]!.problem).toMatch(/the status 503/);
  desk.instead = null;
  await house.database.unscoped()('feed_notice').where({ feed_id: id }).update({ next_at: new Date() });
  await heard(2);
  expect(desk.heard.map((no) => no.id)).toEqual([ada!.id, bram!.id]);
  await turn(id, 'off');
});
