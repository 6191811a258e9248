import type { DncRow, Page, SupporterRow } from '@goodword/core/contract';
import type { IntakePlan } from '@goodword/core/intake';
import { gathering, HEAD, noPermission } from '../../testing/gathering';
import { openTestHouse, type TestHouse } from '../../testing/harness';
import { batchAt, bringIn, draftEmail, lastLook, planFor, takeFile } from '../../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { find, record } = gathering(() => house);

describe('people who said no', () => {
  test('statuses become entries and holds, new addresses go on do-not-contact, nobody is brought in', async () => {
    await bringIn(
      house.client,
      `${HEAD}left@example.org,Le,Ft,\nbounced@example.org,Bo,Unced,\nspam@example.org,Sp,Am,\nfine@example.org,Fi,Ne,\n`,
    );
    const before = (await house.client.get<Page<SupporterRow>>('/api/supporters?limit=1')).total;
    const plan: Partial<IntakePlan> = {
      what: 'refusals',
      columns: [{ to: 'email' }, { to: 'status' }],
      permission: noPermission,
    };
    const csv =
      'Email,Status\nleft@example.org,Unsubscribed\nbounced@example.org,Hard bounce\nspam@example.org,Marked as spam\nfine@example.org,Subscribed\nnever.here@example.org,opted out\nhuh@example.org,maybe\n';
    const batch = await bringIn(house.client, csv, plan);
    expect(batch.counts).toEqual({ no: 3, hold: 1, aside: 1, failed: 1 });
    expect((await house.client.get<Page<SupporterRow>>('/api/supporters?limit=1')).total).toBe(before);
    expect((await find('left@'))[0]!.may.email).toBe('no');
    expect((await record('bounced@')).contactPoints[0]).toMatchObject({
      onHold: true,
      holdReason: expect.stringContaining('another system') as string,
    });
    expect(await record('spam@')).toMatchObject({
      contactPoints: [{ onHold: true }],
      entries: expect.arrayContaining([
        expect.objectContaining({ state: 'no', how: 'complaint' }),
      ]) as unknown,
    });
    expect((await find('fine@'))[0]!.may.email).toBe('yes');
    expect(
      (await house.client.get<Page<DncRow>>('/api/do-not-contact?search=never.here@')).rows,
    ).toMatchObject([{ shown: 'never.here@example.org', how: 'file' }]);
    const later = await bringIn(house.client, `${HEAD}never.here@example.org,Ne,Ver,\n`);
    expect(
      (
        await lastLook(
          house.client,
          await draftEmail(house.client, { from: [{ kind: 'batch', id: later.id }] }),
        )
      ).suppressed,
    ).toEqual([{ reason: 'do-not-contact', people: 1 }]);
    await house.client.post(`/api/batches/${batch.id}/take-out`);
    await batchAt(house.client, batch.id, 'taken-out');
    expect((await record('bounced@')).contactPoints[0]!.onHold).toBe(false);
    expect((await find('left@'))[0]!.may.email).toBe('no');
  });

  test('without a column of statuses, what they did is asked', async () => {
    const id = await takeFile(house.client, 'Email\nwho@example.org\n');
    const plan = planFor({ what: 'refusals', columns: [{ to: 'email' }], permission: noPermission });
    expect(
      (await house.client.call<{ detail: string }>('PUT', `/api/batches/${id}/plan`, plan)).body.detail,
    ).toMatch(/Say what these people did/);
    expect(
      (await house.client.call('PUT', `/api/batches/${id}/plan`, { ...plan, refusal: 'left' })).status,
    ).toBe(202);
  });
});
