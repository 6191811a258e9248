import type { MessageResults } from '@goodword/core/contract';
import { eventually, openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftText, messageAt, resultsOf, send } from '../testing/steps';
import { personBy } from '../testing/supporter';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

/** A text to people by their first names; gives the message, and the key of each one's text. */
async function texted(...names: string[]): Promise<{ id: number; keyOf: (name: string) => string }> {
  const numbers = new Map(
    names.map((name, i) => [name, `+12065550${String(100 + i + next).padStart(3, '0')}`]),
  );
  next += names.length;
  const rows = names.map((name) => `,${name},Lee,${numbers.get(name)!}`);
  const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
  const id = await draftText(house.client, { from: [{ kind: 'batch', id: batch.id }] }, 'Two planks left');
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  const keyOf = (name: string) =>
    house.gateway.texts.filter(({ to }) => to === numbers.get(name)).at(-1)!.key;
  return { id, keyOf };
}
let next = 0;
const receipt = (key: string, rest: object) =>
  house.client.hook({ type: 'receipt', id: crypto.randomUUID(), key, status: 'failed', ...rest });
const held = async (name: string) => (await personBy(house.client, name)).contactPoints[0]!.onHold;
const counts = async (id: number): Promise<MessageResults['counts']> =>
  (await resultsOf(house.client, id)).counts;

test('a number that is nobody’s is held, and one that is only off is there tomorrow', async () => {
  const { id, keyOf } = await texted('Gone', 'Away', 'Late', 'Silent');
  await receipt(keyOf('Gone'), { code: '1', reason: '' });
  await receipt(keyOf('Away'), { code: '27', reason: 'Absent subscriber' });
  await receipt(keyOf('Late'), { reason: 'Validity period expired' });
  await receipt(keyOf('Silent'), {});
  expect([await held('Gone'), await held('Away'), await held('Late'), await held('Silent')]).toEqual([
    ...[true, false, false, false],
  ]);
  expect(await counts(id)).toMatchObject({ bounced: 4 });
});

test('a receipt that comes twice, and one that is overtaken by a failure, count once', async () => {
  const { id, keyOf } = await texted('Twice', 'Other');
  await receipt(keyOf('Twice'), { reason: 'Handset switched off' });
  await receipt(keyOf('Twice'), { reason: 'Handset switched off' });
  await receipt(keyOf('Other'), { status: 'delivered' });
  await receipt(keyOf('Other'), { status: 'delivered' });
  expect(await counts(id)).toMatchObject({ bounced: 1, delivered: 1 });
});

test('texts that carriers filter hold no number, and pause what is still leaving', async () => {
  await house.client.put('/api/sender/number', { kind: 'long', registration: null, perSecond: 4 });
  const names = Array.from({ length: 16 }, (_none, i) => `Filtered${i}`);
  const rows = names.map((name, i) => `,${name},Lee,+1206555${String(140 + i).padStart(4, '0')}`);
  const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
  const id = await draftText(house.client, { from: [{ kind: 'batch', id: batch.id }] }, 'Planks again');
  await send(house.client, id);
  const first = await eventually(
    'three to have left',
    // Without the test that went to the owner.
    () =>
      house.gateway.texts
        .filter(({ to, text }) => text.includes('Planks again') && to.startsWith('+120655501'))
        .filter(({ to }) => to !== '+12065550111'),
    (texts) => texts.length >= 3,
  );
  for (const { key } of first.slice(0, 3)) await receipt(key, { reason: 'Filtered as spam by the carrier' });
  await messageAt(house.client, id, 'paused', 20);
  expect((await resultsOf(house.client, id)).message.pausedWhy).toContain('Filtered as spam');
  expect(await held('Filtered0')).toBe(false);
});
