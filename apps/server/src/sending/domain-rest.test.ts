import { PUT_OFF_IN_A_ROW } from '@goodword/core/delivery';
import { eventually, openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, send } from '../testing/steps';

let house: TestHouse;
let asked: string[];
beforeAll(async () => {
  asked = [];
  house = await openTestHouse({
    sink: {
      answer: (to) => (asked.push(to), to.endsWith('@slow.example.org') ? [451, '4.7.0 Not so fast'] : null),
    },
  });
  house.startWorker();
});
afterAll(() => house.close());

test('a mail provider that asks for a while is left alone, and the mail of the others goes on', async () => {
  const rows = Array.from(
    { length: 120 },
    (_none, i) => `p${i}@${i % 2 ? 'slow' : 'fast'}.example.org,P${i},Lee,`,
  );
  const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
  const id = await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] });
  await send(house.client, id);
  await eventually(
    'those of the other provider to have theirs',
    () => house.sink.mails.filter(({ to }) => to.endsWith('@fast.example.org')).length,
    (count) => count === 60,
  );
  const waiting = await eventually(
    'all others to wait',
    () =>
      house.database
        .unscoped()('delivery')
        .where({ message_id: id, state: 'ready' })
        .where('not_before', '>', new Date())
        .select<{ detail: string; attempts: number }[]>('detail', 'attempts'),
    (rows) => rows.length === 60,
  );
  // Those who were asked about, and side by side with them; the rest was never tried, and lost no try by it.
  const tried = waiting.filter(({ attempts }) => attempts > 0).length;
  expect(tried).toBeGreaterThanOrEqual(PUT_OFF_IN_A_ROW);
  expect(tried).toBeLessThanOrEqual(PUT_OFF_IN_A_ROW + house.config.SMTP_CONNECTIONS);
  expect(asked.filter((to) => to.endsWith('@slow.example.org')).length).toBe(tried);
  expect(waiting.filter(({ attempts }) => attempts === 0).map(({ detail }) => detail)).toContain(
    'Their mail provider asks for a while',
  );
});
