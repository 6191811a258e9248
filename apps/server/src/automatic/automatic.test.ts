import { isoDay } from '@goodword/core/common';
import type {
  AutomationLook,
  MessageResults,
  Page,
  ResultPerson,
  TimelineItem,
  VisitRow,
} from '@goodword/core/contract';
import { AT_ONCE, automaticMessages } from '../testing/automatic-messages';
import { eventually, houseDay, openTestHouse, pause, rulesOfTests, type TestHouse } from '../testing/harness';
import { messageAt } from '../testing/steps';
import { LeavingService } from './leaving.service';
import { RoundsService } from './rounds.service';
import { TakingUpService } from './taking-up.service';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const { counted, give, leaveAt, lookIn, make, next, off, on, people, putOn, show, step, tag, visits, write } =
  automaticMessages(() => house);

test('a thank-you for each gift of at least a dollar, from when it is on, and not for those before', async () => {
  const { ids, mailsTo } = await people(3);
  await give(ids[0]!, 5000);
  const id = await make({ kind: 'gift', which: 'any', atLeast: 100 });
  await step(id, 'Thank you for it', AT_ONCE, 'service');
  expect((await on(id)).status).toBe(204);
  await give(ids[1]!, 2500);
  await give(ids[1]!, 2600);
  await give(ids[2]!, 99);
  // Written down today, given before it was on.
  await give(ids[2]!, 9900, houseDay(-3));
  await counted(id, { done: 2 });
  await eventually(
    'two mails',
    () => mailsTo(1).length,
    (n) => n === 2,
  );
  expect([mailsTo(0).length, mailsTo(2).length]).toEqual([0, 0]);
  // Their history says what sent it.
  const history = await house.client.get<TimelineItem[]>(`/api/supporters/${ids[1]}/timeline?kinds=delivery`);
  expect(history.map(({ detail }) => detail)).toContain(`By email, by itself: “${(await show(id)).name}”`);
  // RFC 3834 §5: a machine sent it, and none is to answer.
  expect(mailsTo(1)[0]!.raw).toMatch(/^Auto-Submitted: auto-generated\r?$/m);
  const whole = await show(id);
  expect(whole.words).toBe('a gift of at least $1 arrives');
  const [only] = whole.steps;
  expect(only).toMatchObject({ went: 2 });
  await messageAt(house.client, only!.messageId, 'standing');
  await off(id);
});

test('what happened before is taken up where that is asked for, and as many as were seen', async () => {
  const { ids, mailsTo } = await people(2);
  const tagId = await tag('crew');
  await putOn(ids[0]!, tagId);
  const id = await make({ kind: 'tag', tagId, by: null });
  await step(id, 'Welcome aboard');
  const look = () => house.client.get<AutomationLook>(`/api/automations/${id}/look?days=7`);
  expect(await look()).toEqual({ lacks: [], people: 1, month: 1 });
  await putOn(ids[1]!, tagId);
  const answer = await on(id, { days: 7, people: 1 });
  expect([answer.status, answer.body.detail]).toEqual([
    409,
    'It is another number of people now: 2. Look again.',
  ]);
  expect((await on(id, { days: 7, people: 2 })).status).toBe(204);
  await counted(id, { done: 2 });
  await eventually(
    'a mail each',
    () => [mailsTo(0).length, mailsTo(1).length].join(),
    (n) => n === '1,1',
  );
  // Off the crew and on it again: once is once.
  await house.client.call('DELETE', `/api/supporters/${ids[0]}/tags/${tagId}`);
  await putOn(ids[0]!, tagId);
  await pause(1500);
  expect((await show(id)).counts).toMatchObject({ done: 2, waiting: 0 });
  await off(id);
});

