import { addMonths, isoDay } from '@goodword/core/common';
import type { RulesView } from '@goodword/core/contract';
import { automaticMessages } from '../testing/automatic-messages';
import { houseDay, openTestHouse, pause, type TestHouse } from '../testing/harness';
import { draftEmail, NOTHING, send } from '../testing/steps';
import { mailTo, openFormAs, personBy, Visitor } from '../testing/supporter';

/*
 * Each cause by the way in which it happens to a house: a form that is confirmed, a number that is texted, a
 * link that is clicked, a day that comes. What is told of each is what its sentence says.
 */

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const DAY_MS = 86_400_000;
/** Whole years that keep 29 February: so many months on and back come to the same day. */
const MONTHS = 48;
const { counted, give, leaveAt, lookIn, make, off, on, people, putOn, show, step, tag, visits } =
  automaticMessages(() => house);
const LATER = { n: 2, unit: 'days', at: null } as const;
/** How many it was set going for, once everything that happened has been looked at. */
async function taken(id: number): Promise<number> {
  await pause(1500);
  const { waiting, done, ended, held } = (await show(id)).counts;
  return waiting + done + ended + held;
}
const today = () => Math.floor(Date.parse(houseDay()) / DAY_MS);

test('a form that asks to confirm sets it going when that is confirmed, and once', async () => {
  const form = await openFormAs(house.client, 'Quay letters', (made) => ({
    ...made,
    confirm: { ...made.confirm, email: 'always' },
  }));
  const other = await openFormAs(house.client, 'Other letters');
  const id = await make({ kind: 'form', formId: form.id });
  await step(id, 'Welcome from the quay', LATER);
  expect((await show(id)).words).toBe('somebody joins by “Quay letters”');
  await on(id);
  const visitor = new Visitor(house.config.PUBLIC_URL);
  const join = (slug: string, email: string) =>
    visitor.post(`/join/${slug}`, { firstName: 'Nell', lastName: 'Quay', email, agree_0: '1' });
  await join(form.slug, 'nell.quay@example.org');
  await join(other.slug, 'orla.pier@example.org');
  const { link } = await mailTo(house, 'nell.quay@example.org', '/confirm');
  expect(await taken(id)).toBe(0);
  await visitor.post(link, {});
  await visitor.post(link, {});
  await counted(id, { waiting: 1 });
  await join(form.slug, 'nell.quay@example.org');
  expect(await taken(id)).toBe(1);
  const [only] = await visits(id, 'waiting');
  expect(only!.supporterId).toBe((await personBy(house.client, 'nell.quay@')).id);
  await off(id);
});

test('a stage that somebody comes to, by hand or with a group; whoever has gone on by then gets nothing', async () => {
  const { ids } = await people(3);
  const { id: campaignId } = await house.client.post<{ id: number }>('/api/campaigns', {
    ...{ name: 'A dry hull', kind: 'appeal', appealCode: 'HULL', stages: ['asked', 'pledged', 'gave'] },
  });
  const put = (some: readonly number[], stage: string) =>
    house.client.put(`/api/campaigns/${campaignId}/roster`, { group: { ids: some }, stage });
  const id = await make({ kind: 'stage', campaignId, stage: 'pledged' });
  await step(id, 'About your pledge', LATER);
  await on(id);
  await put(ids, 'asked');
  expect(await taken(id)).toBe(0);
  await put(ids.slice(0, 2), 'pledged');
  await counted(id, { waiting: 2 });
  await put([ids[1]!], 'gave');
  await put([ids[0]!], 'pledged');
  expect(await taken(id)).toBe(2);
  await leaveAt(id, new Date(Date.now() + 3 * DAY_MS));
  await counted(id, { done: 1, ended: 1 });
  expect((await visits(id, 'ended')).map(({ supporterId, why }) => [supporterId, why])).toEqual([
    [ids[1], 'cause-gone'],
  ]);
  await off(id);
});

