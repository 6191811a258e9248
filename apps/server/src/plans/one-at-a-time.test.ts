import type { RulesView } from '@goodword/core/contract';
import { campaignsIn } from '../testing/campaign';
import { openTestHouse, type TestHouse } from '../testing/harness';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const { campaignOf, begins, stepOf, change, go, expected, pathOf, comes, verdicts } = campaignsIn(
  () => house,
);
const ELSEWHERE = 'another appeal is asking them';

async function houseSays(oneAppeal: boolean) {
  const { version, rules } = await house.client.get<RulesView>('/api/house-rules');
  if (Boolean(rules.oneAppeal) === oneAppeal) return;
  const body = { rules: { ...rules, oneAppeal }, basedOn: version };
  expect((await house.client.call('PUT', '/api/house-rules', body)).status).toBe(200);
}
/** A second appeal to those on the roster of a first one, and to one more. */
async function twoAppeals() {
  const first = await campaignOf(3);
  const second = await campaignOf(1);
  await house.client.put(`/api/campaigns/${second.id}/roster`, {
    ...{ group: { kind: 'batch', id: first.batch }, stage: 'asked' },
  });
  for (const { id } of [first, second]) await begins(id);
  const mine = await stepOf(first.id, 0);
  await stepOf(first.id, 5);
  const theirs = await stepOf(second.id, 0);
  await stepOf(second.id, 4);
  return { first, second, mine, theirs };
}

test('whom one appeal is asking no other asks until it is over for them, if the house says so', async () => {
  const { first, second, mine, theirs } = await twoAppeals();
  await houseSays(true);
  await go(first.id);
  // Until it has come to anybody it asks nobody.
  expect((await expected(second.id)).steps[0]).toMatchObject({ group: 4, reached: 4 });
  await comes(first.id, mine);
  expect((await expected(second.id)).steps[0]).toMatchObject({
    ...{ group: 4, reached: 1, suppressed: [{ reason: 'fell-out', people: 3 }] },
  });
  expect((await pathOf(second.id, await first.idOf(0)))[0]).toContain(ELSEWHERE);
  // The first is over for whoever replied to it.
  await house.database
    .unscoped()('delivery')
    .where({ message_id: mine, supporter_id: await first.idOf(0) })
    .update({ replied: 1 });
  await go(second.id);
  await comes(second.id, theirs);
  expect((await verdicts(theirs)).sort()).toEqual([ELSEWHERE, ELSEWHERE, 'send', 'send'].sort());
  // The first goes on with those whom it began with.
  expect((await expected(first.id)).steps[0]).toMatchObject({ group: 3, reached: 2 });
  await houseSays(false);
  expect((await expected(second.id)).steps[0]).toMatchObject({ group: 4, reached: 4 });
});

test('of two that were written down for somebody the later one is held at the door', async () => {
  const { first, second, mine, theirs } = await twoAppeals();
  await houseSays(false);
  // By their own clock: both are written down now, and due tomorrow.
  await change(first.id, mine, { day: 0, ownTime: true });
  await change(second.id, theirs, { day: 0, ownTime: true });
  await go(first.id);
  await go(second.id);
  await comes(first.id, mine, 'sending');
  await comes(second.id, theirs, 'sending');
  await houseSays(true);
  for (const [id, step] of [
    [second.id, theirs],
    [first.id, mine],
  ] as const) {
    await house.database.unscoped()('delivery').where('message_id', step).update({ not_before: null });
    await comes(id, step);
  }
  expect((await pathOf(first.id, await first.idOf(0)))[0]).toBe('send: Came to them');
  expect((await pathOf(second.id, await first.idOf(0)))[0]).toContain(ELSEWHERE);
});

test('what is no appeal asks nobody, and waits for none', async () => {
  const { first, second, mine, theirs } = await twoAppeals();
  await houseSays(true);
  await go(first.id);
  await comes(first.id, mine);
  await house.database.unscoped()('campaign').where('id', second.id).update({ kind: 'update' });
  expect((await expected(second.id)).steps[0]).toMatchObject({ messageId: theirs, group: 4, reached: 4 });
});