test('a series stops for whoever gives; whoever does not gets the next on its day', async () => {
  const { ids, mailsTo } = await people(3);
  const tagId = await tag('welcome');
  const id = await make({ kind: 'tag', tagId, by: null }, { stops: ['gave'] });
  await step(id, 'Welcome');
  await step(id, 'What we do', { n: 2, unit: 'days', at: null });
  await on(id);
  for (const one of ids) await putOn(one, tagId);
  await eventually(
    'the first to all',
    () => [0, 1, 2].map((i) => mailsTo(i).length).join(),
    (n) => n === '1,1,1',
  );
  await give(ids[1]!, 700);
  // A day later nothing; somebody is taken out; after the two days it leaves.
  expect(await leaveAt(id, new Date(Date.now() + DAY_MS))).toBe(0);
  const waiting = await visits(id, 'waiting');
  expect(waiting.map(({ next }) => next)).toEqual(Array(3).fill('What we do'));
  const third = waiting.find(({ supporterId }) => supporterId === ids[2])!;
  expect(await house.client.post(`/api/automations/${id}/take-out`, { ids: [third.id] })).toEqual({
    people: 1,
  });
  expect(await leaveAt(id, new Date(Date.now() + 2 * DAY_MS + HOUR_MS))).toBe(2);
  await eventually(
    'the second',
    () => mailsTo(0).length,
    (n) => n === 2,
  );
  const ended = await visits(id, 'ended');
  expect(ended.map(({ supporterId, why }) => [supporterId, why]).sort()).toEqual(
    [
      [ids[1], 'gave'],
      [ids[2], 'taken-out'],
    ].sort(),
  );
  expect([mailsTo(1).length, mailsTo(2).length]).toEqual([1, 1]);
  await off(id);
});

test('what is excepted, and what is no longer so, gets nothing and says why', async () => {
  const { ids, mailsTo } = await people(3);
  const [tagId, thanked] = [await tag('pledged'), await tag('thanked')];
  const unless = { kind: 'tag' as const, tagId: thanked, has: true };
  const id = await make({ kind: 'tag', tagId, by: null }, { unless });
  await step(id, 'About your pledge', { n: 2, unit: 'hours', at: null });
  expect((await show(id)).unlessWords).toMatch(/have the tag thanked/);
  await on(id);
  for (const one of ids) await putOn(one, tagId);
  await counted(id, { waiting: 3 });
  await putOn(ids[1]!, thanked);
  await house.client.call('DELETE', `/api/supporters/${ids[2]}/tags/${tagId}`);
  await leaveAt(id, new Date(Date.now() + 3 * HOUR_MS));
  await eventually(
    'one mail',
    () => mailsTo(0).length,
    (n) => n === 1,
  );
  const ended = Object.fromEntries((await visits(id, 'ended')).map((one) => [one.supporterId, one.why]));
  expect(ended).toEqual({ [ids[1]!]: 'excepted', [ids[2]!]: 'cause-gone' });
  // Neither tag can go while it is said here.
  for (const one of [tagId, thanked]) {
    const gone = await house.client.call<{ detail: string }>('DELETE', `/api/tags/${one}`);
    expect([gone.status, gone.body.detail]).toEqual([409, expect.stringContaining('automatic message')]);
  }
  await off(id);
});

test('a pile waits for a look, whole; let go by the number that was seen, each gets it once', async () => {
  const pile = 4;
  await house.client.put('/api/house-rules', await rulesWith(pile));
  const { ids, mailsTo } = await people(6);
  const tagId = await tag('pier');
  const id = await make({ kind: 'tag', tagId, by: null });
  await step(id, 'At the pier');
  await on(id);
  await house.client.post('/api/bulk', { group: { ids }, act: { do: 'tag', on: true, tagId } });
  await counted(id, { held: 6 });
  await pause(1200);
  expect(ids.map((_id, i) => mailsTo(i).length)).toEqual([0, 0, 0, 0, 0, 0]);
  const letGo = (seen: number) =>
    house.client.call<{ detail: string }>('POST', `/api/automations/${id}/let-go`, { people: seen });
  expect((await letGo(5)).status).toBe(409);
  // From two windows at once: one lets them go, the other finds none.
  const both = await Promise.all([letGo(6), letGo(6)]);
  expect(both.map(({ status }) => status).sort()).toEqual([204, 409]);
  await counted(id, { done: 6 });
  await eventually(
    'one each',
    () => ids.map((_id, i) => mailsTo(i).length).join(),
    (n) => n === '1,1,1,1,1,1',
  );
  await off(id);
  await house.client.put('/api/house-rules', await rulesWith(200));
});

async function rulesWith(pile: number) {
  const { version } = await house.client.get<{ version: number }>('/api/house-rules');
  return { rules: { ...rulesOfTests(), pile }, basedOn: version };
}

