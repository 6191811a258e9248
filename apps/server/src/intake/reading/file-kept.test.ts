import type { BatchView } from '@goodword/core/contract';
import { gathering, HEAD } from '../../testing/gathering';
import { openTestHouse, type TestHouse } from '../../testing/harness';
import { bringIn } from '../../testing/steps';
import { RetentionService } from '../retention/retention.service';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { find } = gathering(() => house);

describe('the file of a batch', () => {
  test('is deleted after the days set in Setup; what came of it stays', async () => {
    const batch = await bringIn(house.client, `${HEAD}kept.a.while@example.org,Ke,Pt,\n`);
    const retention = house.app.get(RetentionService);
    await house.client.put('/api/house/files', { days: 30, was: 180 });
    expect(await house.client.get('/api/house/files')).toEqual({ days: 30 });
    await retention.round(Date.now() + 10_000_000);
    expect((await house.client.get<BatchView>(`/api/batches/${batch.id}`)).fileKept).toBe(true);
    await house.database
      .unscoped()('batch')
      .where({ id: batch.id })
      .update({ created_at: new Date(Date.now() - 31 * 86_400_000) });
    await retention.round(Date.now() + 20_000_000);
    expect(await house.client.get<BatchView>(`/api/batches/${batch.id}`)).toMatchObject({
      fileKept: false,
      counts: { new: 1 },
    });
    expect((await house.client.call('GET', `/api/batches/${batch.id}/brought-in.csv`)).status).toBe(409);
    expect((await find('kept.a.while@')).length).toBe(1);
    expect(
      (await (await house.as('organizer')).call('PUT', '/api/house/files', { days: 1, was: 30 })).status,
    ).toBe(403);
  });

  test('is deleted at once when somebody in it is erased', async () => {
    const batch = await bringIn(house.client, `${HEAD}erase.me@example.org,Er,Ase,\n`);
    expect(
      (await house.client.call('DELETE', `/api/supporters/${(await find('erase.me@'))[0]!.id}`)).status,
    ).toBeLessThan(300);
    expect((await house.client.get<BatchView>(`/api/batches/${batch.id}`)).fileKept).toBe(false);
  });
});

test('what changed more than a day ago is forgotten by whoever follows it; what changed since is kept', async () => {
  const db = house.database.read(house.scope);
  const entries = () =>
    db.sql<{ ref: number }>(
      "SELECT ref FROM change_log WHERE organization_id = :org AND what = 'tag' ORDER BY ref",
    );
  await house.database.writeUnlogged(house.scope, async (tx) => {
    await tx.insert('change_log', { what: 'tag', ref: 901, at: new Date(Date.now() - 25 * 3_600_000) });
    await tx.insert('change_log', { what: 'tag', ref: 902, at: new Date(Date.now() - 23 * 3_600_000) });
  });
  await house.app.get(RetentionService).round(Date.now() + 90_000_000);
  expect(await entries()).toEqual([{ ref: 902 }]);
});