test('months without a word: on the day that they are over, and not where something came meanwhile', async () => {
  const { ids } = await people(4);
  const over = today() + 3;
  const last = addMonths(over, -MONTHS);
  await give(ids[0]!, 2000, isoDay(last));
  await give(ids[1]!, 2000, isoDay(last));
  await give(ids[2]!, 2000, isoDay(last));
  await give(ids[2]!, 500, isoDay(last + 40));
  const id = await make({ kind: 'quiet', months: MONTHS });
  await step(id, 'Do you still want to hear from us?', LATER);
  await on(id);
  expect(await taken(id)).toBe(0);
  // ids[3] has never done anything: of them nothing has gone by.
  expect([await lookIn(id, 2), await lookIn(id, 3), await lookIn(id, 4)]).toEqual([0, 2, 0]);
  await give(ids[1]!, 700);
  await leaveAt(id, new Date(Date.now() + 6 * DAY_MS));
  await counted(id, { done: 1, ended: 1 });
  expect((await visits(id, 'ended')).map(({ supporterId, why }) => [supporterId, why])).toEqual([
    [ids[1], 'cause-gone'],
  ]);
  await off(id);
});

test('a word that is texted, alone and however it is written; each time, and once for each text', async () => {
  const { ids, mobiles } = await people(2);
  const id = await make({ kind: 'keyword', word: 'Planks' });
  await step(id, 'What a plank costs', LATER);
  await on(id);
  let n = 0;
  const text = (from: string, words: string, key = `word-${++n}`) =>
    house.client.hook({ type: 'inbound', id: key, from, to: '+12065550100', text: words });
  await text(mobiles[0]!, '  planks! ');
  await text(mobiles[1]!, 'I love planks');
  await text(mobiles[1]!, 'plank');
  await counted(id, { waiting: 1 });
  // The gateway tells the same text again; another is another.
  await text(mobiles[0]!, '  planks! ', 'word-1');
  expect(await taken(id)).toBe(1);
  await text(mobiles[0]!, 'PLANKS');
  await counted(id, { waiting: 2 });
  expect((await visits(id, 'waiting')).map(({ supporterId }) => supporterId)).toEqual([ids[0], ids[0]]);
  await off(id);
});

test('a link that is clicked, and no opened mail; never twice for anybody, whatever is said', async () => {
  const { ids, domain } = await people(2);
  const tagId = await tag('who gets it');
  for (const one of ids) await putOn(one, tagId);
  const messageId = await draftEmail(house.client, { from: [{ kind: 'tag', id: tagId }] });
  const id = await make({ kind: 'click', messageId }, { again: true });
  await step(id, 'More about the hull', LATER);
  await on(id);
  await send(house.client, messageId);
  const linkTo = async (i: number, path: string) =>
    (await mailTo(house, `p${i}@${domain}`, path)).link.replace(/^.*\d(?=\/)/, '');
  await house.client.call('GET', `${await linkTo(0, '/o')}.gif`);
  expect(await taken(id)).toBe(0);
  const follow = await linkTo(1, '/f');
  await Promise.all([1, 2].map(() => house.client.call('GET', follow)));
  await counted(id, { waiting: 1 });
  await house.client.call('GET', follow);
  expect(await taken(id)).toBe(1);
  expect((await visits(id, 'waiting')).map(({ supporterId }) => supporterId)).toEqual([ids[1]]);
  await off(id);
});

test('a permission that lapses in so many days, from the day on which that is so; not where it was renewed', async () => {
  const { rules, version } = await house.client.get<RulesView>('/api/house-rules');
  const US = rules.places.US!;
  await house.client.put('/api/house-rules', {
    rules: { ...rules, places: { ...rules.places, US: { ...US, lasts: { ...US.lasts, gift: MONTHS } } } },
    basedOn: version,
  });
  const { ids } = await people(4, { email: NOTHING, text: NOTHING });
  // Given on such days that so many months later come 5, 5, 3 and 20 days from now.
  const lapsing = [5, 5, 3, 20];
  for (const [i, person] of ids.entries())
    await give(person, 3000, isoDay(addMonths(today() + lapsing[i]!, -MONTHS)));
  const id = await make({ kind: 'lapses', channel: 'email', scope: 'appeals', days: 5 });
  await step(id, 'May we go on writing?', LATER, 'appeals');
  await on(id);
  await counted(id, { waiting: 2 });
  expect(await taken(id)).toBe(2);
  await give(ids[1]!, 100);
  await leaveAt(id, new Date(Date.now() + 3 * DAY_MS));
  await counted(id, { done: 1, ended: 1 });
  expect((await visits(id, 'ended')).map(({ supporterId, why }) => [supporterId, why])).toEqual([
    [ids[1], 'cause-gone'],
  ]);
  await off(id);
});