test('a birthday of 29 February comes on the 28th in other years, once in each', async () => {
  const { ids, mailsTo } = await people(2);
  const { id: fieldId } = await house.client.post<{ id: number }>('/api/fields', {
    ...{ name: `Born ${next()}`, type: 'birthday' },
  });
  const set = (person: number, value: string) =>
    house.client.put(`/api/supporters/${person}/fields/${fieldId}`, { text: value });
  await set(ids[0]!, '29 February');
  await set(ids[1]!, '1 March');
  const id = await make({ kind: 'date', fieldId, days: 0, yearly: true });
  await step(id, 'Happy birthday', { n: 0, unit: 'days', at: 600 });
  await on(id);
  const lookAt = async (day: string) => {
    const at = new Date(`${day}T20:00:00Z`);
    await house.app.get(TakingUpService).look(house.scope, id, at);
    await house.app.get(LeavingService).leave(house.scope, id, at);
  };
  // Looked at on every day, as the worker does; 2027 is no leap year, 2028 is one.
  await lookAt('2027-02-28');
  await lookAt('2027-02-28');
  await eventually(
    'in 2027',
    () => mailsTo(0).length,
    (n) => n === 1,
  );
  await lookAt('2028-02-28');
  expect((await visits(id, 'done')).filter(({ supporterId }) => supporterId === ids[0])).toHaveLength(1);
  await lookAt('2028-02-29');
  await eventually(
    'in 2028',
    () => mailsTo(0).length,
    (n) => n === 2,
  );
  expect((await visits(id, 'done')).map(({ causedAt }) => causedAt.slice(0, 10))).toContain('2028-02-29');
  await off(id);
});

test('while nobody looked for days, each day is looked at afterwards; a date is met ahead', async () => {
  const { ids } = await people(1);
  const { id: fieldId } = await house.client.post<{ id: number }>('/api/fields', {
    ...{ name: `Renews ${next()}`, type: 'date' },
  });
  const today = Math.floor(Date.parse(houseDay()) / DAY_MS);
  await house.client.put(`/api/supporters/${ids[0]}/fields/${fieldId}`, {
    text: isoDay(today + 12),
  });
  const id = await make({ kind: 'date', fieldId, days: -10, yearly: false });
  await step(id, 'It renews soon');
  await on(id);
  await eventually(
    'the worker has looked',
    () => lookIn(id, 0),
    (n) => n === 0,
  );
  expect([await lookIn(id, 1), await lookIn(id, 5), await lookIn(id, 6)]).toEqual([0, 1, 0]);
  // The field that it waits for can't go meanwhile.
  const gone = await house.client.call<{ detail: string }>('DELETE', `/api/house/fields/${fieldId}`);
  expect([gone.status, gone.body.detail]).toEqual([409, expect.stringContaining('the automatic message “')]);
  await off(id);
});

test('whoever works in one chapter sees who of it waits, and changes nothing that is of all', async () => {
  const { ids } = await people(2);
  const [east, west] = house.chapters;
  for (const [i, chapter] of [east, west].entries())
    await house.database.unscoped()('supporter').where('id', ids[i]!).update({ chapter_id: chapter! });
  const tagId = await tag('of a chapter');
  const id = await make({ kind: 'tag', tagId, by: null });
  await step(id, 'To all', { n: 5, unit: 'days', at: null });
  await on(id);
  for (const one of ids) await putOn(one, tagId);
  await counted(id, { waiting: 2 });
  const bound = await house.as('organizer', east);
  const seen = await bound.get<Page<VisitRow>>(`/api/automations/${id}/people?state=waiting`);
  expect([seen.total, seen.rows.map(({ supporterId }) => supporterId)]).toEqual([1, [ids[0]]]);
  const act = await bound.call('POST', `/api/automations/${id}/hurry`, { ids: [seen.rows[0]!.id] });
  expect(act.status).toBe(403);
  await off(id);
});

