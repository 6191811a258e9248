import type { BatchView } from '@goodword/core/contract';
import type { ColumnChoice, IntakePlan } from '@goodword/core/intake';
import { gathering, HEAD, noPermission } from '../../testing/gathering';
import { openTestHouse, type TestHouse } from '../../testing/harness';
import { batchAt, bringIn } from '../../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { record, checked, allIn } = gathering(() => house);

describe('gifts', () => {
  const columns: ColumnChoice[] = [
    { to: 'email' },
    { to: 'firstName' },
    { to: 'lastName' },
    { to: 'amount' },
    { to: 'givenOn', order: 'day-first' },
    { to: 'giftId' },
    { to: 'appeal' },
    { to: 'rhythm' },
  ];
  const header = 'Email,First,Last,Amount,Date,Id,Appeal,Type\n';
  const plan: Partial<IntakePlan> = { what: 'gifts', columns, permission: noPermission };

  test('are matched to people, doubles by own id are told, refunds and currencies are read, strangers are left or brought in', async () => {
    await bringIn(house.client, `${HEAD}giver@example.org,Gia,Lin,\n`, { permission: noPermission });
    const csv = `${header}giver@example.org,Gia,Lin,"$1,250.50",14/02/2026,G1,HULL26,single\ngiver@example.org,Gia,Lin,(25.00),15/02/2026,G2,,refund\ngiver@example.org,Gia,Lin,€ 30,16/02/2026,G3,,monthly\ngiver@example.org,Gia,Lin,30,17/02/2026,G3,,\nstranger@example.org,Stu,Ranger,10,18/02/2026,G4,,\ngiver@example.org,Gia,Lin,nothing,19/02/2026,G5,,\n`;
    const batch = await bringIn(house.client, csv, plan);
    expect(batch.counts).toEqual({ gift: 3, doubled: 1, failed: 2 });
    expect(batch.will?.giftsTotal).toEqual([
      { currency: 'USD', minor: 122_550 },
      { currency: 'EUR', minor: 3000 },
    ]);
    expect((await record('giver@')).gifts.map((gift) => [gift.amount, gift.on])).toEqual([
      [3000, '2026-02-16'],
      [-2500, '2026-02-15'],
      [125_050, '2026-02-14'],
    ]);
    expect((await record('giver@')).entries.find((entry) => entry.how === 'gift')).toMatchObject({
      state: 'implied',
      scope: 'marketing',
    });
    expect((await bringIn(house.client, csv, plan)).counts).toEqual({ doubled: 4, failed: 2 });
    const again = await bringIn(
      house.client,
      `${header}stranger@example.org,Stu,Ranger,10,18/02/2026,G4,,\n`,
      { ...plan, strangers: 'bring-in' },
    );
    expect(again.counts).toEqual({ new: 1 });
    expect((await record('stranger@')).consent.filter((one) => one.state === 'yes')).toEqual([]);
    await house.client.post(`/api/batches/${batch.id}/take-out`);
    await batchAt(house.client, batch.id, 'taken-out');
    expect((await record('giver@')).gifts).toEqual([]);
  });

  test('a gift whose giver somebody has looked at is recorded, once', async () => {
    const byPost: ColumnChoice[] = [
      { to: 'firstName' },
      { to: 'lastName' },
      { to: 'postcode' },
      { to: 'amount' },
      { to: 'givenOn', order: 'day-first' },
    ];
    const home: ColumnChoice[] = [
      { to: 'email' },
      { to: 'firstName' },
      { to: 'lastName' },
      { to: 'postcode' },
    ];
    await bringIn(house.client, 'Email,First,Last,Zip\nchecks@example.org,Chike,Okafor,98107\n', {
      columns: home,
      permission: noPermission,
    });
    const csv =
      'First,Last,Zip,Amount,Date\nChike,Okafor,98107,40,14/02/2026\nChike,Okafor,98107,15,16/02/2026\n';
    const batch = await checked(csv, { ...plan, columns: byPost });
    expect([batch.counts, batch.looks]).toEqual([{ look: 2 }, { 'same-name': 2 }]);
    await house.client.post(`/api/batches/${batch.id}/decisions`, { why: 'same-name', as: 'merge' });
    expect((await house.client.get<BatchView>(`/api/batches/${batch.id}`)).counts).toEqual({ gift: 2 });
    await allIn(batch.id);
    const given = [
      [1500, '2026-02-16'],
      [4000, '2026-02-14'],
    ];
    expect((await record('checks@')).gifts.map((gift) => [gift.amount, gift.on])).toEqual(given);
    const again = await checked(csv, { ...plan, columns: byPost });
    await house.client.post(`/api/batches/${again.id}/decisions`, { rows: [1, 2], as: 'merge' });
    expect((await house.client.get<BatchView>(`/api/batches/${again.id}`)).counts).toEqual({ doubled: 2 });
    await allIn(again.id);
    expect((await record('checks@')).gifts.map((gift) => [gift.amount, gift.on])).toEqual(given);
  });
});