test('rounds of several workers at once write nobody down twice', async () => {
  const { ids, mailsTo } = await people(8);
  const tagId = await tag('haste');
  const id = await make({ kind: 'tag', tagId, by: null });
  await step(id, 'In haste');
  await on(id);
  await Promise.all(ids.map((one) => putOn(one, tagId)));
  const rounds = house.app.get(RoundsService);
  await Promise.all(Array.from({ length: 6 }, () => rounds.round()));
  await counted(id, { done: 8, waiting: 0 });
  await eventually(
    'one each',
    () => ids.every((_id, i) => mailsTo(i).length === 1),
    (all) => all,
  );
  await pause(800);
  expect(ids.map((_id, i) => mailsTo(i).length)).toEqual(Array(8).fill(1));
  await off(id);
});

test('it is switched on by one of two, with words that are in order; off, it changes, and goes on', async () => {
  const { ids, mailsTo } = await people(2);
  const tagId = await tag('two windows');
  const id = await make({ kind: 'tag', tagId, by: null });
  expect((await on(id)).body.detail).toBe('It has no message yet. Add one.');
  const { id: messageId } = await house.client.post<{ id: number }>(`/api/automations/${id}/steps`, {
    ...{ name: 'Not ready', channel: 'email', wait: AT_ONCE },
  });
  expect((await on(id)).body.detail).toMatch(/^In “Not ready”: /);
  // It leaves with its automatic message, and not by itself.
  expect((await house.client.call('DELETE', `/api/messages/${messageId}`)).status).toBe(409);
  await write(messageId, 'Ready');
  const { version } = await show(id);
  const press = () =>
    house.client.call('POST', `/api/automations/${id}/on`, { basedOn: version, days: 0, people: 0 });
  expect((await Promise.all([press(), press()])).map(({ status }) => status).sort()).toEqual([204, 409]);
  const change = { name: 'x', cause: { kind: 'quiet', months: 3 }, again: false, stops: [], unless: null };
  expect(
    (await house.client.call('PUT', `/api/automations/${id}`, { ...change, basedOn: version + 1 })).status,
  ).toBe(409);
  await putOn(ids[0]!, tagId);
  await eventually(
    'a mail',
    () => mailsTo(0).length,
    (n) => n === 1,
  );
  await off(id);
  await putOn(ids[1]!, tagId);
  await pause(800);
  expect(mailsTo(1)).toHaveLength(0);
  // What has gone stays as it went; others get other words.
  const { id: anew } = await house.client.post<{ id: number }>(
    `/api/automations/${id}/steps/${messageId}/anew`,
  );
  await write(anew, 'Better words');
  await messageAt(house.client, messageId, 'done');
  // Somebody came while it was off: asked for, they are taken up too.
  expect((await on(id, { days: 1, people: 1 })).status).toBe(204);
  await eventually(
    'the new words',
    () => mailsTo(1).length,
    (n) => n === 1,
  );
  expect(mailsTo(1)[0]!.raw).toContain('Better words');
  expect(mailsTo(0)).toHaveLength(1);
  await off(id);
});

test('two records that become one get a welcome once; whoever may not be written to is told by reason', async () => {
  const { ids, domain } = await people(3);
  const tagId = await tag('one person');
  const id = await make({ kind: 'tag', tagId, by: null });
  const messageId = await step(id, 'Once', { n: 1, unit: 'hours', at: null });
  await on(id);
  for (const one of ids) await putOn(one, tagId);
  await counted(id, { waiting: 3 });
  await house.client.post(`/api/supporters/${ids[0]}/merging`, { goneId: ids[1], keep: {} });
  await house.client.post('/api/do-not-contact', { lines: `p2@${domain}`, note: '' });
  await leaveAt(id, new Date(Date.now() + 2 * HOUR_MS));
  await counted(id, { done: 2, ended: 1 });
  const results = `/api/messages/${messageId}/results`;
  const { counts } = await eventually(
    'results',
    () => house.client.get<MessageResults>(results),
    (one) => one.counts.sent === 1,
  );
  expect(counts.suppressed).toBe(1);
  const held = await house.client.get<Page<ResultPerson>>(`${results}/people?kind=suppressed`);
  expect(held.rows.map(({ detail }) => detail)).toEqual(['On do-not-contact']);
  const through = Object.fromEntries((await visits(id, 'done')).map((one) => [one.supporterId, one.came]));
  expect(through).toEqual({ [ids[0]!]: 'Came to them', [ids[2]!]: 'On do-not-contact' });
  await off(id);
});
